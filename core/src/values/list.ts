/** Lists of rows with typed columns. A value is an array of rows by column key. */
import { listFormat, numberFormat } from './intl.js';
import { isKey, isReserved, labelFromKey } from '../template/keys.js';
import type { Variable } from '../template/variable.js';
import {
  isMissing,
  limitsSwapped,
  type AsGiven,
  type DeclarationProblem,
  type Parsed,
  type RowValue,
  type Value,
  type ValueContext,
  type ValueType,
} from './type.js';
import { scalarType, specimenBy } from './scalar.js';

/** The most rows that a list may have. */
export const MAX_ROWS = 1000;

function parseRow(
  input: unknown,
  at: number,
  variable: Variable,
  context: ValueContext,
): { readonly row: RowValue } | { readonly problem: string } {
  if (typeof input !== 'object' || input === null || Array.isArray(input))
    return { problem: `Row ${at + 1} must have columns.` };
  const columns = variable.columns ?? [];
  for (const key of Object.keys(input))
    if (!isColumn(columns, key))
      return { problem: `Row ${at + 1} has a column “${key.slice(0, 40)}”, which the list has not.` };
  const cells = input as Record<string, unknown>;
  const row: Record<string, Value> = {};
  for (const column of columns) {
    const given = Object.hasOwn(cells, column.key) ? cells[column.key] : undefined;
    const computed = column.value !== undefined;
    const cell = computed ? undefined : isMissing(given) ? column.default : given;
    if (isMissing(cell)) {
      if (column.required && !computed) return { problem: `${cellInWords(at, column)}: this must be filled.` };
      continue;
    }
    const parsed: Parsed = scalarType(column.type).parse(cell, column, context);
    if ('problem' in parsed) return { problem: `${cellInWords(at, column)}: ${parsed.problem}` };
    row[column.key] = parsed.value;
  }
  return { row };
}

function isColumn(columns: readonly Variable[], key: string): boolean {
  for (const column of columns) if (column.key === key) return true;
  return false;
}

const cellInWords = (row: number, column: Variable): string =>
  `Row ${row + 1}, ${column.label ?? labelFromKey(column.key)}`;

/** Rows are as given where every cell is, and no column is worked out or has a default. */
function asGiven({ columns = [], least, most }: Variable): AsGiven | undefined {
  const cells: { readonly key: string; readonly required: boolean; readonly take: AsGiven }[] = [];
  for (const column of columns) {
    const take = scalarType(column.type).asGiven?.(column);
    if (!take || column.value !== undefined || column.default !== undefined) return undefined;
    cells.push({ key: column.key, required: column.required ?? false, take });
  }
  if (least !== undefined || most !== undefined) return undefined;
  const takeRow = (row: unknown): (string | undefined)[] | undefined => {
    if (typeof row !== 'object' || row === null || Array.isArray(row)) return undefined;
    const html: (string | undefined)[] = [];
    let left = 0;
    for (const _key in row) left += 1;
    for (let at = 0; at < cells.length; at += 1) {
      const column = cells[at] as (typeof cells)[number];
      const cell = (row as Record<string, unknown>)[column.key];
      const given = cell !== undefined || column.required;
      const taken = given ? column.take(cell) : undefined;
      if (given && typeof taken !== 'string') return undefined;
      html.push(taken as string | undefined);
      if (given) left -= 1;
    }
    // A column that the list has not is among them.
    return left === 0 ? html : undefined;
  };
  return (input) => {
    if (!Array.isArray(input) || input.length === 0 || input.length > MAX_ROWS) return undefined;
    const html: (string | undefined)[][] = [];
    for (let at = 0; at < input.length; at += 1) {
      const row = takeRow(input[at]);
      if (!row) return undefined;
      html.push(row);
    }
    return html;
  };
}

function declaredColumns(variable: Variable, context: ValueContext): DeclarationProblem[] {
  const problems: DeclarationProblem[] = [];
  if (!variable.columns?.length) problems.push({ attribute: 'columns', message: 'A list needs at least one column.' });
  for (const column of variable.columns ?? []) {
    if (!isKey(column.key))
      problems.push({
        attribute: 'columns',
        message: `A column's key has small letters, digits and underscores: “${column.key}”.`,
        code: 'bad-key',
      });
    else if (column.key === 'count' || isReserved(column.key))
      problems.push({
        attribute: 'columns',
        message: `A column may not be called “${column.key}”.`,
        code: 'reserved-key',
      });
    if (column.type === 'list') problems.push({ attribute: 'columns', message: 'A column may not be a list.' });
    else
      for (const problem of scalarType(column.type).declared(column, context))
        problems.push({ ...problem, attribute: `columns.${column.key}.${problem.attribute}` });
  }
  return problems;
}

const ROW_LEVELS = [
  { key: 'none', label: 'none' },
  { key: 'one', label: 'one' },
  { key: 'many', label: 'several' },
];

/** A row with a likely value in each of some columns. */
const rowOf = (columns: readonly Variable[], context: ValueContext): RowValue =>
  Object.fromEntries(columns.map((column) => [column.key, specimenBy(scalarType(column.type), column, context)]));

/** Rows written as JSON in a cell; undefined if they are none. */
function rowsOfCell(cell: string): unknown {
  try {
    const rows: unknown = JSON.parse(cell);
    return Array.isArray(rows) ? rows : undefined;
  } catch {
    return undefined;
  }
}

/** Rows with the same columns. */
export const list: ValueType = {
  name: 'list',
  attributes: ['columns', 'least', 'most'],
  parse(given, variable, context) {
    // Fields of a recipient are text, in which a list is written as JSON.
    const input = typeof given === 'string' ? rowsOfCell(given) : given;
    if (!Array.isArray(input)) return { problem: 'This must be a list of rows.' };
    const most = Math.min(variable.most ?? MAX_ROWS, MAX_ROWS);
    if (input.length > most) return { problem: `There may be ${most} rows at most; there are ${input.length}.` };
    if (variable.least !== undefined && input.length < variable.least)
      return { problem: `There must be ${variable.least} rows or more; there are ${input.length}.` };
    const rows: RowValue[] = [];
    for (const [at, given] of input.entries()) {
      const parsed = parseRow(given, at, variable, context);
      if ('problem' in parsed) return parsed;
      rows.push(parsed.row);
    }
    return { value: rows };
  },
  asGiven,
  views: (variable) => ['count', ...(variable.columns ?? []).map((column) => column.key)],
  formatter(variable, view, locale) {
    if (view === 'count') {
      const format = numberFormat(locale);
      return (value) => format.format((value as readonly RowValue[]).length);
    }
    const column = variable.columns?.find((candidate) => candidate.key === view);
    const show = column && scalarType(column.type).formatter(column, '', locale);
    if (!show) return undefined;
    const joined = listFormat(locale);
    return (value) =>
      joined.format(
        (value as readonly RowValue[]).flatMap((row) => (row[view] === undefined ? [] : [show(row[view])])),
      );
  },
  declared: (variable, context) => [...declaredColumns(variable, context), ...limitsSwapped(variable, 'least', 'most')],
  specimen({ columns = [] }, context) {
    const row = rowOf(columns, context);
    return [row, row];
  },
  expressionType: 'list',
  family: 'list',
  control: 'rows',
  governs: 'list',
  fromCell: rowsOfCell,
  outcomes: () => [{ levels: ROW_LEVELS, levelOf: (value) => Math.min(Array.isArray(value) ? value.length : 0, 2) }],
  tried({ columns = [] }, { specimen, constants, ...context }) {
    const given = Array.isArray(specimen) && specimen.length > 0 ? (specimen as unknown[])[0] : undefined;
    const row =
      given ??
      rowOf(
        columns.filter((column) => column.value === undefined),
        context,
      );
    const numbers = constants.map(Number).filter(Number.isFinite);
    const counts = new Set([0, 1, 2, ...numbers.flatMap((each) => [each - 1, each, each + 1])]);
    return [...counts]
      .filter((count) => Number.isInteger(count) && count >= 0 && count <= 60)
      .map((count) => Array.from({ length: count }, () => row));
  },
};
