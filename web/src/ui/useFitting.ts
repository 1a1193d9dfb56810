/** Which of some things in a row there is room for; the others stand in a menu at its end. */
import { useElementSize } from '@vueuse/core';
import { computed, onMounted, onUpdated, shallowRef, type Ref } from 'vue';

/** Room for the menu at the end, in CSS pixels. */
const MENU = 76;

/**
 * How many things fit, the first ones first.
 * @param row    what they stand in
 * @param copies what holds a copy of each of them that nobody sees, all of them in their order
 */
export function useFitting(row: Ref<HTMLElement | null>, copies: Ref<HTMLElement | null>) {
  const { width } = useElementSize(row);
  const widths = shallowRef<readonly number[]>([]);
  function measure(): void {
    const now = [...(copies.value?.children ?? [])].map((each) => (each as HTMLElement).offsetWidth);
    if (now.join() !== widths.value.join()) widths.value = now;
  }
  onMounted(measure);
  onUpdated(measure);
  return computed(() => fitting(widths.value, width.value, MENU));
}

/**
 * How many of some widths fit into a room, one after the other; where not all do, so many that the menu fits behind
 * them. A room that nobody knows yet holds all.
 */
export function fitting(widths: readonly number[], room: number, menu: number): number {
  const whole = widths.reduce((sum, each) => sum + each, 0);
  if (room <= 0 || whole <= room) return widths.length;
  let taken = menu;
  const fits = widths.findIndex((each) => (taken += each) > room);
  return Math.max(1, fits < 0 ? widths.length : fits);
}

/** The first of some things, with the chosen one in the place of the last where it is none of them. */
export function withChosen<T>(all: readonly T[], count: number, isChosen: (each: T) => boolean): T[] {
  const first = all.slice(0, count);
  const chosen = all.slice(count).find(isChosen);
  return chosen === undefined ? first : [...first.slice(0, -1), chosen];
}
