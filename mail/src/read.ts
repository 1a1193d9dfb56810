/** Reads mail that comes in: .eml files, whatever state they are in. */
import PostalMime, { type Address } from 'postal-mime';

/** A mail as it was read. */
export interface ReadMail {
  readonly subject: string;
  readonly from: string | undefined;
  readonly to: readonly string[];
  readonly cc: readonly string[];
  readonly bcc: readonly string[];
  readonly replyTo: readonly string[];
  /** As the headers have them, in angle brackets. */
  readonly messageId: string | undefined;
  readonly inReplyTo: string | undefined;
  readonly references: string | undefined;
  /** ISO moment. */
  readonly date: string | undefined;
  /** Its header fields by their names in small letters; of several of one name the first. */
  readonly headers: Readonly<Record<string, string>>;
  /** What a delivery report (RFC 3464) says; empty for mail that is none. */
  readonly reports: readonly DeliveryReport[];
  readonly html: string | undefined;
  readonly text: string | undefined;
  readonly files: readonly {
    readonly name: string;
    readonly type: string;
    readonly content: Uint8Array;
    /** What the HTML calls it, for images that it shows. */
    readonly cid: string | undefined;
  }[];
}

/** What a delivery report says of one recipient. */
export interface DeliveryReport {
  /** Bare, as the report has it. */
  readonly recipient: string;
  /** RFC 3463, such as `5.1.1`. */
  readonly status: string;
  /** The message that it is about, where the report has its head; in angle brackets. */
  readonly messageId: string | undefined;
}

/** Mail that cannot be read. */
export class MailProblem extends Error {}

/**
 * Reads a message.
 * @throws MailProblem where nothing in it is a message
 */
export async function readEml(bytes: Uint8Array): Promise<ReadMail> {
  demandBounded(bytes);
  // What a report encloses is kept as it is: it is no part of what the mail says.
  const mail = await PostalMime.parse(bytes, { forceRfc822Attachments: true }).catch(() => undefined);
  if (!mail || (mail.html === undefined && mail.text === undefined && mail.headers.length === 0))
    throw new MailProblem('This is not a mail message that can be read.');
  return {
    subject: oneLine(mail.subject ?? ''),
    from: addresses(mail.from && [mail.from])[0],
    to: addresses(mail.to),
    cc: addresses(mail.cc),
    bcc: addresses(mail.bcc),
    replyTo: addresses(mail.replyTo),
    messageId: mail.messageId?.trim() || undefined,
    inReplyTo: mail.inReplyTo?.trim() || undefined,
    references: mail.references?.trim() || undefined,
    date:
      mail.date === undefined || Number.isNaN(Date.parse(mail.date)) ? undefined : new Date(mail.date).toISOString(),
    headers: headersOf(mail.headers),
    reports: reportsOf(mail.attachments),
    html: mail.html,
    text: mail.text,
    files: mail.attachments.map(({ filename, mimeType, content, contentId }, at) => ({
      name: oneLine(filename ?? '') || `file-${at + 1}`,
      type: mimeType,
      content: typeof content === 'string' ? new TextEncoder().encode(content) : new Uint8Array(content),
      cid: contentId?.replace(/^<|>$/g, ''),
    })),
  };
}

/** The most bytes of a header field, and of all of a part's, and the most parts a mail may have. */
const MOST = { field: 60_000, head: 300_000, parts: 2000 };

/** Looks at heads and parts before anything is made of them. @throws MailProblem for more than a mail has */
function demandBounded(bytes: Uint8Array): void {
  // Latin-1 keeps every byte; only line breaks and the first signs of lines are looked at.
  const text = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength).toString('latin1');
  const head = text.slice(0, MOST.head + 1);
  const end = head.search(/\r?\n\r?\n/);
  if (end < 0 && text.length > MOST.head && /^[A-Za-z][\w-]{0,60}:/.test(head))
    throw new MailProblem('The head of this mail is longer than is read.');
  let field = 0;
  for (const line of head.slice(0, end < 0 ? undefined : end).split('\n')) {
    field = /^[ \t]/.test(line) ? field + line.length : line.length;
    if (field > MOST.field) throw new MailProblem('A line of the head of this mail is longer than is read.');
  }
  let parts = 0;
  for (let at = text.indexOf('\n--'); at >= 0; at = text.indexOf('\n--', at + 3)) {
    parts += 1;
    // A line of a text may begin with two hyphens too: only very many of them are parts.
    if (parts > MOST.parts * 2) throw new MailProblem(`This mail has more than ${MOST.parts} parts.`);
  }
}

function headersOf(headers: readonly { readonly key: string; readonly value: string }[]): Record<string, string> {
  const found: Record<string, string> = {};
  for (const { key, value } of headers) found[key] ??= value;
  return found;
}

interface Enclosed {
  readonly mimeType: string;
  readonly content: string | ArrayBuffer | Uint8Array;
}
/** The parts that a delivery report has beside its words. */
function reportsOf(parts: readonly Enclosed[]): DeliveryReport[] {
  const textOf = ({ content }: Enclosed): string =>
    typeof content === 'string' ? content : new TextDecoder().decode(content).slice(0, MOST.field);
  const about = parts.find(({ mimeType }) => mimeType === 'message/rfc822' || mimeType === 'text/rfc822-headers');
  const messageId = about && /^message-id:\s*(<[^<>\s]{1,400}>)/im.exec(textOf(about))?.[1];
  return parts
    .filter(({ mimeType }) => mimeType === 'message/delivery-status')
    .flatMap((part) => textOf(part).split(/\r?\n\r?\n/))
    .flatMap((fields): DeliveryReport[] => {
      const recipient = /^(?:original|final)-recipient:\s*[\w-]+\s*;\s*<?([^\s<>]+)>?/im.exec(fields)?.[1];
      const status = /^status:\s*(\d\.\d{1,3}\.\d{1,3})/im.exec(fields)?.[1];
      return recipient && status ? [{ recipient: recipient.toLowerCase(), status, messageId }] : [];
    });
}

const oneLine = (text: string): string => text.replace(/[\s\p{Cc}]+/gu, ' ').trim();

/** Addresses as they are written in an envelope; those of groups one by one. */
const addresses = (given: readonly Address[] | undefined): string[] =>
  (given ?? []).flatMap(({ name, address, group }): string[] => {
    if (group) return addresses(group);
    if (!address) return [];
    const plain = oneLine(name ?? '').replace(/[<>"]/g, '');
    return [plain === '' ? address : `${plain} <${address}>`];
  });
