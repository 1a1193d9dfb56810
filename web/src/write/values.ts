/** The values that the current sample recipient gives to variables and fields, as words. */
import { valuesOf, valueType, type Program } from '@vocabula/core';
import { today } from '../ui/today';

/** By name; under `raw name` what conditions compare (several options on lines of their own). */
export function currentValues(
  program: Program | undefined,
  recipient: Readonly<Record<string, string>>,
  sender: Readonly<Record<string, string>>,
  answers: Readonly<Record<string, unknown>>,
): ReadonlyMap<string, string> {
  const words = new Map<string, string>();
  if (!program) return words;
  for (const [source, fields] of [
    ['recipient', recipient],
    ['sender', sender],
  ] as const)
    for (const [key, value] of Object.entries(fields)) if (value) words.set(`${source}.${key}`, value);
  for (const { slot, value } of valuesOf(program, { recipient, sender, answers, today: today() })) {
    if (value === undefined) continue;
    const view =
      slot.variable.type === 'list'
        ? 'count'
        : slot.variable.type === 'choice'
          ? 'label'
          : slot.variable.type === 'choices'
            ? 'labels'
            : '';
    words.set(slot.key, valueType(slot.variable.type).formatter(slot.variable, view, slot.locale)?.(value) ?? '');
    words.set(`raw ${slot.key}`, Array.isArray(value) ? value.map(String).join('\n') : String(value));
  }
  return words;
}
