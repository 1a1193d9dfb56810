/** Writes a document as a file in canonical form: the bytes that reading and writing again keep. */
import { ADDRESS_PARTS, bodyOf, part, type TextDocument } from '../../template/document.js';
import { normalise } from '../../template/normalise.js';
import type { Option, Variable } from '../../template/variable.js';
import { FRONT_SCALARS, FRONT_TAIL, VARIABLE_FORMS } from './front-attributes.js';
import { writeLine } from './line.js';
import { writeBody, writeWording } from './write-body.js';

/** The widest an entry may be to stand on one line. */
const WIDTH = 100;

/** Text that reads back as itself without quotes, in block and flow context alike. */
const PLAIN =
  /^(?![-?:,[\]{}#&*!|>'"%@`~ ]|---|\.\.\.)[^\s,[\]{}#:'"\\\p{C}](?:[^,[\]{}#:'"\\\p{C}]*[^\s,[\]{}#:'"\\\p{C}])?$/u;

/** Always quoted: lines, wordings and expressions, whose braces and colons would need it sooner or later. */
const quoted = (text: string): string =>
  JSON.stringify(text).replace(
    /[\u007F-\u009F\u2028\u2029\uFEFF]/g,
    (c) => `\\u${c.charCodeAt(0).toString(16).padStart(4, '0')}`,
  );
const scalar = (text: string): string => (PLAIN.test(text) && !/\s{2}|[\u00A0]/.test(text) ? text : quoted(text));

/** An entry: its key with a scalar, a flow list, or entries of its own. */
type Entry = readonly [key: string, value: string | readonly Entry[]];

/** Writes a document. */
export function writeText(raw: TextDocument): string {
  const document = normalise(raw);
  const { front, variables } = document.attrs;
  const lines: string[] = ['---'];
  const remark = (key: string, indent = ''): void => {
    for (const text of front.remarks?.[key]?.split('\n') ?? []) lines.push(`${indent}# ${text}`.trimEnd());
  };
  const add = (key: string, value: string | undefined): void => {
    if (value === undefined) return;
    remark(key);
    lines.push(`${key}: ${value}`);
  };
  const line = (key: 'subject' | 'start' | 'length' | 'place'): string | undefined => {
    const text = writeLine(part(document, key).content);
    return text === '' ? undefined : quoted(text);
  };

  add('vocabula', '1');
  add('kind', front.kind);
  for (const key of FRONT_SCALARS) add(key, front[key] === undefined ? undefined : scalar(front[key]));
  add('subject', line('subject'));
  for (const key of ADDRESS_PARTS) {
    const addresses = part(document, key)
      .content.map((address) => writeLine(address.content))
      .filter((text) => text !== '');
    if (addresses.length > 0)
      add(key, addresses.length === 1 ? quoted(addresses[0] as string) : `[${addresses.map(quoted).join(', ')}]`);
  }
  const files = part(document, 'attachments').content ?? [];
  if (files.length > 0) {
    remark('attachments');
    lines.push('attachments:');
    for (const file of files) {
      const name = writeLine(file.content);
      lines.push(
        `  - ${flow([['file', scalar(file.attrs.file)], ...(name === '' ? [] : [['name', quoted(name)] as const])])}`,
      );
    }
  }
  for (const key of ['start', 'length', 'place'] as const) add(key, line(key));
  for (const key of FRONT_TAIL) {
    const value = front[key];
    if (value !== undefined) add(key, typeof value === 'string' ? scalar(value) : `[${value.map(scalar).join(', ')}]`);
  }
  if (variables.length > 0) {
    lines.push('variables:');
    for (const variable of variables) {
      remark(`variables.${variable.key}`, '  ');
      lines.push(...block([variable.key, variableEntries(variable)], '  '));
    }
  }
  lines.push('---');
  const body = writeBody(bodyOf(document));
  return `${lines.join('\n')}\n${body === '<p></p>' ? '' : `${body}\n`}`;
}

const flow = (entries: readonly Entry[]): string =>
  `{ ${entries.map(([key, value]) => `${key}: ${typeof value === 'string' ? value : flow(value)}`).join(', ')} }`;

/** One line where it fits and holds no options or columns; a line for each entry otherwise. */
function block([key, value]: Entry, indent: string): string[] {
  if (typeof value === 'string') return [`${indent}${key}: ${value}`];
  const short = `${indent}${key}: ${flow(value)}`;
  const simple =
    value.every(([name]) => name !== 'options' && name !== 'columns') && key !== 'options' && key !== 'columns';
  if (value.length === 0 || (simple && short.length <= WIDTH)) return [short];
  return [`${indent}${key}:`, ...value.flatMap((entry) => block(entry, `${indent}  `))];
}

function variableEntries(variable: Variable): Entry[] {
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
