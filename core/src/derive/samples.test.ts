import { expect, it } from 'vitest';
import { disguised } from '../proof/samples/made-up.js';
import { derive, samplesOf } from './index.js';
import { CORPORA, mailsOf } from './testing/corpus.js';

it('a sample set has who it went to and what is asked, and can be disguised', () => {
  const derived = derive(mailsOf(CORPORA.fees, 24), { locale: 'en-IE' });
  const { columns, rows } = samplesOf(derived);
  expect(columns.slice(0, 4).map(({ key }) => key)).toEqual(['email', 'name', 'first_name', 'last_name']);
  expect(columns.slice(4).map(({ type }) => type)).toEqual(['number', 'date']);
  // What is calculated is no column.
  const calculated = derived.template.attrs.variables.filter(({ value }) => value !== undefined);
  expect(columns.map(({ key }) => key)).not.toContain(calculated[0]?.key);
  const made = disguised(columns, rows);
  for (const [at, { email = '', last_name = '' }] of rows.entries()) {
    expect(made[at]?.email).toMatch(/\.example$/);
    expect(Object.values(made[at] ?? {})).not.toContain(email);
    expect(made[at]?.last_name === last_name && made[at]?.email === email).toBe(false);
  }
});
