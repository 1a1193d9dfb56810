// @vitest-environment happy-dom
/** What comes while somebody types must not be answered by their typing. */
import { emptyDocument } from '@vocabula/core';
import { flushPromises, mount, type VueWrapper } from '@vue/test-utils';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import ConflictDialog from './ConflictDialog.vue';

const named = (title: string) => emptyDocument({ kind: 'message', title });
const clash = {
  yours: named('Mine'),
  theirs: { name: 'visit', revision: 9, updatedAt: '2026-11-24T10:00:00.000Z', document: named('Base') },
  base: named('Base'),
};
let wrapper: VueWrapper;
let now = 0;
beforeEach(() => {
  now = 0;
  vi.spyOn(performance, 'now').mockImplementation(() => now);
});
afterEach(() => {
  wrapper.unmount();
  vi.restoreAllMocks();
});
const press = (key: string, more: KeyboardEventInit = {}): boolean => {
  const event = new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...more });
  (document.querySelector('.clash-foot button') as HTMLElement).dispatchEvent(event);
  return event.defaultPrevented;
};

it('keys that were meant for the manuscript choose nothing; after a pause, or as a chord, they do', async () => {
  wrapper = mount(ConflictDialog, {
    props: { clash },
    attachTo: document.body,
    global: { stubs: { transition: false } },
  });
  await flushPromises();
  await vi.waitFor(() => expect(document.querySelector('.clash-foot button')).not.toBeNull());
  const settled = (): number => wrapper.emitted('settle')?.length ?? 0;
  for (const key of [' ', 'e', 'Enter']) {
    now += 100;
    expect(press(key)).toBe(true);
  }
  expect(settled()).toBe(0);
  now += 700;
  expect(press('Enter')).toBe(false);
  // A chord is meant at once.
  press('e');
  press('Enter', { ctrlKey: true });
  expect(settled()).toBe(1);
});
