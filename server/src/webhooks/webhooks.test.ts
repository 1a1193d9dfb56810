/** Webhooks: told once, signed, tried again, and never in the way of what they tell of. */
import { execFileSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import type { NewWebhook, Webhook } from '@vocabula/contract';
import { pino } from 'pino';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { Database, schema } from '../db/database.js';
import { addCounts } from '../sending/store.js';
import { makePublished, start, type Started } from '../testing/start.js';
import { WebhookSender } from './sender.js';

interface Told {
  readonly headers: Readonly<Record<string, string | string[] | undefined>>;
  readonly text: string;
  readonly body: {
    readonly id: string;
    readonly event: string;
    readonly recipient?: string;
    readonly template?: string;
  };
}
let server: Started;
let receiver: Server;
let url: string;
let told: Told[];
/** What the other program answers, one after the other; 204 when there is nothing left. */
let answers: number[];
beforeEach(async () => {
  [told, answers] = [[], []];
  receiver = createServer((request, response) => {
    const chunks: Buffer[] = [];
    request.on('data', (chunk: Buffer) => chunks.push(chunk));
    request.on('end', () => {
      const text = Buffer.concat(chunks).toString();
      told.push({ headers: request.headers, text, body: JSON.parse(text) as Told['body'] });
      response.writeHead(answers.shift() ?? 204, { location: '/elsewhere' }).end();
    });
  });
  await new Promise<void>((done) => receiver.listen(0, '127.0.0.1', done));
  url = `http://127.0.0.1:${(receiver.address() as AddressInfo).port}/hook`;
  server = await start();
  await makePublished(server, 'Visit');
});
afterEach(async () => {
  await server.stop();
  receiver.close();
});

const make = async (events: readonly string[] = ['handed over', 'sent', 'answered', 'bounced']): Promise<NewWebhook> =>
  (await server.call.post('/api/webhooks').send({ url, events })).body;
const list = async (): Promise<Webhook[]> => (await server.call.get('/api/webhooks')).body;
async function handOver(email = 'ann@x.example'): Promise<void> {
  const { id } = (await server.call.post('/api/fills').send({ text: 'visit' })).body;
  await server.call.put(`/api/fills/${id}`).send({ recipient: { email }, answers: { name: 'Ann' } });
  expect((await server.call.post(`/api/fills/${id}/hand-over`).send({ way: 'copy' })).status).toBe(200);
}
/** As if a message had gone through the mail service, and this had become of it. */
async function came(...whats: ('answered' | 'bounced' | 'opened')[]): Promise<void> {
  await server.database.write(async (writer) => {
    await writer.run("UPDATE handed_over SET outgoing = 'o1' WHERE address = 'ann@x.example'");
    await addCounts(
      writer,
      whats.map((what) => ({ outgoing: 'o1', what, at: '2027-05-11T09:00:00.000Z' })),
    );
  });
}
const tick = () => server.services.webhooks.sender.tick();
const events = (): string[] => told.map(({ body }) => body.event);

describe('a webhook', () => {
  it('is told of what happens from then on, once, without what the message says', async () => {
    await handOver('before@x.example');
    await make();
    await handOver();
    await tick();
    await tick();
    expect(told.map(({ body }) => body)).toEqual([
      {
        id: expect.any(String),
        event: 'handed over',
        at: expect.any(String),
        message: expect.any(String),
        template: 'visit',
        version: 1,
        recipient: 'ann@x.example',
      },
    ]);
    await came('opened', 'answered', 'bounced');
    await tick();
    expect(events()).toEqual(['handed over', 'answered', 'bounced']);
    const [{ deliveries = [] } = {}] = await list();
    expect(deliveries.map(({ state, attempts }) => [state, attempts])).toEqual([
      ['told', 1],
      ['told', 1],
      ['told', 1],
    ]);
  });

  it('is told of nothing that it was not made for', async () => {
    await make(['answered']);
    await handOver();
    await came('bounced');
    await tick();
    expect(told).toEqual([]);
    await came('answered');
    await tick();
    expect(events()).toEqual(['answered']);
  });

  it.skipIf(!existsSync('/usr/bin/python3'))('is signed so that another program can tell', async () => {
    const { secret } = await make();
    await handOver();
    await tick();
    const [first] = told;
    const { headers = {} as Told['headers'], text = '' } = first ?? {};
    const script =
      "import sys,hmac,hashlib,json; d=json.load(sys.stdin); print('sha256='+hmac.new(d['secret'].encode(), (d['id']+'.'+d['time']+'.'+d['text']).encode(), hashlib.sha256).hexdigest())";
    const input = JSON.stringify({ secret, text, id: headers['vocabula-id'], time: headers['vocabula-time'] });
    expect(execFileSync('/usr/bin/python3', ['-c', script], { input }).toString().trim()).toBe(
      headers['vocabula-signature'],
    );
    expect(JSON.stringify(await list())).not.toContain(secret);
  });

  it('is tried again under the same id until it is taken, and given up in the end', async () => {
    const sender = new WebhookSender(server.database, pino({ level: 'silent' }), [0, 0]);
    await make();
    answers = [500, 302, 200];
    await handOver();
    await sender.tick();
    expect((await list())[0]?.deliveries).toMatchObject([{ state: 'waiting', why: 'It answered 500.', attempts: 1 }]);
    await sender.tick();
    await sender.tick();
    expect(new Set(told.map(({ body }) => body.id)).size).toBe(1);
    expect((await list())[0]?.deliveries).toMatchObject([{ state: 'told', why: '', attempts: 3 }]);
    answers = [500, 500, 500, 500];
    await handOver();
    for (let tries = 0; tries < 5; tries += 1) await sender.tick();
    expect((await list())[0]?.deliveries[0]).toMatchObject({ state: 'given up', attempts: 3 });
    expect(told).toHaveLength(6);
  });

  it('waits where nobody listens, and keeps nobody from handing over', async () => {
    receiver.close();
    await make();
    await handOver();
    await tick();
    expect((await list())[0]?.deliveries).toMatchObject([{ state: 'waiting', why: 'It could not be reached.' }]);
  });

  it('that does not answer keeps no other one waiting, nor is it called for everything that waits', async () => {
    const dead = createServer((request) => void request.resume().on('end', () => (called += 1)));
    let called = 0;
    await new Promise<void>((done) => dead.listen(0, '127.0.0.1', done));
    const silent = `http://127.0.0.1:${(dead.address() as AddressInfo).port}/hook`;
    await server.call.post('/api/webhooks').send({ url: silent, events: ['handed over'] });
    await make();
    for (let at = 0; at < 3; at += 1) await handOver(`p${at}@x.example`);
    const began = Date.now();
    const done = tick();
    while (told.length < 3 && Date.now() - began < 8000) await new Promise((resolve) => setTimeout(resolve, 50));
    expect(told).toHaveLength(3);
    dead.closeAllConnections();
    await done;
    expect(called).toBe(1);
    dead.close();
  });

  it('is told once where two processes look at one moment', async () => {
    await make();
    await handOver();
    const second = await Database.open(server.url);
    const other = new WebhookSender(second, pino({ level: 'silent' }));
    await Promise.all([tick(), other.tick(), tick(), other.tick()]);
    await Promise.all([tick(), other.tick()]);
    expect(told).toHaveLength(1);
    await second.close();
  });

  it('keeps up with many at once, and keeps the last fifty to be looked at', async () => {
    await make();
    await handOver();
    await server.database.write(async (writer) => {
      const [row] = await writer.select().from(schema.handedOver);
      if (row)
        for (let at = 0; at < 1200; at += 1) await writer.insert(schema.handedOver).values({ ...row, id: `m${at}` });
    });
    for (let turns = 0; turns < 26; turns += 1) await tick();
    expect(told).toHaveLength(1201);
    expect(new Set(told.map(({ body }) => body.id)).size).toBe(1201);
    expect((await server.database.read.select().from(schema.webhookDeliveries)).length).toBe(50);
  });

  it('is tried out, taken away, and for administrators alone', async () => {
    const { id } = await make();
    const tried = (await server.call.post(`/api/webhooks/${id}/try`)).body as Webhook;
    expect(tried.deliveries).toMatchObject([{ event: 'test', state: 'told' }]);
    expect(events()).toEqual(['test']);
    expect((await server.call.delete(`/api/webhooks/${id}`)).status).toBe(204);
    await handOver();
    await tick();
    expect(events()).toEqual(['test']);
    expect(await list()).toEqual([]);
    const author = await server.as('author');
    expect((await author.get('/api/webhooks')).status).toBe(403);
    for (const bad of ['ftp://x.example', 'x.example', 'https://'])
      expect((await server.call.post('/api/webhooks').send({ url: bad, events: ['sent'] })).status).toBe(400);
  });
});
