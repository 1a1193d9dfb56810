// @vitest-environment happy-dom
import { mount } from '@vue/test-utils';
import { describe, expect, it } from 'vitest';
import UncertainStrip from './UncertainStrip.vue';

describe('messages that may have been sent', () => {
  const strip = () => {
    const wrapper = mount(UncertainStrip, { props: { count: 3 } });
    const [arrived, again] = wrapper.findAll('button');
    if (!arrived || !again) throw new Error('no buttons');
    return { wrapper, arrived, again, field: wrapper.get('input'), form: wrapper.get('form') };
  };
  it('go again only when their number was typed', async () => {
    const { wrapper, again, field, form } = strip();
    expect(wrapper.text()).toContain('3 may have been sent');
    expect((again.element as HTMLButtonElement).disabled).toBe(true);
    await form.trigger('submit');
    await field.setValue('2');
    await form.trigger('submit');
    expect(wrapper.emitted('settle')).toBeUndefined();
    await field.setValue(' 3 ');
    expect((again.element as HTMLButtonElement).disabled).toBe(false);
    await form.trigger('submit');
    expect(wrapper.emitted('settle')).toEqual([['again']]);
  });
  it('have arrived at one press: nothing goes', async () => {
    const { wrapper, arrived } = strip();
    await arrived.trigger('click');
    expect(wrapper.emitted('settle')).toEqual([['arrived']]);
  });
});
