// @vitest-environment happy-dom
/** The wrappers around the library's parts, as a person finds them: by role and name, with pointer and keys. */
import { flushPromises, mount, type VueWrapper } from '@vue/test-utils';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { defineComponent, nextTick, ref, type Component } from 'vue';
import ActMenu from './ActMenu.vue';
import FieldRow from './FieldRow.vue';
import { useFileChoice } from './fileChoice';
import ModalDialog from './ModalDialog.vue';
import OpenPopover from './OpenPopover.vue';
import PopForm from './PopForm.vue';
import PushButton from './PushButton.vue';
import TickBox from './TickBox.vue';
import { vTip } from './tip';
import TypeOrPick from './TypeOrPick.vue';

let wrapper: VueWrapper;
afterEach(() => {
  wrapper.unmount();
  document.body.innerHTML = '';
});
function show(template: string, state: Record<string, unknown>): VueWrapper {
  const components: Record<string, Component> = {
    ...{ ActMenu, FieldRow, ModalDialog, OpenPopover, PopForm, PushButton, TickBox, TypeOrPick },
  };
  wrapper = mount(defineComponent({ components, directives: { tip: vTip }, setup: () => state, template }), {
    attachTo: document.body,
    // Overlays tell that they are open or closed when their transition does.
    global: { stubs: { transition: false } },
  });
  return wrapper;
}
const byRole = (role: string): HTMLElement[] => [...document.querySelectorAll<HTMLElement>(`[role="${role}"]`)];
const settled = async (): Promise<void> => {
  await flushPromises();
  await nextTick();
  await flushPromises();
};

describe('a tick box', () => {
  it('is one yes or no, told by its state', async () => {
    const [on, changed] = [ref(false), vi.fn()];
    const box = show('<TickBox v-model="on" @change="changed" />', { on, changed }).get('input');
    await box.setValue(true);
    expect([on.value, changed.mock.calls]).toEqual([true, [[true]]]);
    on.value = false;
    await nextTick();
    expect(box.element.checked).toBe(false);
  });
  it('with a value is one of several, and leaves the others alone', async () => {
    const days = ref(['mon', 'wed']);
    const boxes = show(
      '<TickBox v-for="day in [\'mon\', \'tue\', \'wed\']" :key="day" v-model="days" :value="day" />',
      { days },
    ).findAll('input');
    expect(boxes.map(({ element }) => element.checked)).toEqual([true, false, true]);
    await boxes[1]?.setValue(true);
    await boxes[0]?.setValue(false);
    expect(days.value).toEqual(['wed', 'tue']);
  });
  it('that is not bound shows what it is given', async () => {
    const given = ref(true);
    const box = show('<TickBox :checked="given" aria-label="Required" />', { given }).get('input');
    expect(box.element.checked).toBe(true);
    given.value = false;
    await nextTick();
    expect(box.element.checked).toBe(false);
  });
});

describe('a field', () => {
  it('names its control, and says its help or its problem with it', async () => {
    const problem = ref('');
    show(
      `<FieldRow label="Address" help="Where mail goes" :problem="problem" v-slot="{ id, labelledBy, describedBy, invalid }">
        <input :id="id" :aria-labelledby="labelledBy" :aria-describedby="describedBy" :aria-invalid="invalid" /></FieldRow>`,
      { problem },
    );
    const field = wrapper.get('input');
    const says = () => document.getElementById(field.attributes('aria-describedby') ?? '')?.textContent;
    expect(document.querySelector<HTMLLabelElement>('label')?.control).toBe(field.element);
    expect([says(), field.attributes('aria-invalid')]).toEqual(['Where mail goes', 'false']);
    problem.value = 'This is no address.';
    await nextTick();
    expect([says(), field.attributes('aria-invalid')]).toEqual(['⚠ This is no address.', 'true']);
  });
});

describe('a button', () => {
  it('is the one act of its place, a usual or a plain one, and never submits by itself', () => {
    show('<form><PushButton kind="main">Send</PushButton><PushButton>Save</PushButton></form>', {});
    const [main, usual] = wrapper.findAll('button');
    expect([main?.classes('main'), usual?.classes('main')]).toEqual([true, false]);
    expect([main?.attributes('type'), main?.text()]).toEqual(['button', 'Send']);
  });
});

describe('a menu', () => {
  it('opens with its first act ready, does one, and gives the focus back', async () => {
    const done: string[] = [];
    const items = ['Rename', 'Remove'].map((label) => ({ label, command: () => done.push(label) }));
    show('<ActMenu label="What to do" :items="items">⋯</ActMenu>', { items });
    const button = wrapper.get('button');
    expect([button.attributes('aria-label'), button.attributes('aria-expanded')]).toEqual(['What to do', 'false']);
    await button.trigger('click');
    await vi.waitFor(() => expect(byRole('menuitem')).toHaveLength(2));
    expect(button.attributes('aria-expanded')).toBe('true');
    byRole('menuitem')[1]?.querySelector<HTMLElement>('.p-menu-item-content, [data-pc-section="itemcontent"]')?.click();
    await settled();
    expect(done).toEqual(['Remove']);
  });
});

describe('a menu of which one line holds', () => {
  it('says which, and shows keys', async () => {
    const items = [
      { label: 'Left', checked: true },
      { label: 'Right', checked: false, keys: 'R' },
    ];
    show('<ActMenu label="Alignment" :items="items" />', { items });
    await wrapper.get('button').trigger('click');
    await vi.waitFor(() => expect(byRole('menuitemradio')).toHaveLength(2));
    expect(
      byRole('menuitemradio').map((line) => [line.textContent?.trim(), line.getAttribute('aria-checked')]),
    ).toEqual([
      ['Left', 'true'],
      ['RightR', 'false'],
    ]);
  });
});

describe('a small form below a button', () => {
  it('opens with its first field ready, and is closed by what it asks for', async () => {
    const opened = vi.fn();
    show(
      `<PopForm label="Link" @open="opened"><template #default="{ close }">
        <input aria-label="Address" /><button type="button" @click="close">Set</button></template></PopForm>`,
      { opened },
    );
    const button = wrapper.get('button');
    await button.trigger('click');
    await vi.waitFor(() => expect(document.activeElement?.getAttribute('aria-label')).toBe('Address'));
    expect([opened.mock.calls.length, button.attributes('aria-expanded')]).toEqual([1, 'true']);
    byRole('dialog')[0]?.querySelector('button')?.click();
    await vi.waitFor(() => expect(button.attributes('aria-expanded')).toBe('false'));
    expect(document.activeElement).toBe(button.element);
  });
});

describe('a dialog', () => {
  it('takes the focus, and gives it back to what opened it', async () => {
    const open = ref(false);
    show(
      `<button id="opener" @click="open = true">Purge…</button>
      <ModalDialog v-if="open" ref="dialog" header="Purge it?" @close="open = false"><button autofocus>Leave it</button></ModalDialog>`,
      { open },
    );
    const opener = wrapper.get<HTMLElement>('#opener').element;
    opener.focus();
    opener.click();
    await vi.waitFor(() => expect(byRole('dialog')).toHaveLength(1));
    expect(byRole('dialog')[0]?.getAttribute('aria-modal')).toBe('true');
    wrapper.getComponent(ModalDialog).vm.hide();
    await vi.waitFor(() => expect(open.value).toBe(false));
    await vi.waitFor(() => expect(document.activeElement).toBe(opener));
  });
});

describe('a field to type in or pick from', () => {
  it('says what was typed when it is left, and only what changed', async () => {
    const changed = vi.fn();
    show(`<TypeOrPick model-value="EUR" :options="['EUR', 'GBP']" label="Currency" @change="changed" />`, { changed });
    const field = wrapper.get('input');
    await field.trigger('blur');
    expect(changed).not.toHaveBeenCalled();
    await field.setValue('  SEK ');
    expect(changed).not.toHaveBeenCalled();
    await field.trigger('keydown', { key: 'Enter', code: 'Enter' });
    expect(changed.mock.calls).toEqual([['SEK']]);
  });
});

describe('a tip', () => {
  it('shows by key as well as by pointer, and goes with the focus', async () => {
    show(`<button v-tip="'Bold'" aria-label="Bold" />`, {});
    const button = wrapper.get<HTMLElement>('button').element;
    vi.spyOn(button, 'matches').mockImplementation((selector) => selector === ':focus-visible');
    button.dispatchEvent(new FocusEvent('focus'));
    await vi.waitFor(() => expect(byRole('tooltip').map((each) => each.textContent)).toEqual(['Bold']));
    button.dispatchEvent(new FocusEvent('blur'));
    await vi.waitFor(() => expect(byRole('tooltip')).toEqual([]));
  });
});

describe('a choice of files', () => {
  it('gives what was chosen, and asks again for the same file', () => {
    const taken: string[][] = [];
    const inputs: HTMLInputElement[] = [];
    vi.spyOn(HTMLInputElement.prototype, 'click').mockImplementation(function (this: HTMLInputElement) {
      inputs.push(this);
    });
    let choose = (): void => undefined;
    const setup = (): object => {
      choose = useFileChoice((files) => taken.push(files.map(({ name }) => name)), { accept: '.zip' });
      return {};
    };
    wrapper = mount(defineComponent({ setup, template: '<i />' }));
    for (let time = 0; time < 2; time += 1) {
      choose();
      const input = inputs.at(-1) as HTMLInputElement;
      Object.defineProperty(input, 'files', { configurable: true, value: [new File(['a'], 'library.zip')] });
      input.dispatchEvent(new Event('change'));
    }
    expect([inputs[0]?.type, inputs[0]?.accept, taken]).toEqual(['file', '.zip', [['library.zip'], ['library.zip']]]);
    vi.restoreAllMocks();
  });
});

describe('a popover', () => {
  it('is open once it is there, and asks to be taken away when it is closed', async () => {
    const [opener, closed] = [document.createElement('button'), vi.fn()];
    document.body.append(opener);
    show('<OpenPopover ref="popover" label="Calendar" :opener="opener" @close="closed">Days</OpenPopover>', {
      opener,
      closed,
    });
    await vi.waitFor(() => expect(byRole('dialog').map((each) => each.textContent)).toEqual(['Days']));
    expect(byRole('dialog')[0]?.getAttribute('aria-label')).toBe('Calendar');
    wrapper.getComponent(OpenPopover).vm.hide();
    await vi.waitFor(() => expect(closed).toHaveBeenCalledOnce());
    expect(document.activeElement).toBe(opener);
  });
});
