/** Carries out what made-up recipients have in mind, when the stand-in's clock has come so far. */
import type { Forwarded, StandInClock } from '@vocabula/contract';
import { readMailbox } from '@vocabula/core';
import { replySubject } from '@vocabula/core/filling';
import { readEml, toEml, type ReadMail } from '@vocabula/mail';
import { and, asc, count, eq, isNull, lte } from 'drizzle-orm';
import { schema, type Database } from '../db/database.js';
import { keepWorkspaceValue } from '../people/workspace.js';
import { AHEAD, aheadOf, answerOf } from './recipient-behaviour.js';
import { letterColumns } from './reading.js';
import { takeLetter } from './service.js';
import { takeIntention } from './store.js';

const { intentions, letters } = schema;
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
    const bounce = what === 'bounce' ? bounceOf(letter, recipient, due) : undefined;
    // What comes of it is known when it is taken in, as with any mail.
    return this.database.write(async (writer) => {
      if (!(await takeIntention(writer, id))) return false;
      const raw = answer ?? bounce;
      if (!raw) return true;
      const given = { sender: answer ? recipient : '', recipients: [letter.sender], raw };
      await takeLetter(writer, { ...given, columns: await letterColumns(raw), at: new Date(due) });
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

/** What a mail server says of an address that it does not have: a report in the form of RFC 3464. */
function bounceOf(letter: Letter, recipient: string, at: string): Uint8Array {
  const domain = recipient.split('@')[1] ?? 'mail.example';
  const ascii = (words: string): string => `=?utf-8?B?${Buffer.from(words).toString('base64')}?=`;
  const boundary = `report-${letter.id}`;
  const words = `Your message could not be delivered to ${recipient}: there is no such mailbox.`;
  return Buffer.from(
    [
      `From: Mail delivery <mailer-daemon@${domain}>`,
      `To: ${letter.sender}`,
      `Subject: ${ascii(`Undelivered: ${letter.subject}`.slice(0, 40))}`,
      `Date: ${new Date(at).toUTCString().replace('GMT', '+0000')}`,
      `Message-ID: <${letter.id}.${recipient.length}@${domain}>`,
      ...(letter.messageId === '' ? [] : [`In-Reply-To: ${letter.messageId}`]),
      'Auto-Submitted: auto-replied',
      'MIME-Version: 1.0',
      `Content-Type: multipart/report; report-type=delivery-status; boundary="${boundary}"`,
      '',
      `--${boundary}`,
      'Content-Type: text/plain; charset=utf-8',
      '',
      words,
      '',
      `--${boundary}`,
      'Content-Type: message/delivery-status',
      '',
      `Reporting-MTA: dns; mx.${domain}`,
      '',
      `Final-Recipient: rfc822; ${recipient}`,
      'Action: failed',
      'Status: 5.1.1',
      'Diagnostic-Code: smtp; 550 5.1.1 no such mailbox',
      '',
      `--${boundary}`,
      'Content-Type: text/rfc822-headers',
      '',
      ...(letter.messageId === '' ? [] : [`Message-ID: ${letter.messageId}`]),
      `To: ${recipient}`,
      '',
      `--${boundary}--`,
      '',
    ].join('\r\n'),
  );
}
