/** A rule tried on the past: what it would have done with the mail of the last six months, each mail after the other. */
import type { KeptTrial, TriedStanding } from '@vocabula/contract';
import { bareAddress } from '@vocabula/core/filling';
import { decideOn, type StandingDecision } from '@vocabula/core/standing-replies';
import { and, desc, eq, inArray, ne } from 'drizzle-orm';
import { schema, type Database, type Reader } from '../db/database.js';
import { notFound } from '../http/problem.js';
import { ownAddresses } from '../people/addresses.js';
import type { User } from '../people/user.js';
import { refusedAmong } from '../recipients/service.js';
import type { CameIn, Known, MailShelf } from './mails.js';
import type { MadeReply, Prepared, ReplyMaker } from './replying.js';
import { dayOf, essenceOf, readyRule } from './rules.js';
import type { StandingRow } from './store.js';

/** How far back is looked, in milliseconds: half a year. */
const BACK = 183 * 86_400_000;
/** The most mails that are looked at, the newest of them. */
const MOST = 3000;

type Tried = TriedStanding['mails'][number];
interface Matched {
  readonly mail: CameIn;
  readonly known: Known;
  readonly decision: StandingDecision;
}
type Kept = NonNullable<StandingRow['trial']>;

/** What was found, and what of it is kept with the rule. */
export interface TrialOfRule {
  readonly mails: readonly Tried[];
  readonly kept: Kept;
}

export class PastTrial {
  constructor(
    private readonly database: Database,
    private readonly shelf: MailShelf,
    private readonly replies: ReplyMaker,
  ) {}

  /** @param wrong letters that it should not answer */
  async try({ id, rule }: StandingRow, wrong: readonly string[], user: User): Promise<TrialOfRule> {
    const { read } = this.database;
    const since = new Date(Date.now() - BACK).toISOString();
    const own = await ownAddresses(read, user.id);
    const came = await this.shelf.since(own, since, MOST);
    const known = await this.shelf.knownAgain(came, rule.timezone, user.id);
    const matched = await this.matching({ id, rule }, came, known, new Set(own));
    const answered = await answeredWith(
      read,
      user,
      matched.map(({ mail }) => mail.letter),
    );
    const marked = new Set(wrong);
    const mails: Tried[] = [];
    const prepared = await this.replies.prepare(rule, user);
    for (const { mail, known: read, decision } of matched) {
      const acts = decision.what !== 'nothing';
      const lacks = acts ? (await this.replies.make(prepared, mail.letter, read)).lacks : undefined;
      mails.push({
        ...{ letter: mail.letter, from: mail.from, subject: mail.subject, opening: mail.opening, at: mail.at },
        // What may not go by itself is offered, as it would be.
        ...{ what: lacks === undefined ? decision.what : 'suggest', why: lacks ?? decision.why },
        ...{ wrong: marked.has(mail.letter), answeredWith: answered.get(mail.letter) },
      });
    }
    const acted = mails.filter(({ what }) => what !== 'nothing').map(({ letter }) => letter);
    return {
      mails: mails.toReversed(),
      kept: {
        ...{ at: new Date().toISOString(), since, looked: came.length, answered: acted.length },
        ...{ held: mails.length - acted.length, wrong: [...marked], of: essenceOf(rule), letters: acted },
      },
    };
  }

  /** Mails for which the condition held, in the order in which they came, each with what would have become of it. */
  private async matching(
    row: Pick<StandingRow, 'id' | 'rule'>,
    came: readonly CameIn[],
    known: ReadonlyMap<string, Known>,
    own: ReadonlySet<string>,
  ): Promise<Matched[]> {
    const { rule } = row;
    const addresses = [...known.values()].map(({ mail }) => bareAddress(mail.from));
    const refused = await refusedAmong(this.database.read, addresses);
    const ready = readyRule(row);
    const last = new Map<string, string>();
    const sent = new Map<string, number>();
    return came.flatMap((mail) => {
      const found = known.get(mail.letter);
      if (!found) return [];
      const day = dayOf(rule, new Date(mail.at));
      const decision = decideOn(found.mail, [ready], {
        ...found.moment,
        ...{ at: mail.at, own, refused: (each) => refused.has(each), lastTo: (each) => last.get(each) },
        sentOn: () => sent.get(day) ?? 0,
      });
      if (decision.rule === undefined) return [];
      if (decision.what === 'send' || decision.what === 'draft') last.set(bareAddress(found.mail.from), mail.at);
      if (decision.what === 'send') sent.set(day, (sent.get(day) ?? 0) + 1);
      return [{ mail, known: found, decision }];
    });
  }

  /** How a mail would be answered, and with which template. */
  async reply({ rule }: StandingRow, letter: string, user: User): Promise<MadeReply & Pick<Prepared, 'program'>> {
    const came = await this.shelf.one(await ownAddresses(this.database.read, user.id), letter);
    const known = came && (await this.shelf.known([came], rule.timezone, user.id)).get(letter);
    if (!known) throw notFound('letter');
    const prepared = await this.replies.prepare(rule, user);
    return { ...(await this.replies.make(prepared, letter, known)), program: prepared.program };
  }
}

/** With which templates letters were answered by their reader, by letter. */
async function answeredWith(reader: Reader, { id }: User, ids: readonly string[]): Promise<Map<string, string>> {
  const { fills } = schema;
  const found = new Map<string, string>();
  for (let at = 0; at < ids.length; at += 400) {
    const rows = await reader
      .select({ letter: fills.letter, title: fills.title })
      .from(fills)
      .where(and(eq(fills.person, id), ne(fills.state, 'unfinished'), inArray(fills.letter, ids.slice(at, at + 400))))
      .orderBy(desc(fills.updatedAt));
    for (const { letter, title } of rows) if (letter !== null && !found.has(letter)) found.set(letter, title);
  }
  return found;
}

/** A trial as it is given out, against the rule as it stands. */
export const trialOf = ({ trial, rule }: Pick<StandingRow, 'trial' | 'rule'>): KeptTrial | undefined => {
  if (!trial) return undefined;
  const { of, letters, ...kept } = trial;
  const acted = new Set(letters);
  return {
    ...kept,
    current: of === essenceOf(rule),
    stillWrong: kept.wrong.filter((each) => acted.has(each)).length,
  };
};
