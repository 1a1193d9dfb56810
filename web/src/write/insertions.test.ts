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
    'New variable “tickets”',
    'New optional passage “tickets”',
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
  expect([...groups]).toEqual(['Variables', 'Recipient', 'My fields']);
});

it('makes what nobody has yet of what was typed, last', () => {
  expect(words(' Number of geese ')).toEqual([
    'New variable “Number of geese”',
    'New optional passage “Number of geese”',
  ]);
});
