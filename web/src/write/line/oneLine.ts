/**
 * An editor of one line: an option's wording, an image's alternative text, a paragraph of a language version. On the
 * desk its history is the manuscript's; elsewhere it has one of its own.
 */
import { UndoRedo } from '@tiptap/extensions';
import { Extension, Node, type Editor, type Extensions } from '@tiptap/core';
import { normaliseInline, type Inline } from '@vocabula/core';
import { Edges } from '../editor/plugins/edges';
import { Focusing } from '../editor/plugins/focusing';
import { LINE } from '../editor/schema/attributes';
import { inParagraphs, words } from '../editor/schema/page';
import { passages } from '../editor/schema/passages';

const Doc = Node.create({ name: 'doc', topNode: true, content: 'line' });
/** What a line holds: words, placeholders and passages; marks too; or all that a paragraph does. */
export type LineForm = 'plain' | 'rich' | 'whole';
const oneLine = (form: LineForm) =>
  Node.create({
    name: 'line',
    content: form === 'whole' ? 'inline*' : LINE,
    marks: form === 'plain' ? 'phrase' : '_',
    renderHTML: () => ['div', { class: 'one-line' }, 0],
    parseHTML: () => [{ tag: 'div.one-line' }, { tag: 'p' }],
  });
const INSIDE = new Set(['placeholder', 'inlineComment', 'phrase']);

/** What a line does at keys: it has no second line, and undoing is the manuscript's where there is one. */
export interface LineKeys {
  readonly undo?: () => void;
  readonly redo?: () => void;
  /** `Enter` was pressed. */
  readonly done: () => void;
}

const Keys = Extension.create<LineKeys>({
  name: 'lineKeys',
  priority: 1000,
  addKeyboardShortcuts() {
    const act = (work: () => void) => () => {
      work();
      return true;
    };
    const { undo, redo, done } = this.options;
    return {
      Enter: act(done),
      // Where a line may be broken, the break does it.
      'Shift-Enter': () => this.editor.schema.nodes.hardBreak === undefined && act(done)(),
      ...(undo ? { 'Mod-z': act(undo) } : {}),
      ...(redo ? { 'Mod-y': act(redo), 'Mod-Shift-z': act(redo) } : {}),
    };
  },
});

export const lineExtensions = (form: LineForm, keys: LineKeys): Extensions => [
  Doc,
  oneLine(form),
  ...passages.filter(({ name }) => INSIDE.has(name) || (form === 'whole' && name === 'inlineInclusion')),
  ...words.filter(({ name }) => form !== 'plain' || name === 'text'),
  ...(form === 'whole' ? inParagraphs : []),
  ...(keys.undo ? [] : [UndoRedo]),
  Edges,
  Focusing,
  Keys.configure(keys),
];

/** The line as the editor takes it. */
export const lineContent = (line: readonly Inline[]): object => ({
  type: 'doc',
  content: [{ type: 'line', ...(line.length > 0 ? { content: line } : {}) }],
});

/** The line as the editor has it. */
export function lineOf(editor: Editor): Inline[] {
  const { content = [] } = editor.getJSON() as { content?: { content?: Inline[] }[] };
  return normaliseInline(content[0]?.content);
}
