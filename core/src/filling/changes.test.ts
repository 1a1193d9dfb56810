/** Changes of one message of many over those made for all. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { mergedChanges, ownChanges, type FillChanges, type Rewording } from './changes.js';

const text = (words: string) => [{ type: 'text', text: words } as const];
const line = (at: number, after: string | null): Rewording => ({
  text: 'visit',
  path: [9, at],
  before: text(`line ${at}`),
  after: after === null ? null : text(after),
  over: {},
});
const changes = (...reworded: Rewording[]): FillChanges => ({ parts: [], reworded });
const byPlace = ({ reworded }: FillChanges): Rewording[] =>
  [...reworded].sort((a, b) => (a.path[1] ?? 0) - (b.path[1] ?? 0));
/** Rewordings of some of six lines, none of them what the text says anyway. */
const some = fc
  .uniqueArray(fc.integer({ min: 0, max: 5 }))
  .chain((places) =>
    fc.tuple(...places.map((at) => fc.option(fc.constantFrom('a', 'b', 'c')).map((after) => line(at, after)))),
  )
  .map((reworded) => changes(...reworded));

describe('the changes of one message of many', () => {
  it('come to what it says, whatever was changed for all', () => {
    fc.assert(
      fc.property(some, some, (shared, whole) => {
        expect(byPlace(mergedChanges(shared, ownChanges(shared, whole)))).toEqual(byPlace(whole));
      }),
    );
  });
  it('hold what was put back: it is not sent to this one', () => {
    const shared = changes(line(1, 'for all'), line(2, 'for all too'));
    const own = ownChanges(shared, changes(line(2, 'for all too')));
    expect(own.reworded).toHaveLength(1);
    expect(mergedChanges(shared, own)).toEqual(changes(line(2, 'for all too')));
  });
  it('are none where nothing differs, and follow what is changed for all later', () => {
    const shared = changes(line(1, 'for all'));
    expect(ownChanges(shared, shared).reworded).toEqual([]);
    const own = ownChanges(shared, changes(line(1, 'for all'), line(3, 'mine')));
    expect(byPlace(mergedChanges(changes(line(1, 'other words')), own))).toEqual([
      line(1, 'other words'),
      line(3, 'mine'),
    ]);
  });
});
