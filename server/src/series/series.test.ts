/** Series: what goes when, what stops them, and what must never happen to them. */
import type { Run, RunSummary, StartedSeries } from '@vocabula/contract';
import { eq } from 'drizzle-orm';
import { pino } from 'pino';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { Database, schema } from '../db/database.js';
import { startStandIn, type StandIn } from '../mailroom/stand-in.js';
import { makeServices } from '../services.js';
import { addCounts } from '../sending/store.js';
import { documentOf, makePublished, publish, start, type Started } from '../testing/start.js';

let server: Started;
let standIn: StandIn | undefined;
let smtp: string | undefined;
beforeEach(async () => {
  server = await start(undefined, { smtp: () => smtp, isStandIn: () => true });
  standIn = await startStandIn(server.services.letters);
  smtp = standIn.url;
  await makePublished(
    server,
    'Welcome',
    template('Welcome', 'Dear {{name}}, welcome.', 'name: { type: text, required: true }'),
  );
  await makePublished(
    server,
    'News',
    template(
      'News',
      'Dear {{name}}, news of {{topic}}.',
      'name: { type: text }\n  topic: { type: text, required: true }',
    ),
  );
  // Every day and hour is one of work, so that these tests do not depend on when they run.
  const ways = {
    signs: false,
    order: 'together',
    look: 'house',
    images: true,
    tried: true,
    from: '00:00',
    to: '23:59',
    days: [1, 2, 3, 4, 5, 6, 7],
  };
  expect((await server.call.put('/api/me/ways').send(ways)).status).toBeLessThan(300);
});
afterEach(async () => {
  await server.stop();
  await standIn?.close();
  [standIn, smtp] = [undefined, undefined];
});

const template = (title: string, body: string, variables: string) =>
  `---\nvocabula: 1\nkind: message\ntitle: ${title}\nsubject: "${title}"\nto: "{{recipient.email}}"\nvariables:\n  ${variables}\n---\n${body}\n`;
async function series(steps: string, more = ''): Promise<void> {
  await makePublished(
    server,
    'Course',
    `---\nvocabula: 1\nkind: series\ntitle: Course\n${more}steps:\n${steps}\n---\n`,
  );
}
const TWO = '  - { text: welcome }\n  - { text: news, wait: 3 days }';
const ANSWERS = { name: 'Ann', topic: 'the moor' };
const begin = async (body: object = {}) =>
  server.call.post('/api/series').send({
    text: 'course',
    timezone: 'Europe/Dublin',
    answers: ANSWERS,
    to: { people: [{ email: 'ann@x.example', first_name: 'Ann' }] },
    ...body,
  });
async function begun(body: object = {}): Promise<Run> {
  const answer = await begin(body);
  expect(answer.body).toMatchObject({ started: [expect.any(String)] });
  return get((answer.body as StartedSeries).started[0] as string);
}
const get = async (id: string): Promise<Run> => (await server.call.get(`/api/series/${id}`)).body;
const list = async (): Promise<RunSummary[]> => (await server.call.get('/api/series')).body;
const step = (id: string, at: number, body: object) => server.call.patch(`/api/series/${id}/steps/${at}`).send(body);
const states = ({ plan }: Run): string[] => plan.map(({ state }) => state);
const tick = () => server.services.series.runner.tick();
/** As if the time to take back were over. */
async function carry(): Promise<void> {
  const { outgoing } = schema;
  await server.database.write((writer) =>
    writer.update(outgoing).set({ due: new Date().toISOString() }).where(eq(outgoing.state, 'waiting')),
  );
  await server.services.courier.run();
}
/** Sets the clock forward, and does what is due by then. */
async function later(days: number): Promise<void> {
  await carry();
  expect((await server.call.post('/api/mailroom/clock').send({ hours: days * 24 })).status).toBe(200);
  await tick();
  await carry();
}
const letters = async (): Promise<string[]> =>
  (await server.database.read.select().from(schema.letters))
    .filter(({ recipients }) => recipients.includes('ann@x.example'))
    .map(({ subject }) => subject);
/** The stand-in's recipients have no mind of their own in these tests. */
const undecided = () => server.database.write((writer) => writer.delete(schema.intentions));
async function came(id: string, what: 'answered' | 'followed' | 'bounced'): Promise<void> {
  const [row] = await server.database.read.select().from(schema.seriesSteps).where(eq(schema.seriesSteps.run, id));
  await server.database.write((writer) =>
    addCounts(writer, [{ outgoing: row?.outgoing ?? '', what, at: new Date().toISOString() }]),
  );
}

describe('a series', () => {
  it('sends the first at once, the second when it is due, and is done', async () => {
    await series(TWO);
    const run = await begun();
    expect(run).toMatchObject({ state: 'going', steps: 2, gone: 1, next: { at: 1, title: 'News', look: false } });
    await carry();
    await undecided();
    await tick();
    expect(await letters()).toEqual(['Welcome']);
    const due = Date.parse((await get(run.id)).next?.due ?? '') - Date.parse(run.startedAt);
    expect(Math.round(due / 3_600_000)).toBeGreaterThanOrEqual(71);
    await later(2);
    expect(await letters()).toEqual(['Welcome']);
    await later(2);
    expect(await letters()).toEqual(['Welcome', 'News']);
    await tick();
    expect(await get(run.id)).toMatchObject({ state: 'done', gone: 2 });
    const { messages, series: ran } = (await server.call.get('/api/recipients/record?address=ann@x.example')).body;
    expect(messages).toMatchObject([{ text: 'news', version: 1, way: 'service' }, { text: 'welcome' }]);
    expect(ran).toMatchObject([{ title: 'Course', state: 'done', gone: 2, steps: 2 }]);
    // Its messages are nobody's unfinished ones.
    expect((await server.call.get('/api/fills')).body).toEqual([]);
  });

  it('asks for what it needs at its beginning on the day, where that was left open', async () => {
    await series('  - { text: welcome }\n  - { text: news, later: [topic] }');
    const run = await begun({ answers: { name: 'Ann' } });
    await carry();
    await tick();
    const waiting = await get(run.id);
    expect(waiting.next).toMatchObject({ at: 1, look: true, why: 'Still blank: Topic.' });
    expect((await list())[0]?.next?.look).toBe(true);
    const { fill } = waiting.plan[1] ?? {};
    const { fields, answers } = (await server.call.get(`/api/fills/${fill}`)).body;
    await server.call
      .put(`/api/fills/${fill}`)
      .send({ recipient: fields, answers: { ...answers, topic: 'the geese' } });
    expect((await server.call.get(`/api/series/${run.id}/steps/1`)).body).toMatchObject({
      blanks: [],
      text: expect.stringContaining('the geese'),
    });
    expect(states((await step(run.id, 1, { act: 'let go' })).body)).toEqual(['gone', 'gone']);
  });

  it('waits for a look where it says so, and goes then', async () => {
    await series('  - { text: welcome, look: true }');
    const run = await begun();
    expect(run.plan[0]).toMatchObject({ state: 'look', why: 'to be looked at' });
    await tick();
    expect(states(await get(run.id))).toEqual(['look']);
    await step(run.id, 0, { act: 'let go' });
    await carry();
    expect(await letters()).toEqual(['Welcome']);
  });

  it.each([
    ['answered', 'answered'],
    ['bounced', 'a message came back'],
  ] as const)('stops by itself when a message %s', async (what, why) => {
    await series(TWO);
    const run = await begun();
    await carry();
    await undecided();
    await came(run.id, what);
    await tick();
    expect(await get(run.id)).toMatchObject({ state: 'stopped', why });
    await later(4);
    expect(await letters()).toEqual(['Welcome']);
  });

  it('goes on after an answer where it says so, by its conditions', async () => {
    await series(
      '  - { text: welcome }\n  - { text: news, when: "!answered" }\n  - { text: news, when: answered }',
      'on_answer: continue\n',
    );
    const run = await begun();
    await carry();
    await came(run.id, 'answered');
    await tick();
    await carry();
    await tick();
    expect(await get(run.id)).toMatchObject({ state: 'done' });
    expect(states(await get(run.id))).toEqual(['gone', 'left out', 'gone']);
  });

  it('stops for somebody on the do-not-write list, and for what was withdrawn', async () => {
    await series(TWO);
    const run = await begun();
    const other = await begun({ to: { people: [{ email: 'bo@x.example' }] } });
    await carry();
    await server.call.put('/api/recipients/do-not-write').send({ address: 'bo@x.example', because: 'asked' });
    await tick();
    expect(await get(other.id)).toMatchObject({ state: 'stopped', why: 'on the do-not-write list' });
    expect((await get(run.id)).state).toBe('going');
    await server.call.post('/api/versions/news/versions/1/withdraw').send({ because: 'wrong' });
    await tick();
    expect(await get(run.id)).toMatchObject({ state: 'stopped', why: '“News” was withdrawn' });
    expect((await begin({ to: { people: [{ email: 'bo@x.example' }] } })).body).not.toHaveProperty('started');
  });

  it('keeps the versions that it began with', async () => {
    await series(TWO);
    const run = await begun();
    await carry();
    await undecided();
    const { body } = await server.call.get('/api/texts/news');
    const document = JSON.parse(JSON.stringify(body.document).replace('news of', 'tidings of')) as unknown;
    await server.call.put('/api/texts/news').send({ document, revision: body.revision });
    await publish(server, 'news', 'Tidings');
    await later(4);
    const { text } = (await server.call.get(`/api/series/${run.id}/steps/1`)).body;
    expect(text).toContain('news of the moor');
  });

  it('is stopped by hand, and what waits to go of it is taken back', async () => {
    await series(TWO);
    const run = await begun();
    expect((await server.call.post(`/api/series/${run.id}/stop`)).body).toMatchObject({
      state: 'stopped',
      why: expect.stringContaining('stopped by'),
    });
    await carry();
    expect(await letters()).toEqual([]);
    expect((await step(run.id, 1, { act: 'skip' })).status).toBe(409);
  });
});

describe('a step, for one recipient', () => {
  it('is left out, taken in again, moved, and not changed once a later one has gone', async () => {
    await series('  - { text: welcome, wait: 1 day }\n  - { text: news, wait: 2 days }');
    const run = await begun();
    expect(states((await step(run.id, 0, { act: 'skip' })).body)).toEqual(['skipped', 'waiting']);
    expect(states((await step(run.id, 0, { act: 'take in' })).body)).toEqual(['waiting', 'waiting']);
    const due = new Date(Date.now() + 10 * 86_400_000).toISOString();
    const moved = (await step(run.id, 0, { due })).body as Run;
    expect(moved.plan[0]).toMatchObject({ moment: due, moved: true });
    // What is counted from it is counted anew.
    expect(Date.parse(moved.plan[1]?.moment ?? '') - Date.parse(due)).toBeGreaterThan(86_400_000);
    expect((await step(run.id, 0, { due: '2020-01-01T00:00:00Z' })).status).toBe(422);
    await step(run.id, 0, { act: 'skip' });
    await later(3);
    expect(states(await get(run.id))).toEqual(['skipped', 'gone']);
    expect((await step(run.id, 0, { act: 'take in' })).status).toBe(409);
    expect((await step(run.id, 7, { act: 'skip' })).status).toBe(404);
  });

  it('has passed where its day is over when the series begins, and can be sent all the same', async () => {
    await makePublished(
      server,
      'Visit',
      template('Visit', 'On {{visit_date}}.', 'visit_date: { type: date, required: true }'),
    );
    await series('  - { text: welcome }\n  - { text: visit, wait: 3 days before visit_date }');
    const run = await begun({ answers: { ...ANSWERS, visit_date: '2020-05-05' } });
    await carry();
    await tick();
    expect((await get(run.id)).plan[1]).toMatchObject({ state: 'passed', why: 'its day had passed' });
  });

  it('that was handed over by hand is not sent again', async () => {
    await series('  - { text: welcome, wait: 1 day }\n  - { text: news, wait: 9 days }');
    const run = await begun();
    const handed = await server.call
      .post(`/api/fills/${run.plan[0]?.fill}/hand-over`)
      .send({ way: 'copy', timezone: 'UTC' });
    expect(handed.status).toBe(200);
    await later(2);
    expect((await get(run.id)).plan[0]).toMatchObject({ state: 'gone', why: 'handed over by hand' });
    expect(await letters()).toEqual([]);
  });

  it('whose message is taken back waits to be looked at', async () => {
    await series(TWO);
    const run = await begun();
    const [waiting] = (await server.call.get('/api/outgoing')).body as { id: string }[];
    await server.call.patch(`/api/outgoing/${waiting?.id}`).send({ act: 'take back' });
    await tick();
    expect((await get(run.id)).plan[0]).toMatchObject({ state: 'look', why: 'its message was taken back' });
    await step(run.id, 0, { act: 'let go' });
    await carry();
    expect(await letters()).toEqual(['Welcome']);
  });
});

describe('beginning', () => {
  it('is for everybody of a list once, with what their row says, and says who is left out', async () => {
    await series(TWO);
    await server.call.put('/api/recipients/do-not-write').send({ address: 'no@x.example', because: 'asked' });
    const paste =
      'email,name,topic\nann@x.example,Ann,bees\nbo@x.example,Bo,mosses\nANN@x.example,Ann,bees\nno@x.example,No,x\nnobody,N,x';
    const { started, refused } = (await begin({ answers: {}, to: { paste } })).body as StartedSeries;
    expect(started).toHaveLength(2);
    expect(refused).toEqual(
      ['line 6: nobody', 'no@x.example: on the do-not-write list'].map((words) =>
        expect.stringContaining(words.split(': ')[1] ?? ''),
      ),
    );
    await carry();
    const messages = await Promise.all(
      started.map(async (id) => (await server.call.get(`/api/series/${id}/steps/1`)).body.text as string),
    );
    expect(messages.map((text) => text.trim().split('\n')[0])).toEqual([
      'Dear Ann, news of bees.',
      'Dear Bo, news of mosses.',
    ]);
    expect((await begin()).body).toMatchObject({ started: [], refused: ['ann@x.example: gets this series already'] });
  });

  it('needs a published series, and rights on it', async () => {
    expect((await begin()).status).toBe(404);
    await series(TWO);
    expect((await begin({ text: 'welcome' })).status).toBe(404);
    expect((await server.call.post('/api/fills').send({ text: 'course' })).status).toBe(404);
    const colleague = await server.as('colleague');
    const run = await begun();
    for (const answer of [
      await colleague.get(`/api/series/${run.id}`),
      await colleague.post(`/api/series/${run.id}/stop`),
      await colleague.patch(`/api/series/${run.id}/steps/1`).send({ act: 'skip' }),
      await colleague.get(`/api/series/${run.id}/steps/1`),
    ])
      expect(answer.status).toBe(404);
    expect((await colleague.get('/api/series')).body).toEqual([]);
  });

  it('is no part of a message, nor a message itself', async () => {
    await series(TWO);
    const { id } = (await server.call.post('/api/fills').send({ text: 'welcome' })).body;
    const stitched = await server.call.post(`/api/fills/${id}/parts`).send({ name: 'course', at: 0 });
    expect(stitched.status).toBe(422);
    expect(stitched.body.message).toContain('it is several messages');
    expect((await server.call.post('/api/fills').send({ text: 'course' })).status).toBe(404);
  });

  it('cannot be published without its templates, nor with a step that cannot be', async () => {
    const bad = documentOf('---\nvocabula: 1\nkind: series\ntitle: Bad\nsteps: [{ text: nowhere }]\n---\n');
    const made = await server.call.post('/api/texts').send({ kind: 'series', title: 'Bad', document: bad });
    const { revision } = made.body;
    const answer = await server.call.post('/api/versions/bad/publish').send({ revision, note: 'x' });
    expect(answer.status).toBe(422);
    expect(answer.body.message).toContain('There is no template “nowhere” for step 1.');
  });
});

describe('whatever happens', () => {
  it('two processes that look at one moment send one', async () => {
    await series('  - { text: welcome, wait: 1 day }');
    const run = await begun();
    const second = await Database.open(server.url);
    const other = makeServices(second, { smtp: () => smtp, isStandIn: () => true, log: pino({ level: 'silent' }) });
    await server.call.post('/api/mailroom/clock').send({ hours: 48 });
    await Promise.all([tick(), other.series.runner.tick(), tick(), other.series.runner.tick()]);
    await Promise.all([server.services.courier.run(), other.courier.run()]);
    expect(await letters()).toEqual(['Welcome']);
    expect((await server.database.read.select().from(schema.outgoing)).length).toBe(1);
    expect(states(await get(run.id))).toEqual(['gone']);
    await second.close();
  });

  it('a process that ends before its transaction is over has sent nothing, and the next goes on', async () => {
    await series('  - { text: welcome, wait: 1 day }');
    const run = await begun();
    await server.call.post('/api/mailroom/clock').send({ hours: 48 });
    const { database } = server;
    const write = database.write.bind(database);
    // Everything that it writes is undone, as when it is killed.
    database.write = ((work: Parameters<typeof write>[0]) =>
      write(async (writer) => {
        await work(writer);
        throw new Error('killed');
      })) as typeof write;
    await tick().catch(() => undefined);
    database.write = write;
    expect(await server.database.read.select().from(schema.outgoing)).toEqual([]);
    await tick();
    await carry();
    expect(await letters()).toEqual(['Welcome']);
    expect(states(await get(run.id))).toEqual(['gone']);
  });

  it('a clock that jumps, back or far ahead, sends nothing twice and nothing early', async () => {
    await series('  - { text: welcome }\n  - { text: news, wait: 3 days }\n  - { text: news, wait: 3 days }');
    const run = await begun();
    await carry();
    await undecided();
    const { runner } = server.services.series;
    const at = async (days: number): Promise<void> => {
      Object.assign(runner, { now: () => Promise.resolve(new Date(Date.now() + days * 86_400_000)) });
      await tick();
      await carry();
      await tick();
    };
    await at(-400);
    expect(await letters()).toEqual(['Welcome']);
    // However far it is, a step is counted from when the one before it went: they do not go all at once.
    await at(400);
    expect(await letters()).toEqual(['Welcome', 'News']);
    await at(0);
    expect(await letters()).toEqual(['Welcome', 'News']);
    await at(404);
    expect((await get(run.id)).gone).toBe(3);
    expect(await letters()).toHaveLength(3);
  });

  it('without a mail service its steps wait, and say so', async () => {
    await series('  - { text: welcome, wait: 1 day }');
    const run = await begun();
    smtp = undefined;
    await server.call.post('/api/mailroom/clock').send({ hours: 48 });
    await tick();
    expect((await get(run.id)).plan[0]).toMatchObject({
      state: 'look',
      why: expect.stringContaining('No mail service'),
    });
  });

  it('forgets somebody, and stops', async () => {
    await series(TWO);
    const run = await begun();
    await carry();
    await server.call.post('/api/recipients/forget').send({ address: 'ann@x.example' });
    const gone = await get(run.id);
    expect(gone).toMatchObject({ state: 'stopped', address: '', name: '' });
    expect(JSON.stringify(await server.database.read.select().from(schema.seriesRuns))).not.toContain('ann@x');
  });
});
