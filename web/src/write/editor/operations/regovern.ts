/** Changing what governs a bracket, taking the bracket off, and taking out what it stands around. */
import type { Editor } from '@tiptap/core';
import type { Node as PmNode } from '@tiptap/pm/model';
import { NodeSelection, TextSelection, type Transaction } from '@tiptap/pm/state';
import type { Condition } from '@vocabula/core';
import type { Bracket } from '../brackets';
import { TAKES_BRACKETS } from '../bracketRemoval';

/** Changes what governs a bracket; with no condition, takes the bracket off and leaves the words. */
export function regovern(tr: Transaction, bracket: Bracket, condition: Condition | undefined): void {
  const { from, to, group } = bracket;
  switch (bracket.form) {
    case 'passage': {
      const node = tr.doc.nodeAt(from);
      if (!node) return;
      if (condition) tr.setNodeMarkup(from, undefined, condition);
      else tr.replaceWith(from, to, node.content);
      return;
    }
    case 'phrase': {
      const { phrase } = tr.doc.type.schema.marks;
      if (!phrase || !bracket.condition) return;
      tr.removeMark(from, to, phrase.create(bracket.condition));
      if (condition) tr.addMark(from, to, phrase.create(condition));
      else dropFillers(tr, from, to);
      return;
    }
    case 'items':
    case 'rows':
      if (group)
        eachChild(tr.doc, bracket, (child, pos) =>
          tr.setNodeMarkup(pos, undefined, {
            ...child.attrs,
            when: whenOf(child).toSpliced(group.depth, 1, ...(condition ? [condition] : [])),
          }),
        );
  }
}

/** What only kept a place for an empty phrase goes with its bracket. */
function dropFillers(tr: Transaction, from: number, to: number): void {
  const fillers: number[] = [];
  tr.doc.nodesBetween(from, to, (node, pos) => {
    if (isFiller(node) && !node.marks.some((mark) => mark.type.name === 'phrase')) fillers.push(pos);
  });
  for (const pos of fillers.reverse()) tr.delete(pos, pos + 1);
}

/** A note without words: it keeps the place of a phrase whose words are gone. */
export const isFiller = (node: PmNode): boolean => node.type.name === 'inlineComment' && node.attrs.text === '';

export const whenOf = (node: PmNode): readonly Condition[] => (node.attrs.when ?? []) as readonly Condition[];

/** Visits the items or rows of a bracket. */
export function eachChild(doc: PmNode, { from, to }: Bracket, visit: (child: PmNode, pos: number) => void): void {
  const $from = doc.resolve(from);
  let pos = from;
  for (let index = $from.index(); pos < to && index < $from.parent.childCount; index += 1) {
    const child = $from.parent.child(index);
    visit(child, pos);
    pos += child.nodeSize;
  }
}

export function govern(editor: Editor, bracket: Bracket, condition: Condition): void {
  const { tr } = editor.state;
  regovern(tr, bracket, condition);
  editor.view.dispatch(tr);
}

/** Takes the bracket off; the words stay. */
export function unwrap(editor: Editor, bracket: Bracket): void {
  const { tr } = editor.state;
  regovern(tr, bracket, undefined);
  editor.view.dispatch(tr.setMeta(TAKES_BRACKETS, true));
}

/** Takes out the bracket with all that it stands around. */
export function takeOut(editor: Editor, { form, from, to }: Bracket): void {
  const { tr, schema } = editor.state;
  const $from = tr.doc.resolve(from);
  const alone = form !== 'phrase' && form !== 'inline-block' && $from.parent.content.size === to - from;
  if (!alone) tr.delete(from, to);
  else if (
    $from.parent.type.name === 'bulletList' ||
    $from.parent.type.name === 'orderedList' ||
    $from.parent.type.name === 'table'
  ) {
    // A list or table without a child goes; where it stood alone, an empty paragraph does.
    const $list = tr.doc.resolve($from.before());
    const replacement = $list.parent.childCount === 1 ? schema.nodes.paragraph?.create() : undefined;
    tr.replaceWith($from.before(), $from.after(), replacement ? [replacement] : []);
  } else tr.replaceWith(from, to, schema.nodes.paragraph?.create() ?? []);
  editor.view.dispatch(tr.setMeta(TAKES_BRACKETS, true).scrollIntoView());
}

/** Selects what a bracket stands around. */
export function select(editor: Editor, { form, from, to }: Bracket): void {
  const { doc, tr } = editor.state;
  const whole = form === 'passage' || form === 'block' || form === 'inline-block';
  tr.setSelection(whole ? NodeSelection.create(doc, from) : TextSelection.between(doc.resolve(from), doc.resolve(to)));
  editor.view.dispatch(tr.scrollIntoView());
}
