import { expect, it } from 'vitest';
import { program } from '../../testing/build.js';
import { cover } from './cover.js';
import { casesInWords, reasonsOf } from './news.js';

const made = program({
  body: '{{#guide}}\nYour guide waits{{#rain}} under a roof{{/rain}}.\n{{/guide}}\n\nCome to {{gate}}. {{note}}\n\n{{#tickets}}\n{{tickets.what}}\n{{/tickets}}',
  variables: [
    'guide: { type: yes-no, label: Guided walk }',
    'rain: { type: yes-no, label: Rain plan }',
    'gate: { type: choice, required: true, label: Gate, options: { north: { label: North }, river: { label: River } } }',
    'note: { type: text, label: Note }',
    'tickets: { type: list, label: Tickets, columns: { what: { type: text } } }',
  ].join('\n'),
});
const covering = cover(made, { today: '2026-11-24' });
const cases = casesInWords(covering);

it('every case has words of its own, a key that stays, and what is new in it', () => {
  expect(new Set(cases.map(({ key }) => key)).size).toBe(cases.length);
  expect(cases[0]?.news).toBe('all of this for the first time');
  for (const { title, news } of cases.slice(1)) {
    expect(title).toMatch(/^\p{Lu}/u);
    expect(news).toMatch(/^new: /);
  }
  const all = cases.flatMap(({ title, news }) => [title, news]).join(' | ');
  for (const words of ['guided walk', 'rain plan', 'north', 'river', 'without note', 'tickets'])
    expect(all.toLowerCase()).toContain(words);
  expect(casesInWords(cover(made, { today: '2026-11-24' }))).toEqual(cases);
});

it('marks what is new among its levels, and names those that it has', () => {
  for (const { key, levels } of cases) expect(key.split(' ')).toHaveLength(levels.length);
  expect(cases[0]?.levels.some(({ fresh }) => fresh)).toBe(false);
  expect(cases.slice(1).every(({ levels }) => levels.some(({ fresh }) => fresh))).toBe(true);
});

it('gathers reasons, the commonest first', () => {
  const reasons = reasonsOf(covering);
  expect(reasons.length).toBeGreaterThan(0);
  expect(reasons.reduce((sum, { count }) => sum + count, 0)).toBe(covering.impossible.length);
  expect(reasons[0]?.because).toBe('“Rain plan” does not come up when “Guided walk” is no');
});
