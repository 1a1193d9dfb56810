/** Tables as grids: cells take the first free place, as HTML lays them out. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Cell, Row } from './document.js';
import { beginsAt, gridOf } from './grid.js';

let count = 0;
const cell = (colspan = 1, rowspan = 1): Cell =>
  ({ type: 'tableCell', attrs: { colspan, rowspan, id: (count += 1) }, content: [] }) as unknown as Cell;
const row = (...content: Cell[]): Row => ({ type: 'tableRow', content }) as unknown as Row;

describe('a grid', () => {
  it('has a place for each cell where none spans', () => {
    const rows = [row(cell(), cell()), row(cell(), cell())];
    const { width, places } = gridOf(rows);
    expect(width).toBe(2);
    for (const [r, line] of places.entries())
      for (const [c, placed] of line.entries()) {
        expect(placed?.cell).toBe(rows[r]?.content[c]);
        expect(beginsAt(placed, r, c)).toBe(true);
      }
  });
  it('moves what follows behind a cell that spans columns, and below one that spans rows', () => {
    const [wide, tall, last] = [cell(2), cell(1, 2), cell()];
    const { width, places } = gridOf([row(wide, tall), row(cell(), last)]);
    expect(width).toBe(3);
    expect(places[0]?.map((placed) => placed?.cell)).toEqual([wide, wide, tall]);
    expect(places[1]?.[2]?.cell).toBe(tall);
    expect(places[1]?.[1]?.cell).toBe(last);
    expect(beginsAt(places[0]?.[1], 0, 1)).toBe(false);
    expect(beginsAt(places[1]?.[2], 1, 2)).toBe(false);
  });
  it('ends spans at its last row, and has no place where a row is short', () => {
    const { width, places } = gridOf([row(cell(1, 9), cell()), row()]);
    expect([width, places.length]).toEqual([2, 2]);
    expect(places[1]?.[1]).toBeUndefined();
    expect(places[1]?.[0]).toBeDefined();
  });
  it('of nothing is one column wide', () => {
    expect(gridOf([])).toEqual({ width: 1, places: [] });
    expect(gridOf([row()])).toEqual({ width: 1, places: [[undefined]] });
  });
  it('covers every place at most once, and holds each cell where it begins', () => {
    const span = fc.integer({ min: 1, max: 3 });
    fc.assert(
      fc.property(fc.array(fc.array(fc.tuple(span, span), { maxLength: 4 }), { maxLength: 5 }), (spans) => {
        const rows = spans.map((line) => row(...line.map(([across, down]) => cell(across, down))));
        const { width, places } = gridOf(rows);
        for (const line of places) expect(line).toHaveLength(width);
        for (const [r, { content }] of rows.entries())
          for (const each of content) {
            const found = places[r]?.find((placed) => placed?.cell === each);
            expect(found?.row).toBe(r);
            expect(beginsAt(places[r]?.[found?.column ?? -1], r, found?.column ?? -1)).toBe(true);
          }
      }),
    );
  });
});
