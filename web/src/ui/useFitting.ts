/** Which of some things in a row there is room for; the others stand in a menu at its end. */
import { useElementSize } from '@vueuse/core';
import { computed, onMounted, onUpdated, shallowRef, type Ref } from 'vue';

/** Room for the menu at the end, in CSS pixels. */
const MENU = 76;

/**
 * The indexes of those that fit, in their order: the first ones, and the chosen one.
 * @param row    what they stand in
 * @param copies what holds a copy of each of them that nobody sees, all of them in their order
 * @param chosen the index of the one that always stands there
 */
export function useFitting(row: Ref<HTMLElement | null>, copies: Ref<HTMLElement | null>, chosen: () => number) {
  const { width } = useElementSize(row);
  const widths = shallowRef<readonly number[]>([]);
  function measure(): void {
    const now = [...(copies.value?.children ?? [])].map((each) => Math.ceil(each.getBoundingClientRect().width));
    if (now.join() !== widths.value.join()) widths.value = now;
  }
  onMounted(measure);
  onUpdated(measure);
  return computed(() => fitting(widths.value, width.value, MENU, chosen()));
}

/**
 * The indexes of widths that fit into a room, one after the other, the chosen one whatever its width; where not all do,
 * so many that the menu fits behind them. A room that nobody knows yet holds all.
 */
export function fitting(widths: readonly number[], room: number, menu: number, chosen: number): number[] {
  const all = widths.map((_, index) => index);
  const whole = widths.reduce((sum, each) => sum + each, 0);
  if (room <= 0 || whole <= room) return all;
  let taken = menu + (widths[chosen] ?? 0);
  let full = false;
  return all.filter((index) => {
    if (index === chosen) return true;
    taken += widths[index] ?? 0;
    full ||= taken > room;
    return !full;
  });
}
