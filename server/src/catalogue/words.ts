/** What a text says, for lists and for searching. */
import {
  bodyOf,
  childrenOf,
  fold,
  labelFromKey,
  part,
  plainWords,
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

/** Everything that a searcher may have in mind: title, subject, call word, labels, body. */
export function searchWords(document: TextDocument): string {
  const say = speaker(document);
  const { front, variables } = document.attrs;
  const parts = [
    front.title,
    front.call ?? '',
    front.description ?? '',
    subjectWords(document),
    ...variables.map((variable) => variable.label ?? variable.key),
  ];
  for (const block of bodyOf(document)) {
    visit(block, (node) => {
      if (node.type === 'paragraph' || node.type === 'heading') parts.push(say(childrenOf(node) as readonly Inline[]));
    });
  }
  return fold(parts.join('\n'));
}

/** The first words of a body. */
export function opening(document: TextDocument): string {
  const say = speaker(document);
  const lines: string[] = [];
  for (const block of bodyOf(document)) {
    visit(block, (node) => {
      if ((node.type === 'paragraph' || node.type === 'heading') && lines.length < 3)
        lines.push(say(childrenOf(node) as readonly Inline[]));
    });
  }
  return lines.join(' ').slice(0, 220);
}
