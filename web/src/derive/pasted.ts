import type { PastWords } from '@vocabula/contract';
import { dayIn } from '@vocabula/core';
import { zone } from '../ui/today';

/** Header lines at the start of a mail, one of them its subject. */
const HEAD = /(?:(?:From|To|Cc|Date|Sent): [^\n]*\n)*Subject: [^\n]*\n(?:(?:From|To|Cc|Date|Sent): [^\n]*\n)*/;
const MAIL_START = new RegExp(`(?:^|(?<=\\n\\n))(?=${HEAD.source})`);

/**
 * Splits pasted text into mails. A mail starts at a block of header lines (`Subject: …`, `To: …`) after an empty line;
 * text without any such block is one mail without a subject. Dates become days in the reader's time zone.
 * @param number number of the first mail in its name, "pasted 3"
 */
export function pastedMails(words: string, number: number): PastWords[] {
  const text = words.replace(/\r\n?/g, '\n').trim();
  const parts = text.split(MAIL_START).filter((part) => part.trim() !== '');
  return parts.map((part, index) => mailOf(part.trim(), `pasted ${number + index}`));
}

function mailOf(part: string, file: string): PastWords {
  const head = new RegExp(`^${HEAD.source}`).exec(`${part}\n`)?.[0] ?? '';
  const field = (name: string): string => new RegExp(`^${name}: (.*)$`, 'm').exec(head)?.[1]?.trim() ?? '';
  const [to, from, at] = [field('To'), field('From'), new Date(field('Date') || field('Sent'))];
  return {
    ...{ file, subject: field('Subject'), to: to === '' ? [] : [to], text: part.slice(head.length).trim() },
    ...(from === '' ? {} : { from }),
    ...(Number.isNaN(at.getTime()) ? {} : { day: dayIn(at, zone()) }),
  };
}
