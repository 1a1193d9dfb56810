/** What tables are worked with: rows and columns put in, moved, taken out; cells merged; a head; alignment. */
import type { Editor } from '@tiptap/core';
import type { EditorState, Transaction } from '@tiptap/pm/state';
import {
  addColumnAfter,
  addColumnBefore,
  addRowAfter,
  addRowBefore,
  deleteColumn,
  deleteRow,
  deleteTable,
  isInTable,
  mergeCells,
  moveTableColumn,
  moveTableRow,
  selectedRect,
  splitCell,
  TableMap,
  toggleHeaderRow,
} from '@tiptap/pm/tables';
import type { Align, Condition } from '@vocabula/core';
import { allHeads } from './wrap';

type Command = (state: EditorState, dispatch?: (tr: Transaction) => void) => boolean;

/** A new row stands under the conditions of the row that it is put beside, so that it is inside its bracket. */
function rowBeside(command: Command, offset: 0 | 1): Command {
  return (state, dispatch) =>
    command(
      state,
      dispatch &&
        ((tr) => {
          const { top, bottom, tableStart, table } = selectedRect(state);
          const from = table.child(offset === 0 ? top : bottom - 1);
          const when = (from.attrs.when ?? []) as readonly Condition[];
          const at = offset === 0 ? top : bottom;
          const grown = tr.doc.nodeAt(tableStart - 1);
          let pos = tableStart;
          for (let row = 0; row < at; row += 1) pos += grown?.child(row).nodeSize ?? 0;
          const added = grown?.maybeChild(at);
          if (when.length > 0 && added && !allHeads(added)) tr.setNodeMarkup(pos, undefined, { ...added.attrs, when });
          dispatch(tr);
        }),
    );
}

/** Moves the row or column with the caret by one; false where it is the last, or merged cells are in the way. */
function moved(axis: 'row' | 'column', by: -1 | 1): Command {
  return (state, dispatch) => {
    if (!isInTable(state)) return false;
    const { map, top, left, table } = selectedRect(state);
    const from = axis === 'row' ? top : left;
    const to = from + by;
    const most = axis === 'row' ? map.height : map.width;
    if (to < 0 || to >= most) return false;
    // A head stays above.
    if (axis === 'row' && allHeads(table.child(0)) && (from === 0 || to === 0)) return false;
    const move = axis === 'row' ? moveTableRow : moveTableColumn;
    return move({ from, to, select: false })(state, dispatch);
  };
}

/** Aligns the columns of the selected cells; a column is aligned as a whole. */
function aligned(align: Align): Command {
  return (state, dispatch) => {
    if (!isInTable(state)) return false;
    const { map, left, right, tableStart, table } = selectedRect(state);
    if (!dispatch) return true;
    const { tr } = state;
    const cells = new Set(map.cellsInRect({ left, right, top: 0, bottom: map.height }));
    for (const offset of cells) {
      const cell = table.nodeAt(offset);
      if (cell) tr.setNodeMarkup(tableStart + offset, undefined, { ...cell.attrs, align });
    }
    dispatch(tr);
    return true;
  };
}

export const TABLE_ACTS = [
  ['Row above', rowBeside(addRowBefore, 0)],
  ['Row below', rowBeside(addRowAfter, 1)],
  ['Column before', addColumnBefore],
  ['Column after', addColumnAfter],
  ['Move row up', moved('row', -1)],
  ['Move row down', moved('row', 1)],
  ['Move column to the left', moved('column', -1)],
  ['Move column to the right', moved('column', 1)],
  ['First row is a header', toggleHeaderRow],
  ['Align column left', aligned(null)],
  ['Centre column', aligned('center')],
  ['Align column right', aligned('right')],
  ['Merge cells', mergeCells],
  ['Split merged cells', splitCell],
  ['Delete row', deleteRow],
  ['Delete column', deleteColumn],
  ['Delete table', deleteTable],
] as const satisfies readonly (readonly [string, Command])[];

/** Runs one of the acts on the table with the caret. */
export function actOnTable(editor: Editor, act: Command): void {
  act(editor.state, editor.view.dispatch);
  editor.commands.focus();
}
export const canActOnTable = (editor: Editor, act: Command): boolean => isInTable(editor.state) && act(editor.state);

/** How many columns a table node has. */
export const columnsOf = (table: Parameters<typeof TableMap.get>[0]): number => TableMap.get(table).width;
