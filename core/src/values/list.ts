/** Lists of rows with typed columns. A value is an array of rows by column key. */
import { listFormat, numberFormat } from './intl.js';
import { isKey, isReserved, labelFromKey } from '../template/keys.js';
import type { Variable } from '../template/variable.js';
import {
  isMissing,
  limitsSwapped,
  type DeclarationProblem,
  type Parsed,
  type RowValue,
  type Value,
  type ValueContext,
  type ValueType,
} from './type.js';
import { valueType } from './index.js';

export const MAX_ROWS = 1000;

function parseRow(
  input: unknown,
  at: number,
  variable: Variable,
  context: ValueContext,
): { row: RowValue } | { problem: string } {
  if (typeof input !== 'object' || input === null || Array.isArray(input))
    return { problem: `Row ${at + 1} must have columns.` };
  const columns = variable.columns ?? [];
  for (const key of Object.keys(input))
    if (!isColumn(columns, key))
      return { problem: `Row ${at + 1} has a column “${key.slice(0, 40)}”, which the list has not.` };
  const cells = input as Record<string, unknown>;
  // A row whose cells are values as they stand is taken as it stands.
  let row = cells as Record<string, Value>;
  for (const column of columns) {
    const given = Object.hasOwn(cells, column.key) ? cells[column.key] : undefined;
    const computed = column.value !== undefined;
    const cell = computed ? undefined : isMissing(given) ? column.default : given;
    if (isMissing(cell)) {
      if (column.required && !computed) return { problem: `${cellInWords(at, column)}: this must be filled.` };
      if (given === undefined) continue;
      if (row === cells) row = { ...row };
      delete row[column.key];
      continue;
    }
    const parsed: Parsed = valueType(column.type).parse(cell, column, context);
    if ('problem' in parsed) return { problem: `${cellInWords(at, column)}: ${parsed.problem}` };
    if (parsed.value === given) continue;
    if (row === cells) row = { ...row };
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
      for (const problem of valueType(column.type).declared(column, context))
        problems.push({ ...problem, attribute: `columns.${column.key}.${problem.attribute}` });
  }
  return problems;
}

export const list: ValueType = {
  name: 'list',
  attributes: ['columns', 'least', 'most'],
  parse(input, variable, context) {
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
  views: (variable) => ['count', ...(variable.columns ?? []).map((column) => column.key)],
  formatter(variable, view, locale) {
    if (view === 'count') {
      const format = numberFormat(locale);
      return (value) => format.format((value as readonly RowValue[]).length);
    }
    const column = variable.columns?.find((candidate) => candidate.key === view);
    const show = column && valueType(column.type).formatter(column, '', locale);
    if (!show) return undefined;
    const joined = listFormat(locale);
    return (value) =>
      joined.format(
        (value as readonly RowValue[]).flatMap((row) => (row[view] === undefined ? [] : [show(row[view])])),
      );
  },
  declared: (variable, context) => [...declaredColumns(variable, context), ...limitsSwapped(variable, 'least', 'most')],
  expressionType: 'list',
};
