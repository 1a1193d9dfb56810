/**
 * Markdown that is typed turns into form where the schema's own rules do not see to it: links, images, and the first
 * line of a table. (Headings, lists, quotes, rules, code and emphasis have rules with their nodes and marks.)
 */
import { Extension, InputRule, type Editor } from '@tiptap/core';
import { TextSelection } from '@tiptap/pm/state';
import { isImageSource, safeUrl } from '@vocabula/core';

/** `[the map](https://larkmoor.example/map)`, where no exclamation mark makes it an image and no letter stands before. */
const LINK = /(?:^|[\s(“"'—–])(\[([^[\]\n]+)\]\(([^()\s]+)\))$/u;
const IMAGE = /(?:^|\s)(!\[([^[\]\n]*)\]\(([^()\s]+)\))$/;
/** `| Item | Price |`: at least two cells, and nothing else in the paragraph. */
const TABLE_HEAD = /^\|([^|\n]*\|){2,}\s*$/;

const hasMarks = (editor: Editor): boolean =>
  editor.state.selection.$from.parent.type.allowsMarkType(editor.schema.marks.link as never);

export const Markdown = Extension.create({
  name: 'markdown',
  addInputRules() {
    const { editor } = this;
    return [
      new InputRule({
        find: LINK,
        handler({ state, range, match }) {
          const [, whole = '', words = '', href = ''] = match;
          const link = editor.schema.marks.link;
          if (!link || !safeUrl(href) || !hasMarks(editor)) return null;
          const from = range.to - (whole.length - 1);
          // Placeholders and form inside the words stay: only what surrounds them goes.
          const end = from + 1 + words.length;
          state.tr
            .delete(end, range.to)
            .addMark(from + 1, end, link.create({ href }))
            .delete(from, from + 1)
            .removeStoredMark(link);
          return undefined;
        },
      }),
      new InputRule({
        find: IMAGE,
        handler({ state, range, match }) {
          const [, whole = '', alt = '', src = ''] = match;
          const image = editor.schema.nodes.image;
          const { parent } = editor.state.selection.$from;
          if (!image || !isImageSource(src) || !parent.type.contentMatch.matchType(image)) return null;
          const words = alt === '' ? [] : [{ type: 'text', text: alt }];
          state.tr.replaceWith(range.to - (whole.length - 1), range.to, image.create({ src, alt: words }));
          return undefined;
        },
      }),
    ];
  },
  addKeyboardShortcuts() {
    return { Enter: () => tableOfLine(this.editor) };
  },
});

/** Makes a table of a line of cells: they are its head, and the caret goes into the first cell under it. */
function tableOfLine(editor: Editor): boolean {
  const { state, schema, view } = editor;
  const { $from, empty } = state.selection;
  const { paragraph, table, tableRow, tableHeader, tableCell } = schema.nodes;
  const line = $from.parent;
  if (!empty || line.type !== paragraph || $from.parentOffset < line.content.size) return false;
  if (!table || !tableRow || !tableHeader || !tableCell || !TABLE_HEAD.test(line.textContent)) return false;
  if (!$from.node(-1).canReplaceWith($from.index(-1), $from.indexAfter(-1), table)) return false;
  const cells = line.textContent.trim().slice(1, -1).split('|');
  const head = cells.map((words) =>
    tableHeader.create(null, paragraph.create(null, words.trim() === '' ? [] : schema.text(words.trim()))),
  );
  const row = cells.map(() => tableCell.create(null, paragraph.create()));
  const start = $from.before();
  const tr = state.tr.replaceWith(start, $from.after(), [
    table.create(null, [tableRow.create(null, head), tableRow.create(null, row)]),
  ]);
  const headSize = head.reduce((size, cell) => size + cell.nodeSize, 2);
  // Into the table, past its first row, into the second's first cell and its paragraph.
  const caret = start + 1 + headSize + 3;
  view.dispatch(tr.setSelection(TextSelection.create(tr.doc, caret)).scrollIntoView());
  return true;
}
