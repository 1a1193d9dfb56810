/** Random numbers from a seed, the same everywhere: Mulberry32 (T. Ettinger, 2017, public domain). */
export interface Random {
  /** A whole number from 0 to below `below`. */
  next(below: number): number;
}

/** A repeatable source of random numbers (mulberry32). @param seed the same seed gives the same numbers */
export function random(seed: number): Random {
  let state = seed >>> 0;
  return {
    next(below) {
      state = (state + 0x6d2b79f5) >>> 0;
      let mixed = Math.imul(state ^ (state >>> 15), state | 1);
      mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61);
      return Math.floor((((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296) * below);
    },
  };
}
