/** Saving an unfinished message with 50,000 messages sent before, against the same with none. As a ratio of medians. */
import { figure } from './figures.js';
import { addHandedOver } from '../server/src/fills/store.js';
import { makePublished, start, type Started } from '../server/src/testing/start.js';
import { quantile } from './server.js';

const SENT = 50_000;
const ROUNDS = 200;
const WARMING = 20;

/** A server with a message begun, and a way to save it. */
async function begun(): Promise<{
  readonly server: Started;
  readonly fill: string;
  save(turn: number): Promise<number>;
}> {
  const server = await start();
  await makePublished(server, 'Visit');
  const recipient = { email: 'ann@larkmoor.example' };
  const fill = await server.services.fills.start({ text: 'visit', recipient }, server.user);
  return {
    server,
    fill: fill.id,
    async save(turn) {
      const before = performance.now();
      await server.services.fills.save(fill.id, { recipient, answers: { name: `Ann ${turn}` } }, server.user);
      return performance.now() - before;
    },
  };
}

export async function bench(): Promise<void> {
  const [few, many] = [await begun(), await begun()];
  const at = new Date().toISOString();
  const records = Array.from({ length: SENT }, (_, each) => ({
    fillId: many.fill,
    text: 'visit',
    version: 1,
    person: many.server.user.id,
    at,
    way: 'service' as const,
    address: `p${each}@quillmere.example`,
    name: `Ann ${each}`,
    recipients: [`p${each}@quillmere.example`],
    subject: 'Hello',
    html: '<p>Dear Ann,</p>',
    plain: 'Dear Ann,',
    answers: { name: 'Ann' },
  }));
  await many.server.database.write((writer) => addHandedOver(writer, records));
  const [without, withMany]: [number[], number[]] = [[], []];
  for (let turn = 0; turn < ROUNDS + WARMING; turn += 1) {
    const [a, b] = [await few.save(turn), await many.save(turn)];
    if (turn < WARMING) continue;
    without.push(a);
    withMany.push(b);
  }
  const ratio = quantile(withMany, 0.5) / quantile(without, 0.5);
  figure('autosave with 50,000 sent messages, of the same with none', ratio, 1.2);
  console.log(`autosave with ${SENT} sent messages: ${ratio.toFixed(2)}× of the same with none (medians of ${ROUNDS})`);
  await few.server.stop();
  await many.server.stop();
}
