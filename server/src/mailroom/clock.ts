/** Carries out what made-up recipients have in mind, when the stand-in's clock has come so far. */
import type { Forwarded, StandInClock } from '@vocabula/contract';
import { readMailbox } from '@vocabula/core';
import { replySubject } from '@vocabula/core/filling';
import { readEml, toEml, type ReadMail } from '@vocabula/mail';
import { and, asc, count, eq, isNull, lte } from 'drizzle-orm';
import { schema, type Database, type Writer } from '../db/database.js';
import { keepWorkspaceValue } from '../people/workspace.js';
import { AHEAD, aheadOf, answerOf } from './recipient-behaviour.js';
import { letterColumns } from './reading.js';
import { takeLetter } from './service.js';
import { addCounts } from '../sending/store.js';
import { takeIntention } from './store.js';

const { intentions, letters, outgoing } = schema;
type Intention = typeof intentions.$inferSelect;
type Letter = typeof letters.$inferSelect;
const HOUR = 3_600_000;
/** Done at once; what is left waits for the next look. */
const MOST = 2000;

/**
 * The addresses in a mail that opening or following it fetches, as anybody's mail program would. Without any, nothing is
 * fetched and nobody learns of it.
 */
const FETCHED: Readonly<Partial<Record<Intention['what'], RegExp>>> = {
  open: /<img\b[^>]*?\ssrc="([^"]+\/counted\/open\/[^"]+)"/g,
  follow: /<a\b[^>]*?\shref="([^"]+\/counted\/link\/[^"]+)"/g,
};

export class ClockService {
  private working: Promise<Record<string, number>> | undefined;

  constructor(
    private readonly database: Database,
    private readonly isStandIn: () => boolean,
    /** Where this server is reached: only its own addresses are fetched. */
    private readonly origin: () => string,
  ) {}

  async clock(): Promise<StandInClock> {
    const { read } = this.database;
    const ahead = await aheadOf(read);
    const [waiting] = await read.select({ number: count() }).from(intentions).where(isNull(intentions.doneAt));
    const now = new Date(Date.now() + ahead).toISOString();
    return { standIn: this.isStandIn(), now, ahead, waiting: waiting?.number ?? 0 };
  }

  /** Sets the clock forward, and lets happen what is due by then. */
  async forward(hours: number): Promise<Forwarded> {
    await this.database.write(async (writer) =>
      keepWorkspaceValue(writer, AHEAD, (await aheadOf(writer)) + Math.round(hours * HOUR)),
    );
    const happened = await this.tick();
    return { ...(await this.clock()), happened };
  }

  /** Does what is due. Calls while it works join it. */
  tick(): Promise<Record<string, number>> {
    return (this.working ??= this.work().finally(() => (this.working = undefined)));
  }

  private async work(): Promise<Record<string, number>> {
    const now = new Date(Date.now() + (await aheadOf(this.database.read))).toISOString();
    const due = await this.database.read
      .select({ intention: intentions, letter: letters })
      .from(intentions)
      .innerJoin(letters, eq(letters.id, intentions.letter))
      .where(and(isNull(intentions.doneAt), lte(intentions.due, now)))
      .orderBy(asc(intentions.due))
      .limit(MOST);
    const happened: Record<string, number> = {};
    for (const { intention, letter } of due) {
      const mail = await readEml(letter.raw).catch(() => undefined);
      if (await this.carryOut(intention, letter, mail)) happened[intention.what] = (happened[intention.what] ?? 0) + 1;
    }
    return happened;
  }

  /** False where another process has done it. */
  private async carryOut(intention: Intention, letter: Letter, mail: ReadMail | undefined): Promise<boolean> {
    const { what, recipient, due, id } = intention;
    const counted = FETCHED[what];
    if (counted) {
      // Taken first: of two processes that look at one moment, one fetches.
      const isOurs = await this.database.write((writer) => takeIntention(writer, id));
      if (isOurs) await this.fetchOwn(mail?.html, counted);
      return isOurs;
    }
    const answer = what === 'answer' ? await answerTo(letter, mail, recipient, due) : undefined;
    const bounce = what === 'bounce' ? await bounceOf(letter, recipient, due) : undefined;
    return this.database.write(async (writer) => {
      if (!(await takeIntention(writer, id))) return false;
      const raw = answer ?? bounce;
      if (!raw) return true;
      const given = { sender: answer ? recipient : '', recipients: [letter.sender], raw };
      await takeLetter(writer, { ...given, columns: await letterColumns(raw), at: new Date(due) });
      // An answer is known by its thread when it comes in; what made-up mail servers say is words only.
      if (bounce) await countFor(writer, letter.messageId, 'bounced', due);
      return true;
    });
  }

  private async fetchOwn(html: string | undefined, pattern: RegExp): Promise<void> {
    const [first] = [...(html ?? '').matchAll(pattern)].map(([, url = '']) => url.replace(/&amp;/g, '&'));
    const origin = this.origin();
    if (first === undefined || origin === '' || !first.startsWith(`${origin}/`)) return;
    await fetch(first, { redirect: 'manual', signal: AbortSignal.timeout(5000) }).then(
      (response) => response.body?.cancel(),
      () => undefined,
    );
  }
}

async function countFor(writer: Writer, messageId: string, what: 'bounced', at: string): Promise<void> {
  if (messageId === '') return;
  const [row] = await writer.select({ id: outgoing.id }).from(outgoing).where(eq(outgoing.messageId, messageId));
  if (row) await addCounts(writer, [{ outgoing: row.id, what, at }]);
}

const plain = (html: string): string => `<!doctype html><html><body><p>${html}</p></body></html>`;

/** A short answer in the thread. */
function answerTo(letter: Letter, mail: ReadMail | undefined, recipient: string, at: string): Promise<Uint8Array> {
  const words = answerOf(letter.messageId, recipient);
  const named = mail?.to.find((each) => each.toLowerCase().includes(recipient)) ?? recipient;
  const from = readMailbox(named) ?? { name: '', address: recipient };
  const message = {
    subject: replySubject(letter.subject),
    to: [{ name: '', address: letter.sender }],
    cc: [],
    bcc: [],
    replyTo: [],
    text: `${words}\n`,
    html: plain(words),
  };
  const { messageId } = letter;
  const answers =
    messageId === '' ? {} : { answers: { messageId, ...(mail?.references ? { references: mail.references } : {}) } };
  return toEml(message, { date: new Date(at), from, goes: true, ...answers });
}

/** What a mail server says of an address that it does not have (RFC 3464, in words only). */
function bounceOf(letter: Letter, recipient: string, at: string): Promise<Uint8Array> {
  const words = `Your message “${letter.subject}” could not be delivered to ${recipient}: there is no such mailbox (550 5.1.1).`;
  const message = {
    subject: `Undelivered: ${letter.subject}`,
    to: [{ name: '', address: letter.sender }],
    cc: [],
    bcc: [],
    replyTo: [],
    text: `${words}\n`,
    html: plain(words.replace(/&/g, '&amp;').replace(/</g, '&lt;')),
  };
  const answers = letter.messageId === '' ? {} : { answers: { messageId: letter.messageId } };
  return toEml(message, {
    date: new Date(at),
    from: { name: 'Mail delivery', address: `postmaster@${recipient.split('@')[1] ?? 'mail.example'}` },
    goes: true,
    ...answers,
  });
}
