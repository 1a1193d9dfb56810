/** Publishing, withdrawing, restoring, asking, remarking; and what a change does to what depends on it. */
import { EMPTY_PROFILE, type Standing, type TemplateImpact } from '@vocabula/contract';
import { PLAIN_HOUSE } from '@vocabula/core';
import { eq } from 'drizzle-orm';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { schema } from '../db/database.js';
import {
  blockFile,
  documentOf,
  file,
  makePublished,
  makeText,
  publish,
  start,
  type Started,
} from '../testing/start.js';

let server: Started;
beforeEach(async () => {
  server = await start();
});
afterEach(() => server.stop());

const standing = async (name: string, call = server.call): Promise<Standing> =>
  (await call.get(`/api/versions/${name}`)).body as Standing;
/** Saves new words over what there is. */
async function write(name: string, source: string, call = server.call): Promise<void> {
  const { body } = await call.get(`/api/texts/${name}`);
  await call
    .put(`/api/texts/${name}`)
    .send({ document: documentOf(source), revision: body.revision })
    .expect(200);
}
const words = (title: string, body: string): string => file(title, body);
const begin = async (text: string, call = server.call) => call.post('/api/fills').send({ text });
const handOver = (id: string, call = server.call) =>
  call.post(`/api/fills/${id}/hand-over`).send({ way: 'copy', incomplete: true });

describe('publishing', () => {
  it('makes numbered versions with their notes, and colleagues get the last at once', async () => {
    const colleague = await server.as('colleague');
    await makePublished(server, 'Visit', words('Visit', 'First.'));
    await write('visit', words('Visit', 'Second.'));
    expect(await standing('visit')).toMatchObject({ changed: true, published: { number: 1 } });
    const old = (await begin('visit', colleague)).body;
    expect(old).toMatchObject({ version: 1, standing: 'current' });
    await publish(server, 'visit', 'The second word');
    const now = await standing('visit');
    expect(now).toMatchObject({ changed: false, published: { number: 2, note: 'The second word' } });
    expect(now.versions.map(({ number }) => number)).toEqual([2, 1]);
    expect((await begin('visit', colleague)).body.version).toBe(2);
    // What was begun before goes on as it was, and says so.
    expect((await colleague.get(`/api/fills/${old.id}`)).body.standing).toBe('newer');
    expect((await handOver(old.id, colleague)).body.text).toBe('First.\n');
    expect((await standing('visit')).versions[1]).toMatchObject({ number: 1, sent: 1 });
    const sent = (await server.call.get('/api/versions/visit/versions/1/sent')).body;
    expect(sent).toMatchObject([{ who: colleague.user.name, recipients: [] }]);
  });
  it('is stopped by errors, and by a block that colleagues would miss', async () => {
    await makeText(server, 'Broken', words('Broken', '{{nobody}}'));
    await makeText(server, 'Clause', blockFile('Clause', 'A clause.'));
    await makeText(server, 'Visit', words('Visit', 'Dear {{name}},\n\n{{> clause}}'));
    const go = (name: string) => server.call.post(`/api/versions/${name}/publish`).send({ revision: 1, note: 'x' });
    const broken = await go('broken');
    expect([broken.status, broken.body.code, broken.body.details[0].code]).toEqual([
      422,
      'has-errors',
      'unknown-variable',
    ]);
    expect((await go('visit')).body.message).toMatch(/“Clause” is not published/);
    expect((await server.call.get('/api/versions/visit/findings')).body).toContainEqual(
      expect.objectContaining({ level: 'error', code: 'unknown-block' }),
    );
    await publish(server, 'clause');
    expect((await go('visit')).status).toBe(200);
  });
  it('of another revision than was looked at is refused, and needs a note', async () => {
    await makeText(server, 'Visit');
    await write('visit', words('Visit', 'Newer.'));
    const go = (body: object) => server.call.post('/api/versions/visit/publish').send(body);
    expect((await go({ revision: 1, note: 'x' })).status).toBe(409);
    expect((await go({ revision: 2, note: ' ' })).status).toBe(400);
    expect((await standing('visit')).published).toBeUndefined();
  });
  it('at a time happens then, as it was asked for, and once, whatever was written since', async () => {
    await makePublished(server, 'Visit', words('Visit', 'Now.'));
    await write('visit', words('Visit', 'Later.'));
    const due = new Date(Date.now() + 60_000);
    const { revision } = await standing('visit');
    const go = await server.call
      .post('/api/versions/visit/publish')
      .send({ revision, note: 'For spring', at: due.toISOString() });
    expect([go.status, go.body]).toEqual([200, {}]);
    await write('visit', words('Visit', 'Half done.'));
    expect((await standing('visit')).timed).toMatchObject([{ due: due.toISOString(), state: 'waiting' }]);
    expect(await server.services.versions.tick(new Date())).toBe(0);
    const later = new Date(due.getTime() + 1000);
    const runs = await Promise.all([server.services.versions.tick(later), server.services.versions.tick(later)]);
    expect(runs.reduce((sum, each) => sum + each, 0)).toBe(1);
    expect(await standing('visit')).toMatchObject({
      changed: true,
      timed: [],
      published: { number: 2, note: 'For spring' },
    });
    const { id } = (await begin('visit')).body;
    expect((await handOver(id)).body.text).toBe('Later.\n');
  });
  it('at a time is taken back, and stopped in words by what came between', async () => {
    await makeText(server, 'Visit');
    const at = new Date(Date.now() + 60_000).toISOString();
    const time = () => server.call.post('/api/versions/visit/publish').send({ revision: 1, note: 'x', at });
    await time();
    const [waiting] = (await standing('visit')).timed;
    await server.call.delete(`/api/versions/visit/timed/${waiting?.id}`).expect(204);
    expect(await server.services.versions.tick(new Date(Date.now() + 120_000))).toBe(0);
    await time();
    await server.call.delete('/api/texts/visit').expect(204);
    expect(await server.services.versions.tick(new Date(Date.now() + 120_000))).toBe(0);
    await server.call.post('/api/texts/visit/restore').expect(204);
    expect((await standing('visit')).timed).toMatchObject([{ state: 'stopped', words: 'There is no such text.' }]);
    const past = await server.call
      .post('/api/versions/visit/publish')
      .send({ revision: 1, note: 'x', at: '2020-01-01T00:00:00Z' });
    expect([past.status, past.body.code]).toEqual([422, 'past']);
  });
  it('in a folder that needs a second person is for somebody who did not change it', async () => {
    const [one, two] = [await server.as('author'), await server.as('author')];
    const folder = (await server.call.post('/api/folders').send({ parent: 'root', title: 'Seeds' })).body.id;
    await server.call.patch(`/api/folders/${folder}`).send({ secondPerson: true }).expect(204);
    await makeText({ call: one }, 'Seeds', words('Seeds', 'Seeds.'), folder);
    expect(await standing('seeds', one)).toMatchObject({
      mayPublish: false,
      whyNot: expect.stringContaining('somebody other'),
    });
    const go = (call: typeof one) => call.post('/api/versions/seeds/publish').send({ revision: 1, note: 'x' });
    expect((await go(one)).status).toBe(403);
    expect((await go(two)).status).toBe(200);
    await write('seeds', words('Seeds', 'More.'), two);
    expect([(await standing('seeds', one)).mayPublish, (await standing('seeds', two)).mayPublish]).toEqual([
      true,
      false,
    ]);
  });
});

describe('a second person', () => {
  it('is needed wherever a text is moved to', async () => {
    const [one, two] = [await server.as('author'), await server.as('author')];
    const folder = (await server.call.post('/api/folders').send({ parent: 'root', title: 'Seeds' })).body.id;
    await server.call.patch(`/api/folders/${folder}`).send({ secondPerson: true }).expect(204);
    const mine = (await one.get('/api/folders')).body.find(({ own }: { own: boolean }) => own).id;
    const move = (call: Started['call'], name: string, to: string) =>
      call.post('/api/texts/many').send({ act: 'move', names: [name], folder: to });
    const go = (call: typeof one, name: string) =>
      call.post(`/api/versions/${name}/publish`).send({ revision: 1, note: 'x' });
    await makeText({ call: one }, 'Seeds', words('Seeds', 'Seeds.'), folder);
    for (const elsewhere of ['root', mine]) {
      await move(one, 'seeds', elsewhere).expect(204);
      expect((await go(one, 'seeds')).status).toBe(403);
    }
    await move(one, 'seeds', folder).expect(204);
    expect((await go(one, 'seeds')).status).toBe(403);
    expect((await go(two, 'seeds')).status).toBe(200);
    // Nor does a version that one person published come in from elsewhere.
    await makeText({ call: one }, 'Alone', words('Alone', 'Alone.'), 'root');
    expect((await go(one, 'alone')).status).toBe(200);
    const moved = await move(one, 'alone', folder);
    expect([moved.status, moved.body.code]).toEqual([422, 'second-person']);
    await move(server.call, 'alone', folder).expect(204);
  });
});

describe('a purged text', () => {
  it('leaves its name, on which its history hangs, to no other', async () => {
    const { call } = server;
    await makePublished(server, 'Secret', words('Secret', 'The first words.'));
    await call.delete('/api/texts/secret').expect(204);
    await call
      .post('/api/texts/many')
      .send({ act: 'purge', names: ['secret'] })
      .expect(204);
    const other = await server.as('author');
    const { name } = await makeText({ call: other }, 'Secret', words('Secret', 'Mine.'));
    expect(name).not.toBe('secret');
    expect(await standing(name, other)).toMatchObject({ versions: [] });
    const files = [{ file: 'secret.md', content: words('Secret', 'Mine.') }];
    const imported = await other.post('/api/texts/import').send({ files });
    expect([imported.status, imported.body.code]).toEqual([422, 'taken']);
    expect((await other.get('/api/versions/secret/states/version:1')).status).toBe(404);
  });
});

describe('withdrawing', () => {
  it('stops filling at once, stops what is unfinished from being sent, and lists who was sent it', async () => {
    const colleague = await server.as('colleague');
    await makePublished(server, 'Visit', words('Visit', 'Wrong.'));
    const [sent, unfinished] = [(await begin('visit', colleague)).body, (await begin('visit', colleague)).body];
    await handOver(sent.id, colleague).expect(200);
    const withdraw = (call: typeof server.call, because = 'The fee is wrong') =>
      call.post('/api/versions/visit/versions/1/withdraw').send({ because });
    expect((await withdraw(colleague)).status).toBe(403);
    await withdraw(server.call).expect(204);
    expect((await begin('visit', colleague)).status).toBe(404);
    expect((await colleague.get('/api/texts')).body).toEqual([]);
    expect((await colleague.get(`/api/fills/${unfinished.id}`)).body.standing).toBe('withdrawn');
    const refused = await handOver(unfinished.id, colleague);
    expect([refused.status, refused.body.code]).toEqual([409, 'withdrawn']);
    expect(await standing('visit')).toMatchObject({
      versions: [{ number: 1, sent: 1, withdrawn: { because: 'The fee is wrong' } }],
    });
    expect((await server.call.get('/api/texts')).body[0].state).toBe('withdrawn');
    await publish(server, 'visit');
    expect((await begin('visit', colleague)).body.version).toBe(2);
    expect((await colleague.get(`/api/fills/${unfinished.id}`)).body.standing).toBe('withdrawn');
  });
  it('of a block stops the messages that hold its words', async () => {
    await makePublished(server, 'Clause', blockFile('Clause', 'Wrong.'));
    await makePublished(server, 'Visit', words('Visit', '{{> clause}}'));
    const { id } = (await begin('visit')).body;
    await server.call.post('/api/versions/clause/versions/1/withdraw').send({ because: 'x' }).expect(204);
    expect((await handOver(id)).body.code).toBe('withdrawn');
  });
});

describe('retiring', () => {
  it('offers it no more, keeps it, and points to what takes its place', async () => {
    await makePublished(server, 'Old');
    await makePublished(server, 'New');
    await server.call.put('/api/versions/old/retired').send({ replacedBy: 'new' }).expect(204);
    const answer = await begin('old');
    expect([answer.status, answer.body.message]).toEqual([422, '“Old” is retired. “new” takes its place.']);
    expect((await server.call.get('/api/texts/search?q=old')).body).toEqual([]);
    expect((await server.call.put('/api/versions/old/retired').send({ replacedBy: 'old' })).status).toBe(422);
    await server.call.delete('/api/versions/old/retired').expect(204);
    expect((await begin('old')).status).toBe(201);
  });
  it('dates offer a template between them only, and an overdue review is a finding', async () => {
    const dated = (from: string, until: string): string =>
      file('Dated', 'Dear {{name}},', `review_by: 2020-01-01\nvalid_from: ${from}\nvalid_until: ${until}\n`);
    await makePublished(server, 'Dated', dated('2020-01-01', '2020-12-31'));
    expect((await begin('dated')).body.code).toBe('not-offered');
    await write('dated', dated('2020-01-01', '2999-01-01'));
    expect((await begin('dated')).body.code).toBe('not-offered');
    await publish(server, 'dated');
    expect((await begin('dated')).status).toBe(201);
    const [line] = (await server.call.get('/api/texts')).body;
    expect([line.reviewBy, line.findings[1]]).toEqual(['2020-01-01', 1]);
  });
});

describe('history', () => {
  it('gives any state back, restores it as a new working copy, and keeps what there was', async () => {
    await makePublished(server, 'Visit', words('Visit', 'First.'));
    await write('visit', words('Visit', 'Second.'));
    await server.call.post('/api/versions/visit/checkpoints').send({ reason: 'merge' }).expect(204);
    await write('visit', words('Visit', 'Third.'));
    const { revision, checkpoints } = await standing('visit');
    expect(checkpoints.map(({ reason }) => reason)).toEqual(['merge', 'sitting']);
    const state = async (of: string) => (await server.call.get(`/api/versions/visit/states/${of}`)).body.document;
    expect(await state('version:1')).toEqual(documentOf(words('Visit', 'First.')));
    expect(await state(`checkpoint:${checkpoints[0]?.id}`)).toEqual(documentOf(words('Visit', 'Second.')));
    await server.call.post('/api/versions/visit/restore').send({ state: 'version:1', revision }).expect(200);
    const after = await standing('visit');
    expect(after).toMatchObject({ revision: revision + 1, versions: [{ number: 1 }] });
    expect(await state('working')).toEqual(documentOf(words('Visit', 'First.')));
    expect(after.checkpoints[0]?.reason).toBe('restore');
    expect(await state(`checkpoint:${after.checkpoints[0]?.id}`)).toEqual(documentOf(words('Visit', 'Third.')));
    expect((await server.call.post('/api/versions/visit/restore').send({ state: 'version:1', revision })).status).toBe(
      409,
    );
  });
  it('keeps a checkpoint at the start of each sitting and every ten minutes, for ninety days', async () => {
    const ages = async (minutes: number): Promise<void> => {
      const at = new Date(Date.now() - minutes * 60_000).toISOString();
      await server.database.write(async (writer) => {
        await writer.update(schema.checkpoints).set({ at });
        await writer.update(schema.texts).set({ updatedAt: at });
      });
    };
    const reasons = async () => (await standing('visit')).checkpoints.map(({ reason }) => reason);
    await makeText(server, 'Visit');
    await write('visit', words('Visit', 'One.'));
    await write('visit', words('Visit', 'Two.'));
    expect(await reasons()).toEqual(['sitting']);
    await ages(11);
    await write('visit', words('Visit', 'Three.'));
    expect(await reasons()).toEqual(['work', 'sitting']);
    await ages(31);
    await write('visit', words('Visit', 'Four.'));
    // Those before have one moment now, so that their order says nothing.
    expect((await reasons()).sort()).toEqual(['sitting', 'sitting', 'work']);
    await ages(91 * 24 * 60);
    await server.services.versions.forgetOld();
    expect(await reasons()).toEqual([]);
  });
  it('is not changed through the database', async () => {
    await makePublished(server, 'Visit');
    const { versions, frozen } = schema;
    const changes = [
      server.database.write((writer) =>
        writer.update(versions).set({ note: 'other' }).where(eq(versions.text, 'visit')),
      ),
      server.database.write((writer) => writer.update(frozen).set({ revision: 9 })),
    ];
    for (const change of changes) await expect(change).rejects.toThrow();
  });
});

describe('a request to publish', () => {
  const report = { messages: 3, set: 'Spring groups', errors: 0, warnings: 1, findings: ['warning: a a'] };
  it('goes to those who may, with its report, and is published as it was asked for', async () => {
    const [writer, publisher] = [await server.as('author', 'Wim'), await server.as('author')];
    const folder = (await server.call.post('/api/folders').send({ parent: 'root', title: 'F' })).body.id;
    const grants = [
      { holder: `person:${writer.user.id}`, right: 'write' },
      { holder: `person:${publisher.user.id}`, right: 'publish' },
    ];
    await server.call.patch(`/api/folders/${folder}`).send({ inherits: false, grants }).expect(204);
    await makeText({ call: writer }, 'Visit', words('Visit', 'Asked for.'), folder);
    expect((await writer.post('/api/versions/visit/publish').send({ revision: 1, note: 'x' })).status).toBe(403);
    const { id } = (await writer.post('/api/requests/for/visit').send({ revision: 1, note: 'Please', report })).body;
    expect((await publisher.get('/api/requests')).body).toMatchObject([
      { id, who: 'Wim', mine: false, report, state: 'open' },
    ]);
    expect((await (await server.as('author')).get('/api/requests')).body).toEqual([]);
    expect((await writer.post(`/api/requests/${id}/answer`).send({ answer: 'accept' })).status).toBe(403);
    await write('visit', words('Visit', 'Half done.'), writer);
    await publisher.post(`/api/requests/${id}/answer`).send({ answer: 'accept' }).expect(200);
    expect(await standing('visit', writer)).toMatchObject({
      changed: true,
      published: { note: 'Please (asked for by Wim)' },
    });
    const closure = (await publisher.get('/api/texts/visit/closure?for=fill')).body;
    expect(JSON.stringify(closure.texts[0].document)).toContain('Asked for.');
    const twice = await publisher.post(`/api/requests/${id}/answer`).send({ answer: 'accept' });
    expect([twice.status, twice.body.code]).toEqual([409, 'answered']);
  });
  it('is returned with a remark, until a later version is out', async () => {
    const author = await server.as('author');
    await makeText({ call: author }, 'Visit');
    const { id } = (await author.post('/api/requests/for/visit').send({ revision: 1, note: 'Please', report })).body;
    await server.call
      .post(`/api/requests/${id}/answer`)
      .send({ answer: 'return', remark: 'The fee is missing' })
      .expect(200);
    expect((await author.get('/api/requests')).body).toMatchObject([
      { mine: true, state: 'returned', remark: 'The fee is missing' },
    ]);
    await publish({ call: author }, 'visit');
    expect((await author.get('/api/requests')).body).toEqual([]);
  });
});

describe('a remark', () => {
  it('hangs on words, is answered and settled, and is in no message', async () => {
    await makePublished(server, 'Visit', words('Visit', 'Come soon.'));
    const quote = { exact: 'soon', prefix: 'Come ', suffix: '.' };
    const { id } = (await server.call.post('/api/versions/visit/remarks').send({ quote, body: 'When, exactly?' })).body;
    expect((await standing('visit')).openRemarks).toBe(1);
    await server.call.patch(`/api/versions/visit/remarks/${id}`).send({ reply: 'In May.' }).expect(200);
    await server.call.patch(`/api/versions/visit/remarks/${id}`).send({ settled: true }).expect(200);
    const [remark] = (await server.call.get('/api/versions/visit/remarks')).body;
    expect(remark).toMatchObject({
      quote,
      body: 'When, exactly?',
      answers: [{ body: 'In May.' }],
      settled: { by: server.user.name },
    });
    expect((await standing('visit')).openRemarks).toBe(0);
    const { id: fill } = (await begin('visit')).body;
    expect((await handOver(fill)).body.text).toBe('Come soon.\n');
    expect((await server.call.get('/api/texts/visit/file')).text).not.toContain('exactly');
  });
});

describe('impact', () => {
  const csv = 'first_name,email,late\nAnn,ann@x.example,yes\nBo,bo@x.example,no\nCem,cem@x.example,no\n';
  const impact = async (of: string, template: string): Promise<TemplateImpact> =>
    (await server.call.get(`/api/versions/${of}/impact/${template}`)).body as TemplateImpact;
  beforeEach(async () => {
    await server.call
      .post('/api/tables?use=sample&title=Guests')
      .set('content-type', 'application/octet-stream')
      .send(Buffer.from(csv))
      .expect(201);
    const inner = blockFile('Inner', '{{#late}}\nWe are sorry.\n{{/late}}').replace(
      '---\n{{',
      'variables:\n  late: { type: yes-no }\n---\n{{',
    );
    await makePublished(server, 'Inner', inner);
    await makePublished(server, 'Outer', blockFile('Outer', 'Before.\n\n{{> inner}}'));
    await makePublished(server, 'Letter', words('Letter', '{{> outer}}'));
    await makePublished(server, 'Other', words('Other', 'Alone.'));
  });
  it('of a block reaches through any depth, and counts what stays', async () => {
    expect((await server.call.get('/api/versions/inner/dependents')).body).toEqual({
      texts: [{ name: 'letter', title: 'Letter' }],
      hidden: 0,
    });
    const changed = blockFile('Inner', '{{#late}}\nWe are very sorry.\n{{/late}}').replace(
      '---\n{{',
      'variables:\n  late: { type: yes-no }\n---\n{{',
    );
    await write('inner', changed);
    const found = await impact('inner', 'letter');
    expect(found).toMatchObject({ set: 'Guests', changed: 1, unchanged: 2 });
    expect(found.messages).toMatchObject([
      {
        recipient: 'Ann',
        before: { text: 'Before.\n\nWe are sorry.\n' },
        after: { text: 'Before.\n\nWe are very sorry.\n' },
      },
    ]);
  });
  it('is of messages as people get them: with a sender and a signature', async () => {
    const signed = (words: string): string => blockFile('Mine', words).replace('kind: block', 'kind: signature');
    await makePublished(server, 'Mine', signed('Yours, {{sender.name}}'));
    const { profile } = (await server.call.get('/api/me')).body as { profile: object };
    await server.call
      .put('/api/me')
      .send({ ...EMPTY_PROFILE, ...profile, name: 'Maeve Aldous', signature: 'mine' })
      .expect(200);
    await makePublished(server, 'Signed', words('Signed', 'Alone, says {{sender.name}}.'));
    const { messages } = await impact('inner', 'letter');
    expect(messages).toEqual([]);
    await write('mine', signed('With good wishes, {{sender.name}}'));
    const found = await impact('mine', 'signed');
    expect(found).toMatchObject({ changed: 3, unchanged: 0 });
    expect(found.messages[0]).toMatchObject({
      before: { text: 'Alone, says Maeve Aldous.\n\nYours, Maeve Aldous\n' },
      after: { text: 'Alone, says Maeve Aldous.\n\nWith good wishes, Maeve Aldous\n' },
    });
  });
  it('of a fact reaches those that use it; of the look, all', async () => {
    const fact = { variable: { key: 'fee', type: 'money', currency: 'EUR' }, value: '4.00', changes: [] };
    const save = async (house: object): Promise<void> => {
      const { revision } = (await server.call.get('/api/house')).body;
      await server.call.put('/api/house').send({ house, revision }).expect(200);
    };
    await save({ ...PLAIN_HOUSE, facts: { fee: fact } });
    await publish(server, 'house.yaml');
    await makePublished(server, 'Priced', words('Priced', 'It is {{house.fee}}.'));
    await save({ ...PLAIN_HOUSE, facts: { fee: { ...fact, value: '5.00' } } });
    expect((await server.call.get('/api/versions/house.yaml/dependents')).body.texts).toEqual([
      { name: 'priced', title: 'Priced' },
    ]);
    expect(await impact('house.yaml', 'priced')).toMatchObject({ changed: 3, unchanged: 0 });
    await save({ ...PLAIN_HOUSE, facts: { fee: fact }, style: { ...PLAIN_HOUSE.style, size: 17 } });
    expect((await server.call.get('/api/versions/house.yaml/dependents')).body.texts).toHaveLength(3);
    expect(await impact('house.yaml', 'other')).toMatchObject({ changed: 3 });
    // Colleagues keep the published look until the new one is published too.
    const colleague = await server.as('colleague');
    expect((await colleague.get('/api/house')).body.house.style.size).toBe(PLAIN_HOUSE.style.size);
    expect(
      (await (await server.as('author')).post('/api/versions/house.yaml/publish').send({ revision: 3, note: 'x' }))
        .status,
    ).toBe(403);
  });
});
