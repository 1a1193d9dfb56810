/** Mail that came in, as rules see it. */
import { dayIn } from '@vocabula/core';
import type { IncomingMail, MailMoment } from '@vocabula/core/standing-replies';
import { and, desc, eq, gte, inArray, notExists, sql } from 'drizzle-orm';
import { schema, type Reader } from '../db/database.js';
import { answeredMessage } from '../mailroom/arrivals.js';
import { paceFor, type Workers } from '../workers/pool.js';

const { letters, deliveries, standingDecisions } = schema;

/** A mail of somebody's mailbox. */
export interface CameIn {
  readonly letter: string;
  /** When it came, ISO. */
  readonly at: string;
  readonly from: string;
  readonly subject: string;
  readonly opening: string;
  readonly done: boolean;
}
/** A mail as it was read. */
export interface Known {
  readonly mail: IncomingMail;
  readonly moment: MailMoment;
}

/** Mails, and bytes of them, that are read at once; mails of which what was read is kept; sizes that are asked at once. */
const [TOGETHER, MOST_BYTES, MOST_KEPT, ASKED] = [50, 8_000_000, 3000, 400];
/** How long what was read is kept after it was last asked for, in milliseconds. */
const KEPT_FOR = 300_000;

const CAME = {
  letter: letters.id,
  at: deliveries.at,
  from: letters.from,
  subject: letters.subject,
  opening: letters.opening,
  doneAt: deliveries.doneAt,
};

export class MailShelf {
  private readonly kept = new Map<string, Known>();
  private keptIn = '';
  private clearing: NodeJS.Timeout | undefined;

  constructor(
    private readonly read: Reader,
    private readonly workers: Workers,
  ) {}

  /** What came for some addresses since a moment, the newest of very many, in the order in which it came. */
  async since(addresses: readonly string[], since: string, most: number): Promise<CameIn[]> {
    const rows = await this.read
      .select(CAME)
      .from(deliveries)
      .innerJoin(letters, eq(letters.id, deliveries.letter))
      .where(and(inArray(deliveries.address, [...addresses]), gte(deliveries.at, since), eq(letters.readable, true)))
      .orderBy(desc(deliveries.at))
      .limit(most);
    return eachOnce(rows).reverse();
  }

  /** One mail that came for some addresses. */
  async one(addresses: readonly string[], letter: string): Promise<CameIn | undefined> {
    const rows = await this.read
      .select(CAME)
      .from(deliveries)
      .innerJoin(letters, eq(letters.id, deliveries.letter))
      .where(
        and(eq(deliveries.letter, letter), inArray(deliveries.address, [...addresses]), eq(letters.readable, true)),
      )
      .limit(1);
    return eachOnce(rows)[0];
  }

  /** What came for somebody since a moment and was not decided on yet, the oldest first. */
  async undecided(person: string, addresses: readonly string[], since: string, most: number): Promise<CameIn[]> {
    const decided = this.read
      .select({ letter: standingDecisions.letter })
      .from(standingDecisions)
      .where(and(eq(standingDecisions.person, person), eq(standingDecisions.letter, deliveries.letter)));
    const rows = await this.read
      .select(CAME)
      .from(deliveries)
      .innerJoin(letters, eq(letters.id, deliveries.letter))
      .where(and(inArray(deliveries.address, [...addresses]), gte(deliveries.at, since), notExists(decided)))
      .orderBy(deliveries.at, sql`${deliveries}.rowid`)
      .limit(most);
    return eachOnce(rows);
  }

  /**
   * Reads mails as `known` does, and keeps what it read for the next time: a rule is tried on the same mails again and
   * again while it is written.
   */
  async knownAgain(mails: readonly CameIn[], zone: string, by: string): Promise<ReadonlyMap<string, Known>> {
    if (this.keptIn !== zone || this.kept.size > MOST_KEPT) this.kept.clear();
    this.keptIn = zone;
    const missing = mails.filter(({ letter }) => !this.kept.has(letter));
    for (const [letter, known] of await this.known(missing, zone, by)) this.kept.set(letter, known);
    // Not longer: whoever wrote a mail may be forgotten meanwhile.
    clearTimeout(this.clearing);
    this.clearing = setTimeout(() => this.kept.clear(), KEPT_FOR).unref();
    return new Map(
      mails.flatMap(({ letter }) => {
        const known = this.kept.get(letter);
        return known ? [[letter, known]] : [];
      }),
    );
  }

  /** Reads mails. @param zone of whom they came to, whose days count; @param by the person who waits for it, by id */
  async known(mails: readonly CameIn[], zone: string, by: string): Promise<Map<string, Known>> {
    const found = new Map<string, Known>();
    for (const some of await this.inParts(mails))
      for (const [letter, known] of await this.readAll(some, zone, by)) found.set(letter, known);
    return found;
  }

  /** Mails in parts, of which none is too large to be read at once. */
  private async inParts(mails: readonly CameIn[]): Promise<CameIn[][]> {
    const sizes = new Map<string, number>();
    for (let at = 0; at < mails.length; at += ASKED) {
      const ids = mails.slice(at, at + ASKED).map(({ letter }) => letter);
      const rows = await this.read
        .select({ id: letters.id, size: sql<number>`length(${letters.raw})` })
        .from(letters)
        .where(inArray(letters.id, ids));
      for (const { id, size } of rows) sizes.set(id, size);
    }
    const parts: CameIn[][] = [];
    let room = 0;
    for (const mail of mails) {
      const size = sizes.get(mail.letter) ?? 0;
      const last = parts.at(-1);
      if (last && last.length < TOGETHER && size <= room) last.push(mail);
      else {
        parts.push([mail]);
        room = MOST_BYTES;
      }
      room -= size;
    }
    return parts;
  }

  private async readAll(mails: readonly CameIn[], zone: string, by: string): Promise<[string, Known][]> {
    const ids = mails.map(({ letter }) => letter);
    const rows = await this.read
      .select({ id: letters.id, raw: letters.raw, sender: letters.sender })
      .from(letters)
      .where(inArray(letters.id, ids));
    const came = new Map(mails.map(({ letter, at }) => [letter, at]));
    const todays = rows.map(({ id }) => dayIn(new Date(came.get(id) ?? ''), zone));
    const given = rows.map(({ raw, sender }, at) => ({ raw, sender, today: todays[at] ?? '' }));
    const size = rows.reduce((sum, { raw }) => sum + raw.length, 0);
    const read = await this.workers.run('incoming', given, by, paceFor(size));
    const all: [string, Known][] = [];
    for (const [at, { id }] of rows.entries()) {
      const [incoming, today] = [read[at], todays[at]];
      if (!incoming || today === undefined) continue;
      const { arrival, ...mail } = incoming;
      const answers = await answeredMessage(this.read, arrival, came.get(id) ?? '');
      all.push([id, { mail, moment: { today, answersOurs: answers !== undefined } }]);
    }
    return all;
  }
}

/** A letter to two addresses of one person is one letter. */
const eachOnce = (rows: readonly (Omit<CameIn, 'done'> & { readonly doneAt: string | null })[]): CameIn[] => [
  ...new Map(rows.map(({ doneAt, ...row }) => [row.letter, { ...row, done: doneAt !== null }])).values(),
];
