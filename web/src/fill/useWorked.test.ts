// @vitest-environment happy-dom
import { mount } from '@vue/test-utils';
import { expect, it } from 'vitest';
import { defineComponent } from 'vue';
import { useWorked } from './useWorked';

it('counts the time between keys and presses, and no breaks', () => {
  let now = 0;
  let worked = (): number => -1;
  const wrapper = mount(
    defineComponent({
      setup() {
        worked = useWorked(() => now);
        return () => null;
      },
    }),
  );
  const press = (at: number, what: string): void => {
    now = at;
    window.dispatchEvent(new Event(what));
  };
  press(10_000, 'keydown');
  press(40_000, 'pointerdown');
  // A break of an hour.
  press(3_640_000, 'keydown');
  // Inside the frame of the message.
  press(3_650_000, 'activity');
  expect(worked()).toBe(50);
  wrapper.unmount();
});
