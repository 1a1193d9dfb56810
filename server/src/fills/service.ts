/** Messages being filled: begun on frozen documents, kept at every change, stitched, answered, offered to be reworded. */
import type {
  Fill,
  FillSummary,
  OfferedValues,
  Original,
  ReadOriginal,
  SaveFill,
  StartFill,
  Stitch,
  Suggest,
} from '@vocabula/contract';
import { plainWords } from '@vocabula/core';
import { NO_CHANGES, type FillChanges } from '@vocabula/core/filling';
import { and, desc, eq, inArray, isNull } from 'drizzle-orm';
import { closure, rowOf } from '../catalogue/visible-texts.js';
import { demanded } from '../catalogue/text-summaries.js';
import { schema, type Database } from '../db/database.js';
import { notFound, RequestProblem } from '../http/problem.js';
import { ownAddresses } from '../people/addresses.js';
import type { User } from '../people/user.js';
import type { RecipientService } from '../recipients/service.js';
import { accessOf } from '../rights/access.js';
import { paceOf, type Workers } from '../workers/pool.js';
import { begin, calledBy, frozenAll } from './beginning.js';
import { checkChanges } from './changes.js';
import { likelyFor } from './likely-templates.js';
import { offeredFor } from './memory.js';
import { fillOf, frozenOf, newFill, ownFill, standingsOf, summary, wholeFill, type Row } from './rows.js';
import { addRemark } from '../versions/remarks.js';
import { addFills, binFill, changeFill } from './store.js';
import { goesElsewhere, tried } from './trying.js';

const { fills } = schema;

export class FillService {
  constructor(
    private readonly database: Database,
    private readonly recipients: RecipientService,
    private readonly workers: Workers,
  ) {}

  /** Begins a message on the version that is in use. */
  async start(given: StartFill, user: User): Promise<Fill> {
    const { read } = this.database;
    const text = given.text ?? (await calledBy(read, given.call ?? '', user));
    const original = given.letter ? await this.letter(given.letter, user) : given.original;
    const recipient =
      given.recipient ??
      (await this.recipients.meant(given.to ?? original?.replyTo?.[0] ?? original?.from ?? '', user));
    const changes = given.changes ?? NO_CHANGES;
    const stitched = changes.parts.map(({ name }) => name);
    return this.database.write(async (writer) => {
      const usual = await begin(writer, text, user, stitched);
      const begun = { ...usual, ...(await tried(writer, { ...usual, recipient, changes }, user)) };
      const { texts, house } = await frozenOf(writer, begun);
      const { kept, lost } = checkChanges(texts, changes);
      const now = new Date().toISOString();
      const row: Row = {
        ...newFill(begun, user, recipient, now),
        answers: given.answers ?? {},
        offered: await offeredFor(writer, user, texts, recipient.email ?? ''),
        changes: kept,
        original: original ?? null,
        letter: given.letter ?? null,
        replyAll: given.all ?? false,
      };
      await addFills(writer, [row]);
      const declared = new Set(texts.flatMap(({ document }) => document.attrs.variables.map(({ key }) => key)));
      const unknown = Object.keys(given.answers ?? {}).filter((key) => !declared.has(key));
      const notes = [
        ...(unknown.length > 0 ? [`Nothing here asks for ${unknown.join(', ')}.`] : []),
        ...(lost > 0
          ? [
              `${lost === 1 ? 'One rewording' : `${lost} rewordings`} could not be carried over: the text says something else there now.`,
            ]
          : []),
      ];
      return wholeFill(row, { texts, house }, 'current', undefined, notes);
    });
  }

  /** The user's own, the last first. */
  async list(user: User): Promise<FillSummary[]> {
    const rows = await this.database.read
      .select()
      .from(fills)
      .where(and(isNull(fills.binnedAt), isNull(fills.series), eq(fills.person, user.id)))
      .orderBy(desc(fills.updatedAt))
      .limit(60);
    const standings = await standingsOf(this.database.read, rows);
    return rows.map((row) => summary(row, standings.get(row.id) ?? 'current'));
  }

  async get(id: string, user: User): Promise<Fill> {
    return fillOf(this.database.read, await this.row(id, user));
  }

  save(id: string, given: SaveFill, user: User): Promise<FillSummary> {
    return this.database.write(async (writer) => {
      const [row] = await writer.select().from(fills).where(ownFill(id, user));
      if (!row) throw notFound('message');
      if (given.changes) {
        const { texts } = await frozenOf(writer, row);
        const { lost } = checkChanges(texts, given.changes);
        if (lost > 0) throw new RequestProblem(422, 'bad-changes', 'The text does not say there what was reworded.');
      }
      const changes: Partial<Row> = {
        recipient: given.recipient,
        answers: given.answers,
        ...(given.offered ? { offered: given.offered } : {}),
        ...(given.confirmed ? { confirmed: given.confirmed } : {}),
        ...(given.changes ? { changes: given.changes } : {}),
        ...(given.original === undefined ? {} : { original: given.original }),
        ...(given.all === undefined ? {} : { replyAll: given.all }),
        state: 'unfinished',
        updatedAt: new Date().toISOString(),
      };
      if (goesElsewhere(row.recipient, given.recipient))
        Object.assign(changes, await tried(writer, { ...row, ...changes }, user));
      await changeFill(writer, id, changes);
      const changed = { ...row, ...changes };
      return summary(changed, (await standingsOf(writer, [changed])).get(id) ?? 'current');
    });
  }

  /** What the user answered before, for a recipient. */
  async memory(id: string, address: string, user: User): Promise<OfferedValues> {
    const { texts } = await frozenOf(this.database.read, await this.row(id, user));
    return offeredFor(this.database.read, user, texts, address);
  }

  /** Stitches another text to a message: it is frozen with all it includes, as the template was. */
  stitch(id: string, { name, at }: Stitch, user: User): Promise<Fill> {
    return this.database.write(async (writer) => {
      const [row] = await writer.select().from(fills).where(ownFill(id, user));
      if (!row) throw notFound('message');
      const { texts } = await frozenOf(writer, row);
      if (texts[0]?.name === name)
        throw new RequestProblem(422, 'itself', 'This is the template itself: it cannot stand in itself.');
      const more = await closure(writer, name, user, 'fill');
      if (more.length === 0) throw notFound('text');
      if (more[0]?.document.attrs.front.kind === 'series')
        throw new RequestProblem(422, 'series', 'This is a series: it is several messages, and stands in none.');
      // What is frozen already stays as it is: one message speaks with one state of each text.
      const added = more.filter((each) => !texts.some((known) => known.name === each.name));
      const frozen = [...row.frozen, ...(await frozenAll(writer, added))];
      const changed = {
        frozen,
        changes: { ...row.changes, parts: [...row.changes.parts, { name, at }] } satisfies FillChanges,
        state: 'unfinished' as const,
        updatedAt: new Date().toISOString(),
      };
      await changeFill(writer, id, changed);
      return fillOf(writer, { ...row, ...changed });
    });
  }

  /** The state in use of the text that a message was begun on, and what it includes: to say what would change. */
  async newest(id: string, user: User): Promise<Fill> {
    const row = await this.row(id, user);
    return this.database.write(async (writer) => {
      const parts = row.changes.parts.map(({ name }) => name);
      const begun = await begin(writer, row.text, user, parts);
      const { texts } = await frozenOf(writer, begun);
      const { kept } = checkChanges(texts, row.changes);
      return fillOf(writer, { ...row, ...begun, frozen: begun.frozen, changes: kept });
    });
  }

  /** Offers a rewording to who answers for the text, as a remark on the words. It holds nothing of the recipient's. */
  async suggest(id: string, { text, path }: Suggest, user: User): Promise<void> {
    const row = await this.row(id, user);
    const changes = row.changes;
    const found = changes.reworded.find((each) => each.text === text && each.path.join('.') === path.join('.'));
    if (!found || found.after === null) throw notFound('rewording');
    await this.database.write(async (writer) => {
      await demanded(writer, text, user, 'fill');
      const target = await rowOf(writer, text);
      const words = withoutValues(plainWords(found.after ?? []), row.recipient);
      await addRemark(writer, text, user, {
        quote: { exact: plainWords(found.before).slice(0, 2000), prefix: '', suffix: '' },
        body: `Suggested wording${target?.owner ? ` for ${target.owner}` : ''}: “${words}”`.slice(0, 4000),
      });
    });
  }

  /** Reads a mail that was pasted or dropped, and says who wrote it and what is likely meant to answer it. */
  async readOriginal(bytes: Uint8Array, user: User): Promise<ReadOriginal> {
    const original = await this.workers.run('original', bytes, user.id, paceOf(bytes));
    return this.answerable(original, user);
  }

  private async answerable(original: Original, user: User): Promise<ReadOriginal> {
    const { read } = this.database;
    const recipient = await this.recipients.meant(original.replyTo?.[0] ?? original.from, user);
    const likely = await likelyFor(read, original);
    const access = await accessOf(read, user);
    const rows =
      likely.length === 0
        ? []
        : await read
            .select({
              name: schema.texts.name,
              title: schema.texts.title,
              folder: schema.texts.folder,
              published: schema.texts.published,
            })
            .from(schema.texts)
            .where(
              and(
                isNull(schema.texts.binnedAt),
                inArray(
                  schema.texts.name,
                  likely.map(({ name }) => name),
                ),
              ),
            );
    return {
      original,
      recipient,
      likely: likely.flatMap(({ name, why }) => {
        const row = rows.find((each) => each.name === name);
        return row && row.published !== null && access.may('fill', row.folder) ? [{ name, title: row.title, why }] : [];
      }),
    };
  }

  /** A letter of the user's mailbox as a mail that is answered. */
  private async letter(id: string, user: User): Promise<Original> {
    const { read } = this.database;
    const [row] = await read
      .select({ raw: schema.letters.raw })
      .from(schema.letters)
      .innerJoin(schema.deliveries, eq(schema.deliveries.letter, schema.letters.id))
      .where(and(eq(schema.letters.id, id), inArray(schema.deliveries.address, await ownAddresses(read, user.id))));
    if (!row) throw notFound('letter');
    return this.workers.run('original', row.raw, user.id, paceOf(row.raw));
  }

  /** The letter as something to answer, with what is likely meant. */
  async readLetter(id: string, user: User): Promise<ReadOriginal> {
    return this.answerable(await this.letter(id, user), user);
  }

  bin(id: string, binned: boolean, user: User): Promise<void> {
    return this.database.write(async (writer) => {
      if (!(await binFill(writer, id, user.id, binned ? new Date().toISOString() : null))) throw notFound('message');
    });
  }

  private async row(id: string, user: User): Promise<Row> {
    const [row] = await this.database.read.select().from(fills).where(ownFill(id, user));
    if (!row) throw notFound('message');
    return row;
  }
}

/** Words without anything that is the recipient's: their values stand as their fields' names. */
function withoutValues(words: string, recipient: Readonly<Record<string, string>>): string {
  const values = Object.entries(recipient)
    .filter(([, value]) => value.trim().length > 1)
    .sort(([, a], [, b]) => b.length - a.length);
  return values.reduce((text, [key, value]) => text.replaceAll(value, `[recipient.${key}]`), words);
}
