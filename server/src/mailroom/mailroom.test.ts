import { execFileSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import type { Server } from 'node:http';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { makePublished, start, type Started } from '../testing/start.js';
import { count } from 'drizzle-orm';
import { schema } from '../db/database.js';
import { keepWorkspaceValue } from '../people/workspace.js';
import { ClockService } from './clock.js';
import { AHEAD, conductOf } from './recipient-behaviour.js';
import { startStandIn, type StandIn } from './stand-in.js';

let server: Started;
let standIn: StandIn;
let http: Server;
let smtp: string | undefined;
let origin = '';
const VISIT = `---
vocabula: 1
kind: message
title: Visit
subject: Hello
to: "{{recipient.email}}"
---
See [the page](https://larkmoor.example/book?a=1&b=2).
`;
beforeEach(async () => {
  server = await start(undefined, { smtp: () => smtp, isStandIn: () => true, origin: () => origin });
  standIn = await startStandIn(server.services.letters);
  smtp = standIn.url;
  http = server.app.listen(0, '127.0.0.1');
  await new Promise((done) => http.once('listening', done));
  origin = `http://127.0.0.1:${(http.address() as AddressInfo).port}`;
  await makePublished(server, 'Visit', VISIT);
});
afterEach(async () => {
  http.close();
  await server.stop();
  await standIn.close();
});

const inbox = async (done = false) => (await server.call.get(`/api/mailroom/inbox?done=${done}`)).body;
const drop = (words: string | Buffer) =>
  server.call.post('/api/mailroom/drop').set('content-type', 'application/octet-stream').send(Buffer.from(words));
async function sendTo(count: number): Promise<void> {
  const { id } = (await server.call.post('/api/fills').send({ text: 'visit' })).body;
  const made = (await server.call.post('/api/mailings').send({ fill: id })).body.id;
  const paste = Array.from({ length: count }, (_, at) => `p${at}@x.example`).join('\n');
  await server.call.post(`/api/mailings/${made}/recipients`).send({ paste });
  await server.call.post(`/api/mailings/${made}/drive`).send({ act: 'first', count });
  await server.services.courier.run();
  await server.call.post(`/api/mailings/${made}/drive`).send({ act: 'rest' });
  await server.services.courier.run();
}
const counts = async (): Promise<Record<string, number>> => {
  const all: { counts: Record<string, number> }[] = (await server.call.get('/api/outgoing')).body;
  const sum: Record<string, number> = {};
  for (const each of all)
    for (const [what, number] of Object.entries(each.counts)) sum[what] = (sum[what] ?? 0) + number;
  return sum;
};

describe('made-up recipients', () => {
  it('do the same with the same mail, and all that was meant among many', () => {
    const fates = Array.from({ length: 2000 }, (_, at) => conductOf(`<${at}@x.example>`, 'ann@x.example'));
    expect(conductOf('<7@x.example>', 'ann@x.example')).toEqual(fates[7]);
    const share = (what: string): number => fates.filter((each) => each.some((one) => one.what === what)).length / 2000;
    expect(share('bounce')).toBeCloseTo(0.03, 1);
    expect(share('open')).toBeGreaterThan(0.6);
    expect(share('answer')).toBeLessThan(share('open'));
    expect(conductOf('<x>', 'bounce@x.example')).toMatchObject([{ what: 'bounce' }]);
  });

  it('answer and bounce on a clock that is set forward; nothing is counted unless that is turned on', async () => {
    await sendTo(40);
    expect(await inbox()).toEqual([]);
    const { body } = await server.call.post('/api/mailroom/clock').send({ hours: 24 * 7 });
    expect(body.ahead).toBe(7 * 24 * 3_600_000);
    expect(body.happened.answer).toBeGreaterThan(0);
    const came = await inbox();
    expect(came).toHaveLength((body.happened.answer ?? 0) + (body.happened.bounce ?? 0));
    expect(came.map(({ subject }: { subject: string }) => subject)).toContain('Re: Hello');
    const sum = await counts();
    expect([sum.opened, sum.followed]).toEqual([undefined, undefined]);
    expect(sum.answered).toBe(body.happened.answer);
    expect(sum.bounced ?? 0).toBe(body.happened.bounce ?? 0);
    expect((await server.call.post('/api/mailroom/clock').send({ hours: 24 * 7 })).body.happened).toEqual({});
  });

  it.skipIf(!existsSync('/usr/bin/python3'))('bounce with a report that another program reads', async () => {
    const { id } = (await server.call.post('/api/fills').send({ text: 'visit' })).body;
    await server.call.put(`/api/fills/${id}`).send({ recipient: { email: 'bounce@x.example' }, answers: {} });
    await server.call.post(`/api/fills/${id}/hand-over`).send({ way: 'service', at: new Date().toISOString() });
    await server.services.courier.run();
    await server.call.post('/api/mailroom/clock').send({ hours: 24 });
    expect((await counts()).bounced).toBe(1);
    const letters = await server.database.read.select().from(schema.letters);
    const report = letters.find(({ subject }) => subject.startsWith('Undelivered'));
    const script =
      "import sys,email,json; from email import policy; m=email.message_from_bytes(sys.stdin.buffer.read(),policy=policy.default); p=list(m.walk()); s=[x for x in p if x.get_content_type()=='message/delivery-status'][0].get_payload(); print(json.dumps([m.get_content_type(), m.get_param('report-type'), m['subject'], s[1]['Final-Recipient'], s[1]['Status'], [str(d) for x in p for d in x.defects]]))";
    expect(
      JSON.parse(execFileSync('/usr/bin/python3', ['-c', script], { input: report?.raw ?? '' }).toString()),
    ).toEqual([
      ...['multipart/report', 'delivery-status', 'Undelivered: Hello'],
      ...['rfc822; bounce@x.example', '5.1.1', []],
    ]);
  });

  it('fetch the counting addresses once the workspace has them, and are led where the link led', async () => {
    await server.call.put('/api/me/workspace').send({ counting: true });
    await sendTo(40);
    const { body } = await server.call.post('/api/mailroom/clock').send({ hours: 24 * 7 });
    const sum = await counts();
    expect(sum.opened).toBe(body.happened.open);
    expect(sum.followed).toBe(body.happened.follow);
    const [letter] = (await server.call.get('/api/mailroom/letters')).body.filter(
      ({ sender }: { sender: string }) => sender === server.user.address,
    );
    const shown = (await server.call.get(`/api/mailroom/letters/${letter.id}`)).body.html;
    const link = /href="([^"]*\/counted\/link\/[^"]*)"/.exec(shown)?.[1] ?? '';
    const led = await fetch(link, { redirect: 'manual' });
    expect(led.headers.get('location')).toBe('https://larkmoor.example/book?a=1&b=2');
  });
});

describe('two processes on one database', () => {
  it('let each thing happen once, and count it once', async () => {
    await server.call.put('/api/me/workspace').send({ counting: true });
    await sendTo(40);
    await server.database.write((writer) => keepWorkspaceValue(writer, AHEAD, 7 * 24 * 3_600_000));
    const clocks = [0, 1].map(
      () =>
        new ClockService(
          server.database,
          () => true,
          () => origin,
        ),
    );
    const [one = {}, two = {}] = await Promise.all(clocks.map((clock) => clock.tick()));
    const together = (what: string): number => (one[what] ?? 0) + (two[what] ?? 0);
    const { opened, followed, answered } = await counts();
    expect(opened).toBeGreaterThan(0);
    expect([opened, followed, answered]).toEqual([together('open'), together('follow'), together('answer')]);
    const [intentions] = await server.database.read.select({ done: count() }).from(schema.intentions);
    expect(together('open') + together('follow') + together('answer') + together('bounce')).toBe(intentions?.done);
  });
});

describe('incoming mail', () => {
  it('is dropped in as a mail or a mailbox, and dealt with', async () => {
    expect((await drop('From: Ann Lee <ann@x.example>\r\nSubject: One\r\n\r\nHello there\r\n')).body).toEqual({
      taken: 1,
      problems: [],
    });
    const box =
      'From a Thu Jan  1 00:00:00 2026\nFrom: Bo <bo@x.example>\nSubject: Two\nMessage-ID: <2@x.example>\n\nx\n\nFrom b Thu Jan  1 00:00:00 2026\nFrom: Bo <bo@x.example>\nSubject: Re: Two\nReferences: <2@x.example>\n\ny\n';
    expect((await drop(box)).body.taken).toBe(2);
    expect((await drop(Buffer.from([0, 1, 2, 3]))).status).toBe(422);
    const came = await inbox();
    expect(came.map(({ subject, thread }: { subject: string; thread: number }) => [subject, thread])).toEqual(
      expect.arrayContaining([
        ['One', 1],
        ['Two', 2],
        ['Re: Two', 2],
      ]),
    );
    await server.call.patch(`/api/mailroom/letters/${came[0].id}`).send({ done: true });
    expect(await inbox()).toHaveLength(2);
    expect(await inbox(true)).toHaveLength(3);
  });

  it('badly formed is shown as it came, and never as somebody else’s', async () => {
    await server.services.letters.take('', [server.user.address], Buffer.from('no headers at all'));
    const [letter] = await inbox();
    expect((await server.call.get(`/api/mailroom/letters/${letter.id}`)).body).toMatchObject({
      broken: expect.stringMatching(/\w/),
    });
    const other = await server.as('colleague');
    expect((await other.get(`/api/mailroom/letters/${letter.id}`)).status).toBe(404);
    expect((await other.get('/api/mailroom/inbox')).body).toEqual([]);
  });

  it('is answered: the sender, the subject and the thread are carried over, and it is dealt with when that goes', async () => {
    await makePublished(
      server,
      'Answer',
      VISIT.replace('title: Visit', 'title: Answer\npurpose: reply').replace('subject: Hello\n', ''),
    );
    await drop(
      'From: Ann Lee <ann@x.example>\r\nTo: desk@larkmoor.example\r\nSubject: RE: Our visit\r\nMessage-ID: <q@x.example>\r\n\r\nMay we come on 14 June 2027?\r\n',
    );
    const [letter] = await inbox();
    const read = (await server.call.get(`/api/fills/read/${letter.id}`)).body;
    expect([read.original.subject, read.recipient.email]).toEqual(['RE: Our visit', 'ann@x.example']);
    const fill = (await server.call.post('/api/fills').send({ text: 'answer', letter: letter.id })).body;
    expect(fill.fields).toMatchObject({ first_name: 'Ann', email: 'ann@x.example' });
    const handed = (await server.call.post(`/api/fills/${fill.id}/hand-over`).send({ way: 'copy' })).body;
    expect([handed.subject, handed.to]).toEqual(['Re: Our visit', ['Ann Lee <ann@x.example>']]);
    expect(handed.text).toContain('> May we come on 14 June 2027?');
    const eml = await server.call
      .post(`/api/fills/${fill.id}/hand-over`)
      .send({ way: 'draft' })
      .buffer()
      .parse((answer, done) => {
        const chunks: Buffer[] = [];
        (answer as unknown as NodeJS.ReadableStream)
          .on('data', (chunk: Buffer) => chunks.push(chunk))
          .on('end', () => done(null, Buffer.concat(chunks)));
      });
    expect(String(eml.body)).toContain('In-Reply-To: <q@x.example>');
    expect(await inbox()).toEqual([]);
  });
});
