/** `render`: one message a recipient. */
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { compile, dayNumber, render as renderMessage, writtenEnvelope, type Message } from '@vocabula/core';
import { toEml } from '@vocabula/mail';
import { oneOf, UsageError, type Call } from './arguments.js';
import { readObject, readRecipients, readToday } from './inputs.js';
import { FolderLibrary, nameOf, printedLine } from './library.js';

const ENDINGS = { text: 'txt', html: 'html', eml: 'eml', json: 'json' } as const;

export async function render(call: Call): Promise<number> {
  const as = oneOf(call, 'as', ['text', 'html', 'eml', 'json']);
  const [path = ''] = call.paths;
  const option = (name: string): string | undefined => call.options[name] as string | undefined;
  const library = new FolderLibrary(FolderLibrary.rootFor(path, option('library')));
  const text = library.load(path);
  if (text.document.attrs.front.kind === 'series')
    throw new UsageError('render: a series is no message; render the templates of its steps');
  const recipients = readRecipients(option('recipients'));
  const sender = readObject(option('sender'), 'the sender');
  const answers = readObject(option('answers'), 'the answers');
  const out = option('out');
  if (recipients.length > 1 && as !== 'json' && out === undefined)
    throw new UsageError(`render: ${recipients.length} recipients need --out DIR, or --as json`);

  const { front } = text.document.attrs;
  const signature = sender[front.purpose === 'reply' ? 'reply_signature' : 'signature'];
  const program = compile(text, {
    library,
    house: library.house,
    senderSignature: typeof signature === 'string' && signature !== '' ? signature : undefined,
  });
  const zone = option('timezone') ?? front.timezone ?? 'UTC';
  const today = readToday(call, front.timezone);
  const messages = recipients.map((recipient) => renderMessage(program, { recipient, sender, answers, today, zone }));

  const errors = [
    ...library.findings,
    ...program.texts.flatMap(
      (name) =>
        library.text(name)?.findings.map((finding) => ({ finding, file: library.text(name)?.file ?? path })) ?? [],
    ),
    ...[...program.findings, ...library.missingAssets(text)].map((finding) => ({ finding, file: path })),
  ].filter(({ finding }) => finding.level === 'error');
  for (const { finding, file } of errors) process.stderr.write(`${printedLine(library.print(finding, file))}\n`);

  if (as === 'json') {
    const json = JSON.stringify(
      messages.map((message, index) => printed(message, index, (finding) => library.print(finding, path))),
      null,
      2,
    );
    if (out === undefined) process.stdout.write(`${json}\n`);
    else write(out, `${nameOf(path)}.json`, `${json}\n`);
    return errors.length > 0 ? 1 : 0;
  }
  for (const [index, message] of messages.entries()) {
    const bytes = as === 'eml' ? await draftOf(message, library, sender, today) : Buffer.from(shown(message, as));
    const number = String(index + 1).padStart(String(messages.length).length, '0');
    if (out === undefined) process.stdout.write(bytes);
    else write(out, `${nameOf(path)}-${number}.${ENDINGS[as]}`, bytes);
  }
  return errors.length > 0 ? 1 : 0;
}

const shown = (message: Message, as: 'html' | 'text'): string => (as === 'html' ? `${message.html}\n` : message.text);

/** A draft for a mail program, dated noon of the given day, so that the same inputs give the same bytes. */
function draftOf(
  message: Message,
  library: FolderLibrary,
  { email, name }: Readonly<Record<string, unknown>>,
  today: string,
): Promise<Uint8Array> {
  const date = new Date(dayNumber(today) * 86_400_000 + 43_200_000);
  const from = typeof email === 'string' ? { name: typeof name === 'string' ? name : '', address: email } : undefined;
  return toEml(withFiles(message, library), { date, draft: true, assets: library.asset, ...(from ? { from } : {}) });
}

/** A message with those of its attachments that the library has; the others have been told. */
const withFiles = (message: Message, library: FolderLibrary): Message => ({
  ...message,
  attachments: message.attachments.filter(({ file }) => library.asset(file) !== undefined),
});

function write(folder: string, name: string, content: string | Uint8Array): void {
  mkdirSync(folder, { recursive: true });
  writeFileSync(join(folder, name), content);
}

function printed(message: Message, index: number, print: (finding: Message['findings'][number]) => unknown): object {
  const { ready, subject, html, text, blanks, findings } = message;
  const { to, cc, bcc, replyTo } = writtenEnvelope(message);
  return {
    recipient: index + 1,
    ready,
    subject,
    to,
    cc,
    bcc,
    replyTo,
    html,
    text,
    blanks,
    findings: findings.map(print),
  };
}
