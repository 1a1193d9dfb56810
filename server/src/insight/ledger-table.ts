/** The ledger as a table for other programs: counts, and intervals where there are enough messages for a share. */
import { FEWEST_FOR_SHARES, type CountedShare, type LedgerRow } from '@vocabula/contract';
import { rate } from '@vocabula/core/insight';

const SHARES = ['missing', 'reworded', 'opened', 'followed', 'answered', 'bounced'] as const;

/** The columns, in order. */
export const CSV_COLUMNS: readonly { readonly key: string; readonly name: string }[] = [
  { key: 'title', name: 'text' },
  { key: 'name', name: 'name' },
  { key: 'uses', name: 'messages' },
  { key: 'people', name: 'people' },
  { key: 'lastUse', name: 'last used' },
  { key: 'worked', name: 'median seconds' },
  ...SHARES.flatMap((key) => [
    { key, name: key },
    { key: `${key}_of`, name: `${key}, of` },
    { key: `${key}_low`, name: `${key}, at least` },
    { key: `${key}_high`, name: `${key}, at most` },
  ]),
];

/** One row, by column key. */
export function csvCells(row: LedgerRow): Record<string, string> {
  const cells: Record<string, string> = {
    title: row.title,
    name: row.name,
    uses: String(row.uses),
    people: String(row.people),
    lastUse: row.lastUse ?? '',
    worked: row.worked === undefined ? '' : String(row.worked),
  };
  for (const key of SHARES) Object.assign(cells, shareCells(key, row[key]));
  return cells;
}
function shareCells(key: string, { successes, trials }: CountedShare): Record<string, string> {
  const { low, high } = rate(successes, trials);
  const isEnough = trials >= FEWEST_FOR_SHARES;
  return {
    [key]: String(successes),
    [`${key}_of`]: String(trials),
    [`${key}_low`]: isEnough ? low.toFixed(4) : '',
    [`${key}_high`]: isEnough ? high.toFixed(4) : '',
  };
}
