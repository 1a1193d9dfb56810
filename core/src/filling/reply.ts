/** What a reply carries over of the mail it answers: who it goes to, the subject, and the words, quoted. */
import { escapeHtml } from '../words/escape.js';
import { languageOf } from '../values/intl.js';
import type { Message } from '../render/render.js';
import { foldedMailbox, readMailbox, type Mailbox } from '../values/mailbox.js';

/** A mail that was received, as far as a reply needs it. Addresses are mailboxes: `Ann Lee <ann@x.example>`. */
export interface Received {
  readonly subject: string;
  readonly from: string;
  readonly replyTo?: readonly string[] | undefined;
  readonly to?: readonly string[] | undefined;
  readonly cc?: readonly string[] | undefined;
  /** ISO moment. */
  readonly date?: string | undefined;
  readonly text: string;
}

/** How a reply is addressed and quoted. */
export interface ReplyOptions {
  /** To all that the mail went to, rather than to its sender alone. */
  readonly all: boolean;
  /** The bare addresses of who answers: they do not write to themselves. */
  readonly own: readonly string[];
  readonly locale: string;
  readonly zone: string;
}

/** The address of a mailbox without its name, in small letters. */
export const bareAddress = (mailbox: string): string =>
  (/<([^<>]+)>\s*$/.exec(mailbox)?.[1] ?? mailbox).trim().toLowerCase();

/** Whatever languages begin the subject of a reply with, once or often. */
const RE = /^(?:\s*(?:re|aw|antw|antwort|sv|rv|odp|tr|ynt|r)(?:\[\d+\]|\(\d+\))?\s*:\s*)+/i;

/** A subject without what replies begin theirs with, in the usual languages. */
export const withoutReplyMarks = (subject: string): string => subject.replace(RE, '').trim();
/** A subject with one “Re:” before it. */
export const replySubject = (subject: string): string => `Re: ${withoutReplyMarks(subject)}`.trim();

/** More than this of a quoted mail says nothing to anybody. */
const LONGEST_QUOTE = 40_000;

/** A message as the reply to a mail: its addresses and subject where the template leaves them, and the mail below. */
export function asReply(message: Message, received: Received, options: ReplyOptions): Message {
  const own = new Set(options.own.map((each) => each.toLowerCase()));
  const sender = mailboxes(received.replyTo?.length ? received.replyTo : [received.from]);
  // Somebody else was chosen to answer to: then it is for them.
  const meant = message.to.map(foldedMailbox);
  const same = meant.length === 0 || sender.some((each) => meant.includes(foldedMailbox(each)));
  const to = same ? sender : message.to;
  const known = new Set([...to.map(foldedMailbox), ...own]);
  const others = options.all ? mailboxes([...(received.to ?? []), ...(received.cc ?? [])]) : [];
  const cc = [...message.cc];
  for (const each of others) {
    const bare = foldedMailbox(each);
    if (known.has(bare) || cc.some((other) => foldedMailbox(other) === bare)) continue;
    known.add(bare);
    cc.push(each);
  }
  const subject = message.subject === '' ? replySubject(received.subject) : replySubject(message.subject);
  const quoted = received.text.slice(0, LONGEST_QUOTE).replace(/\r\n?/g, '\n').trimEnd();
  const said = attribution(received, options);
  return {
    ...message,
    to,
    cc,
    subject,
    html: message.html.replace(/<\/body><\/html>$/, () => `${quotedHtml(said, quoted)}</body></html>`),
    text: `${message.text.trimEnd()}\n\n${said}\n\n${quoted
      .split('\n')
      .map((line) => (line === '' ? '>' : line.startsWith('>') ? `>${line}` : `> ${line}`))
      .join('\n')}\n`,
  };
}

/** Those that are mailboxes; what a badly formed mail calls an address is left out. */
const mailboxes = (written: readonly string[]): Mailbox[] =>
  written.flatMap((each) => {
    const found = readMailbox(each);
    return found ? [found] : [];
  });

const quotedHtml = (said: string, quoted: string): string =>
  `<p>${escapeHtml(said)}</p><blockquote style="margin:0 0 0 8px;padding-left:12px;border-left:2px solid #857D6E">${escapeHtml(quoted).replace(/\n/g, '<br>')}</blockquote>`;

const WROTE: Readonly<Record<string, (when: string, who: string) => string>> = {
  de: (when, who) => (when ? `Am ${when} schrieb ${who}:` : `${who} schrieb:`),
  fr: (when, who) => (when ? `Le ${when}, ${who} a écrit :` : `${who} a écrit :`),
  es: (when, who) => (when ? `El ${when}, ${who} escribió:` : `${who} escribió:`),
  it: (when, who) => (when ? `Il ${when}, ${who} ha scritto:` : `${who} ha scritto:`),
  nl: (when, who) => (when ? `Op ${when} schreef ${who}:` : `${who} schreef:`),
};
const wroteEnglish = (when: string, who: string): string => (when ? `On ${when}, ${who} wrote:` : `${who} wrote:`);

function attribution({ from, date }: Received, { locale, zone }: ReplyOptions): string {
  const who = from.replace(/\s*<[^<>]*>\s*$/, '').trim() || from || 'somebody';
  const at = date === undefined ? NaN : Date.parse(date);
  const when = Number.isNaN(at)
    ? ''
    : new Intl.DateTimeFormat(locale, { dateStyle: 'long', timeStyle: 'short', timeZone: zone }).format(at);
  return (WROTE[languageOf(locale)] ?? wroteEnglish)(when, who);
}
