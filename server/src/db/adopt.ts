/**
 * Brings a database from before there were accounts and versions to where it works as before: its texts become findable,
 * and what colleagues used until then, the last saved state, becomes version 1.
 */
import { HOUSE_NAME } from '@vocabula/contract';
import { and, eq, isNull } from 'drizzle-orm';
import { changeText, derive } from '../catalogue/store.js';
import { houseRow } from '../house/house-state.js';
import { foldedRow } from '../samples/changes.js';
import { publishState } from '../versions/publishing.js';
import { schema, type Database } from './database.js';
import { setVersionOf } from '../fills/store.js';
import { changeRow } from '../samples/store.js';

const NOTE = 'As it was when versions began.';
const WHO = { id: 'me', name: 'Vocabula' };

/** Does nothing where it was done. */
export async function adopt(database: Database): Promise<void> {
  await makeFindable(database);
  const { texts, searched, people } = schema;
  const unknown = await database.read
    .select({ name: texts.name })
    .from(texts)
    .leftJoin(searched, eq(searched.name, texts.name))
    .where(isNull(searched.id));
  const house = await houseRow(database.read);
  const [before] = await database.read.select().from(people).where(eq(people.id, WHO.id));
  if (unknown.length === 0 && (!house || house.published !== null || house.writtenBy.length > 0)) return;
  await database.write(async (writer) => {
    if (house && house.published === null && house.writtenBy.length === 0)
      await publishState(
        writer,
        {
          kind: 'house',
          name: HOUSE_NAME,
          title: 'House style, facts and holidays',
          revision: house.revision,
          document: house.house,
        },
        NOTE,
        WHO,
      );
    for (const { name } of unknown) {
      const [row] = await writer.select().from(texts).where(eq(texts.name, name));
      if (!row) continue;
      const document = row.document;
      const { owner, review_by, valid_from, valid_until } = document.attrs.front;
      await changeText(writer, name, {
        madeBy: before ? WHO.id : null,
        owner: owner ?? null,
        reviewBy: review_by ?? null,
        validFrom: valid_from ?? null,
        validUntil: valid_until ?? null,
      });
      await derive(writer, name, 'working', document);
      await publishState(writer, { kind: 'text', name, title: row.title, revision: row.revision, document }, NOTE, WHO);
      await setVersionOf(writer, name, 1);
    }
  });
}

/** People of recipient lists from before lists were searched by an index of their own. */
async function makeFindable(database: Database): Promise<void> {
  const { tables, tableRows } = schema;
  const rows = await database.read
    .select({ tableId: tableRows.tableId, position: tableRows.position, cells: tableRows.cells })
    .from(tableRows)
    .innerJoin(tables, eq(tables.id, tableRows.tableId))
    .where(and(eq(tables.use, 'recipients'), eq(tableRows.folded, '')));
  if (rows.length === 0) return;
  await database.write(async (writer) => {
    for (const { tableId, position, cells } of rows)
      await changeRow(writer, tableId, position, { folded: foldedRow(cells) });
  });
}
