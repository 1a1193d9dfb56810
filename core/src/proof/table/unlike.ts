import type { Sheet } from './table.js';

/**
 * How unlike the rest each sheet is: how rare its lines are, as the mean of their information in bits (C. Shannon,
 * 1948). A line that all have tells nothing, one that no other has the most.
 */
export function unlikeness(sheets: readonly Pick<Sheet, 'lines'>[]): Float64Array {
  const counts = new Map<number, number>();
  for (const { lines } of sheets) for (const line of new Set(lines)) counts.set(line, (counts.get(line) ?? 0) + 1);
  return Float64Array.from(sheets, ({ lines }) => {
    const own = new Set(lines);
    let bits = 0;
    for (const line of own) bits += Math.log2(sheets.length / (counts.get(line) ?? 1));
    return own.size === 0 ? 0 : bits / own.size;
  });
}
