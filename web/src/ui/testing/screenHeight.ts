import { afterEach, beforeEach, vi } from 'vitest';

/** Gives every element a height in the tests of a file: without layout, lists and grids would draw no rows. */
export function useScreenHeight(pixels = 600): void {
  beforeEach(() => {
    vi.spyOn(HTMLElement.prototype, 'clientHeight', 'get').mockReturnValue(pixels);
  });
  afterEach(() => {
    vi.restoreAllMocks();
  });
}
