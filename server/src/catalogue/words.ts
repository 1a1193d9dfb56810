/** What a text says, for lists and for searching. */
import { bodyOf, childrenOf, fold, part, plainWords, visit, type Inline, type TextDocument } from '@vocabula/core';

/** A subject with placeholders by their labels. */
export function subjectWords(document: TextDocument): string {
  const labels = new Map(document.attrs.variables.map((variable) => [variable.key, variable.label ?? variable.key]));
  return plainWords(part(document, 'subject').content).replace(
    /\[([^\]]+)\]/g,
    (_, name: string) => `[${labels.get(name) ?? name}]`,
  );
}

/** Everything that a searcher may have in mind: title, subject, call word, labels, body. */
export function searchWords(document: TextDocument): string {
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
      if (node.type === 'paragraph' || node.type === 'heading')
        parts.push(plainWords(childrenOf(node) as readonly Inline[]));
    });
  }
  return fold(parts.join('\n'));
}

/** The first words of a body. */
export function opening(document: TextDocument): string {
  const lines: string[] = [];
  for (const block of bodyOf(document)) {
    visit(block, (node) => {
      if ((node.type === 'paragraph' || node.type === 'heading') && lines.length < 3)
        lines.push(plainWords(childrenOf(node) as readonly Inline[]));
    });
  }
  return lines.join(' ').slice(0, 220);
}
