// @vitest-environment happy-dom
/** The wrappers around the library's parts, as a person finds them: by role and name, with pointer and keys. */
import { flushPromises, mount, type VueWrapper } from '@vue/test-utils';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { defineComponent, nextTick, ref, type Component } from 'vue';
import ActMenu from './ActMenu.vue';
import FieldRow from './FieldRow.vue';
import OpenPopover from './OpenPopover.vue';
import PushButton from './PushButton.vue';
import TickBox from './TickBox.vue';

let wrapper: VueWrapper;
afterEach(() => {
  wrapper.unmount();
  document.body.innerHTML = '';
});
function show(template: string, state: Record<string, unknown>): VueWrapper {
  const components: Record<string, Component> = { ActMenu, FieldRow, OpenPopover, PushButton, TickBox };
  wrapper = mount(defineComponent({ components, setup: () => state, template }), {
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
