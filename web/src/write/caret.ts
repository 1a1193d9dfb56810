/** Where the caret is, in the several ways the desk wants to know. */
import type { Editor } from '@tiptap/core';
import { conditionInWords, type Variable } from '@vocabula/core';
import { knownText } from '../ui/library';
import { bracketsAround, type Bracket } from './editor/brackets';
import { phrasesAtCaret } from './editor/plugins/edges';

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

/** The brackets around the selection, outermost first. */
export function bracketsAtCaret(editor: Editor, brackets: readonly Bracket[]): Bracket[] {
  const { from, to } = editor.state.selection;
  return bracketsAround(brackets, from, to, phrasesAtCaret(editor.state));
}

/** The innermost bracket that is selected or that the caret is in. */
export const chosenBracket = (editor: Editor, brackets: readonly Bracket[]): Bracket | undefined =>
  bracketsAtCaret(editor, brackets).at(-1);

/** What governs a bracket, or the block that it stands for, in words. */
export function bracketInWords({ condition, name }: Bracket, variables: readonly Variable[]): string {
  if (!condition) return `Block: ${knownText(name)?.attrs.front.title ?? name}`;
  return conditionInWords(
    condition,
    variables.find(({ key }) => key === condition.of),
  );
}

const PLACES: Readonly<Record<string, string>> = {
  subject: 'subject',
  to: 'to',
  cc: 'cc',
  bcc: 'bcc',
  reply_to: 'reply-to',
  attachments: 'attachments',
  start: 'start',
  length: 'length',
  place: 'place',
};

/** `in: Party of 15 or more › Rain plan`. */
export function pathInWords(editor: Editor, brackets: readonly Bracket[], variables: readonly Variable[]): string {
  const { $from } = editor.state.selection;
  const part = $from.depth > 0 ? PLACES[$from.node(1).type.name] : undefined;
  const words = bracketsAtCaret(editor, brackets).map((bracket) => bracketInWords(bracket, variables));
  const all = part ? [part, ...words] : words;
  return all.length > 0 ? `in: ${all.join(' › ')}` : 'in the body';
}
