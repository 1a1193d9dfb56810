/** Trials of the demo: a text in two versions, and what came of them among made-up newcomers. */
import { random, plainWords, type Block, type TextDocument } from '@vocabula/core';
import { inlineOf } from '@vocabula/core/filling';
import type { Database } from '../db/database.js';
import { addFills, addHandedOver } from '../fills/store.js';
import type { User } from '../people/user.js';
import { addCounted, addCounts, addOutgoing } from '../sending/store.js';
import { versionFor } from '../trials/assignment.js';
import { addTrial, type TrialRow } from '../trials/store.js';
import { cameOf, message, prepare, type Came, type DemoTrial, type DemoUse, type Prepared } from './use.js';

const HOUR = 3_600_000;
const WEEK = 7 * 24 * HOUR;

/** A document without the paragraph of its body that begins so. */
export function withoutParagraph(document: TextDocument, begins: string): TextDocument {
  const isOther = (block: Block): boolean => !plainWords(inlineOf(block)).startsWith(begins);
  return {
    ...document,
    content: document.content.map((part) =>
      part.type === 'body' ? { ...part, content: part.content.filter(isOther) } : part,
    ),
  };
}

/** Begins the trial in the past, and makes what has come of it since. */
export async function makeTrial(
  database: Database,
  use: DemoUse,
  given: DemoTrial,
  people: ReadonlyMap<string, User>,
  now: Date,
): Promise<void> {
  const user = people.get(given.by);
  if (!user) throw new Error(`The demo has nobody called ${given.by}.`);
  const { fraction: draw } = random(use.seed + 1);
  const startedAt = new Date(now.getTime() - given.weeks * WEEK).toISOString();
  const trial: TrialRow = {
    ...{ id: `trial-of-${given.text}`, text: given.text, outcome: given.outcome, matters: given.matters },
    ...{ arms: [1, 2].map((version) => ({ version, weight: 1 })), startedAt, who: user.id, whoName: user.name },
    ...{ endedAt: null, endedBecause: null },
  };
  await database.write(async (writer) => {
    await addTrial(writer, trial);
    const prepared = new Map<number, Prepared>();
    for (const { version } of trial.arms) prepared.set(version, await prepare(writer, given.text, user, version));
    const made = newcomers(given).flatMap((recipient, at) => {
      const when = new Date(Date.parse(startedAt) + ((at + draw()) / given.messages) * (given.weeks * WEEK - 72 * HOUR));
      when.setUTCHours(8 + Math.floor(draw() * 9));
      const version = versionFor(trial, recipient.email);
      const ready = prepared.get(version);
      const one = ready && message(draw, { ...use, service: 1, reworded: 0.05 }, ready, user, recipient, when);
      return one?.outgoing ? [{ ...one, outgoing: one.outgoing, version, answers: draw() }] : [];
    });
    await addFills(writer, made.map(({ fill }) => ({ ...fill, trial: trial.id })));
    await addOutgoing(writer, made.map(({ outgoing }) => outgoing));
    const came = made.map(({ outgoing, record, version, answers }): Came => {
      const { counted, counts } = cameOf(outgoing, record.html, now);
      const share = given.answered[version] ?? 0;
      const at = new Date(Date.parse(outgoing.due) + answers * 48 * HOUR).toISOString();
      const others = counts.filter(({ what }) => what !== 'answered');
      return {
        counted,
        counts: answers < share ? [...others, { outgoing: outgoing.id, what: 'answered', at }] : others,
      };
    });
    await addCounted(writer, came.flatMap(({ counted }) => counted));
    await addCounts(writer, came.flatMap(({ counts }) => counts));
    await addHandedOver(writer, made.map(({ record }) => ({ ...record, trial: trial.id })));
  });
}

/** People who are in no list, each once. */
function newcomers({ first_names: firsts, last_names: lasts, messages }: DemoTrial) {
  const bare = (name: string): string => name.toLowerCase().normalize('NFD').replace(/[^a-z]/g, '');
  return Array.from({ length: Math.min(messages, firsts.length * lasts.length) }, (_, at) => {
    const first_name = firsts[at % firsts.length] ?? '';
    const last_name = lasts[Math.floor(at / firsts.length)] ?? '';
    return { first_name, last_name, email: `${bare(first_name)}.${bare(last_name)}@newcomers.example` };
  });
}
