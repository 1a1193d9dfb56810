/** Conditions in words, as authors read them. */
import { dayFormatter, WEEKDAYS } from '../values/date.js';
import { labelOfKey } from '../values/choice.js';
import { labelFromKey } from '../template/keys.js';
import type { Variable } from '../template/variable.js';
import { comparisonInWords, familyOf, takesValue } from './comparisons.js';
import { isGroup, type Comparison, type ConditionTree } from './conditions.js';

/** What the words are taken from: declarations by name, and the locale of dates and weekdays. */
export interface Saying {
  readonly variableOf: (name: string) => Variable | undefined;
  readonly locale: string;
}

/** `Party is at least 15 and (Gate is River or Rain plan is yes)`; `…` stands for what is not chosen yet. */
export function sayConditions(tree: ConditionTree, saying: Saying, outermost = true): string {
  if (!isGroup(tree)) return sayComparison(tree, saying);
  const parts = tree.parts.map((part) => sayConditions(part, saying, false));
  const joined = parts.join(tree.join === 'all' ? ' and ' : ' or ') || '…';
  if (tree.not) return `not (${joined})`;
  return outermost || parts.length < 2 ? joined : `(${joined})`;
}

function sayComparison({ of, how, value }: Comparison, { variableOf, locale }: Saying): string {
  const variable = variableOf(of);
  const label = variable?.label ?? labelFromKey(of.split('.').at(-1) ?? of);
  const said = variable ? comparisonInWords(familyOf(variable.type), how) : how;
  return `${label || '…'} ${said}${takesValue(how) ? ` ${sayValue(value, how, variable, locale) || '…'}` : ''}`;
}

function sayValue(value: string, how: Comparison['how'], variable: Variable | undefined, locale: string): string {
  if (how === 'weekday') {
    // 1 February 1970 was a Sunday.
    const day = (WEEKDAYS as readonly string[]).indexOf(value);
    return day < 0 ? '' : (dayFormatter('weekday', locale)?.(`1970-02-0${day + 1}`) ?? value);
  }
  if (!variable) return value;
  if (variable.options)
    return value
      .split('|')
      .map((key) => labelOfKey(variable, key))
      .join(' or ');
  const relative = variable.type === 'date' ? /^today(?:([+-])(\d+))?$/.exec(value) : null;
  if (relative) {
    const [, sign, count] = relative;
    if (count === undefined) return 'today';
    return `${count} ${count === '1' ? 'day' : 'days'} ${sign === '-' ? 'before' : 'after'} today`;
  }
  if (variable.type === 'date' && /^\d{4}-\d\d-\d\d$/.test(value))
    return dayFormatter('long', locale)?.(value) ?? value;
  return familyOf(variable.type) === 'text' ? `“${value}”` : value;
}
