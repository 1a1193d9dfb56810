/** Which templates are likely meant: what went to this recipient before, and what answered mails like this one. */
import type { ReadOriginal } from '@vocabula/contract';
import { fold } from '@vocabula/core';
import { bareAddress } from '@vocabula/core/filling';
import { and, desc, eq, isNotNull } from 'drizzle-orm';
import { schema, type Reader } from '../db/database.js';

/** How many answered mails are compared with. */
const COMPARED = 300;
const MOST = 4;
/** Less in common than this is chance. */
const LEAST = 0.12;

/** The names of templates that went to an address, the last first. */
export async function usedFor(reader: Reader, address: string): Promise<string[]> {
  const { handedOver } = schema;
  const rows = await reader
    .select({ text: handedOver.text })
    .from(handedOver)
    .where(eq(handedOver.address, bareAddress(address)))
    .orderBy(desc(handedOver.at))
    .limit(40);
  return [...new Set(rows.map(({ text }) => text))].filter(Boolean).slice(0, MOST);
}

/**
 * Templates by which mails like this one were answered, the likeliest first: by the words both have, rare ones more
 * (cosine of tf–idf weights, Salton and Buckley 1988).
 */
export async function usedToAnswer(reader: Reader, words: string): Promise<{ name: string; like: string }[]> {
  const { fills } = schema;
  const rows = await reader
    .select({ text: fills.text, original: fills.original })
    .from(fills)
    .where(and(isNotNull(fills.original), eq(fills.state, 'sent')))
    .orderBy(desc(fills.updatedAt))
    .limit(COMPARED);
  const answered = rows.map(({ text, original }) => {
    const { subject = '', text: body = '' } = original ?? {};
    return { text, subject, counts: countsOf(`${subject} ${body}`) };
  });
  const own = countsOf(words);
  const seen = new Map<string, number>();
  for (const { counts } of answered) for (const word of counts.keys()) seen.set(word, (seen.get(word) ?? 0) + 1);
  const weight = (counts: ReadonlyMap<string, number>): Map<string, number> =>
    new Map(
      [...counts].map(([word, count]) => [
        word,
        (1 + Math.log(count)) * Math.log((1 + answered.length) / (1 + (seen.get(word) ?? 0)) + 1),
      ]),
    );
  const mine = weight(own);
  const best = new Map<string, { score: number; like: string }>();
  for (const { text, subject, counts } of answered) {
    const score = cosine(mine, weight(counts));
    if (score >= LEAST && score > (best.get(text)?.score ?? 0)) best.set(text, { score, like: subject });
  }
  return [...best]
    .sort(([, a], [, b]) => b.score - a.score)
    .slice(0, MOST)
    .map(([name, { like }]) => ({ name, like }));
}

function countsOf(text: string): Map<string, number> {
  const counts = new Map<string, number>();
  for (const word of fold(text.slice(0, 20_000)).match(/[\p{L}]{3,}/gu) ?? []) {
    // The beginning of a word stands for its forms, in whatever language.
    const stem = word.slice(0, 6);
    counts.set(stem, (counts.get(stem) ?? 0) + 1);
  }
  return counts;
}

function cosine(a: ReadonlyMap<string, number>, b: ReadonlyMap<string, number>): number {
  let both = 0;
  for (const [word, weight] of a) both += weight * (b.get(word) ?? 0);
  const length = (of: ReadonlyMap<string, number>): number =>
    Math.sqrt([...of.values()].reduce((sum, weight) => sum + weight * weight, 0));
  return both === 0 ? 0 : both / (length(a) * length(b));
}

/** What is likely meant in answer to a mail, with the reason in words. Texts the user may not fill are left out later. */
export async function likelyFor(
  reader: Reader,
  { subject, from, text }: ReadOriginal['original'],
): Promise<{ name: string; why: string }[]> {
  const answers = (await usedToAnswer(reader, `${subject} ${text}`)).map(({ name, like }) => ({
    name,
    why: `answered “${like.slice(0, 60)}”`,
  }));
  const before = (await usedFor(reader, from)).map((name) => ({ name, why: 'sent to them before' }));
  return [...answers, ...before]
    .filter(({ name }, at, all) => all.findIndex((each) => each.name === name) === at)
    .slice(0, MOST);
}
