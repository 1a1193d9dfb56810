import { advice } from '../findings/finding.js';
import { tagsIn } from '../formats/markdown/tags.js';
import type { Condition } from '../template/condition.js';
import { visit, type Inline, type Node, type TextDocument } from '../template/document.js';
import type { Check } from './check.js';

/** The names of variables that a document's own text uses: placeholders, conditions, links. */
export function namesUsed(document: TextDocument): Set<string> {
  const used = new Set<string>();
  const conditions = (list: readonly Condition[]): void => list.forEach((condition) => used.add(condition.of));
  const inTags = (source: string): void => {
    for (const { tag } of tagsIn(source)) {
      if (tag.kind === 'placeholder') used.add(tag.name);
      if (tag.kind === 'open') used.add(tag.condition.of);
    }
  };
  const inline = (node: Inline): void => {
    if (node.type === 'placeholder') used.add(node.attrs.name);
    if (node.type === 'image') node.attrs.alt.forEach(inline);
    for (const mark of node.marks ?? []) {
      if (mark.type === 'phrase') conditions([mark.attrs]);
      if (mark.type === 'link') inTags(mark.attrs.href);
    }
  };
  visit(document, (node: Node) => {
    if (node.type === 'button') inTags(node.attrs.href);
    if (node.type === 'passage') conditions([node.attrs]);
    if (node.type === 'listItem' || node.type === 'tableRow') conditions(node.attrs.when);
    if (
      node.type === 'placeholder' ||
      node.type === 'text' ||
      node.type === 'image' ||
      node.type === 'hardBreak' ||
      node.type === 'inlineInclusion'
    )
      inline(node);
  });
  for (const variable of document.attrs.variables)
    for (const option of variable.options ?? []) option.wording?.forEach(inline);
  return used;
}

/** A variable that no text, condition, expression or included block reads. */
export const unusedVariable: Check = {
  run({ document, program }) {
    const used = namesUsed(document);
    const read = new Set<string>();
    for (const slot of program.slots) {
      if (slot.declarations.length > 1) read.add(slot.key);
      for (const input of slot.inputs) if (input.from === 'slot') read.add(input.slot.key);
    }
    return document.attrs.variables
      .filter(({ key }) => !used.has(key) && !read.has(key))
      .map(({ key }) => advice('unused-variable', `“${key}” is not used anywhere.`, { variable: key }));
  },
};
