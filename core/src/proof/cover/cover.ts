/**
 * The covering set of a template: a small number of real fillings that between them show every pair (or triple) of
 * ways in which its questions and conditions can go, as far as they can go together at all.
 *
 * Fillings begin as a covering array over the inputs (`array.ts`). Each is rendered as far as needed to see which way
 * everything went, for conditions hide questions and are worked out from them. What is then still missing is sought by
 * going through all values of the inputs that it can depend on: found, or proved not to occur, or given up at a bound
 * and said to be so. Last, fillings that show nothing of their own are taken out.
 */
import type { Program, Read, Slot } from '../../compile/program.js';
import { pairArray } from './array.js';
import { fieldsTaken, fillingOf, inputsOf, type Filling, type Input, type Usual } from './inputs.js';
import { meetings, type Met } from './meetings.js';
import { factorsOf, observe, type Factor } from './observe.js';
import { random } from '../../random.js';

/** What a covering is made for, and how long it may take. */
export interface CoverOptions {
  /** The day of the fillings, ISO. */
  readonly today: string;
  /** How many factors are looked at together. */
  readonly strength?: 2 | 3;
  readonly seed?: number;
  /** The most fillings that are looked at. */
  readonly steps?: number;
  /** A recipient and a sender for everything that nothing depends on. */
  readonly usual?: Usual;
  readonly sender?: Filling['sender'];
}

/** Levels of different factors that stand, or would stand, together: the factor's number and the level's, in order. */
export type Together = readonly { readonly factor: number; readonly level: number }[];

/** One filling of a covering, with the levels it shows. */
export interface Case extends Filling {
  /** The level of each factor; -1 where the message does not meet it. */
  readonly levels: readonly number[];
  /** How many combinations no case before it shows. */
  readonly news: number;
}

/** A small set of fillings that between them show every combination that can be shown. */
export interface Covering {
  readonly factors: readonly Factor[];
  readonly cases: readonly Case[];
  /** Combinations that the cases show. */
  readonly covered: number;
  /** Combinations that cannot occur, each with the reason in words. */
  readonly impossible: readonly { readonly together: Together; readonly because: string }[];
  /** Combinations that were neither shown nor proved not to occur within the steps. */
  readonly notFound: readonly Together[];
}

/** How far the work is. */
export interface CoverProgress {
  readonly looked: number;
  readonly covered: number;
  readonly open: number;
}

/** Makes the covering set at once. */
export function cover(program: Program, options: CoverOptions): Covering {
  const work = covering(program, options);
  for (;;) {
    const { done, value } = work.next();
    if (done) return value;
  }
}

/** Makes the covering set, telling how far it is from time to time; it can be left at any of these points. */
export function* covering(program: Program, options: CoverOptions): Generator<CoverProgress, Covering> {
  const work = new Work(program, options);
  yield* work.begin();
  yield* work.seek();
  return work.result();
}

/** The most fillings that are gone through for one combination. */
const MOST_FOR_ONE = 4000;
const TELL_EVERY = 64;
/** As many cases as are put in the order of what they show that is new. */
const MOST_ORDERED = 120;

class Work {
  private readonly inputs: readonly Input[];
  private readonly factors: readonly Factor[];
  private readonly met: ReadonlyMap<Slot, Met>;
  /** Fields of the usual recipient that no input takes the place of. */
  private readonly rest: Usual;
  private readonly offset: number[] = [];
  private readonly size: number;
  private readonly strength: 2 | 3;
  private readonly seen = new Map<string, Int8Array>();
  /** How many of the kept fillings show each combination. */
  private readonly counts = new Map<number, number>();
  private readonly kept: { readonly choice: readonly number[]; readonly levels: Int8Array }[] = [];
  private readonly impossible: { together: Together; because: string }[] = [];
  private readonly notFound: Together[] = [];
  private readonly source;
  private left: number;
  private open: number;

  constructor(
    private readonly program: Program,
    private readonly options: CoverOptions,
  ) {
    this.met = meetings(program);
    const { usual = {}, today } = options;
    this.inputs = inputsOf(program, this.met, { today, zone: 'UTC' }, usual);
    const taken = fieldsTaken(this.inputs);
    this.rest = Object.fromEntries(Object.entries(usual).filter(([key]) => !taken.has(key)));
    this.factors = factorsOf(this.met);
    let size = 0;
    for (const { levels } of this.factors) {
      this.offset.push(size);
      size += levels.length;
    }
    this.size = size;
    this.strength = Math.min(options.strength ?? 2, Math.max(2, this.factors.length)) as 2 | 3;
    this.source = random(options.seed ?? 1);
    this.left = options.steps ?? 200_000;
    this.open = combinationCount(
      this.factors.map(({ levels }) => levels.length),
      Math.min(this.strength, this.factors.length),
    );
  }

  /** Fillings from a covering array over the inputs, whatever comes of them. */
  *begin(): Generator<CoverProgress> {
    const chosen = this.inputs.map(({ values }, input) => this.telling(input, values.length));
    const rows = pairArray(
      chosen.map((values) => values.length),
      {
        seed: this.options.seed ?? 1,
        candidates: candidatesFor(chosen.map((values) => values.length)),
        steps: 2_000_000,
      },
    );
    for (const row of rows.length > 0 ? rows : [[]]) {
      this.keep(row.map((at, input) => chosen[input]?.[at] ?? 0));
      if (this.kept.length % TELL_EVERY === 0) yield this.progress();
    }
    // Triples are many: those that come by themselves need not be sought one by one.
    if (this.strength === 3)
      for (let idle = 0; idle < 40 && this.open > 0 && this.left > 0;) {
        const best = this.bestOf(12, []);
        idle = best.news > 0 ? 0 : idle + 1;
        if (best.news > 0) this.keep(best.choice);
        if (this.kept.length % TELL_EVERY === 0) yield this.progress();
      }
  }

  /** Values of an input that make something go differently while all others are as usual. */
  private telling(input: number, count: number): number[] {
    if (
      this.inputs[input]?.slot &&
      !/^(?:number|money|date|datetime|time|text|paragraphs)$/.test(this.inputs[input].slot.variable.type)
    )
      return Array.from({ length: count }, (_, at) => at);
    const usual = this.inputs.map(() => 0);
    const found = new Map<string, number>();
    for (let at = 0; at < count; at += 1) {
      const key = this.look(usual.with(input, at)).join();
      if (!found.has(key)) found.set(key, at);
    }
    return [...found.values()];
  }

  /** Seeks every combination that no filling shows yet. */
  *seek(): Generator<CoverProgress> {
    for (const together of this.combinations()) {
      if (this.counts.has(this.key(together))) continue;
      const outcome = this.find(together);
      if (outcome === 'not found') this.notFound.push(together);
      else if (outcome !== 'found') this.impossible.push({ together, because: outcome });
      yield this.progress();
    }
  }

  /** Goes through all values of the inputs that a combination depends on. */
  private find(together: Together): 'found' | 'not found' | string {
    const inputs = [...new Set(together.flatMap(({ factor }) => this.inputsBehind(this.factors[factor]?.slot)))];
    const counts = inputs.map((input) => this.inputs[input]?.values.length ?? 1);
    const total = counts.reduce((product, count) => product * count, 1);
    /** Which parts were seen at all, and which were met while the others were as wanted. */
    const alone = together.map(() => false);
    const metThen = together.map(() => false);
    const usual = this.inputs.map(() => 0);
    for (let at = 0; at < Math.min(total, MOST_FOR_ONE); at += 1) {
      if (this.left <= 0) return 'not found';
      const choice = [...usual];
      let rest = at;
      inputs.forEach((input, index) => {
        choice[input] = rest % (counts[index] ?? 1);
        rest = Math.floor(rest / (counts[index] ?? 1));
      });
      const levels = this.look(choice);
      const holds = together.map(({ factor, level }) => levels[factor] === level);
      if (holds.every(Boolean)) {
        this.keep(this.bestOf(16, inputs, choice).choice);
        return 'found';
      }
      together.forEach(({ factor }, part) => {
        alone[part] ||= holds[part] ?? false;
        metThen[part] ||= holds.every((each, other) => each || other === part) && levels[factor] !== -1;
      });
    }
    return total > MOST_FOR_ONE ? 'not found' : this.because(together, alone, metThen);
  }

  private because(together: Together, alone: readonly boolean[], metThen: readonly boolean[]): string {
    const say = (part: number): string => {
      const { factor, level } = together[part] as Together[number];
      const { label, levels } = this.factors[factor] as Factor;
      return `“${label}” is ${levels[level]?.label ?? ''}`;
    };
    const others = (part: number): string => together.flatMap((_, at) => (at === part ? [] : [say(at)])).join(' and ');
    const never = alone.indexOf(false);
    if (never >= 0) return `nothing makes it so that ${say(never)}`;
    const hidden = metThen.indexOf(false);
    if (hidden >= 0) {
      const { label } = this.factors[(together[hidden] as Together[number]).factor] as Factor;
      return `“${label}” does not come up when ${others(hidden)}`;
    }
    return `${others(0)} rules out that ${say(0)}`;
  }

  /** The inputs that decide a slot's value and whether it is met, by their numbers. */
  private inputsBehind(slot: Slot | undefined, seen = new Set<Slot>()): number[] {
    if (!slot || seen.has(slot)) return [];
    seen.add(slot);
    const behind = (read: Read): number[] => {
      if (read.from === 'slot') return this.inputsBehind(read.slot, seen);
      if (read.from === 'column') return this.inputsBehind(read.list, seen);
      return this.number(`${read.from}.${read.key}`);
    };
    return [
      ...this.number(slot.key),
      ...slot.inputs.flatMap(behind),
      ...(slot.expression?.fields ?? []).flatMap((name) => this.number(name)),
      ...[...(this.met.get(slot)?.guards ?? [])].flatMap(behind),
    ];
  }
  private number(name: string): number[] {
    const at = this.inputs.findIndex((input) => input.name === name);
    return at < 0 ? [] : [at];
  }

  /** The best of some fillings by chance, the inputs that are fixed left as they are. */
  private bestOf(
    count: number,
    fixed: readonly number[],
    given: readonly number[] = this.inputs.map(() => 0),
  ): { readonly choice: readonly number[]; readonly news: number } {
    let best = { choice: given, news: this.news(this.look(given)) };
    for (let at = 0; at < count && this.left > 0; at += 1) {
      const choice = this.inputs.map(({ values }, input) =>
        fixed.includes(input) ? (given[input] ?? 0) : this.source.next(values.length),
      );
      const news = this.news(this.look(choice));
      if (news > best.news) best = { choice, news };
    }
    return best;
  }

  private filling(choice: readonly number[]): Filling {
    const { recipient, sender, answers } = fillingOf(this.inputs, choice);
    return { recipient: { ...this.rest, ...recipient }, sender: { ...this.options.sender, ...sender }, answers };
  }
  private look(choice: readonly number[]): Int8Array {
    const key = choice.join();
    const known = this.seen.get(key);
    if (known) return known;
    this.left -= 1;
    const levels = observe(this.program, this.factors, this.filling(choice), this.options.today);
    if (this.seen.size < 50_000) this.seen.set(key, levels);
    return levels;
  }
  private news(levels: Int8Array): number {
    let news = 0;
    for (const key of this.keysOf(levels)) if (!this.counts.has(key)) news += 1;
    return news;
  }
  private keep(choice: readonly number[]): void {
    const levels = this.look(choice);
    this.kept.push({ choice, levels });
    for (const key of this.keysOf(levels)) {
      const count = this.counts.get(key) ?? 0;
      if (count === 0) this.open -= 1;
      this.counts.set(key, count + 1);
    }
  }

  /** All combinations of levels, by factors in order. */
  private *combinations(from = 0, before: Together = []): Generator<Together> {
    if (before.length === Math.min(this.strength, this.factors.length)) return void (yield before);
    for (let factor = from; factor < this.factors.length; factor += 1)
      for (let level = 0; level < (this.factors[factor]?.levels.length ?? 0); level += 1)
        yield* this.combinations(factor + 1, [...before, { factor, level }]);
  }
  private key(together: Together): number {
    return together.reduce((key, { factor, level }) => key * this.size + (this.offset[factor] ?? 0) + level, 0);
  }
  private keysOf(levels: Int8Array): number[] {
    const keys: number[] = [];
    const depth = Math.min(this.strength, this.factors.length);
    const gather = (from: number, left: number, before: number): void => {
      for (let factor = from; factor < levels.length; factor += 1) {
        const level = levels[factor] ?? -1;
        if (level < 0) continue;
        const key = before * this.size + (this.offset[factor] ?? 0) + level;
        if (left === 1) keys.push(key);
        else gather(factor + 1, left - 1, key);
      }
    };
    if (depth === 0) return [0];
    gather(0, depth, 0);
    return keys;
  }
  private progress(): CoverProgress {
    return { looked: this.seen.size, covered: this.counts.size, open: this.open };
  }

  /** Takes out what shows nothing of its own, and puts first what shows most. */
  result(): Covering {
    const cases = this.kept.filter(({ levels }) => {
      const keys = this.keysOf(levels);
      const needless = keys.every((key) => (this.counts.get(key) ?? 0) > 1);
      if (needless) for (const key of keys) this.counts.set(key, (this.counts.get(key) ?? 0) - 1);
      return !needless;
    });
    const ordered: Case[] = [];
    // A message that nothing can change is one case all the same.
    const waiting = (cases.length > 0 ? cases : this.kept.slice(0, 1)).map((each, at) => ({
      ...each,
      at,
      keys: this.keysOf(each.levels),
      news: Infinity,
    }));
    const shown = new Set<number>();
    // What a case would show anew only becomes less: one that still shows most when it is counted again is the next.
    while (waiting.length > 0) {
      // Nobody reads so many in the order of what they show; the rest stays as it was made.
      const inOrder = ordered.length < MOST_ORDERED;
      let next = waiting[0] as (typeof waiting)[number];
      if (inOrder)
        for (const each of waiting)
          if (each.news > next.news || (each.news === next.news && each.at < next.at)) next = each;
      const before = next.news;
      next.news = next.keys.reduce((sum, key) => sum + (shown.has(key) ? 0 : 1), 0);
      if (inOrder && next.news < before) continue;
      waiting.splice(waiting.indexOf(next), 1);
      for (const key of next.keys) shown.add(key);
      ordered.push({ ...this.filling(next.choice), levels: [...next.levels], news: next.news });
    }
    return {
      factors: this.factors,
      cases: ordered,
      covered: this.counts.size,
      impossible: this.impossible,
      notFound: this.notFound,
    };
  }
}

/** How many ways there are to take `strength` factors and a level of each: the elementary symmetric polynomial. */
function combinationCount(levels: readonly number[], strength: number): number {
  const ways = [1, ...Array.from({ length: strength }, () => 0)];
  for (const count of levels)
    for (let taken = strength; taken > 0; taken -= 1) ways[taken] = (ways[taken] ?? 0) + (ways[taken - 1] ?? 0) * count;
  return ways[strength] ?? 0;
}

/** The work that making the beginning may take, in looks at one pair, and the most rows made for one that is taken. */
const WORK = 100_000_000;
const MOST_CANDIDATES = 10;

/** How many rows are made for each that is taken: fewer where each is much work. */
function candidatesFor(levels: readonly number[]): number {
  const most = Math.max(0, ...levels);
  const total = levels.reduce((sum, count) => sum + count, 0);
  const row = total * levels.length * Math.max(1, most * most);
  return Math.max(1, Math.min(MOST_CANDIDATES, Math.floor(WORK / Math.max(1, row))));
}
