import { describe, expect, it } from 'vitest';
import { matchColumns } from './match.js';
import { recogniseColumn } from './columns.js';
import type { TableColumn } from './table.js';

const column = (name: string, type: TableColumn['type'] = 'text'): TableColumn => ({
  key: name.toLowerCase().replace(/\W+/g, '_'),
  name,
  type,
});
const places = (
  incoming: readonly TableColumn[],
  existing: readonly TableColumn[],
  cells: { readonly [side in 'in' | 'out']?: readonly Record<string, string>[] } = {},
): unknown[] =>
  matchColumns({ columns: incoming, rows: cells.in ?? [] }, { columns: existing, rows: cells.out ?? [] }).map(
    ({ from, into, by }) => [from, into, by],
  );

describe('columns of one table in another', () => {
  it('go by name first, whatever the capitals, then by likeness', () => {
    expect(places([column('PARTY'), column('First names')], [column('First name'), column('Party')])).toEqual([
      ['party', 'party', 'name'],
      ['first_names', 'first_name', 'likeness'],
    ]);
  });
  it('go by what they hold, where names say nothing', () => {
    const held = (key: string): Record<string, string>[] =>
      ['Quillmere', 'Ashlow', 'Fennick'].map((town) => ({ [key]: town }));
    expect(places([column('Ort')], [column('Where from')], { in: held('ort'), out: held('where_from') })).toEqual([
      ['ort', 'where_from', 'content'],
    ]);
    expect(places([column('Kontakt', 'email')], [column('Address', 'email')])).toEqual([
      ['kontakt', 'address', 'content'],
    ]);
  });
  it('are new where nothing is like them, and never share a place', () => {
    expect(places([column('Shoe size', 'number')], [column('Party', 'number')])).toEqual([
      ['shoe_size', undefined, undefined],
    ]);
    const both = places([column('Name'), column('Names')], [column('Name')]);
    expect(both).toEqual([
      ['name', 'name', 'name'],
      ['names', undefined, undefined],
    ]);
  });
});

describe('what is decided about a column', () => {
  it('goes before what is recognised, and says what does not fit', () => {
    const form = recogniseColumn(['1', 'x', ' 2 '], { type: 'number' });
    expect([form.type, form.misfits, form.rewrite(' 2 '), form.rewrite('x')]).toEqual(['number', 1, '2', 'x']);
    expect(recogniseColumn(['007'], { type: 'number' }).rewrite('007')).toBe('007');
    expect(recogniseColumn(['x', ''], { type: 'yes-no' }).rewrite('x')).toBe('true');
  });
  it('settles the order of days that could be either', () => {
    const cells = ['03/04/2027', '05/06/2027'];
    expect(recogniseColumn(cells)).toMatchObject({ type: 'text', doubtful: cells });
    expect(recogniseColumn(cells, { order: 'day first' }).rewrite('03/04/2027')).toBe('2027-04-03');
    expect(recogniseColumn([...cells, '13/04/2027'])).toMatchObject({ type: 'date', doubtful: [] });
    expect(recogniseColumn([...cells, '31/31/2027'])).toMatchObject({ type: 'text', doubtful: [] });
  });
});
