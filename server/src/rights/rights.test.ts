/** What somebody may not see they do not find, count, open, or learn of. */
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
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

type Calling = Awaited<ReturnType<Started['as']>>;
let server: Started;
let colleague: Calling;
let author: Calling;
let outsider: Calling;
let office: string;
let fill: string;

/**
 * `office` is a folder of its own that the author may publish in and nobody else sees. It holds a template and a block
 * with a picture; a template in the open includes the block.
 */
beforeAll(async () => {
  server = await start();
  [author, outsider, colleague] = [await server.as('author'), await server.as('author'), await server.as('colleague')];
  office = (await server.call.post('/api/folders').send({ parent: 'root', title: 'Office' })).body.id;
  await server.call
    .patch(`/api/folders/${office}`)
    .send({ inherits: false, grants: [{ holder: `person:${author.user.id}`, right: 'publish' }] })
    .expect(204);
  const mine = { call: author };
  await author
    .post('/api/assets?name=secret.txt')
    .set('content-type', 'application/octet-stream')
    .send(Buffer.from('the secret plan'))
    .expect(201);
  const withFile = blockFile('Hidden clause', 'The secret clause.').replace(
    '---\nThe',
    '---\n[the plan](https://x.example)\n\nThe',
  );
  await makePublished(mine, 'Hidden clause', withFile, office);
  const attached = file('Hidden letter', 'Dear {{name}}, a hidden word.').replace(
    'to: ',
    'attachments: [{ file: assets/secret.txt, name: Plan }]\nto: ',
  );
  await makePublished(mine, 'Hidden letter', attached, office);
  await makePublished(mine, 'Open letter', file('Open letter', 'Dear {{name}},\n\n{{> hidden-clause}}'));
  await makeText(mine, 'Not ready', file('Not ready', 'A half-done word.'));
  fill = (await author.post('/api/fills').send({ text: 'open-letter' })).body.id;
});
afterAll(() => server.stop());

const HIDDEN = ['hidden-letter', 'hidden-clause'];
const people = (): readonly (readonly [string, Calling])[] => [
  ['a colleague', colleague],
  ['another author', outsider],
];

describe('a folder that is not theirs', () => {
  it('is not listed, nor what is in it, to anybody but those who were given a right, and administrators', async () => {
    for (const [, call] of people()) {
      const names = (await call.get('/api/texts')).body.map(({ name }: { name: string }) => name);
      expect(names.filter((name: string) => HIDDEN.includes(name))).toEqual([]);
      expect((await call.get('/api/folders')).body.map(({ id }: { id: string }) => id)).not.toContain(office);
    }
    expect((await author.get('/api/texts')).body).toHaveLength(4);
    expect((await server.call.get('/api/texts')).body).toHaveLength(4);
  });

  it.each([
    ['a text', 'get', '/api/texts/hidden-letter'],
    ['a closure', 'get', '/api/texts/hidden-letter/closure'],
    ['a closure for filling', 'get', '/api/texts/hidden-letter/closure?for=fill'],
    ['a file', 'get', '/api/texts/hidden-letter/file'],
    ['its neighbours', 'get', '/api/texts/neighbours?of=hidden-clause'],
    ['its standing', 'get', '/api/versions/hidden-letter'],
    ['a version', 'get', '/api/versions/hidden-letter/states/version:1'],
    ['an asset', 'get', '/api/assets/secret.txt'],
    ['its folder’s zip', 'post', '/api/library/zip', { folder: 'OFFICE' }],
    ['a message begun', 'post', '/api/fills', { text: 'hidden-letter' }],
    ['somebody’s message', 'get', '/api/fills/FILL'],
    ['somebody’s message, changed', 'put', '/api/fills/FILL', { recipient: {}, answers: {} }],
    ['somebody’s message, handed over', 'post', '/api/fills/FILL/hand-over', { way: 'copy' }],
    ['somebody’s message, binned', 'delete', '/api/fills/FILL'],
    ['a text, binned', 'delete', '/api/texts/hidden-letter'],
  ] as const)('answers for %s as for what does not exist', async (_what, verb, address, body?: object) => {
    for (const [, call] of people()) {
      const real = address.replace('OFFICE', office).replace('FILL', fill);
      const made = address
        .replace('OFFICE', 'nobody')
        .replace('FILL', 'nobody')
        .replace(/hidden-\w+|secret/, 'nothing-here');
      const given = body && 'text' in body ? { text: 'nothing-here' } : body;
      const [answer, nothing] = [await call[verb](real).send(body), await call[verb](made).send(given)];
      expect([answer.status, answer.body]).toEqual([404, nothing.body]);
    }
  });

  it('cannot be written to, moved into, or had its rights read by guessing its id', async () => {
    const tries = [
      await outsider.post('/api/texts').send({ kind: 'block', title: 'Mine', folder: office }),
      await outsider.post('/api/texts/many').send({ act: 'move', names: ['open-letter'], folder: office }),
      await outsider.get(`/api/folders/${office}/rights`),
      await outsider.patch(`/api/folders/${office}`).send({ title: 'Ours' }),
      await outsider.delete(`/api/folders/${office}`),
      await outsider.post('/api/texts/many').send({ act: 'bin', names: ['hidden-letter'] }),
      await outsider.put('/api/texts/hidden-letter').send({ document: documentOf(file('X')), revision: 1 }),
    ];
    expect(tries.map(({ status }) => status)).toEqual(tries.map(() => 404));
  });

  it('is not found by words, and its words are in no suggestion', async () => {
    for (const [, call] of people()) {
      for (const q of ['hidden', 'hiden letter', 'secret clause', 'hidden-letter'])
        for (const purpose of ['fill', 'write'])
          expect((await call.get('/api/texts/search').query({ q, for: purpose })).body).toEqual([]);
      expect((await call.get('/api/assets')).body).toEqual([]);
    }
    expect((await author.get('/api/texts/search').query({ q: 'hidden', for: 'write' })).body).toHaveLength(2);
  });

  it('is not learnt of through what includes it, is included, or depends on it', async () => {
    for (const [, call] of people()) {
      const { body } = await call.get('/api/texts/open-letter/closure');
      expect(body.texts.map(({ name }: { name: string }) => name)).toEqual(['open-letter']);
      expect((await call.get('/api/texts/neighbours?of=open-letter')).body.needs).toEqual([]);
      const started = (await call.post('/api/fills').send({ text: 'open-letter' })).body;
      expect(JSON.stringify(started)).not.toContain('secret clause');
    }
    expect((await author.get('/api/texts/open-letter/closure')).body.texts).toHaveLength(2);
  });

  it('counts what the publisher may not see, and no more', async () => {
    const open = { call: outsider };
    await makePublished(open, 'Shared line', blockFile('Shared line', 'A shared line.'));
    await makePublished({ call: author }, 'Uses it', file('Uses it', 'Dear {{name}},\n\n{{> shared-line}}'), office);
    const answer = (await outsider.get('/api/versions/shared-line/dependents')).body;
    expect(answer).toEqual({ texts: [], hidden: 1 });
    expect((await author.get('/api/versions/shared-line/dependents')).body.texts).toEqual([
      { name: 'uses-it', title: 'Uses it' },
    ]);
    expect((await outsider.get('/api/texts/neighbours?of=shared-line')).body.usedIn).toEqual([]);
    expect((await outsider.get('/api/versions/shared-line/impact/uses-it')).status).toBe(404);
  });

  it('is not in an export, nor told of by a call word that is taken', async () => {
    await makeText({ call: author }, 'Called', file('Called', 'a', ''), office);
    const { body } = await author.get('/api/texts/called');
    const called = {
      ...body.document,
      attrs: { ...body.document.attrs, front: { ...body.document.attrs.front, call: 'psst' } },
    };
    await author.put('/api/texts/called').send({ document: called, revision: 1 }).expect(200);
    const zip = await outsider.post('/api/library/zip').send({}).buffer();
    expect(zip.text).not.toContain('hidden-letter');
    const answer = await outsider
      .post('/api/texts/import')
      .send({ files: [{ file: 'mine.md', content: file('Mine', 'a', 'call: psst\n') }] });
    expect(answer.body.message).toBe('The call word “psst” is taken by another text.');
  });
});

describe('a working copy', () => {
  it('does not reach who may not write it: neither a text before it is published, nor a change after', async () => {
    expect((await colleague.get('/api/texts')).body.map(({ name }: { name: string }) => name)).not.toContain(
      'not-ready',
    );
    expect((await colleague.get('/api/texts/not-ready/closure')).status).toBe(404);
    expect((await colleague.post('/api/fills').send({ text: 'not-ready' })).status).toBe(404);
    const started = await author.post('/api/fills').send({ text: 'not-ready' });
    expect([started.status, started.body.code]).toEqual([422, 'not-published']);
    await makePublished({ call: author }, 'Plain', file('Plain', 'First words.'));
    const changed = documentOf(file('Renamed meanwhile', 'Second words.'));
    await author.put('/api/texts/plain').send({ document: changed, revision: 1 }).expect(200);
    const [line] = (await colleague.get('/api/texts')).body.filter(({ name }: { name: string }) => name === 'plain');
    expect(line).toMatchObject({ title: 'Plain', state: 'published', mayWrite: false });
    expect(line.findings).toBeUndefined();
    expect(JSON.stringify((await colleague.get('/api/texts/plain/closure')).body)).toContain('First words');
    expect((await colleague.get('/api/texts/search').query({ q: 'second', for: 'write' })).body).toEqual([]);
    expect((await colleague.get('/api/texts/plain')).status).toBe(403);
    expect((await colleague.get('/api/versions/plain')).body).toMatchObject({
      checkpoints: [],
      requests: [],
      mayWrite: false,
    });
    expect((await colleague.get('/api/versions/plain/states/working')).status).toBe(403);
    await publish({ call: author }, 'plain');
    expect((await colleague.get('/api/texts/search').query({ q: 'second', for: 'write' })).body).toHaveLength(1);
  });
});

describe('a private folder', () => {
  it('is its owner’s alone, administrators included, and its folders with it', async () => {
    const own = `own-${author.user.id}`;
    const below = (await author.post('/api/folders').send({ parent: own, title: 'Drafts' })).body.id;
    await makePublished({ call: author }, 'Diary', file('Diary', 'A private word.'), below);
    expect((await server.call.get('/api/texts/diary/closure')).status).toBe(404);
    expect((await server.call.get('/api/folders')).body.map(({ id }: { id: string }) => id)).not.toContain(below);
    expect((await server.call.get('/api/texts/search').query({ q: 'private', for: 'write' })).body).toEqual([]);
    const shared = await author.patch(`/api/folders/${own}`).send({ grants: [{ holder: 'everyone', right: 'fill' }] });
    expect([shared.status, shared.body.code]).toEqual([422, 'private']);
    // Moved into the open, it is everybody's.
    await author
      .post('/api/texts/many')
      .send({ act: 'move', names: ['diary'], folder: 'root' })
      .expect(204);
    expect((await server.call.get('/api/texts/diary/closure')).status).toBe(200);
  });
});

describe('rights', () => {
  it('are the highest of a person, their groups, authors and everyone, added up from above', async () => {
    const folder = (await server.call.post('/api/folders').send({ parent: 'root', title: 'Desk' })).body.id;
    const inside = (await server.call.post('/api/folders').send({ parent: folder, title: 'Inside' })).body.id;
    const group = (await server.call.post('/api/people/groups').send({ title: 'Desk', members: [outsider.user.id] }))
      .body.id;
    const rightOf = async (call: Calling, id: string): Promise<string | undefined> =>
      (await call.get('/api/folders')).body.find((each: { id: string }) => each.id === id)?.right;
    expect(await rightOf(outsider, inside)).toBe('publish');
    await server.call
      .patch(`/api/folders/${folder}`)
      .send({ inherits: false, grants: [{ holder: 'everyone', right: 'fill' }] });
    expect([await rightOf(outsider, inside), await rightOf(colleague, inside)]).toEqual(['fill', 'fill']);
    await server.call.patch(`/api/folders/${inside}`).send({ grants: [{ holder: `group:${group}`, right: 'manage' }] });
    expect([await rightOf(outsider, inside), await rightOf(outsider, folder)]).toEqual(['manage', 'fill']);
    // A colleague fills, whatever is granted.
    await server.call.put(`/api/people/groups/${group}`).send({ title: 'Desk', members: [colleague.user.id] });
    expect([await rightOf(outsider, inside), await rightOf(colleague, inside)]).toEqual(['fill', 'fill']);
    await server.call.delete(`/api/people/groups/${group}`).expect(204);
    expect((await server.call.get(`/api/folders/${inside}/rights`)).body.grants).toEqual([]);
  });
  it('keep folders from being put into themselves, nested without end, or taken away with what is in them', async () => {
    const one = (await server.call.post('/api/folders').send({ parent: 'root', title: 'One' })).body.id;
    let at = one;
    for (let depth = 0; depth < 11; depth += 1)
      at = (await server.call.post('/api/folders').send({ parent: at, title: `Deep ${depth}` })).body.id ?? at;
    expect((await server.call.post('/api/folders').send({ parent: at, title: 'Too deep' })).body.code).toBe('too-deep');
    expect((await server.call.patch(`/api/folders/${one}`).send({ parent: at })).body.code).toBe('loop');
    expect((await server.call.delete(`/api/folders/${one}`)).body.code).toBe('not-empty');
    expect((await server.call.delete('/api/folders/root')).body.code).toBe('fixed');
  });
});
