/** Where the caret is, in the several ways the desk wants to know. */
import type { Editor } from '@tiptap/core';
import type { Mark } from '@tiptap/pm/model';
import { NodeSelection } from '@tiptap/pm/state';
import {
  conditionInWords,
  plainWords,
  visit,
  childrenOf,
  type Condition,
  type Inline,
  type TextDocument,
  type Variable,
} from '@vocabula/core';

/** Child indexes from the document's top to the caret's innermost node. */
export function caretPath(editor: Editor): number[] {
  const { $from } = editor.state.selection;
  return Array.from({ length: $from.depth }, (_, depth) => $from.index(depth));
}

/** The block of the body with the caret, and how far down the window it stands. */
export function caretPlace(editor: Editor): { path: string; height: number } | undefined {
  const { $from } = editor.state.selection;
  if (editor.isDestroyed || $from.depth < 2 || $from.node(1).type.name !== 'body') return undefined;
  return { path: caretPath(editor).join('.'), height: editor.view.coordsAtPos($from.start()).top };
}

export type ChosenPassage = { readonly condition: Condition; readonly pos: number } & (
  | { readonly kind: 'passage' }
  | { readonly kind: 'phrase'; readonly from: number; readonly to: number; readonly mark: Mark }
);

/** The passage that is selected or that the caret is in, innermost first; passages inside a line before others. */
export function passageAt(editor: Editor): ChosenPassage | undefined {
  const { selection } = editor.state;
  if (selection instanceof NodeSelection && selection.node.type.name === 'passage')
    return { kind: 'passage', pos: selection.from, condition: selection.node.attrs as Condition };
  const { $from } = selection;
  const marks = ($from.nodeAfter?.marks ?? []).concat($from.marks()).filter((mark) => mark.type.name === 'phrase');
  const mark = marks.at(-1);
  if (mark) {
    let from = -1;
    let to = -1;
    $from.parent.forEach((node, offset) => {
      const has = mark.isInSet(node.marks);
      const start = $from.start() + offset;
      if (has && (from < 0 || to === start)) {
        if (from < 0) from = start;
        to = start + node.nodeSize;
      }
    });
    if (from >= 0) return { kind: 'phrase', from, to, mark, pos: from, condition: mark.attrs as Condition };
  }
  for (let depth = $from.depth; depth > 0; depth -= 1) {
    const node = $from.node(depth);
    if (node.type.name === 'passage')
      return { kind: 'passage', pos: $from.before(depth), condition: node.attrs as Condition };
  }
  return undefined;
}

const PLACES: Record<string, string> = { subject: 'subject', to: 'to', cc: 'cc', bcc: 'bcc', reply_to: 'reply-to' };

/** `in: Party of 15 or more › Rain plan`. */
export function pathInWords(editor: Editor, variables: readonly Variable[]): string {
  const { $from } = editor.state.selection;
  const words: string[] = [];
  const name = (condition: Condition): string =>
    conditionInWords(
      condition,
      variables.find((variable) => variable.key === condition.of),
    );
  for (let depth = 1; depth <= $from.depth; depth += 1) {
    const node = $from.node(depth);
    if (node.type.name === 'passage') words.push(name(node.attrs as Condition));
    else if (PLACES[node.type.name]) words.push(PLACES[node.type.name] as string);
    for (const condition of (node.attrs.when ?? []) as readonly Condition[]) words.push(name(condition));
  }
  for (const mark of $from.marks()) if (mark.type.name === 'phrase') words.push(name(mark.attrs as Condition));
  return words.length > 0 ? `in: ${words.join(' › ')}` : 'in the body';
}

/** Words of all lines; a placeholder counts as one. */
export function wordCount(document: TextDocument): number {
  let count = 0;
  visit(document, (node) => {
    if (['paragraph', 'heading'].includes(node.type))
      count +=
        plainWords(childrenOf(node) as readonly Inline[]).match(/[\p{L}\p{N}[][\p{L}\p{N}'’\-_\]]*/gu)?.length ?? 0;
  });
  return count;
}
