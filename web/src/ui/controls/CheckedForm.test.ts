// @vitest-environment happy-dom
/** A form that a schema checks, as a person meets it. */
import { inviteSchema } from '@vocabula/contract/forms';
import { flushPromises, mount, type VueWrapper } from '@vue/test-utils';
import InputText from 'primevue/inputtext';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { defineComponent, type Component } from 'vue';
import CheckedForm from './CheckedForm.vue';
import FieldRow from './FieldRow.vue';
import PushButton from './PushButton.vue';

let wrapper: VueWrapper;
afterEach(() => wrapper.unmount());
const EMPTY: Record<string, unknown> = { name: '', address: '', role: 'colleague' };
function show(send: (values: unknown) => Promise<unknown>, initial = EMPTY): VueWrapper {
  wrapper = mount(
    defineComponent({
      components: { CheckedForm: CheckedForm as unknown as Component, FieldRow, InputText, PushButton },
      setup: () => ({ send, inviteSchema, initial }),
      template: `<CheckedForm ref="form" v-slot="{ problemOf, busy }" :schema="inviteSchema" :initial="initial" :send="send">
        <FieldRow v-slot="{ id, describedBy }" label="Name" :problem="problemOf('name')"
          ><InputText :id="id" name="name" :aria-describedby="describedBy" /></FieldRow>
        <FieldRow v-slot="{ id, describedBy }" label="Address" :problem="problemOf('address')"
          ><InputText :id="id" name="address" :aria-describedby="describedBy" /></FieldRow>
        <input name="elsewhere" /><InputText name="no-part-of-it" />
        <PushButton type="submit" :disabled="busy">Invite</PushButton>
        <PushButton @click="$refs.form.reset()">Again</PushButton>
      </CheckedForm>`,
    }),
    { attachTo: document.body },
  );
  return wrapper;
}
const fields = (): HTMLInputElement[] => [
  ...(wrapper.element as HTMLElement).querySelectorAll<HTMLInputElement>('[name=name], [name=address]'),
];
async function type(name: string, address: string): Promise<void> {
  await wrapper.get('[name=name]').setValue(name);
  await wrapper.get('[name=address]').setValue(address);
}
async function enter(): Promise<void> {
  await wrapper.get('form').trigger('submit');
  await flushPromises();
}

describe('a form checked by a schema', () => {
  it('sends what is right, as the schema reads it', async () => {
    const send = vi.fn(() => Promise.resolve());
    show(send);
    await type(' Una Oakes ', 'una@larkmoor.example');
    await enter();
    expect(send.mock.calls).toEqual([[{ name: 'Una Oakes', address: 'una@larkmoor.example', role: 'colleague' }]]);
  });
  it('says what is wrong beside the field, described by it, and goes to the first', async () => {
    const send = vi.fn(() => Promise.resolve());
    show(send);
    await type('', 'nowhere');
    await enter();
    expect(send).not.toHaveBeenCalled();
    const words = fields().map(({ attributes }) => {
      const id = attributes.getNamedItem('aria-describedby')?.value;
      return id ? document.getElementById(id)?.textContent : undefined;
    });
    expect(words).toEqual(['⚠ say who it is', '⚠ is no address']);
    expect(document.activeElement?.getAttribute('name')).toBe('name');
  });
  it('says what is wrong with something that has no field', async () => {
    const send = vi.fn(() => Promise.resolve());
    show(send, { name: '', address: '', role: 'gardener' });
    await type('Una', 'una@larkmoor.example');
    await enter();
    expect(send).not.toHaveBeenCalled();
    expect(wrapper.get('[role=alert]').text()).toContain('role');
  });
  it('keeps what was typed where sending fails, says why, and sends again', async () => {
    const send = vi
      .fn<() => Promise<void>>()
      .mockRejectedValueOnce(new Error('The server is away.'))
      .mockResolvedValue();
    show(send);
    await type('Una', 'una@larkmoor.example');
    await enter();
    expect(wrapper.get('[role=alert]').text()).toBe('⚠ The server is away.');
    expect(fields().map(({ value }) => value)).toEqual(['Una', 'una@larkmoor.example']);
    await enter();
    expect(send).toHaveBeenCalledTimes(2);
    expect(wrapper.find('[role=alert]').exists()).toBe(false);
  });
  it('sends once while it is under way', async () => {
    const done: (() => void)[] = [];
    const send = vi.fn(() => new Promise<void>((give) => done.push(give)));
    show(send);
    await type('Una', 'una@larkmoor.example');
    await enter();
    await enter();
    expect(send).toHaveBeenCalledTimes(1);
    expect(wrapper.get('button[type=submit]').attributes()).toHaveProperty('disabled');
    done[0]?.();
    await flushPromises();
    expect(wrapper.get('button[type=submit]').attributes()).not.toHaveProperty('disabled');
  });
});
