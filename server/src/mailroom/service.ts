/** The letters of the mailroom: what the stand-in has taken, in the mailboxes of the people here. */
import { randomUUID } from 'node:crypto';
import type { Delivered, DroppedIn, Letter, LetterSummary } from '@vocabula/contract';
import { bareAddress } from '@vocabula/core/filling';
import { sameValue } from '@vocabula/core';
import { and, desc, eq, inArray, isNull, or, sql, type SQL } from 'drizzle-orm';
import { among } from '../db/in-list.js';
import { schema, type Database, type Writer } from '../db/database.js';
import { notFound } from '../http/problem.js';
import { mailboxesOf, ownAddresses } from '../people/addresses.js';
import type { User } from '../people/user.js';
import { paceOf, type Workers } from '../workers/pool.js';
import { noteArrival } from './arrivals.js';
import { intend } from './recipient-behaviour.js';
import type { LetterColumns } from './reading.js';
import { addLetter, deliver, describeLetter, setDealtWith } from './store.js';

const { letters, deliveries } = schema;
type Row = typeof letters.$inferSelect;
/** What lists show of a letter and stands before its bytes. */
const { id, sender, recipients, subject, at } = letters;
const LISTED = { id, sender, recipients, subject, at };
type Listed = Pick<Row, keyof typeof LISTED>;
type Head = Pick<Row, 'id' | 'from' | 'opening' | 'thread'>;
/** Letters shown at once. */
const MOST = 100;

export class LetterService {
  constructor(
    private readonly database: Database,
    private readonly workers: Workers,
  ) {}

  /**
   * Keeps a letter as it came, puts it into the mailboxes of the people it is for, and lets made-up recipients make up
   * their minds. The same mail for the same recipients is kept once, however often it is given.
   */
  async take(sender: string, recipients: readonly string[], raw: Uint8Array, at = new Date()): Promise<void> {
    const columns = await this.workers.run('letter', raw, '', paceOf(raw));
    await this.database.write(
      async (writer) => void (await takeLetter(writer, { sender, recipients, raw, columns, at })),
    );
  }

  /**
   * Keeps a mail of a real mailbox: for those of its recipients who are here, and for whose mailbox it is where none is.
   * @param along done in the same transaction
   */
  async takeReal(raw: Uint8Array, at: Date, owner: string, along: (writer: Writer) => Promise<void>): Promise<void> {
    const columns = await this.workers.run('letter', raw, '', paceOf(raw));
    await this.database.write(async (writer) => {
      const named = [...new Set(columns.addressed.map(bareAddress))];
      const here = await mailboxesOf(writer, named);
      const recipients = named.some((each) => here.has(each)) ? named : [...named, bareAddress(owner)];
      await takeLetter(writer, { sender: columns.from, recipients, raw, columns, at, real: true });
      await along(writer);
    });
  }

  /** The last hundred that went from or to the user, the newest first. */
  async list(user: User): Promise<LetterSummary[]> {
    const rows = await this.database.read
      .select(LISTED)
      .from(letters)
      .where(await this.isOf(user))
      .orderBy(desc(letters.at))
      .limit(MOST);
    return rows.map(summary);
  }

  /** What came for the user, the newest first. @param done those that are dealt with too */
  async inbox(user: User, done = false): Promise<Delivered[]> {
    const { read } = this.database;
    const rows = await read
      .select({ letter: LISTED, doneAt: deliveries.doneAt })
      .from(deliveries)
      .innerJoin(letters, eq(letters.id, deliveries.letter))
      .where(
        and(
          inArray(deliveries.address, await ownAddresses(read, user.id)),
          done ? undefined : isNull(deliveries.doneAt),
        ),
      )
      .orderBy(desc(deliveries.at))
      .limit(MOST);
    // A letter to two addresses of one person is one letter.
    const byId = new Map(rows.map((row) => [row.letter.id, row]));
    const heads = await this.heads([...byId.keys()]);
    const threads = new Map<string, number>();
    for (const head of heads.values()) threads.set(threadOf(head), (threads.get(threadOf(head)) ?? 0) + 1);
    return [...byId.values()].map(({ letter, doneAt }) => {
      const head = heads.get(letter.id);
      return {
        ...summary(letter),
        from: head?.from || letter.sender,
        opening: head?.opening ?? '',
        done: doneAt !== null,
        thread: (head && threads.get(threadOf(head))) ?? 1,
      };
    });
  }
  /** What stands behind the bytes of letters, from the index that holds it: SQLite would not choose that by itself. */
  private async heads(ids: readonly string[]): Promise<ReadonlyMap<string, Head>> {
    const rows = await this.database.read.values<[string, string, string, string]>(
      sql`SELECT id, "from", opening, thread FROM letters INDEXED BY letters_listed
          WHERE id IN ${among(ids)}`,
    );
    return new Map(rows.map(([id, from, opening, thread]) => [id, { id, from, opening, thread }]));
  }

  async get(id: string, user: User): Promise<Letter> {
    const [row] = await this.database.read
      .select()
      .from(letters)
      .where(and(eq(letters.id, id), await this.isOf(user)));
    if (!row) throw notFound('letter');
    const shown = await this.workers.run('shownLetter', row.raw, user.id, paceOf(row.raw));
    return { ...summary(row), from: row.from || row.sender, ...shown };
  }

  /** Says that a letter is dealt with, or is not. */
  async done(id: string, done: boolean, user: User): Promise<void> {
    await this.database.write(async (writer) => {
      const own = await ownAddresses(writer, user.id);
      if (!(await setDealtWith(writer, id, done ? new Date().toISOString() : null, own))) throw notFound('letter');
    });
  }

  /** Takes mails out of a dropped file, as if they had come for the user. */
  async drop(bytes: Uint8Array, user: User): Promise<DroppedIn> {
    const { mails, problems } = await this.workers.run('mailbox', bytes, user.id, paceOf(bytes));
    for (const { raw, ...columns } of mails) {
      const given = { sender: bareAddress(columns.from), recipients: [user.address], raw, columns, at: new Date() };
      await this.database.write((writer) => takeLetter(writer, given));
    }
    return { taken: mails.length, problems: [...problems] };
  }

  /** Reads letters that were taken before what lists show was kept beside them. Does nothing where all were read. */
  async readOld(): Promise<void> {
    const { read } = this.database;
    for (;;) {
      const rows = await read
        .select({ id: letters.id, raw: letters.raw })
        .from(letters)
        .where(isNull(letters.readable))
        .limit(20);
      if (rows.length === 0) return;
      const all = await this.workers.run(
        'letters',
        rows.map(({ raw }) => raw),
        '',
      );
      await this.database.write(async (writer) => {
        for (const [at, { id }] of rows.entries()) {
          const { from = '', opening = '', thread = '', readable = false } = all[at] ?? {};
          await describeLetter(writer, id, { from, opening, thread, readable });
        }
      });
    }
  }

  /** Letters that went from or to somebody, by the addresses that count for them. */
  private async isOf({ id }: User): Promise<SQL | undefined> {
    const { read } = this.database;
    const own = await ownAddresses(read, id);
    const came = read.select({ letter: deliveries.letter }).from(deliveries).where(inArray(deliveries.address, own));
    return or(inArray(letters.sender, own), inArray(letters.id, came));
  }
}

export interface TakenLetter {
  readonly sender: string;
  readonly recipients: readonly string[];
  readonly raw: Uint8Array;
  readonly columns: LetterColumns;
  readonly at: Date;
  /** From a real mailbox: nobody's mind is made up for them. */
  readonly real?: boolean;
}

/** Keeps a letter and what follows from it. @returns its id; undefined for one that was there already */
export async function takeLetter(
  writer: Writer,
  { sender, recipients, raw, columns, at, real = false }: TakenLetter,
): Promise<string | undefined> {
  const to = recipients.map(bareAddress);
  if (columns.messageId !== '') {
    const known = await writer
      .select({ recipients: letters.recipients })
      .from(letters)
      .where(eq(letters.messageId, columns.messageId));
    if (known.some((each) => sameValue(each.recipients, to))) return undefined;
  }
  if (real && columns.messageId === '' && (await isThere(writer, sender, raw))) return undefined;
  const row: Row = {
    id: randomUUID(),
    sender: bareAddress(sender),
    recipients: to,
    raw: Buffer.from(raw),
    at: at.toISOString(),
    ...columns,
  };
  await addLetter(writer, row);
  const here = await mailboxesOf(writer, to);
  // What goes out passes here as well: only what comes to somebody here can be an answer.
  if (columns.arrival && (real || to.some((address) => here.has(address))))
    await noteArrival(writer, columns.arrival, row.at);
  for (const address of new Set(to)) {
    if (here.has(address)) await deliver(writer, { address, letter: row.id, at: row.at });
    else if (!real) await intend(writer, row, address);
  }
  return row.id;
}

/** Whether a mail without an id was taken before: it is known by its bytes alone. */
async function isThere(writer: Writer, sender: string, raw: Uint8Array): Promise<boolean> {
  const found = await writer
    .select({ id: letters.id })
    .from(letters)
    .where(and(eq(letters.sender, bareAddress(sender)), eq(letters.messageId, ''), eq(letters.raw, Buffer.from(raw))))
    .limit(1);
  return found.length > 0;
}

/** What letters of one conversation have in common. */
const threadOf = ({ thread, id }: Head): string => thread || id;

const summary = ({ id, sender, recipients, subject, at }: Listed): LetterSummary => ({
  id,
  sender,
  recipients,
  subject,
  at,
});
