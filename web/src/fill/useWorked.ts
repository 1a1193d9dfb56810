import { useEventListener } from '@vueuse/core';
import { activeTime } from '@vocabula/core/insight';

/** Moments closer together than this (milliseconds) count as one, so that typing does not fill the list. */
const MIN_GAP = 1000;

/**
 * Measures the active time on a page since it was opened, from keys and presses; longer breaks are left out.
 * Keys and presses inside a message's frame count too (event `activity`).
 * @returns a function that gives the active time so far, in seconds
 */
export function useWorked(clock: () => number = Date.now): () => number {
  const moments = [clock()];
  const note = (): void => {
    const now = clock();
    if (now - (moments.at(-1) ?? 0) >= MIN_GAP) moments.push(now);
  };
  useEventListener(window as EventTarget, ['keydown', 'pointerdown', 'activity'], note, {
    capture: true,
    passive: true,
  });
  return () => Math.round(activeTime([...moments, clock()]) / 1000);
}
