/** Makes MIME messages of rendered ones. The same message gives the same bytes. */
import { createHash } from 'node:crypto';
import MailComposer from 'nodemailer/lib/mail-composer/index.js';
import type { Message } from '@vocabula/core';

export interface Attachment {
  readonly name: string;
  readonly content: Uint8Array;
  readonly type?: string;
}

export interface MimeOptions {
  readonly from?: string;
  /** The moment the message is dated; part of what makes it reproducible. */
  readonly date: Date;
  /** Marks it as unsent, so that mail programs open it for editing. */
  readonly draft?: boolean;
  readonly attachments?: readonly Attachment[];
}

/** A message as an .eml file: multipart/alternative of plain text and HTML, with its attachments. */
export async function toEml(
  message: Pick<Message, 'subject' | 'to' | 'cc' | 'bcc' | 'replyTo' | 'html' | 'text'>,
  options: MimeOptions,
): Promise<Uint8Array> {
  const id = createHash('sha256')
    .update(
      JSON.stringify([
        message.subject,
        message.to,
        message.cc,
        message.bcc,
        message.replyTo,
        message.html,
        message.text,
        options.from ?? '',
        options.date.toISOString(),
      ]),
    )
    .update(
      JSON.stringify(
        (options.attachments ?? []).map((file) => [file.name, createHash('sha256').update(file.content).digest('hex')]),
      ),
    )
    .digest('hex');
  const composer = new MailComposer({
    ...(options.from ? { from: options.from } : {}),
    to: [...message.to],
    cc: [...message.cc],
    bcc: [...message.bcc],
    replyTo: [...message.replyTo],
    subject: message.subject,
    text: message.text,
    html: message.html,
    date: options.date,
    messageId: `<${id.slice(0, 32)}@vocabula.example>`,
    baseBoundary: id.slice(32, 56),
    headers: options.draft ? { 'X-Unsent': '1' } : {},
    attachments: (options.attachments ?? []).map((file) => ({
      filename: file.name,
      content: Buffer.from(file.content),
      ...(file.type ? { contentType: file.type } : {}),
    })),
    // Nothing in a message may make the composer read files or fetch addresses.
    disableFileAccess: true,
    disableUrlAccess: true,
  } as ConstructorParameters<typeof MailComposer>[0]);
  const node = composer.compile();
  // A draft keeps its blind copies; they are taken off when it is sent.
  (node as { keepBcc?: boolean }).keepBcc = true;
  return new Promise((resolve, reject) => node.build((problem, built) => (problem ? reject(problem) : resolve(built))));
}
