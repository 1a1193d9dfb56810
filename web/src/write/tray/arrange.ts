/** The orders in which variables are listed. */
import { labelFromKey, type Use, type Variable } from '@vocabula/core';

export type Arrangement = 'reading' | 'name' | 'passage';
export interface VariableGroup {
  /** Empty where there is but one. */
  readonly title: string;
  readonly variables: readonly Variable[];
}

/**
 * Variables in an order: that in which a reader meets them (those that are not used last), by label, or grouped by the
 * passage of their first use, which `passageOf` names, empty for none.
 */
export function arranged(
  variables: readonly Variable[],
  order: Arrangement,
  uses: readonly Use[],
  passageOf: (use: Use) => string,
): VariableGroup[] {
  const label = ({ label: own, key }: Variable): string => own ?? labelFromKey(key);
  if (order === 'name')
    return [{ title: '', variables: variables.toSorted((a, b) => label(a).localeCompare(label(b))) }];
  const first = new Map<string, number>();
  uses.forEach((use, index) => {
    if (!first.has(use.key)) first.set(use.key, index);
  });
  const read = variables.toSorted((a, b) => (first.get(a.key) ?? Infinity) - (first.get(b.key) ?? Infinity) || 0);
  if (order === 'reading') return [{ title: '', variables: read }];
  const groups = new Map<string, Variable[]>();
  for (const variable of read) {
    const use = uses[first.get(variable.key) ?? -1];
    const title = use ? passageOf(use) || 'In every message' : 'Not used';
    groups.set(title, [...(groups.get(title) ?? []), variable]);
  }
  return [...groups].map(([title, members]) => ({ title, variables: members }));
}
