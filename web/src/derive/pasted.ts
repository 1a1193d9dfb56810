import type { PastWords } from '@vocabula/contract';

/** A line that a mail begins with where several were pasted one after the other. */
const BEGINS = /^(?=(?:From|Subject|Von|Betreff|De|Objet): )/im;

/**
 * Pasted words as mails: each head of lines such as `Subject: …` and `To: …` begins another; without any they are one.
 * @param number the first number they are called by
 */
export function pastedMails(words: string, number: number): PastWords[] {
  const text = words.replace(/\r\n?/g, '\n').trim();
  if (text === '') return [];
  const starts = [
    ...text.matchAll(/(?:^|\n\n)(?=(?:(?:From|To|Cc|Date|Subject|Sent): [^\n]*\n)*Subject: [^\n]*\n)/g),
  ].map(({ index, 0: whole }) => index + whole.length);
  // A head in the midst of another is none of its own.
  const heads = starts.filter((at, nth) => nth === 0 || text.slice(starts[nth - 1], at).includes('\n\n'));
  const parts =
    !BEGINS.test(text) || heads.length === 0 ? [text] : heads.map((at, nth) => text.slice(at, heads[nth + 1]));
  return parts.map((part, at) => mailOf(part.trim(), `pasted ${number + at}`));
}

function mailOf(part: string, file: string): PastWords {
  const head = /^(?:(?:From|To|Cc|Date|Subject|Sent): [^\n]*\n)+/.exec(part)?.[0] ?? '';
  const field = (name: string): string => new RegExp(`^${name}: (.*)$`, 'm').exec(head)?.[1]?.trim() ?? '';
  const [to, from, at] = [field('To'), field('From'), Date.parse(field('Date') || field('Sent'))];
  return {
    ...{ file, subject: field('Subject'), to: to === '' ? [] : [to], text: part.slice(head.length).trim() },
    ...(from === '' ? {} : { from }),
    ...(Number.isNaN(at) ? {} : { day: new Date(at).toISOString().slice(0, 10) }),
  };
}
