/** Series of the demo that are under way: the first message has gone some time ago, the others are still to come. */
import { randomUUID } from 'node:crypto';
import { senderFields, type StartSeries } from '@vocabula/contract';
import { dayFromNumber, dayNumber } from '@vocabula/core';
import { bareAddress } from '@vocabula/core/filling';
import { eq } from 'drizzle-orm';
import { schema, type Database, type Writer } from '../db/database.js';
import { begin } from '../fills/beginning.js';
import { recordOf } from '../fills/records.js';
import { inputOf, messageOf, programOf } from '../fills/rendering.js';
import { fillOf } from '../fills/rows.js';
import { addFills, addHandedOver, changeFill } from '../fills/store.js';
import { profileOf } from '../people/service.js';
import type { User } from '../people/user.js';
import { newMessageId } from '../sending/outbox.js';
import { addCounted, addCounts, addOutgoing } from '../sending/store.js';
import { compiledRun } from '../series/compiled.js';
import { newRun, templatesOf } from '../series/starting.js';
import { addRun } from '../series/store.js';
import { cameOf, type DemoSeries, type DemoUse } from './use.js';

const ZONE = 'Europe/Dublin';
const DAY = 86_400_000;

/** Begins a series in the past, and makes what has come of it since. */
export async function makeSeries(
  database: Database,
  { seed }: DemoUse,
  given: DemoSeries,
  people: ReadonlyMap<string, User>,
  now: Date,
): Promise<void> {
  const user = people.get(given.by);
  if (!user) throw new Error(`The demo has nobody called ${given.by}.`);
  const startedAt = new Date(now.getTime() - given.days_ago * DAY);
  startedAt.setUTCHours(9, seed % 60, 0, 0);
  const answers = Object.fromEntries(
    Object.entries(given.answers).map(([key, value]) => [key, fromToday(value, now)]),
  ) as StartSeries['answers'];
  await database.write(async (writer) => {
    const begun = await begin(writer, given.text, user, [], undefined, 'series');
    const base = { ...begun, person: user.id, zone: ZONE, recipient: given.recipient, answers };
    const compiled = await compiledRun(writer, base);
    const whom = { fields: given.recipient, address: bareAddress(given.recipient.email ?? '') };
    const made = newRun(base, whom, compiled, await templatesOf(writer, compiled, user), startedAt.toISOString());
    await addFills(writer, made.fills);
    const first = await firstGone(writer, made, user, startedAt, now);
    await addRun(writer, made.run, made.steps.map((step) => (step.position === 0 ? { ...step, ...first } : step)));
  });
}

/** The first message of a series, as it went. */
async function firstGone(
  writer: Writer,
  { fills: [fill] }: ReturnType<typeof newRun>,
  user: User,
  at: Date,
  now: Date,
) {
  if (!fill) throw new Error('A series of the demo has no step.');
  const [row] = await writer.select().from(schema.fills).where(eq(schema.fills.id, fill.id));
  if (!row) throw new Error('A series of the demo has no first message.');
  await changeFill(writer, row.id, { state: 'sent', updatedAt: at.toISOString() });
  const whole = await fillOf(writer, row);
  const profile = await profileOf(writer, user.id);
  const moment = { now: at, zone: ZONE };
  const message = messageOf(programOf(whole), whole, profile, moment);
  if (!message.ready) throw new Error(`The first message of a series of the demo lacks ${message.blanks.join(', ')}.`);
  const kept = recordOf(whole, message, inputOf(whole, senderFields(profile), moment), user, 'service');
  const iso = at.toISOString();
  const outgoing = {
    ...{ id: randomUUID(), person: user.id, fill: row.id, address: kept.address ?? '', name: kept.name ?? '' },
    ...{ subject: message.subject, state: 'gone' as const, due: iso, messageId: newMessageId(user.address) },
    ...{ record: kept, createdAt: iso, goneAt: iso },
  };
  const record = { ...kept, id: randomUUID(), fillId: row.id, at: iso, worked: 45, outgoing: outgoing.id };
  await addOutgoing(writer, [outgoing]);
  await addHandedOver(writer, [record]);
  const { counted, counts } = cameOf(outgoing, record.html, now);
  await addCounted(writer, counted);
  // Nobody has answered yet, and nothing came back: the series goes on.
  await addCounts(writer, counts.filter(({ what }) => what === 'opened' || what === 'followed'));
  return { state: 'gone' as const, outgoing: outgoing.id, at: at.toISOString() };
}

const fromToday = (value: string, now: Date): string =>
  /^[+-]\d+$/.test(value) ? (dayFromNumber(dayNumber(now.toISOString().slice(0, 10)) + Number(value)) ?? value) : value;
