/** `/api/v1` as another program sees it: with a key of its own, what that person may see, and nothing kept. */
import { PROGRAM_ENDPOINTS } from '@vocabula/contract';
import request from 'supertest';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { schema } from '../db/database.js';
import { blockFile, file, makePublished, makeText, publish, start, type Started } from '../testing/start.js';

let server: Started;
let key: string;
beforeEach(async () => {
  server = await start();
  key = (await server.call.post('/api/me/keys').send({ title: 'Form', scopes: ['read', 'render', 'publish'] })).body
    .key;
});
afterEach(() => server.stop());

const calls = (with_ = key) => ({
  get: (path: string) => request(server.app).get(`/api/v1${path}`).set('authorization', `Bearer ${with_}`),
  post: (path: string, body: object) =>
    request(server.app).post(`/api/v1${path}`).set('authorization', `Bearer ${with_}`).send(body),
});
const put = (with_: string, path: string, body: object) =>
  request(server.app).put(`/api/v1${path}`).set('authorization', `Bearer ${with_}`).send(body);
const VISIT = `---
vocabula: 1
kind: message
title: Group visit
call: visit
subject: "Your visit on {{day}}"
to: "{{recipient.email}}"
variables:
  day: { type: date, required: true, label: Day of the visit }
  guide: { type: yes-no, default: false }
  walk: { type: choice, options: { short: { label: Short }, long: { label: Long } } }
---
Dear {{recipient.first_name}}, come on {{day}}.{{#guide}} Your walk is {{walk}}.{{/guide}}
`;

describe('the document of the interface', () => {
  it('describes every endpoint with its parameters, its body and its answers', async () => {
    const { body } = await request(server.app).get('/api/v1/openapi.json');
    expect(body.openapi).toBe('3.1.0');
    const described = Object.entries(body.paths as Record<string, Record<string, { operationId: string }>>).flatMap(
      ([path, methods]) =>
        Object.entries(methods).map(([method, { operationId }]) => [method.toUpperCase(), path, operationId]),
    );
    expect(described.sort()).toEqual(
      Object.entries(PROGRAM_ENDPOINTS)
        .map(([name, { id }]) => [...name.replace('/v1', '').split(' '), id])
        .sort(),
    );
    const render = body.paths['/texts/{name}/render'].post;
    expect(render.parameters).toMatchObject([{ name: 'name', in: 'path', required: true }]);
    expect(render.requestBody.content['application/json'].schema.properties).toHaveProperty('answers');
    expect(Object.keys(render.responses)).toEqual(expect.arrayContaining(['200', '401', '403', '404']));
  });
  it('is read by people too, without a key', async () => {
    const page = await request(server.app).get('/api/v1');
    expect(page.status).toBe(200);
    expect(page.headers['content-type']).toContain('text/html');
    for (const { summary } of Object.values(PROGRAM_ENDPOINTS)) expect(page.text).toContain(summary.split(',')[0]);
  });
});

describe('texts', () => {
  it('are listed by name, a page at a time, published ones alone', async () => {
    for (const title of ['Delta', 'Alpha', 'Charlie', 'Bravo']) await makePublished(server, title);
    await makePublished(server, 'Echo', blockFile('Echo', 'Hello'));
    await makeText(server, 'Hidden');
    const first = await calls().get('/texts?limit=2');
    expect(first.body.texts.map(({ name }: { name: string }) => name)).toEqual(['alpha', 'bravo']);
    expect(first.body.next).toBe('bravo');
    const rest = await calls().get(`/texts?limit=10&after=${first.body.next}`);
    expect(rest.body.texts.map(({ name }: { name: string }) => name)).toEqual(['charlie', 'delta', 'echo']);
    expect(rest.body).not.toHaveProperty('next');
    const blocks = await calls().get('/texts?kind=block');
    expect(blocks.body.texts.map(({ name }: { name: string }) => name)).toEqual(['echo']);
    for (const wrong of ['limit=0', 'limit=501', 'limit=many', 'kind=letter'])
      expect((await calls().get(`/texts?${wrong}`)).status).toBe(400);
  });
  it('are given as files of the format, which can be taken in again', async () => {
    await server.call.post('/api/texts/import').send({ files: [{ file: 'group-visit.md', content: VISIT }] });
    await publish(server, 'group-visit');
    const { body } = await calls().get('/texts/group-visit');
    expect(body).toMatchObject({ name: 'group-visit', kind: 'message', call: 'visit', version: 1, offered: true });
    expect(body.file).toContain('Dear {{recipient.first_name}}, come on {{day}}.');
    const other = await start();
    try {
      const files = [{ file: 'group-visit.md', content: body.file }];
      const taken = await other.call.post('/api/texts/import').send({ files });
      expect(taken.body).toMatchObject([{ name: 'group-visit', outcome: 'new', findings: [] }]);
    } finally {
      await other.stop();
    }
  });
  it('are found by words, and say how they begin', async () => {
    await makePublished(server, 'Group visit', VISIT);
    const { body } = await calls().get('/search?q=visit%20come');
    expect(body.texts).toMatchObject([{ name: 'group-visit', title: 'Group visit' }]);
    expect(body.texts[0].opening).toContain('come on');
    expect((await calls().get('/search?q=')).status).toBe(400);
  });
  it('that are not published, in the bin or not there are all the same: not there', async () => {
    await makeText(server, 'Hidden');
    await makePublished(server, 'Binned');
    await server.call.delete('/api/texts/binned');
    for (const name of ['hidden', 'binned', 'nothing'])
      for (const answer of [await calls().get(`/texts/${name}`), await calls().post(`/texts/${name}/render`, {})])
        expect([name, answer.status, answer.body.code]).toEqual([name, 404, 'not-found']);
  });
});

describe('filling', () => {
  beforeEach(() => makePublished(server, 'Group visit', VISIT));
  it('begins with the questions, which answers make and unmake', async () => {
    const asked = async (answers: object): Promise<string[]> =>
      (await calls().post('/texts/group-visit/questions', { answers })).body.questions.map(
        ({ key: each }: { key: string }) => each,
      );
    expect(await asked({})).toEqual(['day', 'guide']);
    expect(await asked({ guide: true })).toEqual(['day', 'guide', 'walk']);
    const { body } = await calls().post('/texts/group-visit/questions', { answers: { guide: true } });
    expect(body.questions[0]).toEqual({ key: 'day', type: 'date', label: 'Day of the visit', required: true });
    expect(body.questions[2].options).toEqual([
      { key: 'short', label: 'Short' },
      { key: 'long', label: 'Long' },
    ]);
  });
  it('ends with the message as it would be handed over, and keeps nothing of it', async () => {
    const { body } = await calls().post('/texts/group-visit/render', {
      recipient: { first_name: 'Ann & Bo', email: 'ann@x.example' },
      answers: { day: '2027-05-11', guide: true, walk: 'long' },
    });
    expect(body).toMatchObject({ version: 1, ready: true, to: ['ann@x.example'], blanks: [], findings: [] });
    expect(body.subject).toBe('Your visit on 11 May 2027');
    expect(body.text).toBe('Dear Ann & Bo, come on 11 May 2027. Your walk is Long.\n');
    expect(body.html).toContain('Dear Ann &amp; Bo');
    const kept = await server.database.read.select().from(schema.fills);
    expect(kept).toEqual([]);
  });
  it('says what is blank and what is wrong, with codes', async () => {
    const blank = await calls().post('/texts/group-visit/render', {});
    expect(blank.body).toMatchObject({ ready: false, blanks: ['day'] });
    const wrong = await calls().post('/texts/group-visit/render', { answers: { day: '31 February' } });
    expect(wrong.body.findings).toMatchObject([{ code: 'bad-value', level: 'error' }]);
  });
  it('is of the day that is given, in the zone that is given', async () => {
    await makePublished(
      server,
      'Today',
      file('Today', 'It is {{d}}.')
        .replace('name: { type: text, required: true }', 'd: { type: date, value: "today()" }')
        .replaceAll('Hello {{name}}', 'S'),
    );
    const day = (await calls().post('/texts/today/render', { today: '2027-12-24', timezone: 'Pacific/Auckland' })).body;
    expect(day.text).toContain('24 December 2027');
    for (const wrong of [{ today: '24.12.2027' }, { timezone: 'Middle/Earth' }, { surprise: 1 }])
      expect([400, 422]).toContain((await calls().post('/texts/today/render', wrong)).status);
  });
});

describe('publishing', () => {
  it('makes a version of the revision that was looked at, and of no other', async () => {
    const { name, revision } = await makeText(server, 'Visit');
    const stale = await calls().post(`/texts/${name}/publish`, { revision: revision + 1, note: 'Too early' });
    expect([stale.status, stale.body.code]).toEqual([409, 'stale-revision']);
    const done = await calls().post(`/texts/${name}/publish`, { revision, note: 'By a program' });
    expect(done.body).toEqual({ version: 1 });
    const { versions } = (await server.call.get(`/api/versions/${name}`)).body;
    expect(versions).toMatchObject([{ number: 1, note: 'By a program' }]);
  });
});

describe('a key', () => {
  it('does what its scopes say and no more, for each endpoint', async () => {
    await makePublished(server, 'Visit');
    const paths: Record<string, () => Promise<request.Response>> = {};
    for (const scope of ['read', 'render', 'begin', 'recipients', 'publish'] as const) {
      const { body } = await server.call.post('/api/me/keys').send({ title: scope, scopes: [scope] });
      const { get, post } = calls(body.key);
      Object.assign(paths, {
        'GET /v1/texts': () => get('/texts'),
        'GET /v1/search': () => get('/search?q=visit'),
        'GET /v1/texts/{name}': () => get('/texts/visit'),
        'POST /v1/texts/{name}/questions': () => post('/texts/visit/questions', {}),
        'POST /v1/texts/{name}/render': () => post('/texts/visit/render', {}),
        'POST /v1/messages': () => post('/messages', { template: 'nowhere' }),
        'GET /v1/messages': () => get('/messages'),
        'GET /v1/lists': () => get('/lists'),
        'PUT /v1/lists/{id}/recipients': () =>
          put(body.key, '/lists/nobody/recipients', { recipients: [{ email: 'a@x.example' }] }),
        'POST /v1/series': () => post('/series', { series: 'nowhere', recipients: [{ email: 'a@x.example' }] }),
        'GET /v1/series/{id}': () => get('/series/nobody'),
        'POST /v1/series/{id}/stop': () => post('/series/nobody/stop', {}),
        'POST /v1/texts/{name}/publish': () => post('/texts/visit/publish', { revision: 99, note: 'x' }),
      });
      for (const [name, endpoint] of Object.entries(PROGRAM_ENDPOINTS)) {
        const { status } = await (paths[name] as () => Promise<request.Response>)();
        expect([scope, name, status === 403]).toEqual([scope, name, endpoint.scope !== scope]);
      }
    }
  });
  it('sees what its person sees: nothing of folders that are closed to them', async () => {
    const folder = (await server.call.post('/api/folders').send({ parent: 'root', title: 'Board' })).body.id;
    await server.call.patch(`/api/folders/${folder}`).send({ inherits: false });
    await makeText(server, 'Secret', file('Secret'), folder);
    await publish(server, 'secret');
    const colleague = await server.as('colleague');
    const theirs = (await colleague.post('/api/me/keys').send({ title: 'K', scopes: ['read', 'render'] })).body.key;
    expect((await calls(theirs).get('/texts')).body.texts).toEqual([]);
    expect((await calls(theirs).get('/texts/secret')).status).toBe(404);
    expect((await calls(theirs).post('/texts/secret/render', {})).status).toBe(404);
    expect((await calls().get('/texts/secret')).body.folder).toMatch(/\/Board$/);
  });
  it.each(['', 'Bearer', 'Bearer nonsense', 'Basic YTpi', 'Bearer  x y'])(
    'that is none is refused: %j',
    async (header) => {
      const answer = await request(server.app).get('/api/v1/texts').set('authorization', header);
      expect([answer.status, answer.body.code]).toEqual([401, expect.any(String)]);
    },
  );
});

describe('what a program does in somebody’s name', () => {
  const all = async (): Promise<string> =>
    (await server.call.post('/api/me/keys').send({ title: 'Desk', scopes: ['read', 'begin', 'recipients'] })).body.key;

  it('begins a message with answers, which stands in Fill and is handed over there', async () => {
    const api = calls(await all());
    await makePublished(server, 'Group visit', VISIT);
    const begun = await api.post('/messages', {
      template: 'group-visit',
      recipient: { first_name: 'Ann', email: 'ann@form.example' },
      answers: { day: '2027-05-11', colour: 'green' },
    });
    expect([begun.status, begun.body]).toEqual([
      201,
      { id: expect.any(String), path: `/fill/${begun.body.id}`, version: 1, notes: ['Nothing here asks for colour.'] },
    ]);
    const fill = (await server.call.get(`/api/fills/${begun.body.id}`)).body;
    expect(fill).toMatchObject({ state: 'unfinished', recipient: 'Ann', answers: { day: '2027-05-11' } });
    expect((await api.get('/messages')).body).toEqual({ messages: [] });
    await server.call.post(`/api/fills/${begun.body.id}/hand-over`).send({ way: 'copy' });
    const { messages } = (await api.get('/messages')).body;
    expect(messages).toMatchObject([
      { template: 'group-visit', version: 1, recipient: 'ann@form.example', way: 'copy' },
    ]);
    expect(messages[0]).not.toHaveProperty('answered');
    expect((await api.post('/messages', { template: 'nowhere' })).status).toBe(404);
  });

  it('reads outcomes a page at a time, each with when it first came, and nobody else’s', async () => {
    const api = calls(await all());
    await makePublished(server, 'Group visit', VISIT);
    const ids: string[] = [];
    for (let at = 0; at < 5; at += 1) {
      const { id } = (
        await api.post('/messages', {
          template: 'group-visit',
          recipient: { email: `p${at}@form.example` },
          answers: { day: '2027-05-11' },
        })
      ).body;
      await server.call.post(`/api/fills/${id}/hand-over`).send({ way: 'copy' });
      ids.push(id);
    }
    const first = (await api.get('/messages?limit=2')).body;
    const second = (await api.get(`/messages?limit=2&after=${first.next}`)).body;
    const third = (await api.get(`/messages?limit=2&after=${second.next}`)).body;
    expect(third).not.toHaveProperty('next');
    const seen = [first, second, third].flatMap(({ messages }) => messages as { recipient: string }[]);
    expect(seen.map(({ recipient }) => recipient)).toEqual(ids.map((_, at) => `p${at}@form.example`));
    // As if one had gone through the mail service, and was answered twice.
    const [row] = await server.database.read.select().from(schema.handedOver);
    await server.database.write(async (writer) => {
      await writer.run(`UPDATE handed_over SET outgoing = 'o1' WHERE id = '${row?.id}'`);
      for (const at of ['2027-05-12T09:00:00.000Z', '2027-05-11T09:00:00.000Z'])
        await writer.insert(schema.counts).values({ outgoing: 'o1', what: 'answered', at });
    });
    const { messages } = (await api.get('/messages')).body as { messages: { id: string; answered?: string }[] };
    expect(messages.find(({ id }) => id === row?.id)?.answered).toBe('2027-05-11T09:00:00.000Z');
    expect((await api.get('/messages?since=2100-01-01T00:00:00Z')).body).toEqual({ messages: [] });
    const other = await server.as('author');
    const theirs = (await other.post('/api/me/keys').send({ title: 'T', scopes: ['read'] })).body.key;
    expect((await calls(theirs).get('/messages')).body).toEqual({ messages: [] });
    expect((await calls(theirs).get(`/messages?after=${first.next}`)).status).toBe(404);
  });

  it('adds people to a list and changes those who are in it, all or none', async () => {
    const with_ = await all();
    const list = (
      await server.call
        .post('/api/tables?use=recipients&title=Leaders')
        .set('content-type', 'application/octet-stream')
        .send(Buffer.from('first_name,email\nAnn,ann@x.example\n'))
    ).body;
    expect((await calls(with_).get('/lists')).body).toEqual({ lists: [{ id: list.id, title: 'Leaders', rows: 1 }] });
    const answer = await put(with_, `/lists/${list.id}/recipients`, {
      recipients: [
        { email: 'ANN@x.example', first_name: 'Anne', party: '12' },
        { email: 'bo@x.example', first_name: 'Bo' },
        { email: 'bo@x.example', party: '3' },
      ],
    });
    expect([answer.status, answer.body]).toEqual([200, { added: 1, changed: 1 }]);
    const rows = async () => (await server.call.get(`/api/tables/${list.id}`)).body.cells;
    expect(await rows()).toMatchObject([
      { first_name: 'Anne', email: 'ann@x.example', party: '12' },
      { first_name: 'Bo', email: 'bo@x.example', party: '3' },
    ]);
    const bad = await put(with_, `/lists/${list.id}/recipients`, {
      recipients: [{ email: 'cy@x.example' }, { first_name: 'Nobody' }],
    });
    expect([bad.status, bad.body.message]).toEqual([422, expect.stringContaining('Nothing was changed')]);
    expect(await rows()).toHaveLength(2);
    const set = (await server.call.post('/api/tables').send({})).body;
    expect(
      (await put(with_, `/lists/${set.id ?? 'nobody'}/recipients`, { recipients: [{ email: 'a@x.example' }] })).status,
    ).toBe(404);
  });

  it('starts a series, sees where it stands, and stops it', async () => {
    await server.stop();
    // Nothing listens there: what is to be sent waits.
    server = await start(undefined, { smtp: () => 'smtp://127.0.0.1:9' });
    const api = calls(await all());
    await makePublished(server, 'Visit');
    const course = '---\nvocabula: 1\nkind: series\ntitle: Course\nsteps:\n  - { text: visit, wait: 3 days }\n---\n';
    await makePublished(server, 'Course', course);
    const answer = await api.post('/series', {
      series: 'course',
      recipients: [{ email: 'ann@x.example' }, { email: 'nobody' }],
      answers: { name: 'Ann' },
    });
    expect([answer.status, answer.body]).toEqual([
      201,
      { started: [expect.any(String)], refused: [expect.stringContaining('nobody')] },
    ]);
    const [id] = answer.body.started;
    expect((await api.get(`/series/${id}`)).body).toEqual({
      ...{ id, series: 'course', recipient: 'ann@x.example', state: 'going', why: '' },
      steps: [{ template: 'visit', state: 'waiting', at: expect.any(String) }],
    });
    expect((await api.post(`/series/${id}/stop`, {})).body).toMatchObject({ state: 'stopped' });
    expect((await api.get('/series/nobody')).status).toBe(404);
  });

  it('may do only what its key may', async () => {
    for (const [path, scope] of [
      ['/messages', 'begin'],
      ['/series', 'begin'],
    ]) {
      const answer = await calls(key).post(path ?? '', {});
      expect([answer.status, answer.body.message]).toEqual([403, expect.stringContaining(scope ?? '')]);
    }
    expect((await calls(key).get('/lists')).status).toBe(403);
  });
});
