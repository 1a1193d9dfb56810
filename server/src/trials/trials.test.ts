/** Trials: who gets which version, what counts, how they end, and what must not happen to them. */
import type { Fill, FillSummary, MailedRow, Trial } from '@vocabula/contract';
import { eq, sql } from 'drizzle-orm';
import fc from 'fast-check';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { schema } from '../db/database.js';
import { addHandedOver } from '../fills/store.js';
import { startStandIn, type StandIn } from '../mailroom/stand-in.js';
import { addCounted, addCounts } from '../sending/store.js';
import { documentOf, file, makePublished, makeText, publish, start, type Started } from '../testing/start.js';
import { versionFor } from './assignment.js';

let server: Started;
let standIn: StandIn | undefined;
let smtp: string | undefined;
beforeEach(async () => {
  server = await start(undefined, { smtp: () => smtp, isStandIn: () => true });
});
afterEach(async () => {
  await server.stop();
  await standIn?.close();
  [standIn, smtp] = [undefined, undefined];
});

const BODIES = ['Dear {{name}}, the first wording.', 'Dear {{name}}, the second wording.'];
/** A template with two versions, the second in use. */
async function twoVersions(): Promise<void> {
  await makePublished(server, 'Visit', file('Visit', BODIES[0]));
  await rewrite('first wording', 'second wording');
  await publish(server, 'visit', 'Warmer');
}
async function rewrite(from: string, to: string): Promise<void> {
  const { body } = await server.call.get('/api/texts/visit');
  const document = JSON.parse(JSON.stringify(body.document).replace(from, to)) as unknown;
  const answer = await server.call.put('/api/texts/visit').send({ document, revision: body.revision });
  expect(answer.status).toBe(200);
}
const EVEN = [
  { version: 1, weight: 1 },
  { version: 2, weight: 1 },
];
const begin = (body: object = {}, call = server.call) =>
  call.post('/api/versions/visit/trials').send({ arms: EVEN, outcome: 'answered', matters: 0.05, ...body });
async function begun(body: object = {}): Promise<Trial> {
  const answer = await begin(body);
  expect(answer.status).toBe(201);
  return answer.body as Trial;
}
const trials = async (): Promise<Trial[]> => (await server.call.get('/api/versions/visit/trials')).body;
const end = (id: string, body: object = {}) => server.call.post(`/api/versions/visit/trials/${id}/end`).send(body);

const fillFor = async (email: string, more: object = {}): Promise<Fill> =>
  (
    await server.call
      .post('/api/fills')
      .send({ text: 'visit', ...(email === '' ? {} : { recipient: { email } }), answers: { name: 'Ann' }, ...more })
  ).body as Fill;
const save = async (id: string, email: string, more: object = {}): Promise<FillSummary> =>
  (await server.call.put(`/api/fills/${id}`).send({ recipient: { email }, answers: { name: 'Ann' }, ...more }))
    .body as FillSummary;
/** Addresses that get these versions in a trial. */
const addressesOf = (trial: Trial, version: number, count: number): string[] =>
  Array.from({ length: 400 }, (_, at) => `p${at}@x.example`)
    .filter((address) => versionFor(trial, address) === version)
    .slice(0, count);

/** Messages that went, as the trial sees them. @param became what became of each */
async function went(
  { id }: Trial,
  version: number,
  messages: readonly { readonly address: string; readonly became?: readonly string[]; readonly at?: string }[],
): Promise<void> {
  const fill = await fillFor('');
  await server.database.write(async (writer) => {
    for (const [at, { address, became = [], at: when }] of messages.entries()) {
      const outgoing = `${id}-${version}-${at}-${address}`;
      await addHandedOver(writer, [
        {
          ...{ fillId: fill.id, way: 'service', subject: '', recipients: [address], html: '', plain: '' },
          ...{ at: when ?? new Date().toISOString(), text: 'visit', version, trial: id, address, outgoing },
        },
      ]);
      await addCounted(writer, [{ token: `${outgoing}-o`, outgoing, what: 'opened', url: null }]);
      await addCounts(
        writer,
        became.map((what) => ({ outgoing, what: what as 'answered', at: new Date().toISOString() })),
      );
    }
  });
}
const person = (at: number): string => `q${at}@x.example`;
const many = (count: number, answered: number, from = 0) =>
  Array.from({ length: count }, (_, at) => ({ address: person(from + at), became: at < answered ? ['answered'] : [] }));

describe('who gets which version', () => {
  const arms = (weights: readonly number[]) => weights.map((weight, at) => ({ version: at + 1, weight }));

  it('is the same for a recipient each time, and one of the versions', () => {
    fc.assert(
      fc.property(
        fc.uuid(),
        fc.emailAddress(),
        fc.array(fc.integer({ min: 1, max: 100 }), { minLength: 2, maxLength: 3 }),
        (id, address, weights) => {
          const given = versionFor({ id, arms: arms(weights) }, address);
          expect(versionFor({ id, arms: arms(weights) }, address)).toBe(given);
          expect(given).toBeGreaterThanOrEqual(1);
          expect(given).toBeLessThanOrEqual(weights.length);
        },
      ),
    );
  });
  it.each([[[1, 1]], [[3, 1]], [[1, 1, 2]]])('falls as the weights %j say', (weights) => {
    const counts = new Map<number, number>();
    const [people, total] = [6000, weights.reduce((sum, each) => sum + each, 0)];
    for (let at = 0; at < people; at += 1) {
      const version = versionFor({ id: 'trial', arms: arms(weights) }, person(at));
      counts.set(version, (counts.get(version) ?? 0) + 1);
    }
    for (const [at, weight] of weights.entries()) {
      const share = weight / total;
      const deviation = Math.sqrt(people * share * (1 - share));
      expect(Math.abs((counts.get(at + 1) ?? 0) - people * share)).toBeLessThan(4.5 * deviation);
    }
  });
  it('says nothing of what the same people get in another trial', () => {
    const both = Array.from({ length: 4000 }, (_, at) =>
      ['one', 'two'].map((id) => versionFor({ id, arms: arms([1, 1]) }, person(at))),
    );
    const same = both.filter(([one, two]) => one === two).length;
    expect(Math.abs(same - 2000)).toBeLessThan(4.5 * Math.sqrt(1000));
  });
});

describe('a message', () => {
  it('gets the version of its recipient from the beginning, and another one with another recipient', async () => {
    await twoVersions();
    const trial = await begun();
    const [first = '', second = ''] = [1, 2].map((version) => addressesOf(trial, version, 1)[0]);
    const old = await fillFor(first);
    expect(old).toMatchObject({ version: 1, standing: 'current', trial: trial.id });
    expect(JSON.stringify(old.texts)).toContain('the first wording');
    expect(await save(old.id, second)).toMatchObject({ version: 2, trial: trial.id });
    const { body } = await server.call.get(`/api/fills/${old.id}`);
    expect(JSON.stringify(body.texts)).toContain('the second wording');
    expect(await save(old.id, `Ann <${first.toUpperCase()}>`)).toMatchObject({ version: 1 });
  });
  it('is in the version in use as long as it goes to nobody, and after the trial', async () => {
    await twoVersions();
    const trial = await begun();
    const [first = ''] = addressesOf(trial, 1, 1);
    const open = await fillFor('');
    expect(open).toMatchObject({ version: 2 });
    expect(open.trial).toBeUndefined();
    expect(await save(open.id, first)).toMatchObject({ version: 1, standing: 'current' });
    await end(trial.id);
    expect((await server.call.get(`/api/fills/${open.id}`)).body).toMatchObject({ version: 1, standing: 'newer' });
    const after = await fillFor(first);
    expect(after.version).toBe(2);
    expect(after.trial).toBeUndefined();
  });
  it('that was reworded before its recipient was known keeps its version, and does not count', async () => {
    await twoVersions();
    const trial = await begun();
    for (const version of [1, 2]) {
      const [address = ''] = addressesOf(trial, version, 1);
      const { id, texts } = await fillFor('');
      const content = texts[0]?.document.content.findIndex(({ type }) => type === 'body') ?? 0;
      const before = (texts[0]?.document.content[content] as unknown as { content: { content: unknown[] }[] })
        .content[0];
      const reworded = [
        { text: 'visit', path: [content, 0], before: before?.content, after: [{ type: 'text', text: 'Hi' }], over: {} },
      ];
      const kept = await save(id, address, { changes: { parts: [], reworded } });
      expect(kept.version).toBe(2);
      expect(kept.trial).toBeUndefined();
    }
  });
  it('whose text was retired meanwhile is kept as it is: nothing that is typed is refused', async () => {
    await twoVersions();
    const trial = await begun();
    const [first = ''] = addressesOf(trial, 1, 1);
    const { id } = await fillFor('');
    expect((await server.call.put('/api/versions/visit/retired').send({})).status).toBe(204);
    const answer = await server.call.put(`/api/fills/${id}`).send({ recipient: { email: first }, answers: {} });
    expect([answer.status, answer.body.version, answer.body.trial]).toEqual([200, 2, undefined]);
  });
  it('that is handed over counts with its trial; one that was copied was not sent, and does not', async () => {
    standIn = await startStandIn(server.services.letters);
    smtp = standIn.url;
    await twoVersions();
    await server.call.put('/api/me/profile').send({});
    const trial = await begun();
    const [sent = '', copied = ''] = addressesOf(trial, 1, 2);
    for (const [address, way] of [
      [sent, 'service'],
      [copied, 'copy'],
    ] as const) {
      const { id } = await fillFor(address);
      const answer = await server.call.post(`/api/fills/${id}/hand-over`).send({ way });
      expect(answer.status).toBe(200);
      expect(answer.body.text).toContain('the first wording');
    }
    await server.database.write((writer) => writer.run(sql`UPDATE outgoing SET due = '2020-01-01T00:00:00.000Z'`));
    await server.services.courier.run();
    const rows = await server.database.read
      .select({ way: schema.handedOver.way, version: schema.handedOver.version })
      .from(schema.handedOver)
      .where(eq(schema.handedOver.trial, trial.id));
    expect(rows.map(({ way }) => way).sort()).toEqual(['copy', 'service']);
    expect(rows.every(({ version }) => version === 1)).toBe(true);
    expect((await trials())[0]?.arms.map(({ trials: count }) => count)).toEqual([1, 0]);
  });
});

describe('a mailing', () => {
  it('gives each recipient their version, and sends what it shows', async () => {
    standIn = await startStandIn(server.services.letters);
    smtp = standIn.url;
    await twoVersions();
    const trial = await begun();
    const { id: fill } = await fillFor('');
    const { body: mailing } = await server.call.post('/api/mailings').send({ fill, timezone: 'UTC' });
    expect(mailing.others.map(({ version }: { version: number }) => version)).toEqual([1]);
    const people = [...addressesOf(trial, 1, 2), ...addressesOf(trial, 2, 2)];
    await server.call.post(`/api/mailings/${mailing.id}/recipients`).send({ paste: people.join(', ') });
    const rows = (await server.call.get(`/api/mailings/${mailing.id}/rows`)).body as MailedRow[];
    expect(rows.map(({ address, version }) => [address, version])).toEqual(
      people.map((address) => [address, versionFor(trial, address)]),
    );
    expect((await server.call.post(`/api/mailings/${mailing.id}/drive`).send({ act: 'first', count: 4 })).status).toBe(
      200,
    );
    await server.services.courier.run();
    await server.call.post(`/api/mailings/${mailing.id}/drive`).send({ act: 'rest' });
    await server.services.courier.run();
    const letters = await server.database.read.select().from(schema.letters);
    expect(letters).toHaveLength(4);
    for (const { raw, recipients } of letters) {
      const version = versionFor(trial, recipients[0] ?? '');
      expect(raw.toString()).toContain(version === 1 ? 'the first wording' : 'the second wording');
    }
    expect((await trials())[0]?.arms.map(({ trials: count }) => count)).toEqual([2, 2]);
  });
  it('is not sent when one of its versions was withdrawn while it was made', async () => {
    standIn = await startStandIn(server.services.letters);
    smtp = standIn.url;
    await twoVersions();
    await begun();
    const { id: fill } = await fillFor('');
    const { body: mailing } = await server.call.post('/api/mailings').send({ fill, timezone: 'UTC' });
    await server.call.post(`/api/mailings/${mailing.id}/recipients`).send({ paste: 'a@x.example, b@x.example' });
    await server.call.post('/api/versions/visit/versions/1/withdraw').send({ because: 'wrong day' });
    const answer = await server.call.post(`/api/mailings/${mailing.id}/drive`).send({ act: 'first', count: 2 });
    expect([answer.status, answer.body.code]).toEqual([409, 'withdrawn']);
  });
});

describe('what came of it', () => {
  it('counts each recipient once, with their first message, and what can be known', async () => {
    await twoVersions();
    const trial = await begun({ outcome: 'opened' });
    await went(trial, 1, [
      { address: person(0), became: ['opened'], at: '2027-01-02T10:00:00.000Z' },
      { address: person(0), became: [], at: '2027-01-03T10:00:00.000Z' },
      { address: person(1), became: [], at: '2027-01-02T10:00:00.000Z' },
      { address: person(1), became: ['opened'], at: '2027-01-04T10:00:00.000Z' },
      // Those who were forgotten have no address; each of their messages counts.
      { address: '', became: ['opened'] },
      { address: '', became: [] },
    ]);
    const [found] = await trials();
    expect(found?.arms.map(({ trials: count, successes }) => [count, successes])).toEqual([
      [4, 2],
      [0, 0],
    ]);
    expect(found?.arms[1]).toMatchObject({ low: 0, high: 1, note: 'Warmer', weight: 1 });
  });
  it('says “not yet”, “better”, and “no difference that matters” as the figures have it', async () => {
    await twoVersions();
    const trial = await begun({ matters: 0.2 });
    await went(trial, 1, many(30, 10));
    await went(trial, 2, many(30, 14, 100));
    expect((await trials())[0]).toMatchObject({ verdict: 'not yet' });
    await went(trial, 1, many(370, 120, 1000));
    await went(trial, 2, many(370, 230, 2000));
    const [found] = await trials();
    expect(found).toMatchObject({ verdict: 'better', best: 2 });
    const more = found?.differences.find(({ of, to }) => of === 2 && to === 1);
    expect(more?.low).toBeGreaterThan(0);
    // The shares are 0.325 and 0.61.
    expect(more?.low).toBeLessThan(0.285);
    expect(more?.high).toBeGreaterThan(0.285);
  });
  it('stays as it was when it ended', async () => {
    await twoVersions();
    const trial = await begun();
    await went(
      trial,
      1,
      many(5, 1).map((each) => ({ ...each, at: '2026-01-01T10:00:00.000Z' })),
    );
    expect((await end(trial.id)).status).toBe(200);
    await went(
      trial,
      1,
      many(5, 5, 50).map((each) => ({ ...each, at: '2127-01-01T10:00:00.000Z' })),
    );
    expect((await trials())[0]?.arms[0]).toMatchObject({ trials: 5, successes: 1 });
  });
});

describe('a trial', () => {
  it('ends with the winner published as a new version, in one press', async () => {
    await twoVersions();
    const trial = await begun();
    const ended = await end(trial.id, { publish: 1 });
    expect(ended.body.ended.why).toMatch(/^version 1 chosen by /);
    const { published, versions } = (await server.call.get('/api/versions/visit')).body;
    expect(published).toMatchObject({ number: 3, note: 'Version 1 again, chosen by a trial' });
    expect(versions).toHaveLength(3);
    const fill = await fillFor('ann@x.example');
    expect(fill.version).toBe(3);
    expect(JSON.stringify(fill.texts)).toContain('the first wording');
    const audit = (await server.call.get('/api/audit')).body as { entries?: { act: string }[] };
    expect(JSON.stringify(audit)).toContain('ended a trial of');
  });
  it('ends without a version when the one in use is the winner: nothing is published anew', async () => {
    await twoVersions();
    const trial = await begun();
    await end(trial.id, { publish: 2 });
    expect((await server.call.get('/api/versions/visit')).body.published.number).toBe(2);
    expect((await end(trial.id)).body).toMatchObject({ code: 'ended' });
    // Another one may begin then.
    expect((await begin()).status).toBe(201);
    expect(await trials()).toHaveLength(2);
  });
  it('ends by itself when another version is published, or one of its own is withdrawn', async () => {
    await twoVersions();
    await begun();
    await rewrite('second wording', 'third wording');
    await publish(server, 'visit', 'Third');
    expect((await trials())[0]?.ended?.why).toBe('version 3 was published');
    await begun({ arms: [2, 3].map((version) => ({ version, weight: 1 })) });
    await server.call.post('/api/versions/visit/versions/1/withdraw').send({ because: 'old' });
    expect((await trials())[0]?.ended).toBeUndefined();
    await server.call.post('/api/versions/visit/versions/2/withdraw').send({ because: 'wrong day' });
    expect((await trials())[0]?.ended?.why).toBe('version 2 was withdrawn');
  });
  it('goes on where the words of the winner cannot be published any more, and says why', async () => {
    await makePublished(server, 'Hours', '---\nvocabula: 1\nkind: block\ntitle: Hours\n---\nOpen.\n');
    await makePublished(server, 'Visit', file('Visit', 'Dear {{name}},\n\n{{> hours}}'));
    const { body } = await server.call.get('/api/texts/visit');
    const document = documentOf(file('Visit', 'Dear {{name}}, come.'));
    await server.call.put('/api/texts/visit').send({ document, revision: body.revision });
    await publish(server, 'visit', 'Shorter');
    const trial = await begun();
    await server.call.delete('/api/texts/hours');
    const answer = await end(trial.id, { publish: 1 });
    expect([answer.status, answer.body.code]).toEqual([422, 'has-errors']);
    expect((await trials())[0]?.ended).toBeUndefined();
    expect((await end(trial.id, { publish: 2 })).status).toBe(200);
  });
  it('is known at once to another process on the same database, when it begins and when it ends', async () => {
    await twoVersions();
    expect((await fillFor('ann@x.example')).trial).toBeUndefined();
    const other = await start(server.url);
    try {
      const started = await other.call
        .post('/api/versions/visit/trials')
        .send({ arms: EVEN, outcome: 'answered', matters: 0.1 });
      const [first = ''] = addressesOf(started.body as Trial, 1, 1);
      expect(await fillFor(first)).toMatchObject({ version: 1, trial: started.body.id });
      await other.call.post(`/api/versions/visit/trials/${started.body.id}/end`).send({});
      expect((await fillFor(first)).version).toBe(2);
    } finally {
      await other.stop();
    }
  });
  it('where a second person publishes is chosen by whoever may publish there, and the page is told so', async () => {
    const folder = (await server.call.post('/api/folders').send({ parent: 'root', title: 'Two' })).body.id as string;
    await makePublished(server, 'Visit', file('Visit', BODIES[0]), folder);
    await rewrite('first wording', 'second wording');
    await publish(server, 'visit', 'Warmer');
    await rewrite('second wording', 'third wording');
    await server.call.patch(`/api/folders/${folder}`).send({ secondPerson: true });
    const trial = await begun();
    expect((await trials())[0]?.mayEnd).toBe(true);
    expect((await end(trial.id, { publish: 1 })).status).toBe(200);
  });
  it('runs once at a time, also where two begin at the same moment', async () => {
    await twoVersions();
    const answers = await Promise.all([begin(), begin(), begin()]);
    expect(answers.map(({ status }) => status).sort()).toEqual([201, 409, 409]);
    expect(await trials()).toHaveLength(1);
  });
  it('is of versions that there are, of which one is in use and none is withdrawn', async () => {
    await twoVersions();
    const of = (...versions: number[]) => begin({ arms: versions.map((version) => ({ version, weight: 1 })) });
    expect((await of(1, 9)).status).toBe(422);
    expect((await of(2, 9)).status).toBe(404);
    for (const wrong of [[2], [2, 2], [1, 2, 2], []]) expect((await of(...wrong)).status).toBe(400);
    for (const body of [
      { matters: 0 },
      { matters: 0.6 },
      { outcome: 'bounced' },
      { arms: [{ version: 1, weight: 0 }] },
    ])
      expect((await begin(body)).status).toBe(400);
    await server.call.post('/api/versions/visit/versions/1/withdraw').send({ because: 'wrong day' });
    expect((await begin()).body).toMatchObject({ code: 'withdrawn' });
    expect((await server.call.post('/api/versions/visit/trials/none/end').send({})).status).toBe(404);
  });
  it('is of messages, and of texts that are published', async () => {
    await makeText(server, 'Plain');
    const body = { arms: EVEN, outcome: 'answered', matters: 0.05 };
    expect((await server.call.post('/api/versions/plain/trials').send(body)).body).toMatchObject({
      code: 'not-in-use',
    });
    const block = '---\nvocabula: 1\nkind: block\ntitle: Hours\n---\nOpen.\n';
    await makePublished(server, 'Hours', block);
    expect((await server.call.post('/api/versions/hours/trials').send(body)).body).toMatchObject({
      code: 'no-message',
    });
  });
  it('is begun and ended by those who may publish, and seen by those who may write', async () => {
    await twoVersions();
    const colleague = await server.as('colleague');
    expect((await begin({}, colleague)).status).toBe(403);
    expect((await colleague.get('/api/versions/visit/trials')).status).toBe(403);
    const trial = await begun();
    const ended = await colleague.post(`/api/versions/visit/trials/${trial.id}/end`).send({});
    expect(ended.status).toBe(403);
    expect((await trials())[0]?.mayEnd).toBe(true);
  });
  it('goes with its text when that is taken out for good', async () => {
    await twoVersions();
    await begun();
    await server.call.delete('/api/texts/visit');
    await server.call.post('/api/texts/many').send({ names: ['visit'], act: 'purge' });
    expect(await server.database.read.select().from(schema.trials)).toEqual([]);
  });
});
