/** What rules may ask of a mail that comes in, as variables: conditions on them are built as those of passages are. */
import { foundValues, type FoundValue } from '../filling/values-in-text.js';
import { bareAddress } from '../filling/reply.js';
import { readMailbox } from '../values/mailbox.js';
import type { Variable } from '../template/variable.js';
import { fold } from '../words/fold.js';

/** A mail that came in, as far as rules and guards ask. */
export interface IncomingMail {
  /** Mailboxes: `Ann Lee <ann@x.example>`. */
  readonly from: string;
  /** Those in To and Cc. */
  readonly to: readonly string[];
  readonly replyTo: readonly string[];
  readonly subject: string;
  /** In its own words, without what it quotes. */
  readonly words: string;
  /** What is recognised in its subject and its words, by where it stands: see `valuesInMail`. */
  readonly values: readonly FoundValue[];
  /** Names of what is attached. */
  readonly files: readonly string[];
  /** The moment it says that it was written, ISO. */
  readonly written?: string | undefined;
  /** Other headers by their names in small letters. */
  readonly headers: Readonly<Record<string, string>>;
  /** It reports on a message that did not arrive (RFC 3464). */
  readonly isReport: boolean;
}

/** Where a mail stands. */
export interface MailMoment {
  /** The day it came, ISO, from which days without a year are read. */
  readonly today: string;
  /** It answers a message of ours. */
  readonly answersOurs: boolean;
}

const text = (key: string, label: string): Variable => ({ key, label, type: 'text' });

/** What a condition may name, in the order it is offered. Texts are compared without regard to case and accents. */
export const MAIL_VARIABLES: readonly Variable[] = [
  text('words', 'Words of the mail'),
  text('subject', 'Subject'),
  text('sender_address', 'Sender’s address'),
  text('sender_name', 'Sender’s name'),
  text('written_to', 'Written to'),
  { key: 'a_day', label: 'A day in it', type: 'date' },
  { key: 'a_time', label: 'A time in it', type: 'time' },
  { key: 'a_number', label: 'A number in it', type: 'number' },
  { key: 'a_sum', label: 'A sum of money in it', type: 'number' },
  text('a_phone', 'A telephone number in it'),
  text('a_link', 'A link in it'),
  { key: 'files', label: 'Attachments', type: 'number' },
  text('file_names', 'Names of attachments'),
  { key: 'answers_ours', label: 'Answers a message of ours', type: 'yes-no' },
];

/** So much of a mail is looked at; what stands behind it decides nothing. */
const LONGEST = 20_000;
const oneLine = (words: string): string => words.replace(/\s+/g, ' ').trim();

/** In which language days of mails are read: English names of months, figures with the day first. */
export const READ_IN = 'en-GB';

/** The values in a mail, by where they stand: in its subject, then in its words. Takes long for long mails. */
export const valuesInMail = (subject: string, words: string, today: string): readonly FoundValue[] =>
  foundValues(`${subject}\n${words.slice(0, LONGEST)}`, today, READ_IN);

/** Answers to the variables above; what a mail lacks has none. */
export function factsOf(
  mail: IncomingMail,
  { answersOurs }: Pick<MailMoment, 'answersOurs'>,
): Record<string, string | number> {
  const first = (type: FoundValue['type']): string => mail.values.find((each) => each.type === type)?.value ?? '';
  const folded: Readonly<Record<string, string>> = {
    words: mail.words.slice(0, LONGEST),
    subject: mail.subject,
    sender_address: bareAddress(mail.from),
    sender_name: readMailbox(mail.from)?.name ?? '',
    written_to: mail.to.map(bareAddress).join(', '),
    a_phone: first('phone'),
    a_link: first('link'),
    file_names: mail.files.join(', '),
  };
  const facts: Record<string, string | number> = {
    ...Object.fromEntries(Object.entries(folded).map(([key, value]) => [key, fold(oneLine(value))])),
    a_day: first('date'),
    a_time: first('time'),
    a_number: first('number'),
    a_sum: first('money'),
    files: mail.files.length,
    answers_ours: answersOurs ? 'yes' : 'no',
  };
  return Object.fromEntries(Object.entries(facts).filter(([, value]) => value !== ''));
}
