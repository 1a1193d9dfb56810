/** Random numbers from a seed, the same everywhere: Mulberry32 (T. Ettinger, 2017, public domain). */
export interface Random {
  /** A whole number from 0 up to, but not including, `below`. */
  next(below: number): number;
  /** A number from 0 up to, but not including, 1. */
  fraction(): number;
}

/** A repeatable source of random numbers. @param seed the same seed gives the same numbers */
export function random(seed: number): Random {
  let state = seed >>> 0;
  const fraction = (): number => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), state | 1);
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61);
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296;
  };
  return { fraction, next: (below) => Math.floor(fraction() * below) };
}
