/** Reads files of sent mail: `.eml`, mailboxes, HTML and text. */
import type { PastWords } from '@vocabula/core/derive';
import { isMbox, mailsOf } from './mbox.js';
import { MailProblem, readEml } from './read.js';

/** Mail headers at the top of a text file. */
const HEAD = /^(?:[A-Za-z-]{1,40}: [^\r\n]*\r?\n)+\r?\n/;

/**
 * The mails of a file; empty if none can be read.
 * @param name - with its extension, which tells HTML and text from mails
 * @param most - reads at most so many mails
 */
export async function readPastMails(name: string, bytes: Uint8Array, most = Infinity): Promise<PastWords[]> {
  if (/\.eml$/i.test(name) || isMbox(bytes)) {
    const all = isMbox(bytes) ? mailsOf(bytes, most) : [bytes];
    const mails = await Promise.all(all.map(pastWords));
    return mails.flatMap((mail, at) => (mail ? [{ ...mail, file: all.length > 1 ? `${name} ${at + 1}` : name }] : []));
  }
  const text = new TextDecoder().decode(bytes);
  if (text.trim() === '') return [];
  if (/\.html?$/i.test(name)) return [{ file: name, subject: '', to: [], html: text }];
  const head = HEAD.exec(text)?.[0] ?? '';
  const mail = /^subject:/im.test(head) ? await pastWords(bytes) : undefined;
  return [{ ...(mail ?? { subject: '', to: [], text }), file: name }];
}

async function pastWords(bytes: Uint8Array): Promise<Omit<PastWords, 'file'> | undefined> {
  try {
    const { subject, from, to, date, html, text } = await readEml(bytes);
    return { subject, from, to, html, text, day: date?.slice(0, 10) };
  } catch (problem) {
    if (problem instanceof MailProblem) return undefined;
    throw problem;
  }
}
