/** Which column of a table goes into which of another: by name, by likeness of names, by what the cells hold. */
import { fold } from '../../words/fold.js';
import type { TableColumn, TableRow } from './table.js';

/** Which column of a set a column that comes in goes into. */
export interface Match {
  /** Key of a column that comes in. */
  readonly from: string;
  /** Key of the column it goes into; none for one that is new. */
  readonly into: string | undefined;
  readonly by: 'name' | 'likeness' | 'content' | undefined;
}

interface Side {
  readonly columns: readonly TableColumn[];
  readonly rows: readonly TableRow[];
}

/** Names that must be this alike, 0 to 1. */
const ALIKE = 0.5;
/** Part of the cells of the one column that must stand in the other as well. */
const SHARED = 0.3;
const LOOKED_AT = 500;

/** Suggests a place for every column that comes in; each place is taken once, the surest first. */
export function matchColumns(incoming: Side, existing: Side): Match[] {
  const scored = incoming.columns.flatMap((from) =>
    existing.columns.flatMap((into) => {
      const score = likeness(from, into, incoming.rows, existing.rows);
      return score ? [{ from: from.key, into: into.key, ...score }] : [];
    }),
  );
  scored.sort((a, b) => b.score - a.score);
  const taken = new Set<string>();
  const found = new Map<string, Match>();
  for (const { from, into, by } of scored) {
    if (found.has(from) || taken.has(into)) continue;
    taken.add(into);
    found.set(from, { from, into, by });
  }
  return incoming.columns.map(({ key }) => found.get(key) ?? { from: key, into: undefined, by: undefined });
}

function likeness(
  from: TableColumn,
  into: TableColumn,
  incoming: readonly TableRow[],
  existing: readonly TableRow[],
): { readonly score: number; readonly by: Match['by'] } | undefined {
  if (from.key === into.key || fold(from.name) === fold(into.name)) return { score: 3, by: 'name' };
  const names = dice(fold(from.name), fold(into.name));
  const sameType = from.type === into.type;
  if (names >= ALIKE && (sameType || from.type === 'text' || into.type === 'text'))
    return { score: 1 + names, by: 'likeness' };
  // Addresses and telephone numbers are told by their type alone, where nothing speaks against it.
  if (sameType && (from.type === 'email' || from.type === 'phone')) return { score: 0.9, by: 'content' };
  const cells = (rows: readonly TableRow[], key: string): Set<string> =>
    new Set(rows.slice(0, LOOKED_AT).flatMap((row) => (row[key] ? [fold(row[key])] : [])));
  const [a, b] = [cells(incoming, from.key), cells(existing, into.key)];
  if (!sameType || a.size < 2 || b.size < 2 || from.type === 'yes-no') return undefined;
  const both = [...a].filter((cell) => b.has(cell)).length / Math.min(a.size, b.size);
  return both >= SHARED ? { score: both * 0.8, by: 'content' } : undefined;
}

/** How alike two words are by the pairs of letters they share (L. Dice, 1945). */
function dice(a: string, b: string): number {
  const pairs = (text: string): string[] =>
    text
      .split(/[^\p{L}\p{N}]+/u)
      .flatMap((word) => Array.from({ length: Math.max(0, word.length - 1) }, (_, at) => word.slice(at, at + 2)));
  const [x, y] = [pairs(a), pairs(b)];
  if (x.length + y.length === 0) return 0;
  const rest = [...y];
  const shared = x.filter((pair) => {
    const at = rest.indexOf(pair);
    if (at >= 0) rest.splice(at, 1);
    return at >= 0;
  });
  return (2 * shared.length) / (x.length + y.length);
}
