/** Sample sets and recipient lists. Sample rows serve proofs only; recipients are looked up by Fill. */
import { randomUUID } from 'node:crypto';
import type { RecipientHit, Recognised, StoredTable, TableSummary, Use } from '@vocabula/contract';
import { readTable, TableProblem, writeCsv, type Table, type TableColumn, type TableRow } from '@vocabula/core/tables';
import { holdsWords } from '@vocabula/core';
import { and, asc, count, eq, isNull } from 'drizzle-orm';
import { schema, type Database } from '../db/database.js';
import { notFound, RequestProblem } from '../http/problem.js';
import type { Asker } from '../people/service.js';

/** Rows put into one statement; SQLite takes some thousand parameters at once. */
const CHUNK = 500;

export class TableService {
  constructor(private readonly database: Database) {}

  async list(use: Use | undefined, _asker: Asker): Promise<TableSummary[]> {
    const { read } = this.database;
    const rows = await read
      .select({ table: schema.tables, rows: count(schema.tableRows.position) })
      .from(schema.tables)
      .leftJoin(schema.tableRows, eq(schema.tableRows.tableId, schema.tables.id))
      .where(and(isNull(schema.tables.binnedAt), use ? eq(schema.tables.use, use) : undefined))
      .groupBy(schema.tables.id)
      .orderBy(asc(schema.tables.title));
    return rows.map(({ table, rows: number }) => ({
      id: table.id,
      use: table.use,
      title: table.title,
      rows: number,
      updatedAt: table.updatedAt,
    }));
  }

  async get(id: string, _asker: Asker): Promise<StoredTable> {
    const { read } = this.database;
    const [table] = await read
      .select()
      .from(schema.tables)
      .where(and(eq(schema.tables.id, id), isNull(schema.tables.binnedAt)));
    if (!table) throw notFound('table');
    const rows = await read
      .select()
      .from(schema.tableRows)
      .where(eq(schema.tableRows.tableId, id))
      .orderBy(asc(schema.tableRows.position));
    return {
      id,
      use: table.use,
      title: table.title,
      rows: rows.length,
      updatedAt: table.updatedAt,
      columns: JSON.parse(table.columns) as TableColumn[],
      cells: rows.map((row) => JSON.parse(row.cells) as TableRow),
    };
  }

  /** What a file holds, without taking anything from it. */
  recognise(bytes: Uint8Array): Recognised {
    const { columns, rows, recognised, notes } = read(bytes);
    return {
      ...recognised,
      rows: rows.length,
      notes,
      columns: columns.map((column) => {
        const cells = rows.map((row) => row[column.key] ?? '');
        const filled = cells.filter((cell) => cell !== '');
        return {
          ...column,
          empty: cells.length - filled.length,
          distinct: new Set(filled).size,
          longest: Math.max(0, ...filled.map((cell) => [...cell].length)),
          examples: [...new Set(filled)].slice(0, 3),
        };
      }),
    };
  }

  import(use: Use, title: string, bytes: Uint8Array, accept: boolean, _asker: Asker): Promise<TableSummary> {
    const { columns, rows, notes } = read(bytes);
    if (notes.length > 0 && !accept)
      throw new RequestProblem(422, 'bad-table', `${notes.join(' ')} Nothing was imported.`, { notes });
    const table = {
      id: randomUUID(),
      use,
      title,
      columns: JSON.stringify(columns),
      updatedAt: new Date().toISOString(),
      binnedAt: null,
    };
    return this.database.write(async (writer) => {
      await writer.insert(schema.tables).values(table);
      for (let from = 0; from < rows.length; from += CHUNK) {
        await writer
          .insert(schema.tableRows)
          .values(
            rows
              .slice(from, from + CHUNK)
              .map((cells, index) => ({ tableId: table.id, position: from + index, cells: JSON.stringify(cells) })),
          );
      }
      return { id: table.id, use, title, rows: rows.length, updatedAt: table.updatedAt };
    });
  }

  bin(id: string, binned: boolean, _asker: Asker): Promise<void> {
    return this.database.write(async (writer) => {
      const changed = await writer
        .update(schema.tables)
        .set({ binnedAt: binned ? new Date().toISOString() : null })
        .where(eq(schema.tables.id, id));
      if (changed.rowsAffected === 0) throw notFound('table');
    });
  }

  async csv(id: string, asker: Asker): Promise<{ title: string; csv: string }> {
    const { title, columns, cells } = await this.get(id, asker);
    return { title, csv: writeCsv(columns, cells) };
  }

  /** People of the recipient lists whose name, address or other fields hold all typed words. */
  async recipients(query: string, asker: Asker): Promise<RecipientHit[]> {
    const hits: RecipientHit[] = [];
    for (const { id } of await this.list('recipients', asker)) {
      const table = await this.get(id, asker);
      const email = table.columns.find((column) => column.type === 'email')?.key;
      for (const fields of table.cells) {
        if (hits.length >= 12) return hits;
        if (holdsWords(Object.values(fields).join(' '), query))
          hits.push({
            table: id,
            list: table.title,
            name: nameOf(table.columns, fields),
            email: email ? (fields[email] ?? '') : '',
            fields,
          });
      }
    }
    return hits;
  }
}

/** What a person is called, from whatever name columns there are. */
function nameOf(columns: readonly TableColumn[], fields: TableRow): string {
  const pick = (pattern: RegExp): string => fields[columns.find((column) => pattern.test(column.key))?.key ?? ''] ?? '';
  return (
    pick(/^(full_)?name$/) ||
    [pick(/^(first|given)_name|^vorname/), pick(/^(last|family)_name|^surname|^nachname/)].filter(Boolean).join(' ')
  );
}

function read(bytes: Uint8Array): Table {
  try {
    return readTable(bytes);
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
