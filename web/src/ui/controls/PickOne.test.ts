// @vitest-environment happy-dom
import { mount } from '@vue/test-utils';
import { describe, expect, it, vi } from 'vitest';
import { h, nextTick, ref, defineComponent } from 'vue';
import PickOne from './PickOne.vue';
import { writtenOptions } from './writtenOptions';

describe('options as a template writes them', () => {
  it('are read through loops and conditions, with their values, words and groups', () => {
    const rows = ['a', 'b'];
    const nodes = [
      h('option', { value: '' }, 'none'),
      rows.map((value) => h('option', { value, disabled: value === 'b' || undefined }, ` ${value.toUpperCase()} `)),
      h('optgroup', { label: 'More' }, [h('option', {}, 'c')]),
      null,
      'words between',
    ];
    expect(writtenOptions(nodes)).toEqual({
      options: [
        { value: '', words: 'none', disabled: false },
        { value: 'a', words: 'A', disabled: false },
        { value: 'b', words: 'B', disabled: true },
      ],
      groups: [{ words: 'More', items: [{ value: 'c', words: 'c', disabled: false }] }],
    });
  });
});

describe('a select', () => {
  const chosen = ref('north');
  const saved = vi.fn();
  const page = defineComponent({
    components: { PickOne },
    setup: () => ({ chosen, saved }),
    template: `<form @submit.prevent="saved"><label><span>Gate</span><PickOne v-model="chosen">
      <option value="north">North gate</option><option value="river">River gate</option></PickOne></label></form>`,
  });

  it('is named by the label that it stands in, and shows the words of its value', async () => {
    const wrapper = mount(page, { attachTo: document.body });
    await nextTick();
    const field = wrapper.get('[role=combobox]');
    const label = document.getElementById(field.attributes('aria-labelledby') ?? '');
    expect([label?.textContent, field.text()]).toEqual(['Gate', 'North gate']);
    chosen.value = 'river';
    await nextTick();
    expect(field.text()).toBe('River gate');
    wrapper.unmount();
  });

  it('leaves Enter to the form while it is closed', async () => {
    const wrapper = mount(page, { attachTo: document.body });
    await wrapper.get('[role=combobox]').trigger('keydown', { key: 'Enter', code: 'Enter' });
    expect(saved).toHaveBeenCalledOnce();
    expect(document.querySelector('[role=listbox]')).toBeNull();
    wrapper.unmount();
  });
});
