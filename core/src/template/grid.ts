/** Tables as grids: which cell stands where, when some span several columns or rows. */
import type { Cell, Row } from './document.js';

/** A cell with the place of its upper left corner. */
export interface Placed {
  readonly cell: Cell;
  readonly row: number;
  readonly column: number;
}

/** The places of a table, with the cell that covers each. */
export interface Grid {
  readonly width: number;
  /** By row and column: the cell that covers the place; undefined where none does. */
  readonly places: readonly (readonly (Placed | undefined)[])[];
}

/** Lays rows out as HTML does: each cell takes the first place that no cell before it covers. */
export function gridOf(rows: readonly Row[]): Grid {
  const places: (Placed | undefined)[][] = rows.map(() => []);
  rows.forEach(({ content }, row) => {
    let column = 0;
    for (const cell of content) {
      const line = places[row] as (Placed | undefined)[];
      while (line[column]) column += 1;
      const placed = { cell, row, column };
      const last = Math.min(rows.length, row + cell.attrs.rowspan);
      for (let down = row; down < last; down += 1)
        for (let across = column; across < column + cell.attrs.colspan; across += 1) {
          const covered = places[down] as (Placed | undefined)[];
          covered[across] ??= placed;
        }
      column += cell.attrs.colspan;
    }
  });
  const width = Math.max(1, ...places.map((line) => line.length));
  return { width, places: places.map((line) => Array.from({ length: width }, (_, column) => line[column])) };
}

/** True for the place where a cell has its upper left corner. */
export const beginsAt = (placed: Placed | undefined, row: number, column: number): placed is Placed =>
  placed?.row === row && placed.column === column;
