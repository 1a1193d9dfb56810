/**
 * Aligns sequences: which items of different sequences stand at the same place. Progressive alignment in the order of
 * likeness (D.-F. Feng and R. F. Doolittle 1987), each sequence against all aligned before it (S. B. Needleman and
 * C. D. Wunsch 1970), and one round of refinement in which each sequence is taken out and aligned again.
 */

/** The items at one place, by the index of their sequence. */
export type Column<T> = Map<number, T>;

/** How alike two items are. */
export interface Likeness<T> {
  /** From 0 to 1; below 0 if they can never stand at the same place. */
  compare(a: T, b: T): number;
  /** Equal for equal items. */
  key(item: T): string;
}
/** Items that are less alike than this are not put at the same place. */
const LEAST = 0.45;
/** A new item is compared with so many different items of a column, the most frequent first. */
const COMPARED = 4;

/**
 * @param order the indexes of the sequences, the one to start with first
 * @param onStep is called after each step, twice for each sequence; it may throw to stop
 */
export function align<T>(
  sequences: readonly (readonly T[])[],
  order: readonly number[],
  likeness: Likeness<T>,
  onStep: () => void = () => undefined,
): Column<T>[] {
  let columns: Column<T>[] = [];
  for (const index of order) {
    columns = withSequence(columns, sequences[index] ?? [], index, likeness);
    onStep();
  }
  for (const index of order) {
    // The first sequences were aligned with few others.
    if (order.length > 2) {
      for (const column of columns) column.delete(index);
      const others = columns.filter(({ size }) => size > 0);
      columns = withSequence(others, sequences[index] ?? [], index, likeness);
    }
    onStep();
  }
  return columns;
}

function withSequence<T>(columns: Column<T>[], items: readonly T[], index: number, likeness: Likeness<T>): Column<T>[] {
  const [rows, width] = [columns.length, items.length];
  const gains = columns.map((column) => {
    const members = frequentItems(column, likeness);
    const weight = members.reduce((sum, { count }) => sum + count, 0);
    return items.map(
      (item) =>
        members.reduce((sum, { item: other, count }) => sum + likeness.compare(other, item) * count, 0) / weight -
        LEAST,
    );
  });
  const best = Array.from({ length: rows + 1 }, () => new Float64Array(width + 1));
  const score = (row: number, at: number): number => best[row]?.[at] ?? 0;
  const matched = (row: number, at: number): number => {
    const gain = gains[row]?.[at] ?? 0;
    return gain > 0 ? gain + score(row + 1, at + 1) : -1;
  };
  for (let row = rows - 1; row >= 0; row -= 1)
    for (let at = width - 1; at >= 0; at -= 1)
      (best[row] as Float64Array)[at] = Math.max(score(row + 1, at), score(row, at + 1), matched(row, at));
  const out: Column<T>[] = [];
  let [row, at] = [0, 0];
  while (row < rows || at < width) {
    const now = score(row, at);
    if (row < rows && at < width && now === matched(row, at))
      out.push((columns[row++] as Column<T>).set(index, items[at++] as T));
    else if (at < width && (row >= rows || now === score(row, at + 1))) out.push(new Map([[index, items[at++] as T]]));
    else out.push(columns[row++] as Column<T>);
  }
  return out;
}

function frequentItems<T>(column: Column<T>, { key }: Likeness<T>): { readonly item: T; readonly count: number }[] {
  const counts = new Map<string, { item: T; count: number }>();
  for (const item of column.values()) {
    const name = key(item);
    const known = counts.get(name);
    if (known) known.count += 1;
    else counts.set(name, { item, count: 1 });
  }
  return [...counts]
    .sort(([a, x], [b, y]) => y.count - x.count || (a < b ? -1 : 1))
    .slice(0, COMPARED)
    .map(([, each]) => each);
}
