/** Where the answers of a standing reply come from. */
import { fitting, foundValues, type FoundValue } from '../filling/values-in-text.js';
import { bareAddress } from '../filling/reply.js';
import type { Variable } from '../template/variable.js';
import { readMailbox } from '../values/mailbox.js';
import { labelOf } from '../values/choice.js';
import { fold } from '../words/fold.js';
import { READ_IN, type IncomingMail } from './mail.js';

/** Where one answer comes from. */
export type ValueSource =
  /** The same for every mail, as a question takes it. */
  | { readonly from: 'fixed'; readonly value: string }
  /** A value of the question's type, by its place in the mail, from 1. */
  | { readonly from: 'found'; readonly nth: number }
  /** What stands behind some words on their line, or on the next where nothing does. */
  | { readonly from: 'behind'; readonly words: string }
  /** Of the head of the mail. */
  | { readonly from: 'name' | 'address' | 'subject' };

/** A question that is to be answered. */
export interface Wanted {
  readonly id: string;
  readonly variable: Variable;
}

/**
 * The answers that a mail gives; questions without a source, and those that it says nothing to, have none.
 * @param today the day it came, ISO
 */
export function answersFrom(
  sources: Readonly<Record<string, ValueSource>>,
  wanted: readonly Wanted[],
  mail: IncomingMail,
  today: string,
): Record<string, string> {
  const answers: Record<string, string> = {};
  for (const { id, variable } of wanted) {
    const source = Object.hasOwn(sources, id) ? sources[id] : undefined;
    const value = source && valueFrom(source, variable, mail, today);
    if (value !== undefined && value !== '') answers[id] = value;
  }
  return answers;
}

function valueFrom(source: ValueSource, variable: Variable, mail: IncomingMail, today: string): string | undefined {
  switch (source.from) {
    case 'fixed':
      return source.value;
    case 'found':
      return fits(mail.values, variable, source.nth);
    case 'behind': {
      const words = behind(`${mail.subject}\n${mail.words}`, source.words);
      return words === undefined ? undefined : understood(words, variable, today);
    }
    case 'name':
      return readMailbox(mail.from)?.name;
    case 'address':
      return bareAddress(mail.from);
    case 'subject':
      return mail.subject;
  }
}

const fits = (found: readonly FoundValue[], { type }: Variable, nth: number): string | undefined =>
  fitting(found, type)[nth - 1]?.value;

/** So much of a line is looked at. */
const LONGEST_LINE = 500;

/** The words behind a label: the rest of its line, or the next line that says something. */
function behind(text: string, label: string): string | undefined {
  const wanted = fold(label).trim();
  if (wanted === '') return undefined;
  const lines = text.split('\n').map((line) => line.slice(0, LONGEST_LINE));
  for (const [at, line] of lines.entries()) {
    // Folding may change the length of a line: the end of the label is looked for letter by letter.
    const start = endOf(line, wanted);
    if (start === undefined) continue;
    const rest = withoutColon(line.slice(start));
    if (rest !== '') return rest;
    return lines
      .slice(at + 1)
      .find((each) => each.trim() !== '')
      ?.trim();
  }
  return undefined;
}

const withoutColon = (words: string): string => words.replace(/^[\s:=–—-]+/u, '').trim();

/** Where a folded label ends in a line; undefined where the line does not hold it. */
function endOf(line: string, wanted: string): number | undefined {
  if (!fold(line).includes(wanted)) return undefined;
  for (let end = 1; end <= line.length; end += 1) if (fold(line.slice(0, end)).endsWith(wanted)) return end;
  return undefined;
}

/** Some words as an answer of a variable: an option by its label, a value of the type that stands in them. */
function understood(words: string, variable: Variable, today: string): string | undefined {
  const { type, options = [], other } = variable;
  if (type === 'choice') {
    const said = fold(words);
    const same = options.find((option) => fold(labelOf(option)) === said || option.key === said);
    const held = same ?? options.find((option) => said.includes(fold(labelOf(option))));
    return held?.key ?? (other ? words : undefined);
  }
  if (type === 'text' || type === 'paragraphs') return words;
  if (type === 'yes-no') return yesOrNo(words);
  return fits(foundValues(words, today, READ_IN), variable, 1);
}

const YES = /^(?:yes|ja|oui|sí|si|sì|sim|tá|x|✓|true)\b/iu;
const NO = /^(?:no|nein|non|não|nee|níl|false)\b/iu;
const yesOrNo = (words: string): string | undefined => (YES.test(words) ? 'yes' : NO.test(words) ? 'no' : undefined);
