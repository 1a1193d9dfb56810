/** Renders a mail from the derived template and compares it with the original. */
import { diffArrays } from 'diff';
import type { Program } from '../compile/program.js';
import { readHtml } from '../formats/html/index.js';
import { render } from '../render/render.js';
import { unitsOf, type MailContent, type Unit } from './mail.js';
import type { DerivedQuestion } from './questions.js';
import { sequenceKey, textOf } from './tokens.js';

/** A place where the original and the rendered mail differ. Where only the form differs, it is named in brackets. */
export interface Difference {
  readonly was: string;
  readonly now: string;
}
/** A mail with what the template makes of its answers. */
export interface DerivedMail {
  readonly file: string;
  /** True if subject, text and form are equal, apart from runs of white space. */
  readonly exact: boolean;
  readonly differences: readonly Difference[];
  readonly answers: Readonly<Record<string, unknown>>;
  /** The recipient's fields and the answers as text: a row of a sample set. */
  readonly recipient: Readonly<Record<string, string>>;
  /** Quoted text and signatures that were not compared, line by line. */
  readonly setAside: readonly string[];
}

/** @param index the index of the mail in the answers of the questions */
export function scoreMail(
  { mail, subject, units, recipient, sender, today, setAside, beyond }: MailContent,
  index: number,
  program: Program,
  questions: readonly DerivedQuestion[],
): DerivedMail {
  const answers = Object.fromEntries(
    questions
      .filter(({ variable, answers: all }) => variable.value === undefined && all.has(index))
      .map(({ variable, answers: all }) => [variable.key, all.get(index)]),
  );
  const message = render(program, { recipient, sender, answers, today });
  const rendered = readHtml(message.html).blocks.flatMap((block) => unitsOf(block, program.locale));
  const subjects = differencesOf([textOf(subject)], [message.subject.trim().replace(/\s+/g, ' ')], String);
  const bodies = differencesOf(units, rendered, (unit) => unit.shape + sequenceKey(unit.tokens));
  const rest = beyond > 0 ? [{ was: `${beyond} more paragraphs, which were not compared`, now: '' }] : [];
  const differences = [...subjects, ...bodies, ...rest];
  const cells = Object.entries(answers).map(([key, value]) => [
    key,
    typeof value === 'object' ? JSON.stringify(value) : String(value),
  ]);
  return {
    ...{ file: mail.file, exact: differences.length === 0, differences, answers, setAside },
    recipient: { ...recipient, ...(Object.fromEntries(cells) as Record<string, string>) },
  };
}

/** The differences between two sequences. @param keyOf equal for equal items */
function differencesOf<T extends string | Unit>(
  was: readonly T[],
  now: readonly T[],
  keyOf: (item: T) => string,
): Difference[] {
  const differences: { was: T[]; now: T[] }[] = [];
  let open: { was: T[]; now: T[] } | undefined;
  for (const { added, removed, value } of diffArrays([...was], [...now], {
    comparator: (a, b) => keyOf(a) === keyOf(b),
  })) {
    if (!added && !removed) open = undefined;
    else {
      if (!open) differences.push((open = { was: [], now: [] }));
      (removed ? open.was : open.now).push(...value);
    }
  }
  return differences.map(({ was: left, now: right }) => {
    const [a, b] = [left.map(textOfItem).join('\n'), right.map(textOfItem).join('\n')];
    return a === b ? { was: `${a} (${formOf(left)})`, now: `${b} (${formOf(right)})` } : { was: a, now: b };
  });
}
const textOfItem = (item: string | Unit): string => (typeof item === 'string' ? item : textOf(item.tokens));
/** The form of units in words: `bullet`, `paragraph, bold`. */
function formOf(items: readonly (string | Unit)[]): string {
  const units = items.filter((item) => typeof item !== 'string');
  const shapes = units.map(({ shape }) => shape.replace(/\{.*\}| ,*$/g, ''));
  const marks = units.flatMap(({ tokens }) => tokens.flatMap((token) => token.marks.map(({ type }) => type)));
  return [...new Set([...shapes, ...marks])].join(', ');
}
