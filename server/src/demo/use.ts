/** Half a year of made-up use, the same for the same seed: messages begun, answered, reworded and handed over. */
import { randomUUID } from 'node:crypto';
import { senderFields, type Original, type Profile, type TrialOutcome, type Way } from '@vocabula/contract';
import { plainWords, random, visit, type Inline, type Program, type TextDocument, type Variable } from '@vocabula/core';
import { inlineOf, NO_CHANGES, type FillChanges } from '@vocabula/core/filling';
import { schema, type Database, type Writer } from '../db/database.js';
import { frozenOf } from '../fills/rows.js';
import { begin, type Begun } from '../fills/beginning.js';
import { recordOf } from '../fills/records.js';
import { inputOf, messageOf, programOf } from '../fills/rendering.js';
import { newMessageId } from '../sending/outbox.js';
import type { User } from '../people/user.js';
import { profileOf } from '../people/service.js';
import { addFills, addHandedOver } from '../fills/store.js';
import { conductOf } from '../mailroom/recipient-behaviour.js';
import { addCounted, addCounts, addOutgoing } from '../sending/store.js';

/** A trial that was begun some weeks ago. */
export interface DemoTrial {
  readonly text: string;
  /** Who began it and wrote the messages, by their key. */
  readonly by: string;
  readonly weeks: number;
  /** How the paragraph begins that only the second version has. */
  readonly first_was_without: string;
  /** What was noted of the two versions. */
  readonly notes: readonly [string, string];
  readonly outcome: TrialOutcome;
  readonly matters: number;
  /** The share that answers, by version. */
  readonly answered: Readonly<Record<string, number>>;
  readonly messages: number;
  readonly first_names: readonly string[];
  readonly last_names: readonly string[];
}

/** A series that is under way. */
export interface DemoSeries {
  readonly text: string;
  /** Who began it, by their key. */
  readonly by: string;
  readonly days_ago: number;
  readonly recipient: Readonly<Record<string, string>>;
  /** By the ids of questions; a day is told in days from now, such as `+12`. */
  readonly answers: Readonly<Record<string, string>>;
}

export interface DemoUse {
  readonly seed: number;
  readonly weeks: number;
  readonly people: Readonly<
    Record<string, { readonly a_day: number; readonly templates: Readonly<Record<string, number>> }>
  >;
  readonly reworded: number;
  /** What is written instead, by template: the line that begins so, and wordings of it; null takes it out. */
  readonly rewordings: Readonly<Record<string, Readonly<Record<string, readonly (string | null)[]>>>>;
  readonly service: number;
  readonly mails: Readonly<Record<string, readonly string[]>>;
  /** What is answered to questions for words, by key. */
  readonly words: Readonly<Record<string, readonly string[]>>;
  readonly trials: readonly DemoTrial[];
  readonly series: readonly DemoSeries[];
}

const DAY = 86_400_000;
const ZONE = 'Europe/Dublin';
type Draw = () => number;
const oneOf = <T>(draw: Draw, all: readonly T[]): T => all[Math.floor(draw() * all.length)] as T;
function weighted(draw: Draw, all: Readonly<Record<string, number>>): string {
  const entries = Object.entries(all);
  let left = draw() * entries.reduce((sum, [, weight]) => sum + weight, 0);
  for (const [name, weight] of entries) if ((left -= weight) < 0) return name;
  return entries[0]?.[0] ?? '';
}

export interface Prepared {
  readonly begun: Begun;
  readonly program: Program;
  readonly documents: readonly { readonly name: string; readonly document: TextDocument }[];
  readonly profile: Profile;
  /** The same with changes made by hand in it. */
  readonly programWith: (changes: FillChanges) => Program;
}

/** @param recipients people whom the messages went to */
export async function makeUse(
  database: Database,
  use: DemoUse,
  people: ReadonlyMap<string, User>,
  recipients: readonly Readonly<Record<string, string>>[],
  now: Date,
): Promise<number> {
  const draw = random(use.seed).fraction;
  const prepared = new Map<string, Prepared>();
  let made = 0;
  await database.write(async (writer) => {
    const fills: (typeof schema.fills.$inferInsert)[] = [];
    const records: (typeof schema.handedOver.$inferInsert)[] = [];
    const sent: (typeof schema.outgoing.$inferInsert)[] = [];
    const came: Came[] = [];
    for (let ago = use.weeks * 7; ago > 0; ago -= 1) {
      const day = new Date(now.getTime() - ago * DAY);
      if (day.getUTCDay() === 0 || day.getUTCDay() === 6) continue;
      for (const [key, { a_day, templates }] of Object.entries(use.people)) {
        const user = people.get(key);
        if (!user) continue;
        const count = Math.floor(a_day + draw());
        for (let each = 0; each < count; each += 1) {
          const at = new Date(day);
          at.setUTCHours(8 + Math.floor(draw() * 9), Math.floor(draw() * 60), Math.floor(draw() * 60), 0);
          const text = weighted(draw, templates);
          const id = `${key}/${text}`;
          const ready = prepared.get(id) ?? (await prepare(writer, text, user));
          prepared.set(id, ready);
          const one = message(draw, use, ready, user, oneOf(draw, recipients), at);
          if (!one) continue;
          fills.push(one.fill);
          records.push(one.record);
          if (one.outgoing) {
            sent.push(one.outgoing);
            came.push(cameOf(one.outgoing, one.record.html, now));
          }
          made += 1;
        }
      }
    }
    await addFills(writer, fills);
    await addOutgoing(writer, sent);
    await addCounted(
      writer,
      came.flatMap(({ counted }) => counted),
    );
    await addCounts(
      writer,
      came.flatMap(({ counts }) => counts),
    );
    await addHandedOver(writer, records);
  });
  return made;
}

export interface Came {
  readonly counted: readonly (typeof schema.counted.$inferInsert)[];
  readonly counts: readonly (typeof schema.counts.$inferInsert)[];
}
const COUNTED_AS = { open: 'opened', follow: 'followed', answer: 'answered', bounce: 'bounced' } as const;
/** What became of a message that went, as the made-up recipients conduct themselves; only what has happened by now. */
export function cameOf({ id, messageId, address, due }: typeof schema.outgoing.$inferInsert, html: string, now: Date): Came {
  const links = /<a [^>]*href="https?:/.test(html);
  const token = (what: 'opened' | 'followed', url?: string) => ({ token: randomUUID(), outgoing: id, what, url: url ?? null });
  const counts = conductOf(messageId, address)
    .map(({ what, hours }) => ({ what, at: new Date(Date.parse(due) + hours * 3_600_000) }))
    .filter(({ what, at }) => at <= now && (what !== 'follow' || links))
    .map(({ what, at }) => ({ outgoing: id, what: COUNTED_AS[what], at: at.toISOString() }));
  return {
    counted: [token('opened'), ...(links ? [token('followed', 'https://larkmoor.example/')] : [])],
    counts,
  };
}

/** What messages of a text are made with. @param version one that a trial gives, in place of the one in use */
export async function prepare(writer: Writer, text: string, user: User, version?: number): Promise<Prepared> {
  const begun = await begin(writer, text, user, [], version);
  const { texts, house } = await frozenOf(writer, begun);
  const signature = begun.signature ?? undefined;
  const programWith = (changes: FillChanges): Program => programOf({ texts, house, signature, changes });
  const program = programWith(NO_CHANGES);
  return { begun, program, programWith, documents: texts, profile: await profileOf(writer, user.id) };
}

/** One made-up message: as it was filled, recorded and sent; undefined where made-up answers leave something blank. */
// eslint-disable-next-line max-lines-per-function -- one made-up message, field by field
export function message(
  draw: Draw,
  use: DemoUse,
  { begun, program, programWith, documents, profile }: Prepared,
  user: User,
  recipient: Readonly<Record<string, string>>,
  at: Date,
) {
  const variables = new Map<string, Variable>();
  for (const { document } of documents)
    for (const variable of document.attrs.variables) variables.set(variable.key, variables.get(variable.key) ?? variable);
  const answers = Object.fromEntries(
    [...variables.values()].flatMap((variable) => {
      const value = answerOf(draw, variable, at, use.words);
      return value === undefined ? [] : [[variable.key, value]];
    }),
  );
  const fields = Object.fromEntries(
    Object.entries(recipient).filter(([key]) => !['visit_date', 'party', 'ends', 'amount', 'member'].includes(key)),
  );
  const mails = use.mails[begun.text];
  const original = mails ? originalOf(oneOf(draw, mails), fields, at) : undefined;
  const answered = { fields, answers, offered: {}, original, all: false };
  const moment = { now: at, zone: ZONE };
  const plain = messageOf(program, answered, profile, moment);
  if (!plain.ready) return undefined;
  const changes = draw() < use.reworded ? reworded(documents[0], use.rewordings[begun.text], draw) : NO_CHANGES;
  const rendered = changes === NO_CHANGES ? plain : messageOf(programWith(changes), answered, profile, moment);
  const service = draw() < use.service;
  const way: Way = service ? 'service' : draw() < 0.85 ? 'copy' : 'draft';
  const text = { text: begun.text, version: begun.version ?? undefined, changes };
  const kept = recordOf({ ...answered, ...text }, rendered, inputOf(answered, senderFields(profile), moment), user, way);
  const iso = at.toISOString();
  const fill = {
    ...begun,
    id: randomUUID(),
    person: user.id,
    recipient: fields,
    answers,
    changes,
    original: original ?? null,
    state: service || original ? ('sent' as const) : ('handed over' as const),
    createdAt: new Date(at.getTime() - 30_000 - draw() * 120_000).toISOString(),
    updatedAt: iso,
  };
  const outgoing = service
    ? {
        id: randomUUID(),
        person: user.id,
        fill: fill.id,
        address: kept.address ?? '',
        name: kept.name ?? '',
        subject: rendered.subject,
        state: 'gone' as const,
        due: iso,
        messageId: newMessageId(user.address),
        record: kept,
        createdAt: iso,
        goneAt: iso,
      }
    : undefined;
  // Most take a minute, some much longer: a long tail, as work has.
  const worked = Math.round(18 + 40 * -Math.log(1 - draw() * 0.99));
  const record = { ...kept, id: randomUUID(), fillId: fill.id, at: iso, worked, outgoing: outgoing?.id ?? null };
  return { fill, record, outgoing };
}

/** A line of the template in other words: one that people often change, else one with a sentence more. */
function reworded(
  own: { readonly name: string; readonly document: TextDocument } | undefined,
  often: Readonly<Record<string, readonly (string | null)[]>> = {},
  draw: Draw,
): FillChanges {
  if (!own) return NO_CHANGES;
  const lines: { readonly path: readonly number[]; readonly before: readonly Inline[] }[] = [];
  visit(own.document, (node, path) => {
    if (node.type === 'paragraph' && inlineOf(node).length > 0) lines.push({ path: [...path], before: inlineOf(node) });
  });
  const [sentence, wordings = []] = Object.entries(often)[Math.floor(draw() * Object.keys(often).length)] ?? [];
  const line = lines.find(({ before }) => sentence !== undefined && plainWords(before).includes(sentence));
  const instead = line && draw() < 0.75 ? oneOf(draw, wordings) : undefined;
  if (line && sentence !== undefined && instead !== undefined)
    return rewordedTo(own.name, line, without(line.before, sentence, instead));
  const last = lines[1] ?? lines[0];
  return last
    ? rewordedTo(own.name, last, [...last.before, { type: 'text', text: ' Thank you for your patience.' }])
    : NO_CHANGES;
}
const rewordedTo = (
  text: string,
  { path, before }: { readonly path: readonly number[]; readonly before: readonly Inline[] },
  after: readonly Inline[] | null,
): FillChanges => ({ parts: [], reworded: [{ text, path, before, after, over: {} }] });
/** A line with a sentence of it in other words, or without it. */
function without(before: readonly Inline[], sentence: string, instead: string | null): readonly Inline[] | null {
  const after = before.flatMap((node): Inline[] =>
    node.type === 'text' ? [{ ...node, text: node.text.replace(sentence, instead ?? '').replace(/ {2,}/g, ' ') }] : [node],
  );
  const left = after.filter((node) => node.type !== 'text' || node.text.trim() !== '');
  return left.length > 0 ? after.filter((node) => node.type !== 'text' || node.text !== '') : null;
}

function originalOf(text: string, fields: Readonly<Record<string, string>>, at: Date): Original {
  const name = [fields.first_name, fields.last_name].filter(Boolean).join(' ');
  return {
    subject: text.split(/[.:?]/)[0]?.slice(0, 60) ?? '',
    from: `${name} <${fields.email ?? ''}>`,
    date: new Date(at.getTime() - 3_600_000).toISOString(),
    text,
  };
}

const iso = (at: Date): string => at.toISOString().slice(0, 10);

/** A plausible answer; undefined for what is worked out, or left to its default. */
function answerOf(draw: Draw, variable: Variable, at: Date, words: DemoUse['words']): unknown {
  const { type, from, value, required, options = [] } = variable;
  if (value !== undefined || (from?.startsWith('recipient.') && variable.key === 'first_name')) return undefined;
  if (!required && draw() < 0.4) return undefined;
  const ahead = (least: number, most: number): string => iso(new Date(at.getTime() + (least + Math.floor(draw() * most)) * DAY));
  switch (type) {
    case 'yes-no':
      return draw() < 0.45;
    case 'choice':
      return oneOf(draw, options)?.key;
    case 'choices':
      return options.filter((_, index) => index === 0 || draw() < 0.3).map(({ key }) => key);
    case 'number':
      return Math.round((variable.min ?? 1) + draw() * (Math.min(variable.max ?? 40, 40) - (variable.min ?? 1)));
    case 'money':
      return Math.round(((variable.min ?? 0) + draw() * 120) * 2) / 2;
    case 'date':
      return workday(variable.latest === 'today' ? ahead(-40, 30) : ahead(10, 60));
    case 'datetime':
      return `${ahead(10, 40)}T14:30`;
    case 'time':
      return oneOf(draw, ['09:30', '10:15', '11:00', '13:45', '15:00']);
    case 'paragraphs':
      return required ? 'It was good to hear from you.' : undefined;
    case 'list':
      return undefined;
    default: {
      const known = words[variable.key];
      return known ? oneOf(draw, known) : (variable.example ?? (required ? 'as agreed' : undefined));
    }
  }
}
/** The next day on which anybody works: some questions take no other. */
function workday(day: string): string {
  const at = new Date(`${day}T12:00:00Z`);
  while (at.getUTCDay() === 0 || at.getUTCDay() === 6) at.setTime(at.getTime() + DAY);
  return iso(at);
}

