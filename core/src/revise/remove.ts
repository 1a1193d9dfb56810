/** Taking a variable out, with a choice of what is left of it. */
import type { TextDocument } from '../template/document.js';
import { mapDocument } from './map.js';
import { mapTags } from './tags.js';
import { usesOf } from './uses.js';

/** What is left: words where placeholders stood (none for nothing), and whether passages go with their words. */
export interface Left {
  readonly words: string;
  readonly passages: 'unwrap' | 'out';
}

/** The text without a variable. Expressions that name it stay, and are findings until they are written anew. */
export function removeVariable(document: TextDocument, key: string, { words, passages }: Left): TextDocument {
  return mapDocument(document, {
    inline: (node, shadows) => {
      if (node.type !== 'placeholder' || node.attrs.name !== key || shadows.has(key)) return [node];
      return words === '' ? [] : [{ type: 'text', text: words, ...(node.marks ? { marks: node.marks } : {}) }];
    },
    condition: (condition, shadows) => {
      if (condition.of !== key || shadows.has(key)) return condition;
      return passages === 'out' ? 'out' : undefined;
    },
    target: (href, shadows) =>
      shadows.has(key)
        ? href
        : mapTags(href, {
            placeholder: (name, view) => (name === key ? encodeURIComponent(words) : { name, view }),
            condition: (condition) => (condition.of === key ? undefined : condition),
          }),
    variables: (variables) => variables.filter((variable) => variable.key !== key),
  });
}

/** The variables whose expressions name a variable. */
export function readersOf(document: TextDocument, key: string): string[] {
  const readers = usesOf(document).flatMap((use) =>
    use.key === key && use.kind === 'expression' && use.variable && use.variable !== key ? [use.variable] : [],
  );
  return [...new Set(readers)];
}
