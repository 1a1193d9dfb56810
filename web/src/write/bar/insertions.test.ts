import { expect, it } from 'vitest';
import type { TextSummary } from '@vocabula/contract';
import type { Variable } from '@vocabula/core';
import { entriesFor, type Insertable } from './insertions';

const block = (name: string, more: Partial<TextSummary> = {}): TextSummary =>
  ({ name, kind: 'block', title: name, binned: false, ...more }) as TextSummary;
const variables: readonly Variable[] = [
  { key: 'visit_day', type: 'date', label: 'Day of the visit' },
  { key: 'guide', type: 'yes-no' },
  { key: 'gate', type: 'choice', options: [{ key: 'north', label: 'North gate' }, { key: 'river' }] },
  { key: 'tickets', type: 'list', columns: [{ key: 'item', type: 'text' }] },
];
const all: Insertable = {
  variables,
  columns: [],
  facts: [{ key: 'house.entry_fee', type: 'money', label: 'Entry fee', currency: 'EUR' }],
  fields: ['recipient.first_name', 'sender.name'],
  texts: [block('hours'), block('own'), block('gone', { binned: true }), block('visit', { kind: 'message' })],
  own: 'own',
  inBody: true,
};
const words = (typed: string, more: Partial<Insertable> = {}): string[] =>
  entriesFor({ ...all, ...more }, typed).map((entry) => entry.words);

it('shows plain placeholders before their views, and lists by their views only', () => {
  const found = words('').slice(0, 4);
  expect(found).toEqual(['Day of the visit', 'Guide', 'Gate', 'Day of the visit · short']);
  expect(words('tickets')).toEqual([
    'Tickets · count',
    'Tickets · item',
    'For each of: Tickets',
    'If there are none: Tickets',
    'New variable “tickets”',
    'New optional passage “tickets”',
    'New note “tickets”',
  ]);
});

it('offers passages, alternatives, blocks and fields, found by any of their words', () => {
  expect(words('only river')).toContain('Only with: Gate, River');
  expect(words('without guide')).toContain('Only without: Guide');
  expect(words('block')).toContain('hours');
  expect(words('block')).not.toContain('own');
  expect(words('block')).not.toContain('gone');
  expect(words('first')).toContain('First name');
});

it('puts only placeholders into lines outside the body', () => {
  const groups = new Set(entriesFor({ ...all, inBody: false }, '').map((entry) => entry.group));
  expect([...groups]).toEqual(['variables', 'recipient', 'own', 'facts']);
});

it('makes what nobody has yet of what was typed, last', () => {
  expect(words(' Number of geese ')).toEqual([
    'New variable “Number of geese”',
    'New optional passage “Number of geese”',
    'New note “Number of geese”',
  ]);
});

it('offers the columns of the row around the caret first, and sums behind a list', () => {
  const price: Variable = { key: 'price', type: 'money', currency: 'EUR', label: 'Price' };
  const list: Variable = { key: 'tickets', type: 'list', columns: [price] };
  const offered = entriesFor({ ...all, variables: [list], columns: [price] }, 'price');
  expect(offered[0]).toMatchObject({ group: 'columns', words: 'Price' });
  expect(offered.find(({ group }) => group === 'totals')?.insertion).toEqual({
    what: 'computed',
    label: 'Total price',
    type: 'money',
    currency: 'EUR',
    expression: 'sum(tickets.price)',
  });
});
