/** An editor of one line: an option's wording, an image's alternative text. Its history is the manuscript's. */
import { Extension, Node, type Editor, type Extensions } from '@tiptap/core';
import { normaliseInline, type Inline } from '@vocabula/core';
import { Edges } from '../editor/plugins/edges';
import { Focusing } from '../editor/plugins/focusing';
import { LINE } from '../editor/schema/attributes';
import { words } from '../editor/schema/page';
import { passages } from '../editor/schema/passages';

const Doc = Node.create({ name: 'doc', topNode: true, content: 'line' });
const oneLine = (rich: boolean) =>
  Node.create({
    name: 'line',
    content: LINE,
    marks: rich ? '_' : 'phrase',
    renderHTML: () => ['div', { class: 'one-line' }, 0],
    parseHTML: () => [{ tag: 'div.one-line' }, { tag: 'p' }],
  });
const INSIDE = new Set(['placeholder', 'inlineComment', 'phrase']);

/** What a line does at keys: it has no second line, and undoing is the manuscript's. */
export interface LineKeys {
  readonly undo: () => void;
  readonly redo: () => void;
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
      'Shift-Enter': act(done),
      'Mod-z': act(undo),
      'Mod-y': act(redo),
      'Mod-Shift-z': act(redo),
    };
  },
});

/** @param rich whether the line may carry emphasis and links, or only words, placeholders and passages. */
export const lineExtensions = (rich: boolean, keys: LineKeys): Extensions => [
  Doc,
  oneLine(rich),
  ...passages.filter(({ name }) => INSIDE.has(name)),
  ...words.filter(({ name }) => rich || name === 'text'),
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
