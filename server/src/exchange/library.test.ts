/** A catalogue that goes out as files, and comes back whole. */
import type { PackLibrary } from '@vocabula/contract';
import { strToU8, unzipSync, zipSync, strFromU8 } from 'fflate';
import { PLAIN_HOUSE } from '@vocabula/core';
import type { LibraryChoice, LibraryLook } from '@vocabula/contract';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { schema } from '../db/database.js';
import { blockFile, file, makeText, start, type Started } from '../testing/start.js';

let server: Started;
beforeEach(async () => {
  server = await start();
});
afterEach(() => server.stop());

const bytesOf = (answer: unknown, done: (problem: Error | null, body: Buffer) => void): void => {
  const chunks: Buffer[] = [];
  const response = answer as NodeJS.ReadableStream;
  response.on('data', (chunk: Buffer) => chunks.push(chunk));
  response.on('end', () => done(null, Buffer.concat(chunks)));
};
const pack = async (of: PackLibrary = {}, from = server): Promise<Buffer> =>
  (await from.call.post('/api/library/zip').send(of).buffer().parse(bytesOf).expect(200)).body as Buffer;
const look = async (zip: Uint8Array, to = server): Promise<LibraryLook> =>
  (
    await to.call
      .post('/api/library/look')
      .set('content-type', 'application/octet-stream')
      .send(Buffer.from(zip))
      .expect(200)
  ).body as LibraryLook;
const take = (zip: Uint8Array, choices: Record<string, LibraryChoice> = {}, to = server, into = 'root') =>
  to.call
    .post('/api/library/take')
    .field('choices', JSON.stringify({ choices, into }))
    .attach('file', Buffer.from(zip), 'library.zip');
const pixel = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
);

/** Folders two deep, a block with a picture, tags, an order by hand, a house. */
async function fill(): Promise<void> {
  const { call } = server;
  const visits = (await call.post('/api/folders').send({ parent: 'root', title: 'Visits & groups' })).body.id;
  const large = (await call.post('/api/folders').send({ parent: visits, title: 'Large' })).body.id;
  await call.post('/api/folders').send({ parent: 'root', title: 'Empty' });
  await call.post('/api/assets?name=map.png').set('content-type', 'application/octet-stream').send(pixel).expect(201);
  await makeText(server, 'Map', blockFile('Map', '![Map](assets/map.png)'), visits);
  const visit = { file: 'visit.md', content: file('Visit', 'Dear {{name}},\n\n{{> map}}', 'call: visit\n') };
  await call
    .post('/api/texts/import')
    .send({ files: [visit], folder: large })
    .expect(200);
  await makeText(server, 'Alone', file('Alone'));
  await call
    .post('/api/texts/many')
    .send({ act: 'tag', names: ['visit'], tags: ['spring', 'groups'] })
    .expect(204);
  await call
    .post('/api/texts/many')
    .send({ act: 'order', names: ['visit'], folder: large })
    .expect(204);
  await call
    .put('/api/house')
    .send({ house: { ...PLAIN_HOUSE, holidays: ['2027-01-01'] }, revision: 0 })
    .expect(200);
}

describe('a library', () => {
  it('goes out as files in folders, and into an empty place gives the same again', async () => {
    await fill();
    const zip = await pack();
    const parts = unzipSync(zip);
    expect(Object.keys(parts).sort()).toEqual([
      'alone.md',
      'assets/map.png',
      'catalogue.yaml',
      'house.yaml',
      'visits-groups/large/visit.md',
      'visits-groups/map.md',
    ]);
    const other = await start();
    const before = await look(zip, other);
    expect(before.items.map(({ outcome }) => outcome)).toEqual(
      before.items.map(({ what }) => (what === 'house' ? 'changed' : 'new')),
    );
    await take(zip, { 'house.yaml': 'take' }, other).expect(200);
    const texts = (packed: Uint8Array): Record<string, string> =>
      Object.fromEntries(Object.entries(unzipSync(packed)).map(([path, content]) => [path, strFromU8(content, true)]));
    expect(texts(await pack({}, other))).toEqual(texts(zip));
    const [line] = (await other.call.get('/api/texts')).body.filter(({ name }: { name: string }) => name === 'visit');
    expect(line).toMatchObject({ tags: ['groups', 'spring'], position: 1, call: 'visit', state: 'not published' });
    const folders = (await other.call.get('/api/folders')).body as { id: string; title: string; parent: string }[];
    const parent = folders.find(({ id }) => id === line.folder);
    expect([parent?.title, folders.find(({ id }) => id === parent?.parent)?.title]).toEqual([
      'Large',
      'Visits & groups',
    ]);
    // A second time there is nothing to do.
    expect((await look(zip, other)).items.every(({ outcome }) => outcome === 'same')).toBe(true);
    await other.stop();
  });
  it('of one folder holds what is below it, and of chosen texts these alone', async () => {
    await fill();
    const visits = (await server.call.get('/api/folders')).body.find(({ title }: { title: string }) =>
      title.startsWith('Visits'),
    ).id;
    expect(Object.keys(unzipSync(await pack({ folder: visits }))).sort()).toEqual([
      'assets/map.png',
      'catalogue.yaml',
      'large/visit.md',
      'map.md',
    ]);
    expect(Object.keys(unzipSync(await pack({ names: ['alone'] })))).toEqual(['alone.md', 'catalogue.yaml']);
  });
  it('coming in is listed first, and each item is taken, kept beside, or left', async () => {
    await fill();
    const zip = await pack();
    const parts = unzipSync(zip);
    const changed = zipSync({
      ...parts,
      'visits-groups/map.md': strToU8(
        strFromU8(parts['visits-groups/map.md'] as Uint8Array).replace('![Map]', '![Plan]'),
      ),
      'new.md': strToU8(file('New')),
    });
    const { items } = await look(changed);
    const of = (outcome: string) => items.filter((each) => each.outcome === outcome).map(({ path }) => path);
    expect([of('new'), of('changed'), of('same').length]).toEqual([['new.md'], ['visits-groups/map.md'], 4]);
    const left = await take(changed).expect(200);
    expect(left.body).toEqual({ taken: 1, kept: 0, skipped: 5 });
    expect((await server.call.get('/api/texts/map/file')).text).toContain('![Map]');
    const kept = await take(changed, {
      'visits-groups/map.md': 'keep both',
      'visits-groups/large/visit.md': 'take',
    }).expect(200);
    expect(kept.body.kept).toBe(1);
    expect((await server.call.get('/api/texts/map-2/file')).text).toContain('![Plan]');
    await take(changed, { 'visits-groups/map.md': 'take' }).expect(200);
    expect((await server.call.get('/api/texts/map/file')).text).toContain('![Plan]');
    const standing = (await server.call.get('/api/versions/map')).body;
    expect(standing.checkpoints[0].reason).toBe('import');
  });
  it('kept beside keeps what came together together', async () => {
    await fill();
    const parts = unzipSync(await pack());
    const both = zipSync({
      'map.md': strToU8(strFromU8(parts['visits-groups/map.md'] as Uint8Array).replace('![Map]', '![Plan]')),
      'visit.md': strToU8(strFromU8(parts['visits-groups/large/visit.md'] as Uint8Array).replace('Dear', 'Hello')),
    });
    await take(both, { 'map.md': 'keep both', 'visit.md': 'keep both' }).expect(200);
    const { text } = await server.call.get('/api/texts/visit-2/file');
    expect(text).toContain('{{> map-2}}');
    // The call word recalls one template.
    expect(text).not.toContain('call: visit');
  });
  it('that cannot be read is refused in words, and changes nothing', async () => {
    const refused = async (zip: Uint8Array, path: string): Promise<string> => {
      const answer =
        path === 'look'
          ? await server.call
              .post('/api/library/look')
              .set('content-type', 'application/octet-stream')
              .send(Buffer.from(zip))
          : await take(zip, { 'bad.md': 'take' });
      expect(answer.status).toBe(422);
      return answer.body.message as string;
    };
    expect(await refused(Buffer.from('no zip at all'), 'look')).toMatch(/not a zip/);
    expect(await refused(zipSync({ 'readme.txt': strToU8('x') }), 'look')).toMatch(/no text in this zip/);
    const bad = zipSync({ 'bad.md': strToU8(file('Bad', 'a\n\n{{#name}}\nb')), 'good.md': strToU8(file('Good')) });
    expect((await look(bad)).items[0]?.refused).toMatch(/^line \d+/);
    expect(await refused(bad, 'take')).toMatch(/^bad\.md: line \d+.*Nothing was taken\.$/);
    expect((await server.call.get('/api/texts')).body).toEqual([]);
    const climbing = zipSync({ '../../etc/evil.md': strToU8(file('Evil')), 'fine.md': strToU8(file('Fine')) });
    expect((await look(climbing)).items.map(({ path }) => path)).toEqual(['fine.md']);
  });
  it('that unpacks to very much is refused before it does', async () => {
    const bomb = zipSync({ 'a.md': new Uint8Array(450_000_000) }, { level: 9 });
    const answer = await server.call
      .post('/api/library/look')
      .set('content-type', 'application/octet-stream')
      .send(Buffer.from(bomb));
    expect([answer.status, answer.body.code]).toEqual([413, 'too-large']);
  });
});

describe('the bin', () => {
  it('gives back what was put in, and purges only by hand, only from it', async () => {
    await fill();
    const many = (act: string, names = ['visit', 'alone']) => server.call.post('/api/texts/many').send({ act, names });
    expect((await many('purge')).body.code).toBe('not-binned');
    await many('bin').expect(204);
    expect((await server.call.get('/api/texts/search?q=visit&for=write')).body).toEqual([]);
    await many('restore').expect(204);
    expect((await server.call.get('/api/texts/search?q=visit&for=write')).body).toHaveLength(1);
    await many('bin').expect(204);
    await many('purge').expect(204);
    expect((await server.call.get('/api/texts')).body.map(({ name }: { name: string }) => name)).toEqual(['map']);
    // All of it or none: one that does not exist stops the whole act.
    expect((await many('bin', ['map', 'nothing'])).status).toBe(404);
    expect((await server.call.get('/api/texts')).body[0].binned).toBe(false);
    const left = await server.database.read.select().from(schema.uses);
    expect(left.map(({ text }) => text)).toEqual(['map']);
  });
});
