/** Real people: who may change their lists, what is shown of what went to them, and forgetting them. */
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { schema } from '../db/database.js';
import { makePublished, start, type Started } from '../testing/start.js';

type Person = Awaited<ReturnType<Started['as']>>;
let server: Started;
let one: Person;
let two: Person;
beforeEach(async () => {
  server = await start(undefined, { smtp: () => 'smtp://127.0.0.1:9' });
  [one, two] = [await server.as('author'), await server.as('author')];
});
afterEach(() => server.stop());

const CSV = 'first_name,email\nAnn,ann@x.example\nBo,bo@x.example\n';
const listOf = async (call: Person, use = 'recipients'): Promise<{ id: string; revision: number }> =>
  (
    await call
      .post(`/api/tables?use=${use}&title=People`)
      .set('content-type', 'application/octet-stream')
      .send(Buffer.from(CSV))
  ).body;
const patch = (call: Person, id: string, revision: number, change: object) =>
  call.patch(`/api/tables/${id}`).send({ revision, changes: [change] });
const privateOf = async (call: Person): Promise<string> =>
  (await call.get('/api/folders')).body.find(({ own }: { own: boolean }) => own).id;

describe('a recipient list', () => {
  it('is changed by its owner and administrators, and every change is in the trail', async () => {
    const { id } = await listOf(one);
    for (const [change, what] of [
      [{ what: 'keep-until', day: '2020-01-01' }, 'dated out'],
      [{ what: 'remove-rows', positions: [0] }, 'emptied'],
      [{ what: 'folder', folder: 'root' }, 'shared'],
    ] as const)
      expect([what, (await patch(two, id, 1, change)).status]).toEqual([what, 403]);
    expect((await two.delete(`/api/tables/${id}`)).status).toBe(403);
    expect((await two.get(`/api/tables/${id}`)).body).toMatchObject({ mayChange: false, mayShare: false, rows: 2 });
    await patch(one, id, 1, { what: 'keep-until', day: '2030-01-01' }).expect(200);
    await server.call.delete(`/api/tables/${id}`).expect(204);
    const trail = (await server.call.get(`/api/audit?target=${id}`)).body;
    expect(trail.map(({ act }: { act: string }) => act)).toEqual(['binned', 'changed', 'made']);
  });
  it('is changed by those who write in the folder it is shared with, who share it no further', async () => {
    const { id } = await listOf(one);
    await patch(one, id, 1, { what: 'folder', folder: 'root' }).expect(200);
    await server.call
      .patch('/api/folders/root')
      .send({ grants: [{ holder: 'authors', right: 'write' }] })
      .expect(204);
    await patch(two, id, 2, { what: 'title', title: 'Ours' }).expect(200);
    expect((await patch(two, id, 3, { what: 'folder', folder: null })).status).toBe(403);
  });
  it('is nobody’s own sample set, and a private text gets none from others', async () => {
    const folder = await privateOf(one);
    const { name } = await makePublished({ call: one }, 'Mine', undefined, folder);
    const sample = (text: string, use = 'sample') => ({
      use,
      title: 'T',
      columns: [{ key: 'a', name: 'A', type: 'text' }],
      rows: [],
      ownOf: text,
    });
    expect((await two.post('/api/tables/made').send(sample(name))).status).toBe(404);
    expect((await two.post('/api/tables/made').send(sample('nothing'))).status).toBe(404);
    expect((await one.post('/api/tables/made').send(sample(name, 'recipients'))).body.code).toBe('not-samples');
    expect((await one.get('/api/tables')).body).toEqual([]);
    const made = (await one.post('/api/tables/made').send(sample(name))).body;
    expect(made.ownOf).toEqual([name]);
    // The set of a text that one may not write is not one’s to change either.
    expect((await patch(two, made.id, 1, { what: 'title', title: 'X' })).status).toBe(403);
  });
});

describe('what went to somebody', () => {
  it('shows text and subject only of texts that one may see', async () => {
    const folder = await privateOf(one);
    const { name } = await makePublished({ call: one }, 'Private words', undefined, folder);
    const { id } = (await one.post('/api/fills').send({ text: name })).body;
    await one.put(`/api/fills/${id}`).send({ recipient: { email: 'ann@x.example' }, answers: { name: 'Ann' } });
    await one.post(`/api/fills/${id}/hand-over`).send({ way: 'copy' }).expect(200);
    const record = async (call: Person) => (await call.get('/api/recipients/record?address=ann@x.example')).body;
    expect((await record(one)).messages).toMatchObject([{ title: 'Private words', subject: 'Hello Ann' }]);
    const seen = (await record(two)).messages;
    expect(seen).toMatchObject([{ way: 'copy' }]);
    expect(JSON.stringify(seen)).not.toMatch(/Private|Hello/);
  });
});

describe('forgetting somebody', () => {
  it('leaves nothing of theirs in mailings, letters, intentions or mail that was answered', async () => {
    await makePublished(server, 'Visit');
    const { call, services, user } = server;
    await services.letters.take(
      'ann@x.example',
      [user.address],
      Buffer.from('From: Ann Lee <ann@x.example>\r\nSubject: Secret question\r\n\r\nMy words\r\n'),
    );
    await services.letters.take(
      user.address,
      ['ann@x.example'],
      Buffer.from('Subject: Secret answer\r\n\r\nHello\r\n'),
    );
    const [{ id: letter }] = (await call.get('/api/mailroom/inbox')).body;
    const started = (await call.post('/api/fills').send({ text: 'visit', letter })).body.id;
    await call.put(`/api/fills/${started}`).send({ recipient: { email: 'bo@x.example' }, answers: {} });
    const { id } = (await call.post('/api/fills').send({ text: 'visit' })).body;
    const mailing = (await call.post('/api/mailings').send({ fill: id })).body.id;
    await call
      .post(`/api/mailings/${mailing}/recipients`)
      .send({ paste: 'Ann Lee <ann@x.example>\nann@x.example\nbo@x.example, x y\nAnn Lee ann at x' });
    await call.post('/api/recipients/forget').send({ address: 'ann@x.example' }).expect(200);
    const all: unknown[] = [];
    for (const table of [schema.mailings, schema.letters, schema.intentions, schema.fills, schema.outgoing] as const)
      all.push(
        (await server.database.read.select().from(table)).map((row) => ({
          ...row,
          ...('raw' in row ? { raw: String(row.raw ?? '') } : {}),
        })),
      );
    expect(JSON.stringify(all)).not.toMatch(/ann@x\.example|Ann Lee|Secret/);
    expect(JSON.stringify(all)).toContain('bo@x.example');
  });
});
