/** A mail that is answered: read whole where it is one, else what its first lines say of it. */
import type { Original } from '@vocabula/contract';
import { firstAddressIn, isMailbox } from '@vocabula/core';
import { readHtml } from '@vocabula/core/html';
import { MailProblem, readEml } from '@vocabula/mail';

/** Lines as mail programs write them above a mail that is shown or forwarded, by language. */
const LINES: readonly (readonly [RegExp, 'from' | 'subject' | 'date' | 'to'])[] = [
  [/^\*?(?:from|von|de|da|van)\s*:\*?\s*(.+)$/i, 'from'],
  [/^\*?(?:subject|betreff|objet|asunto|oggetto|onderwerp)\s*:\*?\s*(.+)$/i, 'subject'],
  [/^\*?(?:date|sent|gesendet|datum|envoyé|enviado|data|verzonden)\s*:\*?\s*(.+)$/i, 'date'],
  [/^\*?(?:to|an|à|para|a|aan)\s*:\*?\s*(.+)$/i, 'to'],
];
/** How far down such lines are looked for. */
const HEAD = 12;

/** What can be told of pasted words; all of them are the text. */
function plainOf(words: string): Original {
  const text = words.replace(/\r\n?/g, '\n').trim().slice(0, 200_000);
  const found: Partial<Record<'from' | 'subject' | 'date' | 'to', string>> = {};
  const lines = text.split('\n');
  let last = -1;
  lines.slice(0, HEAD).forEach((line, at) => {
    for (const [pattern, what] of LINES) {
      const value = pattern.exec(line.trim())?.[1];
      if (value !== undefined && found[what] === undefined) {
        found[what] = value.trim();
        last = at;
      }
    }
  });
  // Two of them are a head; one may be a word that begins so.
  const headed = Object.keys(found).length >= 2;
  const named = headed ? (found.from ?? '') : '';
  const written = firstAddressIn(text);
  const from = isMailbox(named)
    ? named
    : named !== '' && written
      ? `${named.replace(/[<>"]/g, '')} <${written}>`
      : written;
  const at = Date.parse(headed ? (found.date ?? '') : '');
  return {
    subject: headed ? (found.subject ?? '') : '',
    from: from.slice(0, 1000),
    ...(Number.isNaN(at) ? {} : { date: new Date(at).toISOString() }),
    text: headed
      ? lines
          .slice(last + 1)
          .join('\n')
          .trim()
      : text,
  };
}

/** A mail in whatever state it is, or words that are none: then they are its text. */
export async function originalOf(bytes: Uint8Array): Promise<Original> {
  const text = new TextDecoder().decode(bytes);
  // Only a mail begins with a header; a stretch of conversation does not.
  const mail = /^(?:From |[A-Za-z][\w-]*:[ \t])/.test(text.trimStart())
    ? await readEml(bytes).catch((problem: unknown) => {
        if (problem instanceof MailProblem) return undefined;
        throw problem;
      })
    : undefined;
  if (!mail || mail.from === undefined) return plainOf(text);
  return {
    subject: mail.subject,
    from: mail.from,
    replyTo: [...mail.replyTo],
    to: [...mail.to],
    cc: [...mail.cc],
    date: mail.date,
    text: (mail.text ?? wordsOfHtml(mail.html ?? '')).slice(0, 200_000),
    messageId: mail.messageId,
    references: mail.references,
  };
}

const wordsOfHtml = (html: string): string =>
  readHtml(html)
    .blocks.map((block) => blockWords(block))
    .join('\n\n');
const blockWords = (block: unknown): string => {
  const node = block as { text?: string; type?: string; content?: readonly unknown[] };
  if (node.text !== undefined) return node.text;
  if (node.type === 'hardBreak') return '\n';
  const inline = node.type === 'paragraph' || node.type === 'heading';
  return (node.content ?? []).map(blockWords).join(inline ? '' : '\n');
};
