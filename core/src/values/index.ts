/** The variable types, by name. A new type is a file here and a line in this table. */
import type { TypeName, Variable } from '../template/variable.js';
import { email, link, phone } from './address.js';
import { choice, choices } from './choice.js';
import { date } from './date.js';
import { datetime } from './datetime.js';
import { image } from './image.js';
import { list } from './list.js';
import { money } from './money.js';
import { number } from './number.js';
import { paragraphs, text } from './text.js';
import { time } from './time.js';
import { isMissing, type Value, type ValueContext, type ValueType } from './type.js';
import { yesNo } from './yes-no.js';

const TYPES: { readonly [name in TypeName]: () => ValueType } = {
  text: () => text,
  paragraphs: () => paragraphs,
  number: () => number,
  money: () => money,
  date: () => date,
  time: () => time,
  datetime: () => datetime,
  'yes-no': () => yesNo,
  choice: () => choice,
  choices: () => choices,
  email: () => email,
  phone: () => phone,
  link: () => link,
  image: () => image,
  list: () => list,
};

/** The type with that name. */
export const valueType = (name: TypeName): ValueType => TYPES[name]();

/** A value to show a variable's views by: its example or default where it has one, else one likely for its type. */
export function specimenOf(variable: Variable, context: ValueContext): Value {
  for (const given of [variable.example, variable.default]) {
    if (given === undefined || isMissing(given)) continue;
    const parsed = valueType(variable.type).parse(given, variable, context);
    if ('value' in parsed) return parsed.value;
  }
  return valueType(variable.type).specimen(variable, context);
}
export * from './type.js';
