/** Sample sets that the program makes: for a template that has none, and in place of real people. */
import type { TableColumn, TableRow } from '../../formats/table/index.js';
import { specimenOf, valueType } from '../../values/index.js';
import { random } from '../../random.js';
import type { Need } from './needs.js';
import { addressFor, phoneFor, roleOf, wordsFor } from './people.js';

/** A sample set made up from the fields that a template asks for. */
export interface MadeUpSet {
  readonly columns: readonly TableColumn[];
  readonly rows: readonly TableRow[];
}

/**
 * A set with a column for everything a template needs. Options take turns, optional cells are empty now and then,
 * and the first rows hold what is usual.
 * @param today ISO day; days of the set lie after it
 */
export function madeUpSet(wanted: readonly Need[], count: number, today: string, seed = 1): MadeUpSet {
  const columns = wanted.flatMap(({ column: key, label, type }) => {
    const { column } = valueType(type);
    return column ? [{ key, name: label, type: column }] : [];
  });
  const source = random(seed);
  const rows = Array.from({ length: count }, (_, at) =>
    Object.fromEntries(
      columns.map(({ key }) => {
        const need = wanted.find(({ column }) => column === key) as Need;
        const mayBeEmpty = !need.required && need.type !== 'yes-no';
        return [key, mayBeEmpty && at > 1 && source.next(5) === 0 ? '' : cellFor(need, at, today, source.next)];
      }),
    ),
  );
  return { columns, rows };
}

/** A cell for a need, which its variable takes where there is one. */
export function cellFor(
  { column, type, slot }: Need,
  at: number,
  today: string,
  next: (below: number) => number = (below) => at % below,
): string {
  const variable = slot?.variable;
  const context = { locale: slot?.locale ?? 'en-GB', today, zone: 'UTC' };
  const proposed =
    valueType(type).madeUp?.(
      {
        at,
        today,
        next,
        address: () => addressFor(at),
        phone: () => phoneFor(at),
        words: () => madeUpWords(column, at, variable && (() => String(specimenOf(variable, context)))),
      },
      variable,
    ) ?? '';
  if (!variable || proposed === '') return proposed;
  const given = valueType(type).fromCell?.(proposed, variable) ?? proposed;
  if ('value' in valueType(type).parse(given, variable, context)) return proposed;
  const specimen = specimenOf(variable, context);
  return Array.isArray(specimen) ? specimen.join(', ') : typeof specimen === 'object' ? '' : String(specimen);
}

/** Words for a column of text: a name, an address, or what is usual for the variable. */
function madeUpWords(column: string, at: number, usual: (() => string) | undefined): string {
  if (/mail/.test(column)) return addressFor(at);
  const role = roleOf(column);
  return role === 'words' && usual ? usual() : wordsFor(role, at);
}

/** The columns whose cells say who somebody is. */
export const tellsWho = ({ key, type }: TableColumn): boolean =>
  type === 'email' || type === 'phone' || roleOf(key) !== 'words' || /mail|phone|tel|birth|iban|account/.test(key);

/** Shorter names could be part of any word. */
const SHORTEST_NAME = 3;

/**
 * Real rows with made-up names, addresses and numbers in place of those that say who somebody is. Other text of the row
 * in which one of them occurs gets the made-up one too. Empty cells stay empty, and everything else stays.
 */
export function disguised(columns: readonly TableColumn[], rows: readonly TableRow[]): TableRow[] {
  const numbers = new Map<string, number>();
  const numberOf = (row: TableRow, at: number, key: string): number => {
    const role = roleOf(key);
    // Names and addresses go by the person, organisations and places by what they are.
    if (role !== 'organisation' && role !== 'place') return at;
    const known = numbers.get(`${key} ${row[key]}`) ?? numbers.size;
    numbers.set(`${key} ${row[key]}`, known);
    return known;
  };
  const madeUp = (row: TableRow, at: number, { key, type }: TableColumn): string => {
    const number = numberOf(row, at, key);
    if (type === 'email' || /mail/.test(key)) return addressFor(number);
    if (type === 'phone' || /phone|tel/.test(key)) return phoneFor(number);
    if (type === 'date') return `19${60 + (number % 40)}-0${(number % 9) + 1}-15`;
    const role = roleOf(key);
    return role === 'words' ? `${'0'.repeat(3)}${number + 1}` : wordsFor(role, number);
  };
  return rows.map((row, at) => {
    const cells = columns.map((column) => {
      const cell = row[column.key] ?? '';
      const made = cell !== '' && tellsWho(column) ? madeUp(row, at, column) : undefined;
      return { column, cell, made };
    });
    const replaced = cells
      .flatMap(({ column, cell, made }) =>
        made !== undefined && column.type !== 'date' ? [[cell, made] as const] : [],
      )
      .filter(([cell]) => cell.length >= SHORTEST_NAME)
      // A whole name before its parts.
      .sort(([a], [b]) => b.length - a.length);
    const words = (text: string): string => replaced.reduce((left, [cell, made]) => left.replaceAll(cell, made), text);
    return Object.fromEntries(
      cells.map(({ column: { key, type }, cell, made }) => [key, made ?? (type === 'text' ? words(cell) : cell)]),
    );
  });
}
