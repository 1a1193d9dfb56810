/** Which conditions exclude or imply each other, as far as conditions alone tell. */
import type { Condition } from '../template/condition.js';
import type { Variable } from '../template/variable.js';

/** Tells which keys are choices of which several options may hold at once. */
export function severalIn(variables: readonly Variable[]): (key: string) => boolean {
  const keys = new Set(variables.filter((variable) => variable.type === 'choices').map((variable) => variable.key));
  return (key) => keys.has(key);
}

/** True if two conditions never hold together; `several` says of which choices more than one option may hold. */
export function neverBoth(a: Condition, b: Condition, several: (key: string) => boolean): boolean {
  if (a.of !== b.of) return false;
  if (a.is.length === 0 && b.is.length === 0) return a.not !== b.not;
  if (a.not === b.not) return !a.not && !several(a.of) && a.is.every((key) => !b.is.includes(key));
  const [kept, left] = a.not ? [b, a] : [a, b];
  return kept.is.every((key) => left.is.includes(key));
}

/** True if wherever `outer` holds, `inner` does too. */
export function implies(outer: Condition, inner: Condition, several: (key: string) => boolean): boolean {
  return outer.of === inner.of && neverBoth(outer, { ...inner, not: !inner.not }, several);
}
