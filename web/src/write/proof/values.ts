/** The values that the current sample recipient gives to variables and fields, as words. */
import { valuesOf, valueType, type Program } from '@vocabula/core';
import type { ProofRequest } from './protocol';

/** By name; under `raw name` what conditions compare (several options on lines of their own). */
export function currentValues(program: Program, input: ProofRequest['input']): ReadonlyMap<string, string> {
  const words = new Map<string, string>();
  for (const source of ['recipient', 'sender'] as const)
    for (const [key, value] of Object.entries(input[source])) if (value) words.set(`${source}.${key}`, value);
  for (const { slot, value } of valuesOf(program, input)) {
    if (value === undefined) continue;
    const { variable } = slot;
    const view = { list: 'count', choice: 'label', choices: 'labels' }[variable.type as string] ?? '';
    words.set(slot.key, valueType(variable.type).formatter(variable, view, slot.locale)?.(value) ?? '');
    words.set(`raw ${slot.key}`, Array.isArray(value) ? value.map(String).join('\n') : String(value));
  }
  return words;
}
