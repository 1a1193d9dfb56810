/** Messages being filled: begun on frozen documents, kept at every change, rendered here when handed over. */
import { randomUUID } from 'node:crypto';
import {
  senderFields,
  HOUSE_NAME,
  type Fill,
  type FillStanding,
  type FillSummary,
  type HandedOver,
  type HandOver,
  type SaveFill,
  type StartFill,
  type WorkingCopy,
} from '@vocabula/contract';
import { compile, dayIn, PLAIN_HOUSE, render, type House, type Message, type TextDocument } from '@vocabula/core';
import { inlined, toEml } from '@vocabula/mail';
import { and, desc, eq, inArray, isNotNull, isNull } from 'drizzle-orm';
import { assetsOf, withAssets } from '../assets/brought.js';
import type { AssetService } from '../assets/service.js';
import { closure, rowOf } from '../catalogue/current.js';
import { isOffered } from '../catalogue/store.js';
import { schema, type Database, type Reader, type Writer } from '../db/database.js';
import { currentHouse } from '../house/current.js';
import { notFound, RequestProblem } from '../http/problem.js';
import type { Asker } from '../people/asker.js';
import { mailboxOf } from '../people/names.js';
import type { PeopleService } from '../people/service.js';
import { accessOf } from '../rights/access.js';
import { freeze } from '../versions/frozen.js';

type Row = typeof schema.fills.$inferSelect;

export class FillService {
  constructor(
    private readonly database: Database,
    private readonly people: PeopleService,
    private readonly assets: AssetService,
  ) {}

  /** Begins a message. What it was compiled from is frozen, so that later edits do not change it under the hands. */
  async start({ text, recipient = {}, answers = {} }: StartFill, asker: Asker): Promise<Fill> {
    const profile = await this.people.profile(asker);
    return this.database.write(async (writer) => {
      const zoned = dayIn(new Date(), 'UTC');
      await demandOffered(writer, text, zoned, asker);
      const own = await closure(writer, text, asker, 'fill');
      const { front } = own[0]?.document.attrs ?? {};
      if (!front || front.kind !== 'message') throw notFound('template');
      const wanted = front.purpose === 'reply' ? profile.reply_signature : profile.signature;
      const texts = wanted ? await closure(writer, text, asker, 'fill', [wanted]) : own;
      const now = new Date().toISOString();
      const frozen: string[] = [];
      for (const each of texts) frozen.push(await freeze(writer, each));
      const { house, revision } = await currentHouse(writer, 'fill');
      const frozenHouse = await freeze(writer, { name: HOUSE_NAME, revision, document: house });
      const row: Row = {
        id: randomUUID(),
        text,
        title: front.title,
        frozen: JSON.stringify(frozen),
        house: frozenHouse,
        signature: wanted || null,
        person: asker.id,
        version: (await rowOf(writer, text))?.published ?? null,
        recipient: JSON.stringify(recipient),
        answers: JSON.stringify(answers),
        state: 'unfinished',
        createdAt: now,
        updatedAt: now,
        binnedAt: null,
      };
      await writer.insert(schema.fills).values(row);
      return { ...summary(row, 'current'), fields: recipient, answers, texts, house, signature: wanted || undefined };
    });
  }

  /** The asker's own, the last first. */
  async list(asker: Asker): Promise<FillSummary[]> {
    const rows = await this.database.read
      .select()
      .from(schema.fills)
      .where(and(isNull(schema.fills.binnedAt), eq(schema.fills.person, asker.id)))
      .orderBy(desc(schema.fills.updatedAt))
      .limit(60);
    const standings = await standingsOf(this.database.read, rows);
    return rows.map((row) => summary(row, standings.get(row.id) ?? 'current'));
  }

  async get(id: string, asker: Asker): Promise<Fill> {
    const row = await this.row(id, asker);
    const ids = JSON.parse(row.frozen) as string[];
    const rows = await this.database.read
      .select()
      .from(schema.frozen)
      .where(inArray(schema.frozen.id, row.house === null ? ids : [...ids, row.house]));
    const house = rows.find((each) => each.id === row.house);
    const texts = ids.flatMap((each): WorkingCopy[] => {
      const found = rows.find((other) => other.id === each);
      return found
        ? [
            {
              name: found.name,
              revision: found.revision,
              updatedAt: found.createdAt,
              document: JSON.parse(found.document) as TextDocument,
            },
          ]
        : [];
    });
    return {
      ...summary(row, (await standingsOf(this.database.read, [row])).get(id) ?? 'current'),
      fields: JSON.parse(row.recipient) as Record<string, string>,
      answers: JSON.parse(row.answers) as Record<string, unknown>,
      texts,
      // Messages begun before there was a house are in the plain one.
      house: house ? (JSON.parse(house.document) as House) : PLAIN_HOUSE,
      signature: row.signature ?? undefined,
    };
  }

  save(id: string, { recipient, answers }: SaveFill, asker: Asker): Promise<FillSummary> {
    return this.database.write(async (writer) => {
      const [row] = await writer.select().from(schema.fills).where(ownFill(id, asker));
      if (!row) throw notFound('message');
      const changed: Row = {
        ...row,
        recipient: JSON.stringify(recipient),
        answers: JSON.stringify(answers),
        state: 'unfinished',
        updatedAt: new Date().toISOString(),
      };
      await writer.update(schema.fills).set(changed).where(eq(schema.fills.id, id));
      return summary(changed, (await standingsOf(writer, [changed])).get(id) ?? 'current');
    });
  }

  bin(id: string, binned: boolean, asker: Asker): Promise<void> {
    return this.database.write(async (writer) => {
      const changed = await writer
        .update(schema.fills)
        .set({ binnedAt: binned ? new Date().toISOString() : null })
        .where(and(eq(schema.fills.id, id), eq(schema.fills.person, asker.id)));
      if (changed.rowsAffected === 0) throw notFound('message');
    });
  }

  /** Renders the message and records that it was handed over. With blanks only when asked to. */
  async handOver(
    id: string,
    { way, timezone, incomplete }: HandOver,
    asker: Asker,
  ): Promise<{ result: HandedOver; eml: Uint8Array | undefined; name: string }> {
    const fill = await this.get(id, asker);
    if (fill.standing === 'withdrawn')
      throw new RequestProblem(
        409,
        'withdrawn',
        'This wording was withdrawn and must not be sent. Begin the message anew.',
      );
    const profile = await this.people.profile(asker);
    const now = new Date();
    const zone = timezone ?? 'UTC';
    const message = this.render(fill, senderFields(profile), dayIn(now, zone), zone);
    if (!message.ready && !incomplete)
      throw new RequestProblem(422, 'not-ready', this.whyNot(message), {
        blanks: message.blanks,
        findings: message.findings,
      });
    const from = mailboxOf(profile);
    // What a message shows was seen when its template was: it needs no right of its own.
    const assets = await this.assets.source(assetsOf(message));
    const eml =
      way === 'draft'
        ? await withAssets(() => toEml(message, { date: now, draft: true, assets, ...(from ? { from } : {}) }))
        : undefined;
    const at = now.toISOString();
    await this.database.write(async (writer) => {
      await writer.insert(schema.handedOver).values({
        id: randomUUID(),
        fillId: id,
        way,
        subject: message.subject,
        recipients: JSON.stringify(message.to),
        html: message.html,
        plain: message.text,
        at,
      });
      await writer.update(schema.fills).set({ state: 'handed over', updatedAt: at }).where(eq(schema.fills.id, id));
    });
    const { subject, to, text, blanks, findings } = message;
    // A clipboard takes no files along.
    const html = inlined(message.html, assets);
    return { result: { subject, to, html, text, blanks, findings, at }, eml, name: `${fill.text}.eml` };
  }

  private render(fill: Fill, sender: Record<string, string>, today: string, zone: string): Message {
    const [own] = fill.texts;
    if (!own) throw notFound('template');
    const library = { get: (name: string) => fill.texts.find((each) => each.name === name)?.document };
    return render(compile(own, { library, house: fill.house, senderSignature: fill.signature }), {
      recipient: fill.fields,
      sender,
      answers: fill.answers,
      today,
      zone,
    });
  }

  private whyNot(message: Message): string {
    if (message.blanks.length > 0) return `Still blank: ${message.blanks.join(', ')}.`;
    return message.findings.find((finding) => finding.level === 'error')?.message ?? 'The message is not ready.';
  }

  private async row(id: string, asker: Asker): Promise<Row> {
    const [row] = await this.database.read.select().from(schema.fills).where(ownFill(id, asker));
    if (!row) throw notFound('message');
    return row;
  }
}

function summary(row: Row, standing: FillStanding): FillSummary {
  const fields = JSON.parse(row.recipient) as Record<string, string>;
  const name = [fields.first_name, fields.last_name].filter(Boolean).join(' ') || fields.name || fields.email || '';
  return {
    id: row.id,
    text: row.text,
    title: row.title,
    recipient: name,
    state: row.state,
    updatedAt: row.updatedAt,
    version: row.version ?? undefined,
    standing,
  };
}

/** Unfinished and handed-over messages are seen by nobody but whose they are. */
const ownFill = (id: string, asker: Asker) =>
  and(eq(schema.fills.id, id), eq(schema.fills.person, asker.id), isNull(schema.fills.binnedAt));

/** Throws words where no message can be begun: a 404 where the asker may not see the text. */
async function demandOffered(reader: Reader | Writer, name: string, today: string, asker: Asker): Promise<void> {
  const row = await rowOf(reader, name);
  const access = await accessOf(reader, asker);
  if (!row || row.binnedAt !== null || row.kind !== 'message' || !access.may('fill', row.folder))
    throw notFound('template');
  if (isOffered(row, today)) return;
  if (row.published === null) {
    if (!access.may('write', row.folder)) throw notFound('template');
    throw new RequestProblem(
      422,
      'not-published',
      `“${row.title}” is not published yet. Publish it, then it can be filled.`,
    );
  }
  throw new RequestProblem(
    422,
    'not-offered',
    row.retiredAt !== null
      ? `“${row.title}” is retired.${row.replacedBy ? ` “${row.replacedBy}” takes its place.` : ''}`
      : `“${row.title}” is outside the dates it is offered for.`,
  );
}

/** What became of the versions that messages were begun on. A withdrawn block withdraws them as their template would. */
async function standingsOf(reader: Reader | Writer, rows: readonly Row[]): Promise<Map<string, FillStanding>> {
  const { texts, versions } = schema;
  const found = new Map<string, FillStanding>();
  if (rows.length === 0) return found;
  const names = [...new Set(rows.map((row) => row.text))];
  const current = new Map(
    (
      await reader
        .select({ name: texts.name, published: texts.published })
        .from(texts)
        .where(inArray(texts.name, names))
    ).map((each) => [each.name, each.published]),
  );
  const withdrawn = await reader
    .select({ text: versions.text, number: versions.number, frozen: versions.frozen })
    .from(versions)
    .where(isNotNull(versions.withdrawnAt));
  for (const row of rows) {
    const frozen = new Set(JSON.parse(row.frozen) as string[]);
    const published = current.get(row.text) ?? undefined;
    const gone = withdrawn.some(
      (each) =>
        (each.text === row.text && each.number === row.version) || (each.text !== row.text && frozen.has(each.frozen)),
    );
    if (gone) found.set(row.id, 'withdrawn');
    else if (published !== undefined && row.version !== null && published > row.version) found.set(row.id, 'newer');
    else found.set(row.id, 'current');
  }
  return found;
}
