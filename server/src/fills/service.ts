/** Messages being filled: begun on frozen documents, kept at every change, rendered here when handed over. */
import { createHash, randomUUID } from 'node:crypto';
import {
  senderFields,
  type Fill,
  type FillSummary,
  type HandedOver,
  type HandOver,
  type SaveFill,
  type StartFill,
  type WorkingCopy,
} from '@vocabula/contract';
import { compile, dayIn, PLAIN_HOUSE, render, type House, type Message, type TextDocument } from '@vocabula/core';
import { inlined, toEml } from '@vocabula/mail';
import { and, desc, eq, inArray, isNull } from 'drizzle-orm';
import { assetsOf, withAssets } from '../assets/brought.js';
import type { AssetService } from '../assets/service.js';
import { closure } from '../catalogue/current.js';
import { schema, type Database, type Writer } from '../db/database.js';
import { currentHouse } from '../house/service.js';
import { notFound, RequestProblem } from '../http/problem.js';
import { mailboxOf, type Asker, type PeopleService } from '../people/service.js';

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
      const own = await closure(writer, text, asker);
      const { front } = own[0]?.document.attrs ?? {};
      if (!front || front.kind !== 'message') throw notFound('template');
      const wanted = front.purpose === 'reply' ? profile.reply_signature : profile.signature;
      const texts = wanted ? await closure(writer, text, asker, [wanted]) : own;
      const now = new Date().toISOString();
      const frozen: string[] = [];
      for (const each of texts) frozen.push(await freeze(writer, each, now));
      const { house, revision } = await currentHouse(writer, asker);
      const frozenHouse = await freeze(writer, { name: HOUSE, revision, document: house }, now);
      const row: Row = {
        id: randomUUID(),
        text,
        title: front.title,
        frozen: JSON.stringify(frozen),
        house: frozenHouse,
        signature: wanted || null,
        recipient: JSON.stringify(recipient),
        answers: JSON.stringify(answers),
        state: 'unfinished',
        createdAt: now,
        updatedAt: now,
        binnedAt: null,
      };
      await writer.insert(schema.fills).values(row);
      return { ...summary(row), fields: recipient, answers, texts, house, signature: wanted || undefined };
    });
  }

  async list(_asker: Asker): Promise<FillSummary[]> {
    const rows = await this.database.read
      .select()
      .from(schema.fills)
      .where(isNull(schema.fills.binnedAt))
      .orderBy(desc(schema.fills.updatedAt))
      .limit(60);
    return rows.map(summary);
  }

  async get(id: string, _asker: Asker): Promise<Fill> {
    const row = await this.row(id);
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
      ...summary(row),
      fields: JSON.parse(row.recipient) as Record<string, string>,
      answers: JSON.parse(row.answers) as Record<string, unknown>,
      texts,
      // Messages begun before there was a house are in the plain one.
      house: house ? (JSON.parse(house.document) as House) : PLAIN_HOUSE,
      signature: row.signature ?? undefined,
    };
  }

  save(id: string, { recipient, answers }: SaveFill, _asker: Asker): Promise<FillSummary> {
    return this.database.write(async (writer) => {
      const [row] = await writer
        .select()
        .from(schema.fills)
        .where(and(eq(schema.fills.id, id), isNull(schema.fills.binnedAt)));
      if (!row) throw notFound('message');
      const changed: Row = {
        ...row,
        recipient: JSON.stringify(recipient),
        answers: JSON.stringify(answers),
        state: 'unfinished',
        updatedAt: new Date().toISOString(),
      };
      await writer.update(schema.fills).set(changed).where(eq(schema.fills.id, id));
      return summary(changed);
    });
  }

  bin(id: string, binned: boolean, _asker: Asker): Promise<void> {
    return this.database.write(async (writer) => {
      const changed = await writer
        .update(schema.fills)
        .set({ binnedAt: binned ? new Date().toISOString() : null })
        .where(eq(schema.fills.id, id));
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
    const assets = await this.assets.source(assetsOf(message), asker);
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

  private async row(id: string): Promise<Row> {
    const [row] = await this.database.read
      .select()
      .from(schema.fills)
      .where(and(eq(schema.fills.id, id), isNull(schema.fills.binnedAt)));
    if (!row) throw notFound('message');
    return row;
  }
}

function summary(row: Row): FillSummary {
  const fields = JSON.parse(row.recipient) as Record<string, string>;
  const name = [fields.first_name, fields.last_name].filter(Boolean).join(' ') || fields.name || fields.email || '';
  return { id: row.id, text: row.text, title: row.title, recipient: name, state: row.state, updatedAt: row.updatedAt };
}

/** The name that a frozen house has among frozen texts, whose names have no dot. */
const HOUSE = 'house.yaml';

/** Keeps one state of a document, or of the house, as a row that nothing changes; the same state is kept once. */
async function freeze(
  writer: Writer,
  { name, revision, document }: { name: string; revision: number; document: TextDocument | House },
  createdAt: string,
): Promise<string> {
  const json = JSON.stringify(document);
  const digest = createHash('sha256').update(json).digest('hex');
  const [known] = await writer
    .select({ id: schema.frozen.id })
    .from(schema.frozen)
    .where(and(eq(schema.frozen.name, name), eq(schema.frozen.digest, digest)));
  if (known) return known.id;
  const id = randomUUID();
  await writer.insert(schema.frozen).values({ id, name, revision, digest, document: json, createdAt });
  return id;
}
