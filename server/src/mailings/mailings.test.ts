import { eq } from 'drizzle-orm';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { readEml } from '@vocabula/mail';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { backUp, restore } from '../db/backup.js';
import { schema } from '../db/database.js';
import { startStandIn, type StandIn } from '../mailroom/stand-in.js';
import { makePublished, start, type Started } from '../testing/start.js';
import { readPasted } from './recipients.js';

let server: Started;
let standIn: StandIn | undefined;
let smtp: string | undefined;
const VISIT = `---
vocabula: 1
kind: message
title: Visit
subject: "Your {{party}} places"
to: "{{recipient.email}}"
variables:
  first_name: { type: text, from: recipient.first_name, required: true }
  party: { type: number, from: recipient.party, required: true }
  gate: { type: choice, required: true, options: { n: { wording: north }, r: { wording: river } } }
---
Dear {{first_name}}, come to the {{gate}} gate.
`;
beforeEach(async () => {
  server = await start(undefined, { smtp: () => smtp, isStandIn: () => true });
  standIn = await startStandIn(server.services.letters);
  smtp = standIn.url;
  await makePublished(server, 'Visit', VISIT);
});
afterEach(async () => {
  await server.stop();
  await standIn?.close();
});

const { outgoing, letters } = schema;
const call = (path: string, body: object) => server.call.post(`/api/mailings${path}`).send(body);
async function make(answers: object = { gate: 'n' }): Promise<string> {
  const { id } = (await server.call.post('/api/fills').send({ text: 'visit' })).body;
  await server.call.put(`/api/fills/${id}`).send({ recipient: {}, answers });
  const made = await call('', { fill: id, timezone: 'UTC' });
  expect(made.status).toBe(201);
  return made.body.id;
}
const people = (count: number): string =>
  `First name,Email,Party\n${Array.from({ length: count }, (_, at) => `P${at},p${at}@x.example,${at + 1}`).join('\n')}\n`;
const rows = async (id: string) => (await server.call.get(`/api/mailings/${id}/rows`)).body;
const progress = async (id: string) => (await server.call.get(`/api/mailings/${id}/progress`)).body;
const drive = (id: string, body: object) => call(`/${id}/drive`, body);
const arrived = async (): Promise<string[]> =>
  (await server.database.read.select({ to: letters.recipients }).from(letters)).flatMap(({ to }) => to).sort();

describe('one message each to many', () => {
  it('sets apart what cannot go, asks what differs of each, and goes first to one, then to the rest, once', async () => {
    const id = await make();
    const { body } = await call(`/${id}/recipients`, { paste: people(5) });
    expect(body.counts).toEqual({ ready: 5 });
    const [first, second] = await rows(id);
    await server.call.patch(`/api/mailings/${id}`).send({ differing: ['gate'] });
    await server.call.patch(`/api/mailings/${id}/rows/${first.id}`).send({ answers: { gate: 'r' } });
    await server.call.patch(`/api/mailings/${id}/rows/${second.id}`).send({ fields: { first_name: '', party: '2' } });
    expect((await progress(id)).apart).toEqual([{ why: 'Still blank: First name.', count: 1 }]);
    expect((await drive(id, { act: 'first', count: 5 })).body.code).toBe('count');
    expect(await arrived()).toEqual([]);
    expect((await drive(id, { act: 'first', count: 4 })).status).toBe(200);
    await server.services.courier.run();
    expect(await arrived()).toEqual(['p0@x.example']);
    await drive(id, { act: 'rest' });
    await server.services.courier.run();
    expect(await arrived()).toEqual(['p0@x.example', 'p2@x.example', 'p3@x.example', 'p4@x.example']);
    expect(await progress(id)).toMatchObject({ state: 'done', counts: { gone: 4, apart: 1 } });
    const raws = await server.database.read.select({ raw: letters.raw }).from(letters);
    const texts = await Promise.all(raws.map(async ({ raw }) => (await readEml(raw)).text?.trim()));
    expect(texts).toContain('Dear P0, come to the river gate.');
    expect(texts).toContain('Dear P4, come to the north gate.');
    const record = (await server.call.get('/api/recipients/record?address=p3@x.example')).body.messages;
    expect(record).toMatchObject([{ text: 'visit', version: 1, way: 'many', subject: 'Your 4 places' }]);
  });

  it('takes everybody once, whatever is pasted, and says of the rest what they were', async () => {
    const id = await make({ gate: 'n', party: 3, first_name: 'You' });
    const good = Array.from({ length: 460 }, (_, at) => `Person ${at} <p${at}@x.example>`);
    const bad = Array.from(
      { length: 40 },
      (_, at) => ['nobody', 'a@b@c', 'x@', '<ann@x.example, bo@x.example>'][at % 4] ?? '',
    );
    const { body } = await call(`/${id}/recipients`, { paste: [...good, ...bad].join('\n') });
    expect(body.counts.ready).toBe(460);
    expect(body.broken).toHaveLength(40);
    expect(body.broken[0]).toBe('line 461: nobody');
    const again = await call(`/${id}/recipients`, { paste: 'P0@X.example, new@x.example' });
    expect(again.body.counts.ready).toBe(461);
    expect(again.body.broken.at(-1)).toBe('p0@x.example: there already');
  });

  it('never writes to samples, nor to whom is not to be written to', async () => {
    const id = await make({ gate: 'n', party: 3, first_name: 'You' });
    const upload = (use: string) =>
      server.call
        .post(`/api/tables?use=${use}&title=T`)
        .set('content-type', 'application/octet-stream')
        .send(Buffer.from(people(3)));
    const sample = (await upload('sample')).body.id;
    expect((await call(`/${id}/recipients`, { list: sample })).body.code).toBe('samples');
    await server.call.put('/api/recipients/do-not-write').send({ address: 'p1@x.example', because: 'asked' });
    const list = (await upload('recipients')).body.id;
    const { body } = await call(`/${id}/recipients`, { list, search: 'p' });
    expect([body.counts, body.apart]).toEqual([
      { ready: 2, apart: 1 },
      [{ why: 'on the do-not-write list', count: 1 }],
    ]);
  });

  it('pauses, goes on and stops where it is told to', async () => {
    const id = await make();
    await call(`/${id}/recipients`, { paste: people(6) });
    await drive(id, { act: 'first', count: 6 });
    await server.services.courier.run();
    await drive(id, { act: 'pause' });
    await server.services.courier.run();
    expect(await arrived()).toHaveLength(1);
    expect((await drive(id, { act: 'rest' })).status).toBe(409);
    await drive(id, { act: 'stop' });
    expect((await drive(id, { act: 'go on' })).status).toBe(409);
    await server.services.courier.run();
    expect(await progress(id)).toMatchObject({ state: 'stopped', counts: { gone: 1, 'taken back': 5 } });
    expect(await arrived()).toHaveLength(1);
  });

  it('goes on after a kill in the middle: nobody twice, nobody forgotten', async () => {
    const id = await make();
    await call(`/${id}/recipients`, { paste: people(20) });
    await drive(id, { act: 'first', count: 20 });
    await server.services.courier.run();
    // Killed while five were on their way, of which two had been taken.
    const claimed = (await rows(id)).slice(1, 6);
    await server.database.write(async (writer) => {
      for (const { id: row } of claimed)
        await writer
          .update(outgoing)
          .set({ state: 'sending', claimedBy: 'elsewhere:1', claimedAt: '2026-01-01T00:00:00.000Z' })
          .where(eq(outgoing.id, row));
    });
    for (const { id: row, address } of claimed.slice(0, 2)) {
      const [{ messageId } = { messageId: '' }] = await server.database.read
        .select({ messageId: outgoing.messageId })
        .from(outgoing)
        .where(eq(outgoing.id, row));
      const raw = Buffer.from(`Message-ID: ${messageId}\r\nSubject: Your places\r\nFrom: a@x.example\r\n\r\nHello\r\n`);
      await server.services.letters.take('a@x.example', [address], raw);
    }
    await drive(id, { act: 'rest' });
    await server.services.courier.run();
    await server.services.courier.run();
    expect(await progress(id)).toMatchObject({ state: 'done', counts: { gone: 20 } });
    expect(await arrived()).toEqual(Array.from({ length: 20 }, (_, at) => `p${at}@x.example`).sort());
  });

  it('waits while the service is down, and loses nobody', async () => {
    const id = await make();
    await call(`/${id}/recipients`, { paste: people(5) });
    await drive(id, { act: 'first', count: 5 });
    await server.services.courier.run();
    const there = smtp;
    smtp = 'smtp://127.0.0.1:9';
    await drive(id, { act: 'rest' });
    await server.services.courier.run();
    expect((await progress(id)).state).toBe('going');
    smtp = there;
    await server.database.write((writer) => writer.delete(schema.pauses));
    await server.services.courier.run();
    expect(await progress(id)).toMatchObject({ state: 'done', counts: { gone: 5 } });
    expect(await arrived()).toHaveLength(5);
  });
});

describe('pasted recipients', () => {
  it.each([
    ['Ann Lee <ann@x.example>; bo@x.example', ['ann@x.example', 'bo@x.example'], 0],
    ['Ann\tLee\tann@x.example\nBo\tLi\tbo@x.example', ['ann@x.example', 'bo@x.example'], 0],
    ['Name;Mail\nAnn;ann@x.example\nBo;', ['ann@x.example'], 1],
    ['ann@x.example\n\nnobody\n', ['ann@x.example'], 1],
    ['', [], 0],
  ])('%j', async (words, addresses, broken) => {
    const read = await readPasted(words);
    expect([read.people.map(({ address }) => address), read.broken.length]).toEqual([addresses, broken]);
  });
});

describe('what a mailing that was over holds', () => {
  it('is sent again when that is asked for, and the mailing is over once more', async () => {
    const id = await make();
    await call(`/${id}/recipients`, { paste: people(3) });
    await drive(id, { act: 'first', count: 3 });
    await server.services.courier.run();
    await drive(id, { act: 'rest' });
    const [, second] = await rows(id);
    await server.database.write((writer) =>
      writer.update(outgoing).set({ state: 'refused', why: 'no such mailbox' }).where(eq(outgoing.id, second.id)),
    );
    await server.services.courier.run();
    expect((await progress(id)).state).toBe('done');
    expect((await server.call.patch(`/api/outgoing/${second.id}`).send({ act: 'again' })).body.state).toBe('waiting');
    expect((await progress(id)).state).toBe('going');
    await server.services.courier.run();
    expect([(await progress(id)).state, (await arrived()).length]).toEqual(['done', 3]);
  });
});

describe('a mailing that is stopped while it goes', () => {
  it('stops what is claimed and not yet on its way', async () => {
    const id = await make();
    await call(`/${id}/recipients`, { paste: people(60) });
    await drive(id, { act: 'first', count: 60 });
    await server.services.courier.run();
    await drive(id, { act: 'rest' });
    // All are claimed together; it is stopped once a few have arrived.
    const going = server.services.courier.run();
    while ((await arrived()).length < 4) await new Promise((resolve) => setTimeout(resolve, 5));
    await drive(id, { act: 'stop' });
    await going;
    const { counts } = await progress(id);
    expect(counts.gone).toBe((await arrived()).length);
    expect(counts.gone).toBeLessThan(60);
    expect(counts['taken back']).toBe(60 - counts.gone);
  });
});

describe('a backup that was taken during a mailing', () => {
  it('writes to nobody again when it is restored: what may have gone waits for a decision', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'vocabula-mailing-'));
    const id = await make();
    await call(`/${id}/recipients`, { paste: people(12) });
    await drive(id, { act: 'first', count: 12 });
    await server.services.courier.run();
    await drive(id, { act: 'rest' });
    await backUp(server.url, join(folder, 'copy.db'));
    await server.services.courier.run();
    const before = await arrived();
    expect(before).toHaveLength(12);
    await restore(server.url, join(folder, 'copy.db'));
    await server.database.write((writer) => writer.delete(letters));
    await server.services.courier.run();
    expect(await arrived()).toEqual([]);
    expect(await progress(id)).toMatchObject({ state: 'paused', counts: { uncertain: 11, gone: 1 } });
    await drive(id, { act: 'go on' });
    await server.services.courier.run();
    expect(await arrived()).toEqual([]);
    expect((await drive(id, { act: 'arrived', count: 3 })).body.code).toBe('count');
    expect((await drive(id, { act: 'arrived', count: 11 })).body).toMatchObject({ counts: { gone: 12 } });
    rmSync(folder, { recursive: true });
  });
});
