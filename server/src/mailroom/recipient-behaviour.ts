/**
 * What made-up recipients do with what they get: some open it, follow a link, answer, some mail bounces. Drawn once from
 * the message and the address, so that the same mail always meets the same fate, and carried out on the stand-in's clock.
 */
import { createHash, randomUUID } from 'node:crypto';
import { schema, type Writer } from '../db/database.js';
import { workspaceValue } from '../people/workspace.js';
import { addIntentions } from './store.js';

type Letter = typeof schema.letters.$inferSelect;
type What = (typeof schema.intentions.$inferInsert)['what'];

const HOUR = 3_600_000;
/** How many of all do it; of those that bounce nobody does anything else. */
const SHARES = { bounce: 0.03, open: 0.68, follow: 0.35, answer: 0.24 };

/** The stand-in's clock is so many milliseconds ahead of ours. */
export const AHEAD = 'stand-in-ahead';
export const aheadOf = async (reader: Parameters<typeof workspaceValue>[0]): Promise<number> =>
  Number((await workspaceValue(reader, AHEAD)) ?? 0);

/** Numbers from 0 to 1, the same for the same words: eight of them, from a digest. */
function drawn(words: string): number[] {
  const digest = createHash('sha256').update(words).digest();
  return Array.from({ length: 8 }, (_, at) => digest.readUInt32BE(at * 4) / 2 ** 32);
}

/** What a recipient will do with a letter, in hours from now. An address that begins with “bounce” always bounces. */
export function conductOf(messageId: string, address: string): { readonly what: What; readonly hours: number }[] {
  const [fate = 0, opens = 0, when = 0, follows = 0, answers = 0, later = 0] = drawn(`${messageId}\n${address}`);
  if (address.startsWith('bounce') || fate < SHARES.bounce) return [{ what: 'bounce', hours: 0.05 + when * 0.5 }];
  if (opens >= SHARES.open) return [];
  // Half of those who open a mail do so in the first hours: a long tail, as real ones have.
  const opened = Math.min(0.2 + 6 * -Math.log(1 - when * 0.98), 72);
  return [
    { what: 'open', hours: opened },
    ...(follows < SHARES.follow ? [{ what: 'follow' as const, hours: opened + 0.1 }] : []),
    ...(answers < SHARES.answer ? [{ what: 'answer' as const, hours: opened + 0.3 + later * 20 }] : []),
  ];
}

/** Writes down what a recipient is going to do. Only addresses that can be nobody’s are made up. */
export async function intend(writer: Writer, letter: Letter, address: string): Promise<void> {
  if (!address.endsWith('.example')) return;
  const begin = Date.parse(letter.at) + (await aheadOf(writer));
  const planned = conductOf(letter.messageId || letter.id, address);
  await addIntentions(
    writer,
    planned.map(({ what, hours }) => ({
      id: randomUUID(),
      letter: letter.id,
      recipient: address,
      what,
      due: new Date(begin + hours * HOUR).toISOString(),
      doneAt: null,
    })),
  );
}

const ANSWERS: readonly string[] = [
  'Thank you, that is very clear. We look forward to it.',
  'Many thanks. One question: is there a place to leave our bags?',
  'Thanks! Could we make it two people more?',
  'Perfect, thank you. I have told the others.',
  'That is kind of you. We will come a little earlier, if we may.',
  'Thank you. I am afraid we have to move it by a week; would that still work?',
];
/** A few words in answer, the same for the same letter and recipient. */
export const answerOf = (messageId: string, address: string): string =>
  ANSWERS[Math.floor((drawn(`${address}\n${messageId}`)[0] ?? 0) * ANSWERS.length)] ?? '';
