/**
 * Mailboxes: whom a message goes to or comes from. Name and address are kept apart from the template to the header, so
 * that nothing in a name can become an address.
 */
import { isEmail } from './address.js';

/** An address with the name of who it belongs to. */
export interface Mailbox {
  /** What the person is called; empty where only the address is known. One line, without control characters. */
  readonly name: string;
  /** The bare address as it was written. Whether it is one is for `isEmail` to say. */
  readonly address: string;
}

/** What marks the brackets of an address that the template itself wrote; values never hold control characters. */
export const OPENING = '\u0001';
/** The closing one. */
export const CLOSING = '\u0002';

/** The words of an address line of a template, its own angle brackets marked, those in values as they are. */
export const marked = (words: string): string => words.replace(/</g, OPENING).replace(/>/g, CLOSING);

const cleanName = (words: string): string => {
  const line = words.replace(/[\s\p{Cc}]+/gu, ' ').trim();
  return line.length > 1 && line.startsWith('"') && line.endsWith('"') ? line.slice(1, -1).trim() : line;
};

/**
 * The mailbox that a rendered address line says. Only the template's own brackets part name and address; without any,
 * the whole line is an address, or one mailbox that came as a value.
 */
export function mailboxOfLine(line: string): Mailbox {
  const open = line.indexOf(OPENING);
  if (open < 0) return readMailbox(line) ?? { name: '', address: line.trim() };
  const close = line.indexOf(CLOSING, open);
  const behind = close < 0 ? '' : line.slice(close + 1).trim();
  const address = line.slice(open + 1, close < 0 ? undefined : close).trim();
  // Words behind the address are none of it: together they are no address, and a finding says so.
  return { name: cleanName(line.slice(0, open)), address: behind === '' ? address : `${address} ${behind}` };
}

/**
 * Reads `ann@x.example`, `Ann Lee <ann@x.example>` or `"Lee, Ann" <ann@x.example>`.
 * @returns undefined for anything that is not one mailbox with an address
 */
export function readMailbox(written: string): Mailbox | undefined {
  const text = written.trim();
  if (text.length > 1000) return undefined;
  if (!text.endsWith('>')) return isEmail(text) ? { name: '', address: text } : undefined;
  const open = text.lastIndexOf('<');
  const address = text.slice(open + 1, -1).trim();
  const name = text.slice(0, Math.max(0, open));
  if (open < 0 || !isEmail(address) || /[<>\r\n]/.test(name)) return undefined;
  return { name: cleanName(name).replace(/\\(["\\])/g, '$1'), address };
}

/** True for `a@b.example` and for `Name <a@b.example>`. */
export const isMailbox = (text: string): boolean => readMailbox(text) !== undefined;

const [MOST_LOCAL, MOST_DOMAIN] = [64, 255];
const LOCAL_PART = /[^\s@<>()[\],;:"'\\\p{C}]/u;
const DOMAIN_PART = /[\p{L}\p{N}.-]/u;

/** Mail addresses in a text, in order, with where each begins. One look around every `@`, however long the text is. */
export function* addressesIn(text: string): Generator<{ readonly address: string; readonly at: number }> {
  let behind = 0;
  for (let sign = text.indexOf('@'); sign >= 0; sign = text.indexOf('@', sign + 1)) {
    let from = sign;
    while (from > behind && sign - from < MOST_LOCAL && LOCAL_PART.test(text.charAt(from - 1))) from -= 1;
    let to = sign + 1;
    while (to < text.length && to - sign <= MOST_DOMAIN && DOMAIN_PART.test(text.charAt(to))) to += 1;
    while (to > sign + 1 && '.-'.includes(text.charAt(to - 1))) to -= 1;
    const address = text.slice(from, to);
    if (!isEmail(address)) continue;
    behind = to;
    yield { address, at: from };
  }
}

/** The first mail address in a text; empty if there is none. */
export function firstAddressIn(text: string): string {
  for (const { address } of addressesIn(text)) return address;
  return '';
}

/** Characters that a name in a header needs quotation marks for (RFC 5322, 3.2.3). */
const SPECIAL = /[()<>[\]:;@\\,."]/;

/** A mailbox as it is written for people and in headers: a name with special characters in quotation marks. */
export function writtenMailbox({ name, address }: Mailbox): string {
  if (name === '') return address;
  return `${SPECIAL.test(name) ? `"${name.replace(/(["\\])/g, '\\$1')}"` : name} <${address}>`;
}

/** An address for comparing: in small letters. */
export const foldedMailbox = ({ address }: Mailbox): string => address.trim().toLowerCase();

/** The addresses of a message as they are written, for people, files and lists. */
export const writtenEnvelope = ({
  to,
  cc,
  bcc,
  replyTo,
}: Readonly<Record<AddressLine, readonly Mailbox[]>>): Record<AddressLine, string[]> => ({
  to: to.map(writtenMailbox),
  cc: cc.map(writtenMailbox),
  bcc: bcc.map(writtenMailbox),
  replyTo: replyTo.map(writtenMailbox),
});
type AddressLine = 'to' | 'cc' | 'bcc' | 'replyTo';
