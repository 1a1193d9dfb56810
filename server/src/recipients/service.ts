/** Real people: found in lists and among the colleagues, what went to them, whom never to write to, and forgetting. */
import type { DoNotWrite, Forgotten, NotWritten, PersonRecord, RecipientHit } from '@vocabula/contract';
import { fold, isMailbox } from '@vocabula/core';
import { bareAddress, recipientFromWords } from '@vocabula/core/filling';
import type { TableColumn, TableRow } from '@vocabula/core/tables';
import { and, asc, desc, eq, inArray, isNull, lt, sql } from 'drizzle-orm';
import { note } from '../audit/service.js';
import { schema, type Database, type Reader, type Writer } from '../db/database.js';
import { notFound, RequestProblem } from '../http/problem.js';
import type { User } from '../people/user.js';
import { nameOfRow } from '../people/names.js';
import { summaryOf } from '../catalogue/text-summaries.js';
import { accessOf } from '../rights/access.js';
import { forgetInFills } from '../fills/store.js';
import { forgetInMailings } from '../mailings/store.js';
import { forgetInMailroom } from '../mailroom/store.js';
import { emptyTable, forgetRows } from '../samples/store.js';
import { forgetInOutgoing } from '../sending/store.js';
import { forgetInSeries } from '../series/store.js';
import { forgetInStanding } from '../standing-replies/store.js';
import { seriesFor } from '../series/record.js';

const { tables, tableRows, people, handedOver, doNotWrite, outgoing } = schema;
/** As many as are shown. */
const MOST = 12;
/** Rows that are read for one search: what is typed next narrows it. */
const MOST_READ = 400;

interface ListRow {
  readonly table: string;
  readonly list: string;
  readonly columns: readonly TableColumn[];
  readonly fields: TableRow;
}

export class RecipientService {
  constructor(private readonly database: Database) {}

  /** People of the lists and colleagues whose name, address or other fields hold all typed words. */
  async search(query: string, user: User): Promise<RecipientHit[]> {
    const words = fold(query).split(/\s+/).filter(Boolean).slice(0, 8);
    const rows = await this.rowsLike(words);
    const colleagues = await this.colleagues(user);
    const hits = [...rows.map(hitOf), ...colleagues].filter((hit) => {
      const folded = fold(Object.values(hit.fields).join(' '));
      return words.every((word) => folded.includes(word));
    });
    const first = (hit: RecipientHit): number =>
      words.some(
        (word) =>
          fold(hit.name)
            .split(/\s+/)
            .some((part) => part.startsWith(word)) || fold(hit.email).startsWith(word),
      )
        ? 0
        : 1;
    return hits.sort((a, b) => first(a) - first(b)).slice(0, MOST);
  }

  /** Rows of lists that may hold the words: the index of names is folded where rows are written. */
  private async rowsLike(words: readonly string[]): Promise<ListRow[]> {
    const like = words.map((word) => sql`${tableRows.folded} LIKE ${`%${word.replace(/[%_]/g, '')}%`}`);
    const rows = await this.database.read
      .select({ table: tables.id, list: tables.title, columns: tables.columns, cells: tableRows.cells })
      .from(tableRows)
      .innerJoin(tables, eq(tables.id, tableRows.tableId))
      .where(and(eq(tables.use, 'recipients'), isNull(tables.binnedAt), ...like))
      .orderBy(asc(tables.title), asc(tableRows.position))
      .limit(MOST_READ);
    return rows.map(({ table, list, columns, cells }) => ({
      table,
      list,
      columns,
      fields: cells,
    }));
  }

  private async colleagues({ id }: User): Promise<RecipientHit[]> {
    const rows = await this.database.read.select().from(people).where(isNull(people.endedAt));
    return rows
      .filter((row) => row.id !== id && row.address !== null)
      .map((row) => {
        const name = nameOfRow(row);
        const [first_name = '', ...rest] = name.split(' ');
        const email = row.address ?? '';
        return { table: '', list: 'colleagues', name, email, fields: { first_name, last_name: rest.join(' '), email } };
      });
  }

  /** What is known of an address: the fields of the first list it stands in, else of a colleague. */
  async byAddress(address: string, user: User): Promise<Record<string, string> | undefined> {
    const bare = bareAddress(address);
    if (bare === '') return undefined;
    const found = (await this.rowsLike([bare])).map(hitOf).find((hit) => bareAddress(hit.email) === bare);
    const hit = found ?? (await this.colleagues(user)).find(({ email }) => email === bare);
    return hit && { ...hit.fields, email: hit.email };
  }

  /** Typed words as recipient fields: somebody who is known, where they mean one person alone. */
  async meant(words: string, user: User): Promise<Record<string, string>> {
    // No words mean nobody, even where there is one person alone.
    if (words.trim() === '') return {};
    const typed = recipientFromWords(words);
    if (typed.email) return { ...((await this.byAddress(typed.email, user)) ?? {}), ...typed };
    const hits = await this.search(words, user);
    const [hit] = hits;
    return hit && hits.length === 1 ? { ...hit.fields, email: hit.email } : typed;
  }

  /** What went to somebody, from which version, by whom. */
  async record(address: string, user: User): Promise<PersonRecord> {
    const bare = bareAddress(address);
    const { read } = this.database;
    const access = await accessOf(read, user);
    const rows = await read
      .select({ row: handedOver, text: schema.texts, profile: people.profile })
      .from(handedOver)
      .leftJoin(schema.texts, eq(schema.texts.name, handedOver.text))
      .leftJoin(people, eq(people.id, handedOver.person))
      .where(eq(handedOver.address, bare))
      .orderBy(desc(handedOver.at))
      .limit(200);
    const lists = (await this.rowsLike([bare])).map((row) => ({ ...row, hit: hitOf(row) }));
    const own = lists.filter(({ hit }) => bareAddress(hit.email) === bare);
    const fields = (await this.byAddress(bare, user)) ?? {};
    const [never] = await read.select().from(doNotWrite).where(eq(doNotWrite.address, bare));
    return {
      address: bare,
      name: own[0]?.hit.name || rows[0]?.row.name || '',
      fields,
      doNotWrite: never && { because: never.because, who: never.whoName, at: never.at },
      series: await seriesFor(read, bare, user, access),
      lists: own.map(({ table, list }) => ({ id: table, title: list })),
      // That somebody was written to is everybody's to know; by which text, and with which subject, only who may see the text.
      messages: rows.map(({ row, text, profile }) => {
        const seen = row.person === user.id || (text !== null && access.may('fill', text.folder));
        const title = text && summaryOf(text, access, '')?.title;
        return {
          id: row.id,
          text: seen ? row.text : undefined,
          title: seen ? (title ?? row.text) : undefined,
          version: seen ? (row.version ?? undefined) : undefined,
          subject: seen ? row.subject : undefined,
          way: row.way,
          by: profile?.name ?? '',
          at: row.at,
        };
      }),
    };
  }

  /** Erases the values of somebody everywhere but in published wording, and leaves that there was a message. */
  forget(address: string, user: User): Promise<Forgotten> {
    const bare = bareAddress(address);
    return this.database.write(async (writer) => {
      const known = [bare, ...(await this.namesOf(writer, bare))];
      const { messages, unfinished } = await forgetInFills(writer, bare);
      await forgetInMailings(writer, known);
      await forgetInSeries(writer, bare);
      await forgetInStanding(writer, bare);
      await forgetInMailroom(writer, bare);
      await forgetInOutgoing(writer, bare);
      const rows = (await this.listRows(writer, bare)).map(({ tableId, position }) => ({ tableId, position }));
      await forgetRows(writer, rows);
      await note(writer, user, 'forgot', 'recipient', '', `somebody: ${messages} messages keep their count`);
      return { messages, unfinished, rows: rows.length };
    });
  }

  /** What lists and records call somebody. */
  private async namesOf(writer: Writer, bare: string): Promise<string[]> {
    const rows = await writer
      .select({ name: outgoing.name })
      .from(outgoing)
      .where(eq(outgoing.address, bare))
      .groupBy(outgoing.name);
    const listed = (await this.listRows(writer, bare)).map(({ name }) => name);
    return [...new Set([...rows.map(({ name }) => name), ...listed])].filter((name) => name.trim().length > 2);
  }

  private async listRows(writer: Writer, bare: string): Promise<{ tableId: string; position: number; name: string }[]> {
    const rows = await writer
      .select({
        tableId: tableRows.tableId,
        position: tableRows.position,
        columns: tables.columns,
        cells: tableRows.cells,
      })
      .from(tableRows)
      .innerJoin(tables, eq(tables.id, tableRows.tableId))
      .where(and(eq(tables.use, 'recipients'), sql`${tableRows.folded} LIKE ${`%${bare}%`}`));
    return rows.flatMap(({ tableId, position, columns, cells }) => {
      const { email, name } = hitOf({
        table: '',
        list: '',
        columns,
        fields: cells,
      });
      return bareAddress(email) === bare ? [{ tableId, position, name }] : [];
    });
  }

  async notWritten(): Promise<NotWritten[]> {
    const rows = await this.database.read.select().from(doNotWrite).orderBy(asc(doNotWrite.address));
    return rows.map(({ address, because, whoName, at }) => ({ address, because, who: whoName, at }));
  }

  refuse({ address, because }: DoNotWrite, user: User): Promise<void> {
    const bare = bareAddress(address);
    if (!isMailbox(address))
      throw new RequestProblem(422, 'bad-address', `“${address.slice(0, 80)}” is not an address.`);
    return this.database.write(async (writer) => {
      const row = { address: bare, because, who: user.id, whoName: user.name, at: new Date().toISOString() };
      await writer.insert(doNotWrite).values(row).onConflictDoUpdate({ target: doNotWrite.address, set: row });
      await note(writer, user, 'refused', 'recipient', '', 'an address never to write to');
    });
  }

  allow(address: string, user: User): Promise<void> {
    return this.database.write(async (writer) => {
      const { rowsAffected } = await writer.delete(doNotWrite).where(eq(doNotWrite.address, bareAddress(address)));
      if (rowsAffected === 0) throw notFound('address');
      await note(writer, user, 'allowed', 'recipient', '', 'an address that may be written to again');
    });
  }

  /** Empties lists that are kept no longer; their titles and columns stay, so that their owners see what became of them. */
  async tick(today: string): Promise<void> {
    const past = await this.database.read
      .select({ id: tables.id })
      .from(tables)
      .where(and(eq(tables.use, 'recipients'), lt(tables.keepUntil, today)));
    if (past.length === 0) return;
    await this.database.write(async (writer) => {
      for (const { id } of past) await emptyTable(writer, id);
    });
  }
}

/** Those of some addresses that nothing is sent to. */
export async function refusedAmong(reader: Reader | Writer, addresses: readonly string[]): Promise<Set<string>> {
  const bare = [...new Set(addresses.map(bareAddress))];
  const found = new Set<string>();
  for (let at = 0; at < bare.length; at += 400) {
    const rows = await reader
      .select({ address: doNotWrite.address })
      .from(doNotWrite)
      .where(inArray(doNotWrite.address, bare.slice(at, at + 400)));
    for (const { address } of rows) found.add(address);
  }
  return found;
}

/** A row of a list as a person: its name and address, from whatever columns there are. */
export function hitOf({ table, list, columns, fields }: ListRow): RecipientHit {
  const column = columns.find(({ type, key }) => type === 'email' || key === 'email')?.key;
  const email = column ? (fields[column] ?? '').trim() : '';
  return { table, list, name: nameFrom(columns, fields), email, fields };
}

/** What a person is called, from whatever name columns there are. */
function nameFrom(columns: readonly TableColumn[], fields: TableRow): string {
  const pick = (pattern: RegExp): string => fields[columns.find((column) => pattern.test(column.key))?.key ?? ''] ?? '';
  return (
    pick(/^(full_)?name$/) ||
    [pick(/^(first|given)_name|^vorname/), pick(/^(last|family)_name|^surname|^nachname/)].filter(Boolean).join(' ')
  );
}
