/** Finds values and conditions that follow from other values in every mail. */
import { dayNumber } from '../values/date.js';

/** A value for each mail, by its index. */
export type Values = ReadonlyMap<number, unknown>;
/** A variable that a formula may use. */
export interface Known {
  readonly key: string;
  readonly values: Values;
}
/** The mails for which a condition holds, and those for which it does not. Other mails say nothing about it. */
export interface Split {
  readonly yes: ReadonlySet<number>;
  readonly no: ReadonlySet<number>;
}

/** A formula needs this many mails; a threshold needs as many on both sides. */
export const LEAST_MAILS = 4;
/** Amounts are equal to half a cent, and a little more for rounding. */
const CENT = 0.0051;

const equal = (a: number, b: number): boolean => Math.abs(a - b) < CENT;
/** The known values of all these mails as numbers; undefined unless all are known and they vary. */
function numbersFor({ values }: Known, mails: Iterable<number>): Map<number, number> | undefined {
  const numbers = new Map<number, number>();
  for (const mail of mails) {
    if (!values.has(mail)) return undefined;
    numbers.set(mail, Number(values.get(mail)));
  }
  return new Set(numbers.values()).size > 1 ? numbers : undefined;
}
/** False for too few values, or values that are all the same: any formula would fit those. */
const isWorthAFormula = (values: Values): boolean => values.size >= LEAST_MAILS && new Set(values.values()).size > 1;

/** A number as a multiple of another, to two decimals, or as the product of two others. */
export function productFormula(values: Values, known: readonly Known[]): string | undefined {
  if (!isWorthAFormula(values)) return undefined;
  const usable = known.flatMap((each) => {
    const numbers = numbersFor(each, values.keys());
    return numbers ? [{ key: each.key, numbers }] : [];
  });
  const holds = (compute: (mail: number) => number): boolean =>
    [...values].every(([mail, value]) => equal(compute(mail), Number(value)));
  for (const { key, numbers } of usable) {
    const [mail = 0, value] = [...values][0] ?? [];
    const factor = Math.round((Number(value) / (numbers.get(mail) ?? NaN)) * 100) / 100;
    if (factor > 0 && factor !== 1 && holds((each) => factor * (numbers.get(each) ?? NaN))) return `${key} * ${factor}`;
  }
  for (const [at, a] of usable.entries())
    for (const b of usable.slice(at + 1))
      if (holds((mail) => (a.numbers.get(mail) ?? NaN) * (b.numbers.get(mail) ?? NaN))) return `${a.key} * ${b.key}`;
  return undefined;
}

/** A date as a fixed number of days from another. */
export function dateFormula(values: Values, known: readonly Known[]): string | undefined {
  if (!isWorthAFormula(values)) return undefined;
  for (const { key, values: others } of known) {
    const [shift = NaN, ...rest] = [...values].map(
      ([mail, day]) => dayNumber(String(day)) - dayNumber(String(others.get(mail))),
    );
    if (Number.isFinite(shift) && shift !== 0 && rest.every((each) => each === shift))
      return `addDays(${key}, ${shift})`;
  }
  return undefined;
}

/** A condition as a threshold of a number (a decision stump). */
export function thresholdFormula({ yes, no }: Split, known: readonly Known[]): string | undefined {
  if (yes.size < LEAST_MAILS || no.size < LEAST_MAILS) return undefined;
  for (const each of known) {
    const numbers = numbersFor(each, [...yes, ...no]);
    if (!numbers) continue;
    const numbersIn = (mails: ReadonlySet<number>): number[] => [...mails].map((mail) => numbers.get(mail) ?? NaN);
    const [having, lacking] = [numbersIn(yes), numbersIn(no)];
    if (Math.min(...having) > Math.max(...lacking)) return `${each.key} >= ${Math.min(...having)}`;
    if (Math.max(...having) < Math.min(...lacking)) return `${each.key} < ${Math.min(...lacking)}`;
  }
  return undefined;
}
