/** Arithmetic of small finite fields, and the covering arrays of pairs that they give. */

/** Prime powers up to 16, with the polynomial (without its leading term, lowest power first) that makes the field. */
const FIELDS: readonly { readonly size: number; readonly prime: number; readonly modulus: readonly number[] }[] = [
  { size: 2, prime: 2, modulus: [] },
  { size: 3, prime: 3, modulus: [] },
  // x² = x + 1
  { size: 4, prime: 2, modulus: [1, 1] },
  { size: 5, prime: 5, modulus: [] },
  { size: 7, prime: 7, modulus: [] },
  // x³ = x + 1
  { size: 8, prime: 2, modulus: [1, 1, 0] },
  // x² = x + 1
  { size: 9, prime: 3, modulus: [1, 1] },
  { size: 11, prime: 11, modulus: [] },
  { size: 13, prime: 13, modulus: [] },
  // x⁴ = x + 1
  { size: 16, prime: 2, modulus: [1, 1, 0, 0] },
];

/** A finite field: addition and multiplication of its elements, numbered from 0. */
export interface Field {
  readonly size: number;
  add(a: number, b: number): number;
  multiply(a: number, b: number): number;
}

/** The smallest field with at least so many elements; none above 16. */
export function fieldOf(least: number): Field | undefined {
  const found = FIELDS.find(({ size }) => size >= least);
  if (!found) return undefined;
  const { size, prime, modulus } = found;
  if (modulus.length === 0) return { size, add: (a, b) => (a + b) % prime, multiply: (a, b) => (a * b) % prime };
  const degree = modulus.length;
  const digits = (value: number): number[] =>
    Array.from({ length: degree }, (_, at) => Math.floor(value / prime ** at) % prime);
  const number = (parts: readonly number[]): number => parts.reduce((sum, part, at) => sum + part * prime ** at, 0);
  const multiply = (a: number, b: number): number => {
    const product = new Array<number>(2 * degree - 1).fill(0);
    digits(a).forEach((left, at) =>
      digits(b).forEach((right, to) => {
        product[at + to] = ((product[at + to] ?? 0) + left * right) % prime;
      }),
    );
    for (let power = product.length - 1; power >= degree; power -= 1) {
      const factor = product[power] ?? 0;
      modulus.forEach((part, at) => {
        const to = power - degree + at;
        product[to] = ((product[to] ?? 0) + factor * part) % prime;
      });
    }
    return number(product.slice(0, degree));
  };
  const table = Array.from({ length: size * size }, (_, at) => multiply(Math.floor(at / size), at % size));
  return {
    size,
    add: (a, b) => number(digits(a).map((part, at) => (part + (digits(b)[at] ?? 0)) % prime)),
    multiply: (a, b) => table[a * size + b] ?? 0,
  };
}

/**
 * Rows that cover all pairs of `columns` factors of `q` levels: lines of the affine plane over the field (Bush 1952),
 * multiplied by themselves until there are columns enough (Stevens and Mendelsohn 1999). Each step adds q² - q rows
 * and makes kq + 1 columns of k.
 */
export function planeArray(field: Field, columns: number): number[][] {
  const q = field.size;
  const elements = Array.from({ length: q }, (_, at) => at);
  const line = (x: number, y: number): number[] => elements.map((slope) => field.add(field.multiply(slope, x), y));
  let rows = elements.flatMap((x) => elements.map((y) => [...line(x, y), x]));
  while ((rows[0]?.length ?? 0) < columns) {
    // Each column stands q times, which leaves unequal levels of one column's copies: the lines that are not level.
    const width = rows[0]?.length ?? 0;
    const above = rows.map((row) => [...row.flatMap((level) => elements.map(() => level)), 0]);
    const below = elements
      .filter((x) => x !== 0)
      .flatMap((x) => elements.map((y) => [...Array.from({ length: width }, () => line(x, y)).flat(), x]));
    rows = [...above, ...below];
  }
  return rows.map((row) => row.slice(0, columns));
}
