import { useEventListener } from '@vueuse/core';
import { activeTime } from '@vocabula/core/insight';

/** Moments closer together than this, in milliseconds, are one: typing does not fill a list. */
const BEAT = 1000;

/**
 * How long somebody has been at a page since it was opened, by keys and presses, breaks left out.
 * @returns asks for it, in seconds
 */
export function useWorked(clock: () => number = Date.now): () => number {
  const moments = [clock()];
  const note = (): void => {
    const now = clock();
    if (now - (moments.at(-1) ?? 0) >= BEAT) moments.push(now);
  };
  useEventListener(['keydown', 'pointerdown'], note, { capture: true, passive: true });
  return () => Math.round(activeTime([...moments, clock()]) / 1000);
}
