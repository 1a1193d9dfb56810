/** Who a mailing goes to, out of what was pasted or chosen: everybody once, and what is nobody set apart with its words. */
import type { AddRecipients } from '@vocabula/contract';
import { firstAddressIn, fold, isEmail } from '@vocabula/core';
import { bareAddress, recipientFromWords } from '@vocabula/core/filling';
import { eq } from 'drizzle-orm';
import { schema, type Database } from '../db/database.js';
import { notFound, RequestProblem } from '../http/problem.js';
import type { User } from '../people/user.js';
import { tableOf } from '../samples/recognise.js';
import type { TableService } from '../samples/service.js';

/** Somebody to write to. */
export interface Given {
  readonly fields: Readonly<Record<string, string>>;
  readonly address: string;
}
export interface Read {
  readonly people: readonly Given[];
  /** Lines that are nobody one can write to, as they were given, with their numbers from 1. */
  readonly broken: readonly string[];
}

/** A line that is longer is nobody. */
const LONGEST_LINE = 1000;
const MOST_WORDS = 120;

/** Rows of a table with a head, or one person a line, or addresses one after the other. */
export async function readPasted(words: string): Promise<Read> {
  const text = words.replace(/\r\n?/g, '\n').trim();
  const [head = ''] = text.split('\n', 1);
  const separated = /[\t;,]/.test(head);
  // A head names columns; it holds no address.
  if (separated && !head.includes('@') && text.includes('\n')) return readTable(text);
  const entries = text.includes('\n') ? text.split('\n') : text.split(/[;,]/);
  return judge(
    entries.map((entry) => entry.trim()),
    (entry) => {
      const named = /<[^<>]*>?/.test(entry);
      const found = firstAddressIn(entry);
      if (named) return recipientFromWords(entry);
      const name = entry
        .replace(found, ' ')
        .replace(/[\t;,"]+/g, ' ')
        .trim();
      return recipientFromWords(name === '' ? found || entry : `${name} <${found}>`);
    },
  );
}

async function readTable(text: string): Promise<Read> {
  const { columns, rows } = await tableOf(new TextEncoder().encode(text), {});
  const column =
    columns.find(({ key }) => key === 'email') ??
    columns.find(({ type }) => type === 'email') ??
    columns.find(({ key }) => /mail|address/.test(key));
  return fromRows(rows, column?.key ?? 'email', 2);
}

/** Rows of a list. @param first the number of the first row, for words about it */
export function fromRows(rows: readonly Readonly<Record<string, string>>[], email: string, first = 1): Read {
  const people: Given[] = [];
  const broken: string[] = [];
  rows.forEach((row, at) => {
    if (Object.values(row).every((cell) => cell.trim() === '')) return;
    const address = (row[email] ?? '').trim();
    if (isWritable(address)) people.push({ fields: { ...row, email: address }, address: bareAddress(address) });
    else broken.push(said(at + first, address === '' ? Object.values(row).filter(Boolean).join(', ') : address));
  });
  return { people, broken };
}

function judge(entries: readonly string[], read: (entry: string) => Record<string, string>): Read {
  const people: Given[] = [];
  const broken: string[] = [];
  entries.forEach((entry, at) => {
    if (entry === '') return;
    const fields = entry.length > LONGEST_LINE ? {} : read(entry);
    const address = fields.email ?? '';
    if (isWritable(address)) people.push({ fields, address: bareAddress(address) });
    else broken.push(said(at + 1, entry));
  });
  return { people, broken };
}

/** An address without anything that could be read as more than one, or as another line of a header. */
const isWritable = (address: string): boolean => isEmail(address) && !/[\s\p{Cc}<>,;]/u.test(address);
const said = (line: number, words: string): string =>
  `line ${line}: ${words.replace(/[\s\p{Cc}]+/gu, ' ').slice(0, MOST_WORDS)}`;

/** The people of a recipient list, narrowed by words. Throws words for a sample set, which is never mailed. */
export async function peopleOfList(
  database: Database,
  lists: TableService,
  { list, search }: Extract<AddRecipients, { list: string }>,
  user: User,
): Promise<Read> {
  const { tables } = schema;
  const [table] = await database.read.select({ use: tables.use }).from(tables).where(eq(tables.id, list));
  if (!table) throw notFound('list');
  // Samples are made up or disguised: nothing is ever sent to them.
  if (table.use !== 'recipients')
    throw new RequestProblem(422, 'samples', 'A sample set is never mailed. Choose a recipient list.');
  const { columns, cells } = await lists.get(list, user);
  const email = columns.find(({ type, key }) => type === 'email' || key === 'email')?.key ?? 'email';
  const words = fold(search).split(/\s+/).filter(Boolean);
  const wanted = cells.filter((row) => {
    const folded = words.length > 0 ? fold(Object.values(row).join(' ')) : '';
    return words.every((word) => folded.includes(word));
  });
  return fromRows(wanted, email);
}
