/** Conditions in words. */
import type { Condition } from '../template/condition.js';
import { labelFromKey } from '../template/keys.js';
import type { Variable } from '../template/variable.js';
import { labelOfKey } from '../values/choice.js';

/** `Rain plan`, `not Rain plan`, `Reminder: Last word or First reminder`, `for each of Tickets`. */
export function conditionInWords(condition: Condition, variable: Variable | undefined): string {
  const label = variable?.label ?? labelFromKey(condition.of);
  if (variable?.type === 'list') return condition.not ? `no ${label}` : `for each of ${label}`;
  if (condition.is.length === 0) return condition.not ? `not ${label}` : label;
  const options = condition.is.map((key) => (variable ? labelOfKey(variable, key) : labelFromKey(key))).join(' or ');
  return `${label}: ${condition.not ? 'not ' : ''}${options}`;
}
