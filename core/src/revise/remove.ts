/** Taking a variable out, with a choice of what is left of it. */
import type { Condition } from '../template/condition.js';
import { plainWords, type Inline, type TextDocument } from '../template/document.js';
import { mapDocument } from './map.js';
import { mapTags } from './tags.js';
import { usesOf } from './uses.js';

/** What is left: words where placeholders stood (none for nothing), and whether passages go with their words. */
export interface Left {
  readonly words: string;
  readonly passages: 'unwrap' | 'out';
}

/** What stands where a variable stood: by the view in which it was written, and by the condition that asked for it. */
export interface Standing {
  readonly words: (view: string) => readonly Inline[];
  readonly passages: (condition: Condition) => Left['passages'];
}

/** The text without a variable. Expressions that name it stay, and are findings until they are written anew. */
export const removeVariable = (document: TextDocument, key: string, { words, passages }: Left): TextDocument =>
  replaceVariable(document, key, {
    words: () => (words === '' ? [] : [{ type: 'text', text: words }]),
    passages: () => passages,
  });

/** The text with other words wherever a variable stood; its marks go on over words that have none of their own. */
export function replaceVariable(document: TextDocument, key: string, { words, passages }: Standing): TextDocument {
  return mapDocument(document, {
    inline: (node, shadows) => {
      if (node.type !== 'placeholder' || node.attrs.name !== key || shadows.has(key)) return [node];
      const { marks } = node;
      return words(node.attrs.view).map((each) =>
        each.type === 'text' && marks ? { ...each, marks: each.marks ?? marks } : each,
      );
    },
    condition: (condition, shadows) => {
      if (condition.of !== key || shadows.has(key)) return condition;
      return passages(condition) === 'out' ? 'out' : undefined;
    },
    target: (href, shadows) =>
      shadows.has(key)
        ? href
        : mapTags(href, {
            placeholder: (name, view) => (name === key ? encodeURIComponent(plainWords(words(view))) : { name, view }),
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
