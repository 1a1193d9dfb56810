/** Writes YAML in the one form that reads back as it was: entries, and the declarations of variables. */
import type { Option, Variable } from '../../template/variable.js';
import { VARIABLE_FORMS } from './front-attributes.js';
import { writeWording } from './write-body.js';

/** The widest an entry may be to stand on one line. */
const WIDTH = 100;

/** Text that reads back as itself without quotes, in block and flow context alike. */
const PLAIN =
  /^(?![-?:,[\]{}#&*!|>'"%@`~ ]|---|\.\.\.)[^\s,[\]{}#:'"\\\p{C}](?:[^,[\]{}#:'"\\\p{C}]*[^\s,[\]{}#:'"\\\p{C}])?$/u;

/** Always quoted: lines, wordings and expressions, whose braces and colons would need it sooner or later. */
export const quoted = (text: string): string =>
  JSON.stringify(text).replace(
    /[\u007F-\u009F\u2028\u2029\uFEFF]/g,
    (c) => `\\u${c.charCodeAt(0).toString(16).padStart(4, '0')}`,
  );
/** A text as a YAML value: plain where that is safe, else quoted. */
export const scalar = (text: string): string =>
  PLAIN.test(text) && !/\s{2}|[\u00A0]/.test(text) ? text : quoted(text);

/** An entry: its key with a scalar, a flow list, or entries of its own. */
export type Entry = readonly [key: string, value: string | readonly Entry[]];

/** Entries as a YAML map on one line. */
export const flow = (entries: readonly Entry[]): string =>
  `{ ${entries.map(([key, value]) => `${key}: ${typeof value === 'string' ? value : flow(value)}`).join(', ')} }`;

const isTall = (key: string): boolean => key === 'options' || key === 'columns';

/** One line where it fits and holds nothing `tall`, such as options or columns; a line for each entry otherwise. */
export function block([key, value]: Entry, indent: string, tall: (key: string) => boolean = isTall): string[] {
  if (typeof value === 'string') return [`${indent}${key}: ${value}`];
  const short = `${indent}${key}: ${flow(value)}`;
  const simple = !tall(key) && value.every(([name]) => !tall(name));
  if (value.length === 0 || (simple && short.length <= WIDTH)) return [short];
  return [`${indent}${key}:`, ...value.flatMap((entry) => block(entry, `${indent}  `, tall))];
}

/** The attributes of a variable as the front matter has them, in their order. */
export function variableEntries(variable: Variable): Entry[] {
  const entries: Entry[] = [['type', variable.type]];
  for (const name of Object.keys(VARIABLE_FORMS) as (keyof typeof VARIABLE_FORMS)[]) {
    const value = variable[name];
    if (value === undefined) continue;
    entries.push([name, name === 'value' ? quoted(String(value)) : entryValue(name, value)]);
  }
  return entries;
}

function entryValue(
  name: keyof typeof VARIABLE_FORMS,
  value: NonNullable<Variable[keyof typeof VARIABLE_FORMS]>,
): string | readonly Entry[] {
  if (name === 'options') return (value as readonly Option[]).map(optionEntry);
  if (name === 'columns')
    return (value as readonly Variable[]).map((column): Entry => [column.key, variableEntries(column)]);
  if (Array.isArray(value))
    return `[${(value as readonly (string | Record<string, string>)[]).map((item) => (typeof item === 'string' ? scalar(item) : flow(mapEntries(item)))).join(', ')}]`;
  if (typeof value === 'object') return mapEntries(value as Record<string, string | Record<string, string>>);
  return typeof value === 'number' ? plainNumber(value) : scalar(String(value));
}

const plainNumber = (value: number): string =>
  /e/.test(String(value)) ? BigInt(Math.round(value)).toString() : String(value);

const mapEntries = (map: Readonly<Record<string, string | Readonly<Record<string, string>>>>): Entry[] =>
  Object.entries(map).map(([key, value]) => [
    /^[a-z0-9_]+$/i.test(key) ? key : quoted(key),
    typeof value === 'string' ? scalar(value) : mapEntries(value),
  ]);

function optionEntry(option: Option): Entry {
  const entries: Entry[] = [];
  if (option.label !== undefined) entries.push(['label', scalar(option.label)]);
  if (option.wording?.length) entries.push(['wording', quoted(writeWording(option.wording))]);
  return [option.key, entries.length > 0 ? entries : '{}'];
}
