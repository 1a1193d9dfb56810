/** Files that tables come in: read with the importer's choices, and described before anything is taken. */
import type { Choices, Recognised } from '@vocabula/contract';
import { readAnyTable } from '@vocabula/core/any-table';
import { matchColumns, TableProblem, type Table, type TableColumn, type TableRow } from '@vocabula/core/tables';
import { RequestProblem } from '../http/problem.js';

/** Reads a file; what cannot be read is an answer with words and a line. */
export async function tableOf(bytes: Uint8Array, choices: Choices): Promise<Table> {
  try {
    return await readAnyTable(bytes, choices);
  } catch (problem) {
    if (!(problem instanceof TableProblem)) throw problem;
    throw new RequestProblem(
      422,
      'bad-table',
      `${problem.line === undefined ? '' : `Line ${problem.line}: `}${problem.message}`,
      { line: problem.line },
    );
  }
}

/** What a file holds; where its columns would go, if there is a set that they may go into. */
export function described(
  { columns, rows, recognised, notes }: Table,
  into?: { readonly columns: readonly TableColumn[]; readonly cells: readonly TableRow[] },
): Recognised {
  const matches = into ? matchColumns({ columns, rows }, { columns: into.columns, rows: into.cells }) : [];
  return {
    ...recognised,
    rows: rows.length,
    notes,
    columns: columns.map((column) => {
      const filled = rows.map((row) => row[column.key] ?? '').filter((cell) => cell !== '');
      const lengths = filled.map((cell) => [...cell].length);
      const match = matches.find(({ from }) => from === column.key);
      return {
        ...column,
        empty: rows.length - filled.length,
        distinct: new Set(filled).size,
        shortest: least(lengths),
        longest: lengths.reduce((most, length) => Math.max(most, length), 0),
        examples: [...new Set(filled)].slice(0, 3),
        ...(match ? { into: match.into, by: match.by } : {}),
      };
    }),
  };
}

/** By going through them: a call with a hundred thousand arguments overflows the stack. */
const least = (numbers: readonly number[]): number =>
  numbers.reduce((least, each) => Math.min(least, each), numbers[0] ?? 0);
