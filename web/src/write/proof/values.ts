/** The values that the current sample recipient gives to variables and fields, as words. */
import { valuesOf, valueType, type Program } from '@vocabula/core';
import type { CurrentValue, ProofRequest } from './protocol';

/** Values by name (`recipient.email`, `party`); what is missing is not among them. */
export function currentValues(program: Program, input: ProofRequest['input']): ReadonlyMap<string, CurrentValue> {
  const values = new Map<string, CurrentValue>();
  for (const source of ['recipient', 'sender'] as const)
    for (const [key, value] of Object.entries(input[source]))
      if (value) values.set(`${source}.${key}`, { words: value });
  for (const { slot, value } of valuesOf(program, input)) {
    if (value === undefined) continue;
    const { variable } = slot;
    const view = { list: 'count', choice: 'label', choices: 'labels' }[variable.type as string] ?? '';
    const words = valueType(variable.type).formatter(variable, view, slot.locale)?.(value) ?? '';
    values.set(slot.key, { words, value });
  }
  return values;
}
