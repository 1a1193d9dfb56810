/**
 * A mailing of 1,000 messages through a mail service that refuses, stalls, drops and dies at random, by two processes on
 * one database that are killed at random: who was written to, how often, and of how many nobody knows. Nothing is timed.
 */
import type { AddressInfo } from 'node:net';
import { SMTPServer } from 'smtp-server';
import { readText } from '@vocabula/core/markdown';
import { startServer, stopServer, temporaryFolder, type RunningServer } from './server.js';

const MESSAGES = 1000;
const KILLS = 5;
/** How often the service fails in each way, of all messages. */
const SHARES = { refuse: 0.02, later: 0.02, dropBefore: 0.02, stall: 0.003, dropAfter: 0.001, greeting: 0.01 };
/** The longest that the whole may take, in milliseconds. */
const PATIENCE = 15 * 60_000;

const wait = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));
const says = (code: number, words: string): Error => Object.assign(new Error(words), { responseCode: code });

export async function bench(): Promise<void> {
  /** What was taken, by recipient, whether the answer arrived or not. */
  const taken = new Map<string, number>();
  const refused = new Set<string>();
  const drop = (id: string): void => {
    const { connections } = smtp as unknown as { connections: Set<{ id: string; _socket: { destroy(): void } }> };
    for (const each of connections) if (each.id === id) each._socket.destroy();
  };
  const smtp = new SMTPServer({
    authOptional: true,
    disabledCommands: ['AUTH', 'STARTTLS'],
    onConnect: (_session, done) => (Math.random() < SHARES.greeting * 10 ? done(says(554, 'not now')) : done()),
    onRcptTo({ address }, session, done) {
      const chance = Math.random();
      if (address.startsWith('no')) {
        refused.add(address);
        return done(says(550, 'no such mailbox'));
      }
      if (chance < SHARES.later) return done(says(451, 'try again'));
      if (chance < SHARES.later + SHARES.dropBefore) return drop(session.id);
      if (chance < SHARES.later + SHARES.dropBefore + SHARES.stall)
        return void setTimeout(() => drop(session.id), 4000);
      done();
    },
    onData(stream, session, done) {
      stream.resume().on('end', () => {
        for (const { address } of session.envelope.rcptTo) taken.set(address, (taken.get(address) ?? 0) + 1);
        if (Math.random() < SHARES.dropAfter) return drop(session.id);
        done();
      });
    },
  });
  smtp.on('error', () => undefined);
  await new Promise<void>((resolve) => smtp.listen(0, '127.0.0.1', resolve));
  process.env.SMTP_URL = `smtp://127.0.0.1:${(smtp.server.address() as AddressInfo).port}`;

  const folder = temporaryFolder();
  const servers: RunningServer[] = [await startServer(folder), await startServer(folder)];
  const cookie = await (servers[0] as RunningServer).signIn('maeve');
  const call = async (method: string, path: string, body?: unknown): Promise<Record<string, unknown>> => {
    for (;;) {
      const server = servers.find(({ process: { exitCode, signalCode } }) => exitCode === null && signalCode === null);
      const answer = await fetch(`${server?.base}${path}`, {
        method,
        headers: { cookie, ...(body === undefined ? {} : { 'content-type': 'application/json' }) },
        ...(body === undefined ? {} : { body: JSON.stringify(body) }),
      }).catch(() => undefined);
      if (answer?.ok) return (await answer.json()) as Record<string, unknown>;
      if (answer && answer.status < 500 && answer.status !== 409) throw new Error(`${path}: ${await answer.text()}`);
      await wait(300);
    }
  };
  const source =
    '---\nvocabula: 1\nkind: message\ntitle: Faults\nsubject: Hello\nto: "{{recipient.email}}"\n---\nWords\n';
  const made = await call('POST', '/api/texts', {
    kind: 'message',
    title: 'Faults',
    document: readText(source).document,
  });
  await call('POST', `/api/versions/${String(made.name)}/publish`, { revision: made.revision, note: 'x' });
  const fill = await call('POST', '/api/fills', { text: made.name });
  const mailing = await call('POST', '/api/mailings', { fill: fill.id });
  const people = Array.from({ length: MESSAGES }, (_, at) =>
    at % Math.round(1 / SHARES.refuse) === 7 ? `no${at}@x.example` : `p${at}@x.example`,
  );
  const path = `/api/mailings/${String(mailing.id)}`;
  await call('POST', `${path}/recipients`, { paste: people.join('\n') });
  await call('POST', `${path}/drive`, { act: 'first', count: MESSAGES });
  while (((await call('GET', `${path}/progress`)).counts as Record<string, number>).waiting ?? 0) await wait(200);
  await call('POST', `${path}/drive`, { act: 'rest' });

  let kills = 0;
  const begun = Date.now();
  let state: Record<string, unknown> = {};
  while (Date.now() - begun < PATIENCE) {
    state = await call('GET', `${path}/progress`);
    const counts = state.counts as Record<string, number>;
    if (state.state === 'done') break;
    const over = (counts.gone ?? 0) + (counts.refused ?? 0) + (counts.uncertain ?? 0);
    if (kills < KILLS && over > ((kills + 1) * MESSAGES) / (KILLS + 2)) {
      const at = kills % 2;
      await stopServer(servers[at] as RunningServer, 'SIGKILL');
      servers[at] = await startServer(folder);
      kills += 1;
    }
    await wait(300);
  }
  const rows = (await call('GET', `${path}/rows`)) as unknown as { address: string; state: string; why: string }[];
  for (const server of servers) await stopServer(server);
  smtp.close();
  const of = (wanted: string): string[] => rows.filter((row) => row.state === wanted).map(({ address }) => address);
  const [gone, uncertain] = [of('gone'), of('uncertain')];
  const twice = [...taken].filter(([, times]) => times > 1).map(([address]) => address);
  const missing = people.filter(
    (each) => !taken.has(each) && !refused.has(each) && !uncertain.includes(each) && !of('waiting').includes(each),
  );
  console.log(`${MESSAGES} messages, ${kills} processes killed; the mailing is ${String(state.state)}`);
  console.log(
    `gone: ${gone.length}; refused: ${of('refused').length} of ${refused.size}; uncertain: ${uncertain.length} (${((100 * uncertain.length) / MESSAGES).toFixed(1)} %); other: ${rows.length - gone.length - of('refused').length - uncertain.length}`,
  );
  for (const { address, why } of rows.filter((row) => row.state === 'refused' && !refused.has(row.address)))
    console.log(`refused without being refused: ${address}: ${why}`);
  console.log(
    `taken twice: ${twice.length}; gone and never taken: ${gone.filter((each) => !taken.has(each)).length}; nobody knows of, not listed: ${missing.length}`,
  );
}
