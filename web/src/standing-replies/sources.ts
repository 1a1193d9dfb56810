/** Where an answer may come from, by the type of its question, as it is chosen. */
import type { StandingRule } from '@vocabula/contract';
import type { Variable } from '@vocabula/core';

export type Source = StandingRule['values'][string];

/** Types whose values are recognised in a mail, and what those are called. */
const FOUND: Partial<Record<Variable['type'], string>> = {
  date: 'day',
  time: 'time',
  number: 'number',
  money: 'sum',
  email: 'address',
  phone: 'telephone number',
  link: 'link',
};
const ORDINALS = ['first', 'second', 'third'] as const;

/** What can be chosen for a question; what is left to itself comes from the recipient, its default, or stays blank. */
export function sourcesFor({ type, from, default: usual }: Variable): { value: string; words: string }[] {
  const found = FOUND[type];
  const isText = type === 'text' || type === 'paragraphs';
  return [
    { value: '', words: from ? 'the recipient' : usual === undefined ? 'nowhere: left blank' : 'its default' },
    ...(found
      ? ORDINALS.map((words, at) => ({ value: `found ${at + 1}`, words: `the ${words} ${found} in the mail` }))
      : []),
    { value: 'behind', words: 'what stands behind…' },
    ...(isText ? [{ value: 'name', words: 'the sender’s name' }] : []),
    ...(type === 'email' || isText ? [{ value: 'address', words: 'the sender’s address' }] : []),
    ...(isText ? [{ value: 'subject', words: 'the subject' }] : []),
    { value: 'fixed', words: 'always the same…' },
  ];
}

/** A source as it is chosen. */
export const sourceKey = (source: Source | undefined): string =>
  source === undefined ? '' : source.from === 'found' ? `found ${source.nth}` : source.from;

/** What is chosen as a source, before anything more is said of it. */
export function firstSource(key: string): Source | undefined {
  const [from, nth] = key.split(' ');
  switch (from) {
    case 'found':
      return { from: 'found', nth: Number(nth) };
    case 'behind':
      return { from: 'behind', words: '' };
    case 'fixed':
      return { from: 'fixed', value: '' };
    case 'name':
    case 'address':
    case 'subject':
      return { from };
    default:
      return undefined;
  }
}
