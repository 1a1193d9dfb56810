/** The variable types, by name. A new type is a file here and a line in this table. */
import type { TypeName } from '../template/variable.js';
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
import type { ValueType } from './type.js';
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
export * from './type.js';
