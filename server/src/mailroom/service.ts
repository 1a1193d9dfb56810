/** The letters of the mailroom: what the stand-in has taken, in the mailboxes of the people here. */
import { randomUUID } from 'node:crypto';
import type { Delivered, DroppedIn, Letter, LetterSummary } from '@vocabula/contract';
import { bareAddress } from '@vocabula/core/filling';
import { inlined, isMbox, mailsOf, readEml, type ReadMail } from '@vocabula/mail';
import { and, desc, eq, isNull } from 'drizzle-orm';
import { schema, type Database, type Writer } from '../db/database.js';
import { notFound, RequestProblem } from '../http/problem.js';
import type { Asker } from '../people/asker.js';
import { profileOf } from '../people/service.js';
import { intend } from './conduct.js';

const { letters, deliveries, people } = schema;
type Row = typeof letters.$inferSelect;
/** Letters shown at once. */
const MOST = 100;
/** Mails taken from one file. */
const MOST_DROPPED = 500;
const OPENING = 140;

export class LetterService {
  constructor(private readonly database: Database) {}

  /**
   * Keeps a letter as it came, puts it into the mailboxes of the people it is for, and lets made-up recipients make up
   * their minds. The same mail for the same recipients is kept once, however often it is given.
   */
  async take(sender: string, recipients: readonly string[], raw: Uint8Array, at = new Date()): Promise<void> {
    const mail = await readEml(raw).catch(() => undefined);
    await this.database.write((writer) => takeLetter(writer, { sender, recipients, raw, mail, at }));
  }

  /** The last hundred that went from or to the asker, the newest first. */
  async list(asker: Asker): Promise<LetterSummary[]> {
    const { id, sender, recipients, subject, at } = letters;
    const rows = await this.database.read
      .select({ id, sender, recipients, subject, at })
      .from(letters)
      .orderBy(desc(at))
      .limit(5000);
    const mine = await this.addressesOf(asker);
    return rows
      .map(summary)
      .filter((letter) => isOf(letter, mine))
      .slice(0, MOST);
  }

  /** What came for the asker, the newest first. @param done those that are dealt with too */
  async inbox(asker: Asker, done = false): Promise<Delivered[]> {
    const rows = await this.database.read
      .select({ letter: letters, doneAt: deliveries.doneAt })
      .from(deliveries)
      .innerJoin(letters, eq(letters.id, deliveries.letter))
      .where(and(eq(deliveries.address, asker.address), done ? undefined : isNull(deliveries.doneAt)))
      .orderBy(desc(deliveries.at))
      .limit(MOST);
    const read = await Promise.all(
      rows.map(async (row) => ({ ...row, mail: await readEml(row.letter.raw).catch(() => undefined) })),
    );
    const threads = new Map<string, number>();
    const threadOf = (mail: ReadMail | undefined, id: string): string =>
      /<[^<>\s]+>/.exec(mail?.references ?? '')?.[0] ?? mail?.inReplyTo ?? mail?.messageId ?? id;
    for (const { mail, letter } of read) {
      const thread = threadOf(mail, letter.id);
      threads.set(thread, (threads.get(thread) ?? 0) + 1);
    }
    return read.map(({ letter, doneAt, mail }) => ({
      ...summary(letter),
      from: mail?.from ?? letter.sender,
      opening: (mail?.text ?? '').replace(/\s+/g, ' ').trim().slice(0, OPENING),
      done: doneAt !== null,
      thread: threads.get(threadOf(mail, letter.id)) ?? 1,
    }));
  }

  async get(id: string, asker: Asker): Promise<Letter> {
    const [row] = await this.database.read.select().from(letters).where(eq(letters.id, id));
    if (!row || !isOf(summary(row), await this.addressesOf(asker))) throw notFound('letter');
    const mail = await readEml(row.raw).catch(() => undefined);
    if (!mail)
      return {
        ...summary(row),
        from: row.sender,
        html: '',
        text: Buffer.from(row.raw).toString('utf8').slice(0, 100_000),
        files: [],
        broken: 'This mail is not formed as mail is; it is shown as it came.',
      };
    const { html = '', text = '', files } = mail;
    const shown = inlined(html, (path) => {
      const found = files.find(({ cid }) => cid !== undefined && path === `cid:${cid}`);
      return found && { content: found.content, type: found.type };
    });
    return {
      ...summary(row),
      from: mail.from ?? row.sender,
      html: shown,
      text,
      files: files.map(({ name }) => name),
      broken: mail.from === undefined ? 'This mail does not say who wrote it.' : '',
    };
  }

  /** Says that a letter is dealt with, or is not. */
  async done(id: string, done: boolean, asker: Asker): Promise<void> {
    await this.database.write(async (writer) => {
      const { rowsAffected } = await writer
        .update(deliveries)
        .set({ doneAt: done ? new Date().toISOString() : null })
        .where(and(eq(deliveries.letter, id), eq(deliveries.address, asker.address)));
      if (rowsAffected === 0) throw notFound('letter');
    });
  }

  /** Takes mails out of a dropped file, as if they had come for the asker. */
  async drop(bytes: Uint8Array, asker: Asker): Promise<DroppedIn> {
    const mails = isMbox(bytes) ? mailsOf(bytes) : [bytes];
    if (mails.length > MOST_DROPPED)
      throw new RequestProblem(
        413,
        'too-large',
        `A mailbox of ${mails.length} mails is too much at once; ${MOST_DROPPED} are taken.`,
      );
    const problems: string[] = [];
    let taken = 0;
    for (const [at, raw] of mails.entries()) {
      const mail = await readEml(raw).catch(() => undefined);
      if (!mail || (mail.from === undefined && mail.subject === '' && !(mail.text ?? mail.html))) {
        problems.push(`Mail ${at + 1} is not one that can be read.`);
        continue;
      }
      taken += 1;
      const given = { sender: bareAddress(mail.from ?? ''), recipients: [asker.address], raw, mail, at: new Date() };
      await this.database.write((writer) => takeLetter(writer, given));
    }
    if (taken === 0) throw new RequestProblem(422, 'not-mail', 'There is no mail in this file that can be read.');
    return { taken, problems };
  }

  private async addressesOf({ id, address }: Asker): Promise<Set<string>> {
    const { email } = await profileOf(this.database.read, id);
    return new Set([address, email.toLowerCase()].filter(Boolean));
  }
}

export interface TakenLetter {
  readonly sender: string;
  readonly recipients: readonly string[];
  readonly raw: Uint8Array;
  readonly mail: ReadMail | undefined;
  readonly at: Date;
}

export async function takeLetter(writer: Writer, { sender, recipients, raw, mail, at }: TakenLetter): Promise<void> {
  const to = recipients.map(bareAddress);
  const messageId = mail?.messageId ?? '';
  if (messageId !== '') {
    const known = await writer
      .select({ recipients: letters.recipients })
      .from(letters)
      .where(eq(letters.messageId, messageId));
    if (known.some((each) => each.recipients === JSON.stringify(to))) return;
  }
  const row: Row = {
    id: randomUUID(),
    sender: bareAddress(sender),
    recipients: JSON.stringify(to),
    subject: mail?.subject ?? '',
    raw: Buffer.from(raw),
    at: at.toISOString(),
    messageId,
  };
  await writer.insert(letters).values(row);
  const here = new Set(
    (await writer.select({ address: people.address }).from(people)).map(({ address }) => address ?? ''),
  );
  for (const address of new Set(to)) {
    if (here.has(address)) await writer.insert(deliveries).values({ address, letter: row.id, at: row.at });
    else await intend(writer, row, address);
  }
}

const isOf = ({ sender, recipients }: LetterSummary, addresses: ReadonlySet<string>): boolean =>
  [sender, ...recipients].some((each) => addresses.has(each.toLowerCase()));

const summary = ({ id, sender, recipients, subject, at }: Omit<Row, 'raw' | 'messageId'>): LetterSummary => ({
  id,
  sender,
  recipients: JSON.parse(recipients) as string[],
  subject,
  at,
});
