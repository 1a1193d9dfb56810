import { bareAddress, withoutReplyMarks } from '../filling/reply.js';
import { fold } from '../words/fold.js';

/** A mail that came in, as far as its headers matter here. */
export interface ReceivedMail {
  readonly from: string;
  readonly subject: string;
  /** As an ISO moment. */
  readonly at: string;
  readonly inReplyTo?: string;
  readonly references?: readonly string[];
  /** Other headers by their names in small letters. */
  readonly headers: Readonly<Record<string, string>>;
}
/** A message of ours that may have been answered. */
export interface SentMessage {
  readonly id: string;
  readonly messageId: string;
  /** To whom it went. */
  readonly address: string;
  readonly subject: string;
  readonly at: string;
}

/** So long after ours, a mail of the same subject is an answer, in days. */
const DAYS = 14;
const DAY = 86_400_000;

/** Whether a mail was sent by a program (RFC 3834, RFC 2919, RFC 2369): never an answer, and never answered. */
export function isAutomatic({ headers, from, subject }: Pick<ReceivedMail, 'headers' | 'from' | 'subject'>): boolean {
  const says = (name: string): string => (headers[name] ?? '').trim().toLowerCase();
  const submitted = says('auto-submitted');
  return (
    (submitted !== '' && !/^no\b/.test(submitted)) ||
    /^(bulk|junk|list|auto_reply)$/.test(says('precedence')) ||
    ['list-id', 'list-unsubscribe', 'list-post', 'x-autoreply', 'x-autorespond', 'x-auto-response-suppress'].some(
      (name) => says(name) !== '',
    ) ||
    says('return-path') === '<>' ||
    /^(mailer-daemon|postmaster|no-?reply|do-?not-?reply)@/.test(bareAddress(from)) ||
    /^(out of (the )?office|automatic reply|auto(matic)?[- ]?reply|abwesenheit|automatische antwort|réponse automatique|respuesta automática|risposta automatica)\b/i.test(
      subject.trim(),
    )
  );
}

/**
 * Which message of ours a mail answers: the one that its thread names, the latest of several; else the latest to its
 * sender with the same subject within fourteen days before it. Automatic mail answers nothing.
 * @returns the message's id; none where it answers none
 */
export function answeredBy(mail: ReceivedMail, sent: readonly SentMessage[]): string | undefined {
  if (isAutomatic(mail)) return undefined;
  const latest = (list: readonly SentMessage[]): string | undefined =>
    list.toSorted((a, b) => b.at.localeCompare(a.at) || a.id.localeCompare(b.id))[0]?.id;
  const earlier = sent.filter(({ at }) => at <= mail.at);
  const direct = earlier.filter(({ messageId }) => messageId !== '' && messageId === mail.inReplyTo);
  if (direct.length > 0) return latest(direct);
  const named = new Set(mail.references);
  const thread = earlier.filter(({ messageId }) => named.has(messageId));
  if (thread.length > 0) return latest(thread);
  const [sender, subject] = [bareAddress(mail.from), fold(withoutReplyMarks(mail.subject))];
  const since = new Date(Date.parse(mail.at) - DAYS * DAY).toISOString();
  return latest(
    earlier.filter(
      (ours) =>
        ours.at >= since &&
        subject !== '' &&
        bareAddress(ours.address) === sender &&
        fold(withoutReplyMarks(ours.subject)) === subject,
    ),
  );
}

/** What a delivery report (RFC 3464) says of a recipient by its status (RFC 3463): it bounced for good, or for now. */
export const bounceOf = (status: string): 'hard' | 'soft' | undefined =>
  /^5\.\d{1,3}\.\d{1,3}$/.test(status) ? 'hard' : /^4\.\d{1,3}\.\d{1,3}$/.test(status) ? 'soft' : undefined;
