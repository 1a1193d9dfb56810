/** Mail that came in, read: what lists show of it, and what it shows when it is opened. Run in a worker thread. */
import type { Letter } from '@vocabula/contract';
import { inlined, isMbox, mailsOf, readEml, type ReadMail } from '@vocabula/mail';
import type { ReceivedMail } from '@vocabula/core/insight';
import { ownWords } from '@vocabula/core/derive';
import { bareAddress } from '@vocabula/core/filling';
import { valuesInMail, type IncomingMail } from '@vocabula/core/standing-replies';
import { RequestProblem } from '../http/problem.js';

/** Mails taken from one file. */
const MOST_DROPPED = 500;
const OPENING = 140;
/** Characters of a mail that are shown at most. */
const MOST_SHOWN = 1_000_000;

/** What of a mail tells whose answer it is. */
export type Arrival = Omit<ReceivedMail, 'at'> & Pick<ReadMail, 'reports'>;

/** What is kept of a mail beside its bytes. */
export interface LetterColumns {
  /** Whether it is formed as mail is. */
  readonly readable: boolean;
  readonly subject: string;
  /** The mailbox that its header names; empty without one. */
  readonly from: string;
  readonly messageId: string;
  /** The message id that its conversation began with; empty where it says none. */
  readonly thread: string;
  /** Its first words. */
  readonly opening: string;
  /** Whom it names: as recipients, and as whose mailbox it was delivered to. */
  readonly addressed: readonly string[];
  /** What tells whether it answers a message of ours, or reports on one; none where it cannot be read. */
  readonly arrival: Arrival | undefined;
}

const addressedBy = ({ to, cc, headers }: ReadMail): string[] =>
  [...to, ...cc, headers['delivered-to'], headers['x-original-to']]
    .flatMap((each) => (each ? [bareAddress(each)] : []))
    .filter((each) => each.includes('@'))
    .slice(0, MOST_ADDRESSED);
/** Recipients of one mail that are looked at. */
const MOST_ADDRESSED = 200;
const IDS = /<[^<>\s]{1,400}>/g;
const arrivalOf = ({ from = '', subject, inReplyTo, references, headers, reports }: ReadMail): Arrival => ({
  ...{ from, subject, headers, reports },
  ...(inReplyTo === undefined ? {} : { inReplyTo: inReplyTo.match(IDS)?.[0] ?? inReplyTo }),
  references: [...(references ?? '').matchAll(IDS)].map(([id]) => id).slice(-100),
});

const read = (raw: Uint8Array): Promise<ReadMail | undefined> => readEml(raw).catch(() => undefined);

export async function letterColumns(raw: Uint8Array): Promise<LetterColumns> {
  const mail = await read(raw);
  return {
    readable: mail !== undefined,
    subject: mail?.subject ?? '',
    from: mail?.from ?? '',
    messageId: mail?.messageId ?? '',
    thread: /<[^<>\s]{1,400}>/.exec(mail?.references ?? '')?.[0] ?? mail?.inReplyTo ?? mail?.messageId ?? '',
    addressed: mail ? addressedBy(mail) : [],
    arrival: mail && arrivalOf(mail),
    opening: (mail?.text ?? '').slice(0, 4000).replace(/\s+/g, ' ').trim().slice(0, OPENING),
  };
}

/** The columns of several letters, in order. */
export const columnsOfLetters = (raws: readonly Uint8Array[]): Promise<LetterColumns[]> =>
  Promise.all(raws.map((raw) => letterColumns(raw)));

/** A mail as rules see it, with what tells whose answer it is. */
export type Incoming = IncomingMail & { readonly arrival: Arrival };
/** A mail that is to be read so. */
export interface ToRead {
  readonly raw: Uint8Array;
  /** The bare address that it was handed in from; empty for mail of servers, which nobody may answer. */
  readonly sender: string;
  /** The day it came, ISO. */
  readonly today: string;
}
/** So much of a mail is looked at by rules, in characters. */
const MOST_LOOKED = 60_000;
const NO_ARRIVAL: Arrival = { from: '', subject: '', headers: {}, reports: [] };

/** Several mails as rules see them, in order; one that cannot be read says nothing. */
export const incomingMails = (mails: readonly ToRead[]): Promise<Incoming[]> => Promise.all(mails.map(incomingMail));

async function incomingMail({ raw, sender, today }: ToRead): Promise<Incoming> {
  const mail = await read(raw);
  const { from = '', to = [], cc = [], replyTo = [], subject = '', files = [], headers = {}, date } = mail ?? {};
  // The text is what its sender wrote as such; HTML says the same at more cost.
  const { text = '', html } = mail ?? {};
  const body = text.trim() === '' ? { html: html?.slice(0, MOST_LOOKED) } : { text: text.slice(0, MOST_LOOKED) };
  const words = ownWords(body);
  return {
    ...{ from, to: [...to, ...cc], replyTo, subject, words, values: valuesInMail(subject, words, today) },
    // The stand-in is told the return path, and writes it nowhere.
    headers: { 'return-path': `<${sender}>`, ...headers },
    ...{ files: files.map(({ name }) => name), written: date, isReport: (mail?.reports.length ?? 0) > 0 },
    arrival: mail ? arrivalOf(mail) : NO_ARRIVAL,
  };
}

export async function shownLetter(raw: Uint8Array): Promise<Pick<Letter, 'html' | 'text' | 'files' | 'broken'>> {
  const mail = await read(raw);
  if (!mail)
    return {
      html: '',
      text: Buffer.from(raw).subarray(0, 100_000).toString('utf8'),
      files: [],
      broken: 'This mail is not formed as mail is; it is shown as it came.',
    };
  const { html = '', text = '', files } = mail;
  const byId = new Map<string, ReadMail['files'][number]>();
  for (const file of files) if (file.cid !== undefined) byId.set(`cid:${file.cid}`, file);
  return {
    html: inlined(html.slice(0, MOST_SHOWN), (path) => byId.get(path)),
    text: text.slice(0, MOST_SHOWN),
    files: files.map(({ name }) => name),
    broken:
      mail.from === undefined
        ? 'This mail does not say who wrote it.'
        : Math.max(html.length, text.length) > MOST_SHOWN
          ? 'This mail is very long: only its beginning is shown.'
          : '',
  };
}

/** A mail out of a file, with what is kept of it. */
export interface DroppedMail extends LetterColumns {
  readonly raw: Uint8Array;
}
export interface DroppedMails {
  readonly mails: readonly DroppedMail[];
  readonly problems: readonly string[];
}

/** The mails of a file: one, or a mailbox. Throws a RequestProblem where there are too many, or none. */
export async function mailbox(bytes: Uint8Array): Promise<DroppedMails> {
  const raws = isMbox(bytes) ? mailsOf(bytes, MOST_DROPPED + 1) : [bytes];
  if (raws.length > MOST_DROPPED)
    throw new RequestProblem(
      413,
      'too-large',
      `This mailbox has more than ${MOST_DROPPED} mails, the most that are taken at once. Divide it.`,
    );
  const problems: string[] = [];
  const mails: DroppedMail[] = [];
  for (const [at, raw] of raws.entries()) {
    const columns = await letterColumns(raw);
    if (!columns.readable || (columns.from === '' && columns.subject === '' && columns.opening === ''))
      problems.push(`Mail ${at + 1} is not one that can be read.`);
    else mails.push({ ...columns, raw });
  }
  if (mails.length === 0) throw new RequestProblem(422, 'not-mail', 'There is no mail in this file that can be read.');
  return { mails, problems };
}
