import { expect, it } from 'vitest';
import { recipientFromWords } from './recipient.js';

it.each([
  ['Ann Lee <ann@x.example>', { first_name: 'Ann', last_name: 'Lee', email: 'ann@x.example' }],
  ['Ann Lee <ann@x.example', { first_name: 'Ann', last_name: 'Lee', email: 'ann@x.example' }],
  ['<ann@x.example>', { email: 'ann@x.example' }],
  ['ann@x.example', { email: 'ann@x.example' }],
  ['  Ana María  de la Cruz ', { first_name: 'Ana', last_name: 'María de la Cruz' }],
  ['Ann', { first_name: 'Ann' }],
  ['', {}],
])('reads %j', (typed, fields) => {
  expect(recipientFromWords(typed)).toEqual(fields);
});
