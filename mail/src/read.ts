/** Reads mail that comes in: .eml files, whatever state they are in. */
import PostalMime, { type Address } from 'postal-mime';

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

/** Mail that cannot be read. */
export class MailProblem extends Error {}

/**
 * Reads a message.
 * @throws MailProblem where nothing in it is a message
 */
export async function readEml(bytes: Uint8Array): Promise<ReadMail> {
  const mail = await PostalMime.parse(bytes).catch(() => undefined);
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

const oneLine = (text: string): string => text.replace(/[\s\p{Cc}]+/gu, ' ').trim();

/** Addresses as they are written in an envelope; those of groups one by one. */
const addresses = (given: readonly Address[] | undefined): string[] =>
  (given ?? []).flatMap(({ name, address, group }): string[] => {
    if (group) return addresses(group);
    if (!address) return [];
    const plain = oneLine(name ?? '').replace(/[<>"]/g, '');
    return [plain === '' ? address : `${plain} <${address}>`];
  });
