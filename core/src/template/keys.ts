/** What names may look like. */

const KEY = /^[a-z][a-z0-9_]{0,39}$/;
const NAME = /^[a-z0-9][a-z0-9-]*$/;

/**
 * Words that the Common Expression Language reserves or predeclares, and the three sources of fields.
 * A variable with such a key could not be told apart in an expression.
 */
const RESERVED = new Set([
  'as',
  'break',
  'const',
  'continue',
  'else',
  'false',
  'for',
  'function',
  'if',
  'import',
  'in',
  'let',
  'loop',
  'namespace',
  'null',
  'package',
  'return',
  'true',
  'var',
  'void',
  'while',
  'bool',
  'bytes',
  'double',
  'duration',
  'dyn',
  'int',
  'list',
  'map',
  'null_type',
  'optional',
  'string',
  'timestamp',
  'type',
  'uint',
  'has',
  'size',
  'all',
  'exists',
  'filter',
  'recipient',
  'sender',
  'house',
]);

/** A key that a variable, column or option may be called. */
export const isKey = (text: string): boolean => KEY.test(text);

/** True for keys that have a meaning of their own in expressions or tags. */
export const isReserved = (key: string): boolean => RESERVED.has(key);

/** A name that a text may be filed under. */
export const isName = (text: string): boolean => NAME.test(text) && text.length <= 80;

/** Lower case ASCII words joined by `joint`, from any label; empty if nothing is left. */
function slug(label: string, joint: string): string {
  return label
    .normalize('NFKD')
    .replace(/\p{M}+/gu, '')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, joint)
    .replace(new RegExp(`^${joint}+|${joint}+$`, 'g'), '');
}

/** A name made from a title, not among `taken`. */
export function nameFromTitle(title: string, taken: ReadonlySet<string> = new Set()): string {
  const base = slug(title, '-').slice(0, 60).replace(/-+$/, '') || 'text';
  return unusual(base, taken, '-');
}

/** A variable key made from a label, valid, not reserved and not among `taken`. */
export function keyFromLabel(label: string, taken: ReadonlySet<string> = new Set()): string {
  let base = slug(label, '_').slice(0, 36).replace(/_+$/, '');
  if (base === '') base = 'value';
  if (/^[0-9]/.test(base)) base = `v_${base}`;
  if (isReserved(base)) base += '_';
  return unusual(base, taken, '_');
}

/** The base, with a number behind it where it is taken. */
export function unusual(base: string, taken: ReadonlySet<string>, joint: string): string {
  if (!taken.has(base)) return base;
  for (let n = 2; ; n += 1) if (!taken.has(`${base}${joint}${n}`)) return `${base}${joint}${n}`;
}

/** The label a key has when none is given: spaces and a capital. */
export function labelFromKey(key: string): string {
  const words = key.replace(/_+/g, ' ').trim();
  return words.charAt(0).toUpperCase() + words.slice(1);
}

/**
 * The key of a table column made from its header (format notes): NFKD without marks, lower case, runs
 * of anything but ASCII letters and digits one underscore, trimmed, cut to 40.
 * `index` counts columns from 0; `taken` gains the key.
 */
export function columnKey(header: string, index: number, taken: Set<string>): string {
  let key = slug(header, '_').slice(0, 40).replace(/_+$/, '');
  if (key === '') key = `column_${index + 1}`;
  if (/^[0-9]/.test(key)) key = `c_${key}`.slice(0, 40);
  if (isReserved(key)) key += '_';
  let free = key;
  for (let n = 2; taken.has(free); n += 1) free = `${key.slice(0, 40 - String(n).length - 1)}_${n}`;
  taken.add(free);
  return free;
}
