import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Condition } from '../template/condition.js';
import { implies, neverBoth, severalIn } from './condition-logic.js';

const OPTIONS = ['north', 'river', 'south'];
const VARIABLES = [
  { key: 'gate', type: 'choice' as const, options: OPTIONS.map((key) => ({ key })) },
  { key: 'tours', type: 'choices' as const, options: OPTIONS.map((key) => ({ key })) },
];
const several = severalIn(VARIABLES);
/** Whether a condition holds for the options that are picked. */
const holds = ({ is, not }: Condition, picked: readonly string[]): boolean =>
  is.some((key) => picked.includes(key)) !== not;

const condition = (of: string): fc.Arbitrary<Condition> =>
  fc.record({
    of: fc.constant(of),
    is: fc.subarray(OPTIONS, { minLength: 1 }),
    not: fc.boolean(),
    run: fc.constant(0),
  });
/** All that can be picked: nothing or one option of a choice, any of several. */
const ANSWERS: Readonly<Record<string, readonly (readonly string[])[]>> = {
  gate: [[], ...OPTIONS.map((key) => [key])],
  tours: Array.from({ length: 8 }, (_, bits) => OPTIONS.filter((_key, at) => (bits >> at) % 2 === 1)),
};
const pairs = fc.constantFrom('gate', 'tours').chain((of) => fc.tuple(fc.constant(of), condition(of), condition(of)));

describe('the logic of conditions', () => {
  it('never says that two exclude each other when an answer meets both', () => {
    fc.assert(
      fc.property(pairs, ([of, a, b]) => {
        const both = (ANSWERS[of] ?? []).some((picked) => holds(a, picked) && holds(b, picked));
        if (neverBoth(a, b, several)) expect(both).toBe(false);
      }),
    );
  });

  it('never says that one implies another when an answer meets the first alone', () => {
    fc.assert(
      fc.property(pairs, ([of, a, b]) => {
        const alone = (ANSWERS[of] ?? []).some((picked) => holds(a, picked) && !holds(b, picked));
        if (implies(a, b, several)) expect(alone).toBe(false);
      }),
    );
  });

  it('knows the plain cases', () => {
    const when = (of: string, is: string[], not = false): Condition => ({ of, is, not, run: 0 });
    expect(neverBoth(when('gate', ['north']), when('gate', ['river']), several)).toBe(true);
    expect(neverBoth(when('tours', ['north']), when('tours', ['river']), several)).toBe(false);
    expect(neverBoth(when('gate', ['north']), when('tours', ['river']), several)).toBe(false);
    expect(implies(when('gate', ['north']), when('gate', ['north', 'river']), several)).toBe(true);
    expect(implies(when('gate', ['north', 'river']), when('gate', ['north']), several)).toBe(false);
  });
});
