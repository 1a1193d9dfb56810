import { compileBundle } from '../bundle/bundle.js';
import { DEFAULT_LOCALE, PLAIN_HOUSE } from '../house/house.js';
import type { TextDocument } from '../template/document.js';
import type { TypeName } from '../template/variable.js';
import { Comparison, guideOf } from './likeness.js';
import { mailContent, type FramePart, type MailContent, type PastMail } from './mail.js';
import { withLists } from './repeats.js';
import { scoreMail, type DerivedMail } from './score.js';
import { settle, type Settlement } from './settle.js';
import { buildTemplate } from './template.js';
import { textOf } from './tokens.js';

/** A variable of the template. */
export interface DerivedVariable {
  readonly key: string;
  readonly type: TypeName;
  /** The number of different values. */
  readonly distinct: number;
  /** The number of places it is used in. */
  readonly places: number;
}
/** A template with the answers for each mail. */
export interface Derived {
  readonly template: TextDocument;
  /** In the order in which they were given. */
  readonly mails: readonly DerivedMail[];
  /** The number of mails that the template reproduces exactly. */
  readonly exact: number;
  readonly variables: readonly DerivedVariable[];
  /** The number of optional and alternative passages and phrases. */
  readonly passages: number;
  /** Text that only one or very few mails have or lack. */
  readonly oddities: readonly { readonly file: string; readonly words: string }[];
  /** The signature that nearly all mails have, line by line; it is the sender's, not the template's. */
  readonly signature: readonly string[];
  /** The files of mails of one kind, the largest group first. */
  readonly groups: readonly (readonly string[])[];
}
/** Options of `derive`. */
export interface DeriveOptions {
  readonly locale?: string;
  /** What somebody has said of the questions, in the order in which it was said. */
  readonly settled?: readonly Settlement[];
  /** What the application put around messages of its own: it is set apart, the outermost first. */
  readonly frame?: readonly FramePart[];
  /** Is told the share of the work that is done, from 0 to 1; an error thrown here stops the work. */
  readonly onProgress?: (share: number) => void;
}

/** The least and the greatest number of mails. */
export const [FEWEST_MAILS, MOST_MAILS] = [2, 500];
/** The share of the work that alignment takes; scoring takes the rest. */
const ALIGNMENT = 0.7;

/**
 * Derives one template from past mails, and the answers with which it reproduces each of them. Paragraphs, sentences and
 * words are aligned (`align.ts`, `wordings.ts`), varying text is typed (`kinds.ts`), values that agree share a variable
 * (`questions.ts`), and text that too few mails have or lack is an oddity. Each mail is then rendered by the engine and
 * compared with the original (`score.ts`). The result does not depend on the order of the mails.
 * @throws RangeError for fewer than two mails or more than 500
 */
export function derive(
  mails: readonly PastMail[],
  { locale = DEFAULT_LOCALE, settled = [], frame = [], onProgress = () => undefined }: DeriveOptions = {},
): Derived {
  if (mails.length < FEWEST_MAILS || mails.length > MOST_MAILS)
    throw new RangeError(`mails are ${FEWEST_MAILS} to ${MOST_MAILS}, not ${mails.length}`);
  const prepared = inCanonicalOrder(mails.map((mail) => mailContent(mail, locale, frame)));
  const contents = prepared.map(({ content }) => content);
  const units = withLists(contents.map((content) => content.units));
  const comparison = new Comparison();
  const { order, groups } = guideOf(
    units.map((list) => list.flatMap(({ tokens }) => tokens)),
    comparison,
  );
  let steps = 0;
  const onStep = (): void => onProgress((ALIGNMENT * (steps += 1)) / (order.length * 2));
  const taken = new Set(settled.flatMap((each) => (each.how === 'take' ? [each.words] : [])));
  const built = buildTemplate(contents, units, order, { comparison, locale, taken, onStep });
  const { oddities, passages } = built;
  const today = contents[0]?.today ?? '';
  const { document, questions } = settle(built.document, built.questions, settled, { today, locale });
  const text = { name: 'derived', document };
  const program = compileBundle({ text, texts: [text], house: PLAIN_HOUSE });
  const scored: DerivedMail[] = [];
  for (const [at, { content, given }] of prepared.entries()) {
    scored[given] = scoreMail(content, at, program, questions);
    onProgress(ALIGNMENT + ((1 - ALIGNMENT) * (at + 1)) / prepared.length);
  }
  const fileOf = (at: number): string => contents[at]?.mail.file ?? '';
  return {
    template: document,
    mails: scored,
    exact: scored.filter(({ exact }) => exact).length,
    variables: questions.map(({ variable: { key, type }, answers, places }) => ({
      ...{ key, type, places },
      distinct: new Set([...answers.values()].map((value) => JSON.stringify(value))).size,
    })),
    passages,
    oddities: oddities.map(({ mail, words }) => ({ file: fileOf(mail), words })),
    signature: commonSignature(contents),
    groups: groups.map((group) => group.map(fileOf).sort()),
  };
}

/** Of so many of the mails a signature has to be. */
const NEARLY_ALL = 0.8;
function commonSignature(contents: readonly MailContent[]): readonly string[] {
  const counts = new Map<string, { readonly lines: readonly string[]; count: number }>();
  for (const { signature: lines } of contents) {
    const key = lines.join('\n');
    counts.set(key, { lines, count: (counts.get(key)?.count ?? 0) + 1 });
  }
  const [most] = [...counts.values()].sort((a, b) => b.count - a.count);
  return most && most.count >= contents.length * NEARLY_ALL ? most.lines : [];
}

/** The mails ordered by their content, so that the given order does not matter, with their given index. */
function inCanonicalOrder(
  contents: readonly MailContent[],
): { readonly content: MailContent; readonly given: number }[] {
  return contents
    .map((content, given) => {
      const { mail, subject, units } = content;
      const text = units.map(({ shape, tokens }) => [shape, textOf(tokens)]);
      return { content, given, key: JSON.stringify([textOf(subject), text, mail.file]) };
    })
    .sort((a, b) => (a.key < b.key ? -1 : a.key > b.key ? 1 : 0));
}
