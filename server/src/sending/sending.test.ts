import type { AddressInfo } from 'node:net';
import PostalMime from 'postal-mime';
import { SMTPServer, type SMTPServerOptions } from 'smtp-server';
import type { SendingService } from '@vocabula/contract';
import { eq } from 'drizzle-orm';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { Database, schema } from '../db/database.js';
import { makeServices } from '../services.js';
import { file, makePublished, start, type Started } from '../testing/start.js';

interface Taken {
  readonly to: readonly string[];
  readonly raw: string;
}
let server: Started;
let smtp: SMTPServer | undefined;
let url: string | undefined;
let taken: Taken[];

/** A mail service that takes what it is given, but for what `options` say. */
async function serve(options: SMTPServerOptions = {}): Promise<void> {
  const made = new SMTPServer({
    authOptional: true,
    disabledCommands: ['AUTH', 'STARTTLS'],
    onData(stream, session, done) {
      const chunks: Buffer[] = [];
      stream.on('data', (chunk: Buffer) => chunks.push(chunk));
      stream.on('end', () => {
        taken.push({
          to: session.envelope.rcptTo.map(({ address }) => address),
          raw: Buffer.concat(chunks).toString(),
        });
        done();
      });
    },
    ...options,
  });
  made.on('error', () => undefined);
  await new Promise<void>((done) => made.listen(0, '127.0.0.1', () => done()));
  smtp = made;
  url = `smtp://127.0.0.1:${(made.server.address() as AddressInfo).port}`;
}
beforeEach(async () => {
  taken = [];
  url = undefined;
  server = await start(undefined, { smtp: () => url });
  await makePublished(server, 'Visit');
});
afterEach(async () => {
  await server.stop();
  smtp?.close();
  smtp = undefined;
});

const { outgoing } = schema;
async function fill(email = 'ann@x.example'): Promise<string> {
  const { id } = (await server.call.post('/api/fills').send({ text: 'visit' })).body;
  await server.call.put(`/api/fills/${id}`).send({ recipient: { email, first_name: 'Ann' }, answers: { name: 'Ann' } });
  return id;
}
const handOver = (id: string, more: object = {}) =>
  server.call.post(`/api/fills/${id}/hand-over`).send({ way: 'service', timezone: 'Europe/Dublin', ...more });
const change = (id: string, body: object) => server.call.patch(`/api/outgoing/${id}`).send(body);
/** As if the time to take it back were over. */
async function send(id: string): Promise<void> {
  await server.database.write((writer) =>
    writer.update(outgoing).set({ due: new Date().toISOString() }).where(eq(outgoing.id, id)),
  );
  await server.services.courier.run();
}
const stateOf = async (id: string): Promise<readonly [state: string, why?: string, attempts?: number]> => {
  const { state, why, attempts } = (await server.call.get(`/api/outgoing/${id}`)).body;
  return [state, why, attempts];
};

describe('a message to the mail service', () => {
  it('waits to be taken back, goes once, and is recorded when it has gone', async () => {
    await serve();
    const id = await fill();
    const { outgoing: waiting } = (await handOver(id)).body;
    expect((await stateOf(waiting))[0]).toBe('waiting');
    await server.services.courier.run();
    expect(taken).toEqual([]);
    const record = async () => (await server.call.get('/api/recipients/record?address=ann@x.example')).body.messages;
    expect(await record()).toEqual([]);
    await send(waiting);
    await send(waiting);
    expect(taken.map(({ to }) => to)).toEqual([['ann@x.example']]);
    expect((await server.call.get(`/api/fills/${id}`)).body.state).toBe('sent');
    expect(await record()).toMatchObject([{ text: 'visit', version: 1, way: 'service', subject: 'Hello Ann' }]);
    const mail = await PostalMime.parse(taken[0]?.raw ?? '');
    expect([mail.subject, mail.from?.address, mail.text?.trim()]).toEqual([
      'Hello Ann',
      server.user.address,
      'Dear Ann,',
    ]);
  });

  it('is found in one’s own record by what it went out as, to derive a template from', async () => {
    await serve();
    const { outgoing: gone } = (await handOver(await fill())).body;
    const chosen = async (who: Started['call']) =>
      (await who.post('/api/convert/sent/chosen').send({ outgoing: [gone, 'nothing'] })).body;
    expect(await chosen(server.call)).toEqual([]);
    await send(gone);
    expect(await chosen(server.call)).toMatchObject([
      { subject: 'Hello Ann', html: expect.stringContaining('Dear Ann') },
    ]);
    expect(await chosen(await server.as('author'))).toEqual([]);
  });

  it('is taken back, and never goes then', async () => {
    await serve();
    const id = await fill();
    const { outgoing: waiting } = (await handOver(id)).body;
    expect((await change(waiting, { act: 'take back' })).body.state).toBe('taken back');
    await send(waiting);
    expect(taken).toEqual([]);
    expect((await server.call.get(`/api/fills/${id}`)).body.state).toBe('unfinished');
    expect((await change(waiting, { act: 'now' })).status).toBe(409);
  });

  it('is kept as a draft, or goes at a time that can be changed', async () => {
    await serve();
    const draft = (await handOver(await fill(), { at: 'draft' })).body.outgoing;
    expect((await stateOf(draft))[0]).toBe('draft');
    const at = new Date(Date.now() + 3_600_000).toISOString();
    const later = (await handOver(await fill(), { at })).body.outgoing;
    const sooner = new Date(Date.now() + 1_800_000).toISOString();
    expect((await change(later, { due: sooner })).body).toMatchObject({ state: 'waiting', due: sooner });
    expect((await change(later, { due: '2020-01-01T00:00:00.000Z' })).status).toBe(422);
    await server.services.courier.run();
    expect(taken).toEqual([]);
    expect((await server.call.get('/api/outgoing')).body).toHaveLength(2);
  });

  it('is not given twice, by whatever haste', async () => {
    await serve();
    const id = await fill();
    const answers = await Promise.all([handOver(id), handOver(id), handOver(id)]);
    expect(answers.map(({ status }) => status).sort()).toEqual([200, 409, 409]);
  });

  it('to somebody on the do-not-write list goes by no way, not even when they are put there meanwhile', async () => {
    await serve();
    const never = { address: 'Ann <ANN@x.example>', because: 'asked so' };
    const waiting = (await handOver(await fill())).body.outgoing;
    expect((await server.call.put('/api/recipients/do-not-write').send(never)).status).toBe(204);
    await send(waiting);
    expect((await stateOf(waiting)).slice(0, 2)).toEqual(['refused', expect.stringContaining('do-not-write')]);
    for (const way of ['service', 'copy', 'draft', 'mailto'])
      expect((await handOver(await fill(), { way })).body.code).toBe('do-not-write');
    expect(taken).toEqual([]);
  });
});

const service = async (): Promise<SendingService> => (await server.call.get('/api/outgoing/service')).body;
/** As if all pauses were over. */
const resume = () =>
  server.database.write((writer) => writer.update(schema.pauses).set({ until: '2026-01-01T00:00:00.000Z' }));
const due = () => server.database.write((writer) => writer.update(outgoing).set({ due: new Date().toISOString() }));
const problem = (code: number): Error => Object.assign(new Error('not now'), { responseCode: code });
/** Refuses at any step whose last argument is the callback. */
const refuseWith =
  (code: number) =>
  (...given: unknown[]): void =>
    (given.at(-1) as (error: Error) => void)(problem(code));
const refuseData =
  (code: number): SMTPServerOptions['onData'] =>
  (stream, _session, done) =>
    stream.resume().on('end', () => done(problem(code)));

describe('a mail service in trouble', () => {
  it('down: sending pauses longer and longer, nothing is given up, and it goes when the service is back', async () => {
    url = 'smtp://127.0.0.1:9';
    const waiting = (await handOver(await fill())).body.outgoing;
    await send(waiting);
    expect(await stateOf(waiting)).toMatchObject(['waiting', expect.stringContaining('cannot be reached'), 0]);
    const first = (await service()).pause;
    expect(first).toMatchObject({ everybody: true, why: expect.stringContaining('cannot be reached') });
    await resume();
    await send(waiting);
    const second = (await service()).pause;
    expect(Date.parse(second?.until ?? '') - Date.now()).toBeGreaterThan(Date.parse(first?.until ?? '') - Date.now());
    await serve();
    // Not before the pause is over, unless somebody wants it now.
    await send(waiting);
    expect(taken).toEqual([]);
    await change(waiting, { act: 'now' });
    await send(waiting);
    expect((await stateOf(waiting))[0]).toBe('gone');
    expect([taken.length, (await service()).pause]).toEqual([1, undefined]);
  });

  it.each([
    ['a greeting of 554', { onConnect: refuseWith(554) }],
    ['530 at MAIL', { onMailFrom: refuseWith(530) }],
    ['550 at MAIL', { onMailFrom: refuseWith(550) }],
    ['421 at RCPT', { onRcptTo: refuseWith(421) }],
    ['421 at DATA', { onData: refuseData(421) }],
  ] as const)('%s refuses nobody: sending pauses, and all go afterwards', async (_name, options) => {
    await serve(options as SMTPServerOptions);
    const all = [];
    for (const each of ['a', 'b', 'c']) all.push((await handOver(await fill(`${each}@x.example`))).body.outgoing);
    await due();
    await server.services.courier.run();
    for (const each of all) expect(await stateOf(each)).toMatchObject(['waiting', expect.anything(), 0]);
    expect((await service()).pause?.why).toMatch(/\w/);
    smtp?.close();
    await serve();
    await resume();
    await due();
    await server.services.courier.run();
    for (const each of all) expect((await stateOf(each))[0]).toBe('gone');
  });

  it('not taking one sender: the others’ mail goes', async () => {
    await serve({
      onMailFrom: (from, _session, done) =>
        from.address === server.user.address ? refuseWith(550)(from, _session, done) : done(),
    });
    const mine = (await handOver(await fill())).body.outgoing;
    const other = await server.as('colleague');
    const { id } = (await other.post('/api/fills').send({ text: 'visit' })).body;
    await other.put(`/api/fills/${id}`).send({ recipient: { email: 'bo@x.example' }, answers: { name: 'Bo' } });
    const theirs = (await other.post(`/api/fills/${id}/hand-over`).send({ way: 'service' })).body.outgoing;
    await due();
    await server.services.courier.run();
    expect((await stateOf(mine))[0]).toBe('waiting');
    expect((await other.get(`/api/outgoing/${theirs}`)).body.state).toBe('gone');
    expect((await service()).pause).toMatchObject({ everybody: false });
    expect((await other.get('/api/outgoing/service')).body.pause).toBeUndefined();
  });

  it('refusing one recipient: that one is told, the others go', async () => {
    await serve({
      onRcptTo: ({ address }, _session, done) =>
        address.startsWith('no') ? done(Object.assign(new Error('no such mailbox'), { responseCode: 550 })) : done(),
    });
    const [no, yes] = [
      (await handOver(await fill('no@x.example'))).body.outgoing,
      (await handOver(await fill())).body.outgoing,
    ];
    await server.database.write((writer) => writer.update(outgoing).set({ due: new Date().toISOString() }));
    await server.services.courier.run();
    expect((await stateOf(no)).slice(0, 2)).toEqual(['refused', expect.stringContaining('no such mailbox')]);
    expect((await stateOf(yes))[0]).toBe('gone');
  });

  it('lost after the message and before its answer: nothing goes again until somebody says so', async () => {
    await serve({
      onData(stream, session) {
        stream.resume().on('end', () => {
          taken.push({ to: [], raw: '' });
          const { connections } = smtp as unknown as { connections: Set<{ id: string; _socket: { destroy(): void } }> };
          [...connections].filter(({ id }) => id === session.id).forEach((each) => each._socket.destroy());
        });
      },
    });
    const waiting = (await handOver(await fill())).body.outgoing;
    await send(waiting);
    await server.services.courier.run();
    expect((await stateOf(waiting)).slice(0, 2)).toEqual(['uncertain', expect.stringContaining('lost before it said')]);
    expect(taken).toHaveLength(1);
    expect((await change(waiting, { act: 'take back' })).status).toBe(409);
    expect((await change(waiting, { act: 'arrived' })).body.state).toBe('gone');
  });

  it('that is uncertain stays so, whatever becomes of the others', async () => {
    await serve({
      onRcptTo: ({ address }, _session, done) =>
        done(
          address.startsWith('ann') ? undefined : Object.assign(new Error('no such mailbox'), { responseCode: 550 }),
        ),
    });
    const uncertain = (await handOver(await fill())).body.outgoing;
    await server.database.write((writer) => writer.update(outgoing).set({ state: 'uncertain', why: 'nobody knows' }));
    const refused = (await handOver(await fill('bo@x.example'))).body.outgoing;
    await send(refused);
    expect((await stateOf(refused))[0]).toBe('refused');
    expect((await stateOf(uncertain)).slice(0, 2)).toEqual(['uncertain', 'nobody knows']);
  });

  it('left by a process that was killed: what it was sending is set apart, or found out where the stand-in keeps it', async () => {
    await serve();
    const waiting = (await handOver(await fill())).body.outgoing;
    const killed = { state: 'sending' as const, claimedBy: 'elsewhere:1', claimedAt: '2026-01-01T00:00:00.000Z' };
    await server.database.write((writer) => writer.update(outgoing).set(killed));
    await server.services.courier.run();
    expect((await stateOf(waiting))[0]).toBe('uncertain');
    expect(taken).toEqual([]);
    expect((await change(waiting, { act: 'again' })).body.state).toBe('waiting');
    await send(waiting);
    expect(taken).toHaveLength(1);
  });
});

describe('two processes', () => {
  it('a slow service: a live claim is renewed, and its row is never called uncertain or sent twice', async () => {
    await server.stop();
    const claims = { renew: 40, stale: 150 };
    server = await start(undefined, { smtp: () => url, claims });
    await makePublished(server, 'Visit');
    let answer = (): void => undefined;
    const answered = new Promise<void>((resolve) => (answer = resolve));
    await serve({
      onData(stream, session, done) {
        stream.resume().on('end', () => {
          taken.push({ to: session.envelope.rcptTo.map(({ address }) => address), raw: '' });
          void answered.then(() => done());
        });
      },
    });
    const waiting = (await handOver(await fill())).body.outgoing;
    await due();
    // Another process on the same database, as its own name shows.
    const other = await Database.open(server.url);
    const { courier, workers } = makeServices(other, { smtp: () => url, claims });
    const sending = server.services.courier.run();
    for (let at = 0; at < 6; at += 1) {
      await new Promise((resolve) => setTimeout(resolve, 90));
      await courier.run();
      expect((await stateOf(waiting))[0]).toBe('sending');
      expect((await change(waiting, { act: 'again' })).status).toBe(409);
    }
    answer();
    await sending;
    await courier.run();
    expect([taken.length, (await stateOf(waiting))[0]]).toEqual([1, 'gone']);
    await courier.stop();
    await workers.close();
    await other.close();
  });
});

describe('what a message may hold', () => {
  it('is refused with words: no address, line breaks in one, nothing that is attached', async () => {
    await serve();
    for (const email of ['', 'ann@x.example\r\nBcc: eve@x.example', 'ann']) {
      const answer = await handOver(await fill(email));
      expect([email, answer.status]).toEqual([email, 422]);
    }
    await makePublished(
      server,
      'With file',
      file('With file', 'Dear {{name}},', 'attachments:\n  - { file: assets/gone.pdf, name: plan }\n'),
    );
    const { id } = (await server.call.post('/api/fills').send({ text: 'with-file' })).body;
    await server.call.put(`/api/fills/${id}`).send({ recipient: { email: 'ann@x.example' }, answers: { name: 'Ann' } });
    const answer = await handOver(id);
    expect([answer.status, answer.body.code]).toEqual([422, 'missing-asset']);
    expect(answer.body.message).toContain('assets/gone.pdf');
    expect(taken).toEqual([]);
  });

  it('brings no header in by a value, and keeps names of any script', async () => {
    await serve();
    await makePublished(
      server,
      'Named',
      file('Named').replace('to: "{{recipient.email}}"', 'to: "{{recipient.first_name}} <{{recipient.email}}>"'),
    );
    const { id } = (await server.call.post('/api/fills').send({ text: 'named' })).body;
    const name = '王\u0007\r\nBcc: eve@x.example';
    await server.call
      .put(`/api/fills/${id}`)
      .send({ recipient: { email: 'ann@x.example', first_name: 'Łukasz 王' }, answers: { name } });
    await send((await handOver(id)).body.outgoing);
    const [{ raw, to } = { raw: '', to: [] }] = taken;
    const mail = await PostalMime.parse(raw);
    expect(to).toEqual(['ann@x.example']);
    expect(mail.bcc).toBeUndefined();
    expect(mail.to?.[0]).toMatchObject({ name: 'Łukasz 王', address: 'ann@x.example' });
    expect(mail.subject).not.toMatch(/\p{Cc}/u);
  });
});
