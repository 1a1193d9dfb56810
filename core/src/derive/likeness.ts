/** How alike mails, units and sentences are, by the words they share. */
import type { Likeness } from './align.js';
import type { Unit } from './mail.js';
import { roughKey, sequenceKey, type Token } from './tokens.js';

/** Words with their counts. Each word is represented by a number that is assigned by a `Vocabulary`. */
interface Bag {
  readonly counts: ReadonlyMap<number, number>;
  readonly size: number;
}
/** Blocks that are compared as a whole, have the same type and differ may still stand at the same place. */
const SAME_TYPE = 0.5;

/** Twice the words that both have, divided by all words (L. R. Dice 1945). Two empty bags are alike. */
function shared(a: Bag, b: Bag): number {
  if (a.size + b.size === 0) return 1;
  const [small, large] = a.counts.size <= b.counts.size ? [a, b] : [b, a];
  let both = 0;
  for (const [word, count] of small.counts) both += Math.min(count, large.counts.get(word) ?? 0);
  return (2 * both) / (a.size + b.size);
}

/** Caches a result for each object. */
function cached<T extends object, R>(make: (item: T) => R): (item: T) => R {
  const known = new WeakMap<T, R>();
  return (item) => {
    const found = known.get(item) ?? make(item);
    known.set(item, found);
    return found;
  };
}

/** Compares token sequences; keeps the bags of one run. */
export class Comparison {
  private readonly numbers = new Map<string, number>();
  private readonly bag = cached((tokens: readonly Token[]): Bag => {
    const counts = new Map<number, number>();
    let size = 0;
    for (const word of tokens.map(roughKey)) {
      if (word === '') continue;
      const number = this.numbers.get(word) ?? this.numbers.size;
      this.numbers.set(word, number);
      counts.set(number, (counts.get(number) ?? 0) + 1);
      size += 1;
    }
    return { counts, size };
  });

  /** How alike two token sequences are, from 0 to 1. */
  readonly compare = (a: readonly Token[], b: readonly Token[]): number => shared(this.bag(a), this.bag(b));
  /** For the sentences of a paragraph. */
  readonly sentences: Likeness<readonly Token[]> = { compare: this.compare, key: cached(sequenceKey) };
  /** For paragraphs, items and rows: different forms never stand at the same place. */
  readonly units: Likeness<Unit> = {
    key: cached(({ shape, tokens }: Unit) => shape + sequenceKey(tokens)),
    compare: (a, b) => {
      if (a.shape !== b.shape) return -1;
      if (!a.block) return this.compare(a.tokens, b.tokens);
      return this.units.key(a) === this.units.key(b) ? 1 : SAME_TYPE;
    },
  };
}

/** Mails that share less than this belong to different kinds. */
const ONE_KIND = 0.34;

/** The order in which to align mails, and which of them belong together. */
export interface Guide {
  /** Indexes: the most typical mail first, then by likeness to it. */
  readonly order: readonly number[];
  /** Indexes of mails of one kind, the largest group first. */
  readonly groups: readonly (readonly number[])[];
}

/** Compares all mails with each other. @param mails all tokens of each mail */
export function guideOf(mails: readonly (readonly Token[])[], { compare }: Comparison): Guide {
  const likeness = mails.map(() => new Float64Array(mails.length));
  const like = (a: number, b: number): number => likeness[a]?.[b] ?? 0;
  for (const [a, tokens] of mails.entries())
    for (let b = a; b < mails.length; b += 1) {
      const share = compare(tokens, mails[b] ?? []);
      (likeness[a] as Float64Array)[b] = share;
      (likeness[b] as Float64Array)[a] = share;
    }
  const totals = likeness.map((row) => row.reduce((sum, each) => sum + each, 0));
  // A little more, so that rounding does not decide between equals.
  const typical = totals.reduce((best, total, at) => (total > (totals[best] ?? 0) + 1e-9 ? at : best), 0);
  const order = [...mails.keys()].sort((a, b) => like(typical, b) - like(typical, a) || a - b);
  const groups: number[][] = [];
  let left = [...mails.keys()];
  while (left.length > 0) {
    const group = left
      .map((seed) => left.filter((mail) => mail === seed || like(seed, mail) >= ONE_KIND))
      .reduce((largest, each) => (each.length > largest.length ? each : largest));
    groups.push(group);
    left = left.filter((mail) => !group.includes(mail));
  }
  return { order, groups: groups.sort((a, b) => b.length - a.length) };
}
