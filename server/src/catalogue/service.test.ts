import { afterEach, beforeEach, describe, expect, it } from 'vitest';
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

const imported = (files: Record<string, string>) =>
  server.call
    .post('/api/texts/import')
    .send({ files: Object.entries(files).map(([name, content]) => ({ file: name, content })) });
const names = async (): Promise<string[]> =>
  (await server.call.get('/api/texts')).body.map((text: { name: string }) => text.name);

describe('saving', () => {
  it('keeps the document and counts revisions', async () => {
    const { name, revision } = await makeText(server, 'Visit');
    const saved = await server.call
      .put(`/api/texts/${name}`)
      .send({ document: documentOf(file('Visit', 'New words')), revision });
    expect(saved.body.revision).toBe(revision + 1);
    expect((await server.call.get(`/api/texts/${name}`)).body.document).toEqual(documentOf(file('Visit', 'New words')));
  });

  it('on an older revision is a conflict that carries both texts, and changes nothing', async () => {
    const { name, revision } = await makeText(server, 'Visit');
    const mine = documentOf(file('Visit', 'mine'));
    const theirs = documentOf(file('Visit', 'theirs'));
    await server.call.put(`/api/texts/${name}`).send({ document: theirs, revision });
    const answer = await server.call.put(`/api/texts/${name}`).send({ document: mine, revision });
    expect(answer.status).toBe(409);
    expect(answer.body).toMatchObject({
      code: 'stale-revision',
      details: { yours: mine, theirs: { document: theirs, revision: revision + 1 } },
    });
    expect((await server.call.get(`/api/texts/${name}`)).body.document).toEqual(theirs);
  });

  it('at the same moment lets exactly one through', async () => {
    const { name, revision } = await makeText(server, 'Visit');
    const answers = await Promise.all(
      Array.from({ length: 8 }, (_, at) =>
        server.call.put(`/api/texts/${name}`).send({ document: documentOf(file('Visit', `words ${at}`)), revision }),
      ),
    );
    expect(answers.map((answer) => answer.status).sort()).toEqual([200, ...Array<number>(7).fill(409)]);
  });

  it('takes a call word only once', async () => {
    await imported({ 'one.md': file('One', 'a', 'call: visit\n') });
    const two = await makeText(server, 'Two');
    const answer = await server.call
      .put(`/api/texts/${two.name}`)
      .send({ document: documentOf(file('Two', 'a', 'call: visit\n')), revision: two.revision });
    expect([answer.status, answer.body.message]).toEqual([422, 'The call word “visit” is taken by another text.']);
  });
});

describe('importing files', () => {
  it('makes, changes and leaves alone, and says which', async () => {
    await imported({ 'a.md': file('A'), 'b.md': file('B') });
    const answer = await imported({ 'a.md': file('A'), 'b.md': file('B', 'changed'), 'c.md': file('C') });
    expect(answer.body.map(({ name, outcome }: { name: string; outcome: string }) => [name, outcome])).toEqual([
      ['a', 'same'],
      ['b', 'changed'],
      ['c', 'new'],
    ]);
  });

  it.each([
    ['broken YAML', '---\nvocabula: 1\ntitle: [\n---\n', 'bad-file', /line \d+/],
    ['an unclosed passage', file('X', 'a\n\n{{#name}}\nb'), 'unclosed-passage', /line 12/],
    ['an unknown type', file('X').replace('type: text', 'type: colour'), 'unknown-type', /line 8/],
    ['a key twice', file('X').replace('  name:', '  name: { type: text }\n  name:'), 'duplicate-key', /line 9/],
    ['a NUL byte', file('X', 'a\0b'), 'bad-file', /line 10/],
  ])('refuses %s with its line, and imports nothing', async (_what, content, code, where) => {
    const answer = await imported({ 'good.md': file('Good'), 'bad.md': content });
    expect(answer.status).toBe(422);
    expect(answer.body.details).toContainEqual(expect.objectContaining({ file: 'bad.md', code }));
    expect(answer.body.details[0].where).toMatch(where);
    expect(answer.body.message).toMatch(/^bad\.md, line \d+.*Nothing was imported\.$/);
    expect(await names()).toEqual([]);
  });

  it('refuses names that are none, and two of one name', async () => {
    expect((await imported({ 'Über uns.md': file('A') })).status).toBe(422);
    expect((await imported({ 'a/x.md': file('A'), 'b/x.md': file('B') })).status).toBe(422);
  });

  it('gives back the file it was given', async () => {
    const source = file('A', 'one {{name}}\n\ntwo');
    await imported({ 'a.md': source });
    const written = (await server.call.get('/api/texts/a/file')).text;
    await imported({ 'b.md': written });
    expect((await server.call.get('/api/texts/b/file')).text).toBe(written);
    expect(documentOf(written)).toEqual(documentOf(source));
  });

  it('is not held up by an expression made to grow', async () => {
    const variables = `  a: { type: text, value: "${'('.repeat(3000)}1${')'.repeat(3000)}" }\n`;
    const answer = await imported({ 'a.md': file('A').replace('variables:\n', `variables:\n${variables}`) });
    expect(answer.status).toBe(200);
    // It is an error of the text, so it cannot be published; nothing hangs.
    const { body } = await server.call.get('/api/versions/a');
    const published = await server.call.post('/api/versions/a/publish').send({ revision: body.revision, note: 'x' });
    expect([published.status, published.body.code]).toEqual([422, 'has-errors']);
  });
});

describe('finding', () => {
  it('goes by call word, then title, then subject, then any words, folding case and accents', async () => {
    await makeText(server, 'Orchard walk', file('Orchard walk', 'about geese'));
    await imported({ 'geese.md': file('Geese', 'Café opening', 'call: goose\n') });
    const search = async (q: string) =>
      (await server.call.get('/api/texts/search').query({ q, for: 'write' })).body.map(
        (hit: { name: string }) => hit.name,
      );
    expect(await search('geese')).toEqual(['geese', 'orchard-walk']);
    expect(await search('GOOSE')).toEqual(['geese']);
    expect(await search('cafe open')).toEqual(['geese']);
    expect(await search('walk geese')).toEqual(['orchard-walk']);
    expect(await search('nowhere')).toEqual([]);
  });

  it('leaves out what is in the bin, which comes back whole', async () => {
    await makeText(server, 'Visit');
    await server.call.delete('/api/texts/visit');
    expect((await server.call.get('/api/texts/search?q=visit')).body).toEqual([]);
    expect((await server.call.get('/api/texts/visit')).status).toBe(404);
    await server.call.post('/api/texts/visit/restore');
    expect((await server.call.get('/api/texts/visit')).body.document).toEqual(documentOf(file('Visit')));
  });

  it('gives what a message is begun with as it is in use, however often it was asked for before', async () => {
    await makePublished(server, 'Hours', blockFile('Hours', 'Open at nine.'));
    await makePublished(server, 'Visit', file('Visit', '{{> hours}}'));
    const colleague = await server.as('colleague');
    const given = async () => {
      const answer = await colleague.get('/api/texts/visit/closure?for=fill');
      return answer.status === 200 ? JSON.stringify(answer.body) : String(answer.status);
    };
    expect([await given(), await given()].map((each) => each.includes('Open at nine.'))).toEqual([true, true]);
    // A block that it includes.
    const { revision } = (await server.call.get('/api/texts/hours')).body;
    const document = documentOf(blockFile('Hours', 'Open at ten.'));
    await server.call.put('/api/texts/hours').send({ document, revision }).expect(200);
    expect(await given()).toContain('Open at nine.');
    await publish(server, 'hours');
    expect(await given()).toContain('Open at ten.');
    // The bin, and back.
    await server.call.delete('/api/texts/visit').expect(204);
    expect(await given()).toBe('404');
    await server.call.post('/api/texts/visit/restore').expect(204);
    expect(await given()).toContain('Open at ten.');
    // Rights.
    const grants = (await server.call.get('/api/folders/root/rights')).body.grants;
    await server.call.patch('/api/folders/root').send({ grants: [] }).expect(204);
    expect(await given()).toBe('404');
    await server.call.patch('/api/folders/root').send({ grants }).expect(204);
    expect(await given()).toContain('Open at ten.');
    // A version that must not be used any more.
    await server.call.post('/api/versions/visit/versions/1/withdraw').send({ because: 'wrong' }).expect(204);
    expect(await given()).toBe('404');
  });
  it('knows what a text includes and where it is used', async () => {
    await makeText(
      server,
      'Hours',
      file('Hours')
        .replace('kind: message', 'kind: block')
        .replace(/subject.*\nto.*\n/, ''),
    );
    await makeText(server, 'Visit', file('Visit', '{{> hours}}'));
    const closure = (await server.call.get('/api/texts/visit/closure')).body;
    expect(closure.texts.map((text: { name: string }) => text.name)).toEqual(['visit', 'hours']);
    const around = (await server.call.get('/api/texts/neighbours?of=hours')).body;
    expect(around.usedIn).toEqual([{ name: 'visit', title: 'Visit', kind: 'message' }]);
  });
});
