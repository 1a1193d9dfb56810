/** The types of single values: all but lists, whose columns are of these types. */
import type { TypeName, Variable } from '../template/variable.js';
import { email, link, phone } from './address.js';
import { choice, choices } from './choice.js';
import { date } from './date.js';
import { datetime } from './datetime.js';
import { image } from './image.js';
import { money } from './money.js';
import { number } from './number.js';
import { paragraphs, text } from './text.js';
import { time } from './time.js';
import { isMissing, type Value, type ValueContext, type ValueType } from './type.js';
import { yesNo } from './yes-no.js';

const TYPES: { readonly [name in Exclude<TypeName, 'list'>]: ValueType } = {
  text,
  paragraphs,
  number,
  money,
  date,
  time,
  datetime,
  'yes-no': yesNo,
  choice,
  choices,
  email,
  phone,
  link,
  image,
};

/** The type with that name. A list inside a list is a fault of its declaration, and is read as text. */
export const scalarType = (name: TypeName): ValueType => (name === 'list' ? text : TYPES[name]);

/** A value to show a variable's views by: its example or default where it has one, else one likely for its type. */
export function specimenBy(type: ValueType, variable: Variable, context: ValueContext): Value {
  for (const given of [variable.example, variable.default]) {
    if (given === undefined || isMissing(given)) continue;
    const parsed = type.parse(given, variable, context);
    if ('value' in parsed) return parsed.value;
  }
  return type.specimen(variable, context);
}
