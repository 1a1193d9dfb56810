/** Which keys stand for columns rather than variables: those of the lists that are repeated around a place. */
import type { Condition } from '../template/condition.js';
import type { Variable } from '../template/variable.js';

/** Keys that mean a column of the list that is gone through, and not a variable. */
export type Shadows = ReadonlySet<string>;
/** No key is a column here. */
export const NO_SHADOWS: Shadows = new Set();

/** The shadows inside conditions: a repeat adds the columns of its list. */
export function shadowsInside(
  outer: Shadows,
  conditions: readonly Condition[],
  variables: readonly Variable[],
): Shadows {
  let inner = outer;
  for (const { of, not } of conditions) {
    const columns = not ? undefined : variables.find(({ key }) => key === of)?.columns;
    if (columns) inner = new Set([...inner, ...columns.map(({ key }) => key)]);
  }
  return inner;
}
