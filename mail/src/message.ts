/** Makes MIME messages of rendered ones. The same message gives the same bytes. */
import { createHash } from 'node:crypto';
import MailComposer from 'nodemailer/lib/mail-composer/index.js';
import type { Mailbox, Message } from '@vocabula/core';
import { toIcs } from './invitation.js';
import { writtenTree } from './write-tree.js';
import { attachmentsOf, embedded, type AssetSource, type MimePart } from './assets.js';

/** What a message as mail needs beside its words. */
export interface MimeOptions {
  readonly from?: Mailbox;
  /** The moment the message is dated; part of what makes it reproducible. */
  readonly date: Date;
  /** Marks it as unsent, so that mail programs open it for editing. */
  readonly draft?: boolean;
  /** The library's assets: attachments and images are brought from there. */
  readonly assets?: AssetSource;
  /** It goes to a mail service now: nobody sees blind copies. */
  readonly goes?: boolean;
  /** What it is known by; made of what it says where it is left out. */
  readonly messageId?: string;
  /** A program answers with it and nobody looked at it (RFC 3834, 5). */
  readonly automatic?: boolean;
  /** The mail it answers: its thread goes on. */
  readonly answers?: { readonly messageId: string; readonly references?: string };
}

/** What of a message goes into a mail. */
export type MailMessage = Pick<Message, 'subject' | 'to' | 'cc' | 'bcc' | 'replyTo' | 'html' | 'text'> &
  Partial<Pick<Message, 'attachments' | 'invitation' | 'width'>>;

const NO_ASSETS: AssetSource = () => undefined;

/**
 * A message as an .eml file: multipart/alternative of plain text and HTML, the images that the HTML shows with it,
 * and its attachments.
 * @throws MissingAsset for an attachment that the library lacks
 */
export async function toEml(message: MailMessage, options: MimeOptions): Promise<Uint8Array> {
  const assets = options.assets ?? NO_ASSETS;
  const { html, images } = embedded(message.html, assets, message.width);
  const parts = [...images, ...attachmentsOf(message.attachments ?? [], assets)];
  // What has a name of its own need not be read whole to be told apart.
  const id = options.messageId
    ? createHash('sha256').update(options.messageId).digest('hex')
    : digest(message, options, parts);
  const messageId = options.messageId ?? `<${id.slice(0, 32)}@vocabula.example>`;
  const calendar = message.invitation && toIcs(message, options, messageId);
  const composer = new MailComposer({
    // As name and address apart, which the composer takes as they are: nothing in a name is read as an address.
    ...(options.from ? { from: { ...options.from } } : {}),
    to: message.to.map((each) => ({ ...each })),
    cc: message.cc.map((each) => ({ ...each })),
    bcc: message.bcc.map((each) => ({ ...each })),
    replyTo: message.replyTo.map((each) => ({ ...each })),
    subject: message.subject,
    text: message.text,
    html,
    date: options.date,
    messageId,
    ...threadOf(options.answers),
    ...(calendar ? { icalEvent: { method: 'REQUEST', filename: 'invitation.ics', content: calendar } } : {}),
    baseBoundary: id.slice(32, 56),
    headers: {
      ...(options.draft ? { 'X-Unsent': '1' } : {}),
      ...(options.automatic ? { 'Auto-Submitted': 'auto-replied' } : {}),
    },
    attachments: parts.map(({ name, content, type, cid }) => ({
      ...named(name, cid === undefined ? 'attachment' : 'inline'),
      content: Buffer.from(content),
      contentType: type,
      ...(cid === undefined ? {} : { cid }),
    })),
    // Nothing in a message may make the composer read files or fetch addresses.
    disableFileAccess: true,
    disableUrlAccess: true,
  } as ConstructorParameters<typeof MailComposer>[0]);
  const node = composer.compile();
  // Blind copies are taken off when it goes; until then they are part of it.
  (node as { keepBcc?: boolean }).keepBcc = !(options.goes ?? false);
  return writtenTree(node) ?? node.build();
}

/**
 * How a part is named. Of a name that is not plain ASCII the composer would also write a form that no standard knows, an
 * encoded word in quotation marks (RFC 2047, 5 forbids it): such a name stands in the disposition alone (RFC 2231).
 */
function named(name: string, how: 'attachment' | 'inline'): { filename: string | false; contentDisposition: string } {
  if (/^[\x20-\x7e]*$/.test(name)) return { filename: name, contentDisposition: how };
  const quoted = name.replace(/\p{Cc}/gu, ' ').replace(/[\\"]/g, '\\$&');
  return { filename: false, contentDisposition: `${how}; filename="${quoted}"` };
}

/** The headers by which a reply stands in its thread (RFC 5322, 3.6.4). */
function threadOf(answers: MimeOptions['answers']): { inReplyTo?: string; references?: string[] } {
  if (!answers) return {};
  const before = (answers.references ?? '').match(/<[^<>\s]+>/g) ?? [];
  return { inReplyTo: answers.messageId, references: [...new Set([...before, answers.messageId])].slice(-40) };
}

/** What a message is known by: everything that it says and brings. */
function digest(message: MailMessage, { from, date }: MimeOptions, parts: readonly MimePart[]): string {
  const { subject, to, cc, bcc, replyTo, html, text } = message;
  return createHash('sha256')
    .update(JSON.stringify([subject, to, cc, bcc, replyTo, html, text, from, date.toISOString()]))
    .update(
      JSON.stringify(parts.map(({ name, content }) => [name, createHash('sha256').update(content).digest('hex')])),
    )
    .digest('hex');
}
