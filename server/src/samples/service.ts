/** Sample sets and recipient lists. Sample rows serve proofs only; recipients are looked up by Fill. */
import { randomUUID } from 'node:crypto';
import type {
  ChangeTable,
  Choices,
  CopyTable,
  MakeTable,
  Recognised,
  StoredTable,
  TableSummary,
  Use,
} from '@vocabula/contract';
import { dayIn } from '@vocabula/core';
import { disguised, withComputed, type SampleColumn } from '@vocabula/core/proof';
import { writeCsv, writeJson, type TableColumn, type TableRow } from '@vocabula/core/tables';
import { and, asc, count, eq, isNull } from 'drizzle-orm';
import { demanded } from '../catalogue/text-summaries.js';
import { schema, type Database, type Reader, type Writer } from '../db/database.js';
import { notFound, RequestProblem } from '../http/problem.js';
import type { User } from '../people/user.js';
import { accessOf, type Access } from '../rights/access.js';
import { note } from '../audit/service.js';
import { addRows, makeChange, type Head } from './changes.js';
import { described, tableOf } from './recognise.js';
import { demandChange, isOwner, mayChange, ownSetsOf, type OwnOf, type TableRecord as Row } from './rights.js';
import { addTable, changeTable, setOwnSet } from './store.js';

export class TableService {
  constructor(private readonly database: Database) {}

  async list(use: Use | undefined, user: User): Promise<TableSummary[]> {
    const { read } = this.database;
    const rows = await read
      .select({ table: schema.tables, rows: count(schema.tableRows.position) })
      .from(schema.tables)
      .leftJoin(schema.tableRows, eq(schema.tableRows.tableId, schema.tables.id))
      .where(and(isNull(schema.tables.binnedAt), use ? eq(schema.tables.use, use) : undefined))
      .groupBy(schema.tables.id)
      .orderBy(asc(schema.tables.title));
    const seen = await this.seenBy(user);
    return rows.map(({ table, rows: number }) => seen(table, number));
  }

  async get(id: string, user: User): Promise<StoredTable> {
    const { read } = this.database;
    const [table] = await read
      .select()
      .from(schema.tables)
      .where(and(eq(schema.tables.id, id), isNull(schema.tables.binnedAt)));
    if (!table) throw notFound('table');
    const stored = await read
      .select()
      .from(schema.tableRows)
      .where(eq(schema.tableRows.tableId, id))
      .orderBy(asc(schema.tableRows.position));
    const columns = table.columns;
    const cells = stored.map((row) => row.cells);
    const { rows, problems } = withComputed(columns, cells, dayIn(new Date(), 'UTC'));
    return {
      ...(await this.seenBy(user))(table, stored.length),
      columns,
      cells: rows,
      problems,
      positions: stored.map(({ position }) => position),
    };
  }

  /** Summaries as the user sees them: templates that they may not write are not named. */
  private async seenBy(
    user: User,
    reader: Reader | Writer = this.database.read,
  ): Promise<(table: Row, rows: number) => TableSummary> {
    const access = await accessOf(reader, user);
    const own = await ownSetsOf(reader);
    return (table, rows) => summary(table, rows, own, access, user);
  }

  /** What a file holds, without taking anything from it. */
  async recognise(bytes: Uint8Array, choices: Choices, into: string | undefined, user: User): Promise<Recognised> {
    const set = into === undefined ? undefined : await this.get(into, user);
    return described(await tableOf(bytes, choices), set);
  }

  async import(
    use: Use,
    title: string,
    bytes: Uint8Array,
    { accept, choices = {} }: { readonly accept: boolean; readonly choices?: Choices },
    user: User,
  ): Promise<TableSummary> {
    const { columns, rows, notes } = await tableOf(bytes, choices);
    if (notes.length > 0 && !accept)
      throw new RequestProblem(422, 'bad-table', `${notes.join(' ')} Nothing was imported.`, { notes });
    const kept = columns.filter(({ key }) => choices[key]?.into !== '').map(plainColumn);
    return this.database.write(async (writer) => {
      const made = await insert(writer, use, title, kept, only(rows, kept), user);
      return (await this.seenBy(user, writer))(made, rows.length);
    });
  }

  /** Adds the rows of a file to a set; its columns go where the choices say, the rest become new ones. */
  async addFile(
    id: string,
    bytes: Uint8Array,
    { revision, choices }: { readonly revision: number; readonly choices: Choices },
    user: User,
  ): Promise<TableSummary> {
    const { columns, rows } = await tableOf(bytes, choices);
    const place = (key: string): string => choices[key]?.into ?? key;
    return this.changed(id, revision, user, async (writer, head) => {
      for (const column of columns) {
        const key = place(column.key);
        if (key !== '' && !head.columns.some((each) => each.key === key))
          await makeChange(writer, id, head, { what: 'column', column: { ...plainColumn(column), key } });
      }
      await addRows(
        writer,
        id,
        rows.map((row) =>
          Object.fromEntries(
            columns.flatMap(({ key }) => (place(key) === '' ? [] : [[place(key), row[key] ?? ''] as const])),
          ),
        ),
      );
    });
  }

  /** A set that is made rather than imported. */
  make({ use, title, columns, rows, ownOf }: MakeTable, user: User): Promise<TableSummary> {
    return this.database.write(async (writer) => {
      const made = await insert(writer, use, title, columns, rows, user);
      if (ownOf !== undefined) {
        demandSamples(use);
        await demanded(writer, ownOf, user, 'write');
        await setOwnSet(writer, ownOf, made.id);
      }
      return (await this.seenBy(user, writer))(made, rows.length);
    });
  }

  change(id: string, { revision, changes }: ChangeTable, user: User): Promise<TableSummary> {
    return this.changed(id, revision, user, async (writer, head) => {
      for (const each of changes) await makeChange(writer, id, head, each);
    });
  }

  private changed(
    id: string,
    revision: number,
    user: User,
    work: (writer: Writer, head: Head) => Promise<void>,
  ): Promise<TableSummary> {
    return this.database.write(async (writer) => {
      const [table] = await writer
        .select()
        .from(schema.tables)
        .where(and(eq(schema.tables.id, id), isNull(schema.tables.binnedAt)));
      if (!table) throw notFound('table');
      await demandChange(writer, table, user);
      if (table.revision !== revision)
        throw new RequestProblem(
          409,
          'stale-revision',
          'This set was changed elsewhere meanwhile; it is shown as it is now.',
        );
      const head: Head = {
        title: table.title,
        columns: [...table.columns],
        keepUntil: table.keepUntil,
        folder: table.folder,
      };
      await work(writer, head);
      if (head.folder !== table.folder) {
        if (!isOwner(table, user))
          throw new RequestProblem(403, 'not-allowed', 'Its owner says who else may change this list.');
        if (head.folder !== null) (await accessOf(writer, user)).demand('fill', head.folder, 'folder');
      }
      const row: Row = {
        ...table,
        title: head.title,
        keepUntil: head.keepUntil,
        folder: head.folder,
        columns: head.columns,
        revision: revision + 1,
        updatedAt: new Date().toISOString(),
      };
      await changeTable(writer, id, row);
      const [rows] = await writer
        .select({ rows: count() })
        .from(schema.tableRows)
        .where(eq(schema.tableRows.tableId, id));
      if (row.use === 'recipients') await note(writer, user, 'changed', 'table', id, changedWords(table, row));
      return (await this.seenBy(user, writer))(row, rows?.rows ?? 0);
    });
  }

  /** Makes a sample set of a set or list; of real people with names and addresses disguised, if asked to. */
  async copy(id: string, { title, disguise }: CopyTable, user: User): Promise<TableSummary> {
    const { columns, cells } = await this.get(id, user);
    const rows = disguise ? disguised(columns, cells) : cells;
    return this.database.write(async (writer) => {
      const made = await insert(writer, 'sample', title, columns, rows, user);
      return (await this.seenBy(user, writer))(made, rows.length);
    });
  }

  /** Says which sample set is a template's own. */
  async own(text: string, table: string | null, user: User): Promise<void> {
    if (table !== null) demandSamples((await this.get(table, user)).use);
    await demanded(this.database.read, text, user, 'write');
    await this.database.write((writer) => setOwnSet(writer, text, table));
  }

  bin(id: string, binned: boolean, user: User): Promise<void> {
    return this.database.write(async (writer) => {
      const [table] = await writer.select().from(schema.tables).where(eq(schema.tables.id, id));
      if (!table) throw notFound('table');
      await demandChange(writer, table, user);
      await changeTable(writer, id, { binnedAt: binned ? new Date().toISOString() : null });
      await note(writer, user, binned ? 'binned' : 'restored', 'table', id, table.title);
    });
  }

  /** The set as a file. */
  async file(id: string, as: 'csv' | 'json', user: User): Promise<{ title: string; content: string }> {
    const { title, columns, cells } = await this.get(id, user);
    return { title, content: as === 'csv' ? writeCsv(columns, cells) : writeJson(columns, cells) };
  }
}

/** How long a recipient list is kept unless its owner says otherwise. */
const KEPT_DAYS = 365;
const keptFor = (): string => new Date(Date.now() + KEPT_DAYS * 86_400_000).toISOString().slice(0, 10);

const plainColumn = ({ key, name, type }: TableColumn): TableColumn => ({ key, name, type });
const only = (rows: readonly TableRow[], columns: readonly TableColumn[]): TableRow[] =>
  rows.map((row) => Object.fromEntries(columns.map(({ key }) => [key, row[key] ?? ''])));

async function insert(
  writer: Writer,
  use: Use,
  title: string,
  columns: readonly SampleColumn[],
  rows: readonly TableRow[],
  user: User,
): Promise<Row> {
  const row: Row = {
    id: randomUUID(),
    use,
    title,
    columns,
    revision: 1,
    updatedAt: new Date().toISOString(),
    binnedAt: null,
    owner: user.id,
    keepUntil: use === 'recipients' ? keptFor() : null,
    folder: null,
  };
  await addTable(writer, row);
  await addRows(writer, row.id, rows);
  if (use === 'recipients') await note(writer, user, 'made', 'table', row.id, title);
  return row;
}

function demandSamples(use: Use): void {
  if (use !== 'sample')
    throw new RequestProblem(422, 'not-samples', 'Only a sample set can be a template’s own: a list is never proofed.');
}

/** What of a list was changed, for the trail: never whose rows. */
function changedWords(before: Row, after: Row): string {
  const words = [
    before.title === after.title ? '' : `called ${after.title}`,
    before.keepUntil === after.keepUntil
      ? ''
      : `kept ${after.keepUntil ? `until ${after.keepUntil}` : 'without an end'}`,
    before.folder === after.folder ? '' : after.folder === null ? 'shared with nobody' : 'shared with a folder',
  ].filter(Boolean);
  return `${before.title}: ${words.join(', ') || 'rows or columns'}`;
}

function summary(table: Row, rows: number, all: readonly OwnOf[], access: Access, user: User): TableSummary {
  const { id, use, title, columns, revision, updatedAt, owner, keepUntil, folder } = table;
  const own = all.filter(({ tableId }) => tableId === id);
  return {
    id,
    use,
    title,
    rows,
    keys: columns.map(({ key }) => key),
    revision,
    updatedAt,
    ownOf: own.filter((each) => access.may('write', each.folder)).map(({ text }) => text),
    owner: owner ?? undefined,
    keepUntil: keepUntil ?? undefined,
    folder: folder !== null && access.may('fill', folder) ? folder : undefined,
    mayChange: user.role !== 'colleague' && mayChange(table, own, access, user),
    mayShare: user.role !== 'colleague' && isOwner(table, user),
  };
}
