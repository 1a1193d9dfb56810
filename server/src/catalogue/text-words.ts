/** What a text says, for lists and for searching. */
import {
  bodyOf,
  childrenOf,
  compile,
  dayIn,
  fold,
  labelFromKey,
  part,
  plainWords,
  render,
  visit,
  type Inline,
  type TextDocument,
} from '@vocabula/core';

/** Says inline content of a document in words, placeholders by their labels. */
function speaker({ attrs: { variables } }: TextDocument): (nodes: readonly Inline[] | undefined) => string {
  const labels = new Map(variables.map((variable) => [variable.key, variable.label ?? labelFromKey(variable.key)]));
  return (nodes) =>
    plainWords(nodes).replace(
      /\[([a-z][a-z0-9_.]*)\]/g,
      (_, name: string) => `[${labels.get(name) ?? labelFromKey(name.split('.')[1] ?? name)}]`,
    );
}

export const subjectWords = (document: TextDocument): string => speaker(document)(part(document, 'subject').content);

/** The columns of the full-text index. */
export interface SearchedWords {
  readonly title: string;
  readonly subject: string;
  readonly call: string;
  readonly labels: string;
  readonly body: string;
}

/** Letters that the index does not take apart, and the searcher's keyboard may lack. */
const SPECIAL = /[ßæœøđðłþı]/i;

/** Everything that a searcher may have in mind, by where it stands. */
export function searchedWords(document: TextDocument): SearchedWords {
  const { front, variables } = document.attrs;
  const body = bodyLines(document).join('\n');
  const labels = [front.description ?? '', ...variables.map((variable) => variable.label ?? variable.key)];
  const plain = `${front.title} ${body}`.split(/[^\p{L}\p{N}]+/u).filter((word) => SPECIAL.test(word));
  return {
    title: front.title,
    subject: subjectWords(document),
    call: front.call ?? '',
    labels: [...labels, ...new Set([...new Set(plain)].map(fold))].join(' '),
    body,
  };
}

/** The words of a body, folded, for telling which texts say nearly the same. */
export const comparedWords = (document: TextDocument): string[] =>
  fold(bodyLines(document).join('\n'))
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean);

/** The first words of a message as it reads while nothing is answered: blanks by their labels, what is not asked for left out. */
export function opening(document: TextDocument): string {
  const program = compile({ name: 'opening', document }, { library: { get: () => undefined } });
  const { text } = render(program, { today: dayIn(new Date(), 'UTC') });
  return text.replace(/\s+/g, ' ').trim().slice(0, OPENING);
}
const OPENING = 220;

/** A body's paragraphs and headings as lines. */
function bodyLines(document: TextDocument): string[] {
  const say = speaker(document);
  const lines: string[] = [];
  for (const block of bodyOf(document)) {
    visit(block, (node) => {
      if (node.type === 'paragraph' || node.type === 'heading') lines.push(say(childrenOf(node) as readonly Inline[]));
    });
  }
  return lines;
}
