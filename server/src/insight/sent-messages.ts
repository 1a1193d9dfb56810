/** Reads sent messages of a text together with the versions they were made from. */
import { render, type Message, type NamedDocument, type Program } from '@vocabula/core';
import { mergedChanges, NO_CHANGES, type FillChanges } from '@vocabula/core/filling';
import { and, desc, eq } from 'drizzle-orm';
import { schema, type Reader } from '../db/database.js';
import { inputOf, programOf } from '../fills/rendering.js';
import { frozenOf } from '../fills/rows.js';
import { outcomes } from './outcomes.js';
import { inScope, type ReportScope } from './report-scope.js';

const { handedOver, fills, mailings, outgoing } = schema;
/** At most this many messages are read, the latest ones: older ones hardly change a share. */
const MAX_MESSAGES = 1000;

/** One message that was handed over. */
export interface SentMessage {
  /** Key of the versions it was made from; messages with the same key share `texts` and `program`. */
  readonly version: string;
  readonly texts: readonly NamedDocument[];
  readonly program: Program;
  /** What was changed by hand before it was sent. */
  readonly changes: FillChanges;
  readonly answers: Readonly<Record<string, unknown>>;
  readonly fields: Readonly<Record<string, string>>;
  /** When it was handed over (ISO 8601, UTC). */
  readonly at: string;
  /** Number of the text's version; null if it was none. */
  readonly number: number | null;
  /** What became of it, for what can be known of it. */
  readonly became: Readonly<Partial<Record<Outcome, boolean>>>;
}
/** What can become of a message. */
export const OUTCOMES = ['opened', 'followed', 'answered', 'bounced'] as const;
export type Outcome = (typeof OUTCOMES)[number];

/** Where the words of a message come from, its subject included. */
export function traceOf({ program, answers, fields, at }: SentMessage): readonly Traced[] {
  const moment = { now: new Date(at), zone: 'UTC' };
  const input = inputOf({ fields, answers: { ...answers }, offered: {} }, {}, moment);
  const { trace = [], subjectTrace = [] } = render(program, input, { trace: true });
  return [...trace, ...subjectTrace];
}
type Traced = NonNullable<Message['trace']>[number];

/** The latest messages of a text, newest first, at most 1000. Messages whose versions are gone are left out. */
export async function sentMessages(reader: Reader, name: string, scope: ReportScope): Promise<SentMessage[]> {
  const { came, could } = outcomes(reader);
  const rows = await reader
    .with(came, could)
    .select({
      ...{ answers: handedOver.answers, at: handedOver.at, frozen: fills.frozen, house: fills.house },
      ...{ signature: fills.signature, fields: fills.recipient, changes: fills.changes, own: outgoing.changes },
      ...{
        number: handedOver.version,
        arms: mailings.arms,
        sent: handedOver.outgoing,
        opens: could.opens,
        follows: could.follows,
      },
      ...{ opened: came.opened, followed: came.followed, answered: came.answered, bounced: came.bounced },
    })
    .from(handedOver)
    .innerJoin(fills, eq(fills.id, handedOver.fillId))
    .leftJoin(outgoing, eq(outgoing.id, handedOver.outgoing))
    .leftJoin(mailings, eq(mailings.id, outgoing.mailing))
    .leftJoin(came, eq(came.outgoing, handedOver.outgoing))
    .leftJoin(could, eq(could.outgoing, handedOver.outgoing))
    .where(and(eq(handedOver.text, name), inScope(scope)))
    .orderBy(desc(handedOver.at))
    .limit(MAX_MESSAGES);
  const versions = new Map<string, Pick<SentMessage, 'texts' | 'program'> | undefined>();
  const messages: SentMessage[] = [];
  for (const { frozen: begun, house, signature, changes, own, arms, ...row } of rows) {
    const { answers, at, fields, number } = row;
    // A trial gives recipients of one mailing different versions.
    const frozen = arms?.find((arm) => arm.version === number)?.frozen ?? begun;
    const version = `${frozen.join(' ')}/${house}/${signature}`;
    if (!versions.has(version)) versions.set(version, await versionOf(reader, frozen, house, signature));
    const made = versions.get(version);
    const all = mergedChanges(changes, own ?? NO_CHANGES);
    if (made) messages.push({ answers, at, fields, number, ...made, version, changes: all, became: becameOf(row) });
  }
  return messages;
}

/** 1 or 0, or null where nothing happened or nothing was counted. */
type Flag = number | null;
interface Came extends Readonly<Record<Outcome | 'opens' | 'follows', Flag>> {
  readonly sent: string | null;
}
/** Answers and bounces can be known of what the mail service sent, openings and links where they are counted. */
const becameOf = ({ sent, opens, follows, ...came }: Came): SentMessage['became'] => ({
  ...(opens ? { opened: Boolean(came.opened) } : {}),
  ...(follows ? { followed: Boolean(came.followed) } : {}),
  ...(sent === null ? {} : { answered: Boolean(came.answered), bounced: Boolean(came.bounced) }),
});

type Fill = typeof fills.$inferSelect;
async function versionOf(
  reader: Reader,
  frozen: Fill['frozen'],
  house: Fill['house'],
  signature: Fill['signature'],
): Promise<Pick<SentMessage, 'texts' | 'program'> | undefined> {
  const kept = await frozenOf(reader, { frozen, house });
  if (kept.texts.length === 0) return undefined;
  return {
    texts: kept.texts,
    program: programOf({ ...kept, signature: signature ?? undefined, changes: NO_CHANGES }),
  };
}
