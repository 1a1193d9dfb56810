/**
 * Whether a mail is answered by a standing reply, and by which: the first whose condition holds. Automatic replies follow
 * RFC 3834 (Recommendations for Automatic Responses to Electronic Mail): none to what programs, lists or servers sent,
 * none to oneself, none where it is not plain who would get it, and not twice to one sender in a period.
 */
import { isAutomatic } from '../insight/replies.js';
import { bareAddress } from '../filling/reply.js';
import { holdsFor, type MailCondition } from './condition.js';
import { factsOf, type IncomingMail, type MailMoment } from './mail.js';

/** What a standing reply does: offer itself, leave a draft, or send. */
export type StandingAct = 'suggest' | 'draft' | 'send';

/** A rule, ready to be asked. */
export interface MailRule {
  readonly id: string;
  readonly condition: MailCondition;
  readonly does: StandingAct;
  /** It writes to one sender once in so many days. */
  readonly everyDays: number;
  /** The most it sends a day. */
  readonly mostADay: number;
}

/** What is known besides the mail itself. */
export interface Surroundings extends MailMoment {
  /** When it is decided, ISO. */
  readonly at: string;
  /** The bare addresses of whose rules these are. */
  readonly own: ReadonlySet<string>;
  /** Whether nobody may write to an address. */
  readonly refused: (address: string) => boolean;
  /** When a standing reply of the same person was last written to an address, ISO. */
  readonly lastTo: (address: string) => string | undefined;
  /** How many a rule has sent on the day on which it is decided. */
  readonly sentOn: (rule: string) => number;
}

/** What becomes of a mail. */
export type StandingDecision =
  | { readonly what: StandingAct; readonly rule: string; readonly why: string }
  | {
      readonly what: 'nothing';
      /** The rule whose condition holds, where one does. */
      readonly rule?: string;
      /** In words, which go on behind “not answered: ”. */
      readonly why: string;
      /** The rule has reached the most it may send a day: it is switched off. */
      readonly ceiling?: true;
    };

const DAY = 86_400_000;
/** A mail that was written so long ago is not answered without anybody looking. */
const STALE = 3 * DAY;

/** Decides on a mail. The same mail in the same surroundings always comes to the same. */
export function decideOn(mail: IncomingMail, rules: readonly MailRule[], known: Surroundings): StandingDecision {
  const never = whyNever(mail, known);
  if (never !== undefined) return { what: 'nothing', why: never };
  const facts = factsOf(mail, known);
  const rule = rules.find(({ condition }) => holdsFor(condition, facts, known.today));
  if (!rule) return { what: 'nothing', why: 'no condition holds' };
  const nothing = (why: string): StandingDecision => ({ what: 'nothing', rule: rule.id, why });
  const address = bareAddress(mail.from);
  if (known.refused(address)) return nothing('its sender is on the do-not-write list');
  if (rule.does === 'suggest') return { what: 'suggest', rule: rule.id, why: '' };
  const last = known.lastTo(address);
  if (last !== undefined && Date.parse(known.at) - Date.parse(last) < rule.everyDays * DAY)
    return nothing(`its sender got a standing reply on ${last.slice(0, 10)}`);
  const doubt = whyLooked(mail, known);
  if (doubt !== undefined) return { what: 'suggest', rule: rule.id, why: doubt };
  if (rule.does === 'send' && known.sentOn(rule.id) >= rule.mostADay)
    return { what: 'nothing', rule: rule.id, why: `it has sent ${rule.mostADay} that day, its most`, ceiling: true };
  return { what: rule.does, rule: rule.id, why: '' };
}

/** Why a mail is never answered, not even by a suggestion. */
function whyNever(mail: IncomingMail, { own }: Surroundings): string | undefined {
  const address = bareAddress(mail.from);
  if (!address.includes('@')) return 'it does not say who wrote it';
  if (mail.isReport) return 'it reports on a message that did not arrive';
  if (isAutomatic(mail)) return 'a program or a mailing list sent it';
  if (own.has(address)) return 'you wrote it yourself';
  if (/^(?:owner-.*|.*-(?:request|owner|bounces))@/.test(address)) return 'a mailing list sent it';
  return undefined;
}

/** Why a reply that would go by itself is looked at first: it would not be plain to whom it goes, or whether it is meant. */
function whyLooked(
  { from, to, replyTo, headers, written }: IncomingMail,
  { own, at }: Surroundings,
): string | undefined {
  const address = bareAddress(from);
  if (!to.some((each) => own.has(bareAddress(each)))) return 'it does not name you among its recipients';
  if (replyTo.some((each) => bareAddress(each) !== address)) return 'it wants its answer at another address';
  const path = headers['return-path'];
  if (path !== undefined && bareAddress(path.trim()) !== address) return 'it came from another address than it says';
  if (written !== undefined && Date.parse(at) - Date.parse(written) > STALE) return 'it was written days ago';
  return undefined;
}
