/** What a fact is worth on a day. */
import { valueType, type Value, type ValueContext } from '../values/index.js';
import type { Fact } from './house.js';

/** A fact's values by the day they hold from, the newest first; the one without a day holds before all others. */
export type FactValues = readonly { readonly from: string; readonly value: Value | undefined }[];

/** Reads all values of a fact; what does not fit its type is undefined. */
export function factValues({ variable, value, changes }: Fact, context: ValueContext): FactValues {
  const read = (source: string): Value | undefined => {
    if (source === '') return undefined;
    const parsed = valueType(variable.type).parse(source, variable, context);
    return 'value' in parsed ? parsed.value : undefined;
  };
  return [
    { from: '', value: read(value) },
    ...changes.map(({ date, value: source }) => ({ from: date, value: read(source) })),
  ].sort((a, b) => (a.from < b.from ? 1 : a.from > b.from ? -1 : 0));
}

/** The value that holds on a day. */
export const valueOn = (values: FactValues, day: string): Value | undefined =>
  values.find(({ from }) => from <= day)?.value;
