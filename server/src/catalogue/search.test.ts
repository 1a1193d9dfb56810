/** Searching as one types, and finding what says nearly the same. */
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { file, makePublished, makeText, publish, start, type Started } from '../testing/start.js';

let server: Started;
beforeAll(async () => {
  server = await start();
  await makePublished(
    server,
    'Orchard walk',
    file('Orchard walk', 'We talk about geese and ganders, and the Größe of apples.'),
  );
  const geese = { file: 'geese.md', content: file('Geese', 'Café opening on Sunday', 'call: goose\n') };
  await server.call
    .post('/api/texts/import')
    .send({ files: [geese] })
    .expect(200);
  await publish(server, 'geese');
  await makeText(server, 'Goose draft', file('Goose draft', 'Unfinished words.'));
  const long =
    'Thank you for writing to us about the bench by the pond. It was given by a member many years ago, and we will mend it before the spring.';
  await makePublished(server, 'Bench', file('Bench', long));
  await makePublished(server, 'Bench again', file('Bench again', long.replace('spring', 'summer')));
  await makePublished(
    server,
    'Something else',
    file(
      'Something else',
      'Nothing here is the same as anything there: it speaks of tickets, of trains and of timetables for the north.',
    ),
  );
});
afterAll(() => server.stop());

const hits = async (q: string, purpose = 'fill') =>
  (await server.call.get('/api/texts/search').query({ q, for: purpose })).body as {
    name: string;
    found: { text: string; hit: boolean }[];
  }[];
const names = async (q: string, purpose = 'fill') => (await hits(q, purpose)).map(({ name }) => name);

describe('what is typed', () => {
  it('finds begun words, a word in the middle, other cases and accents', async () => {
    expect(await names('gees')).toEqual(['geese', 'orchard-walk']);
    expect(await names('CAFE sunday')).toEqual(['geese']);
    expect(await names('grosse')).toEqual(['orchard-walk']);
    expect(await names('gande')).toEqual(['orchard-walk']);
  });
  it('forgives a slip: a letter more, less, other, or two changed round', async () => {
    for (const q of ['orchrad', 'orcard', 'orchardd', 'orxhard', 'rochard'])
      expect(await names(q)).toEqual(['orchard-walk']);
    expect(await names('zzzzzz')).toEqual([]);
  });
  it('puts a call word typed whole first, and marks what was found', async () => {
    expect((await names('goose', 'write'))[0]).toBe('geese');
    const [hit] = await hits('ganders');
    expect(hit?.found.filter((part) => part.hit).map(({ text }) => text)).toEqual(['ganders']);
    expect(hit?.found.map(({ text }) => text).join('')).toContain('geese and ganders');
  });
  it('is words, never a command of the index', async () => {
    for (const q of [
      '"',
      '*',
      'NEAR(a b)',
      'title:geese',
      'a OR b',
      "'; DROP TABLE texts; --",
      '()',
      '^',
      '\0',
      'x'.repeat(200),
    ])
      expect((await server.call.get('/api/texts/search').query({ q, for: 'write' })).status).toBe(200);
    expect(await names('geese')).toHaveLength(2);
  });
  it('finds drafts for authors who write, and not for filling', async () => {
    expect(await names('unfinished', 'write')).toEqual(['goose-draft']);
    expect(await names('unfinished')).toEqual([]);
  });
  it('left empty gives what was used last, then the others', async () => {
    await server.call.post('/api/fills').send({ text: 'geese' });
    expect((await names(''))[0]).toBe('geese');
    expect(await names('')).toHaveLength(5);
  });
});

describe('what says nearly the same', () => {
  it('is found together, and nothing else with it', async () => {
    const groups = (await server.call.get('/api/texts/alike')).body;
    expect(groups.map(({ texts }: { texts: { name: string }[] }) => texts.map(({ name }) => name).sort())).toEqual([
      ['bench', 'bench-again'],
    ]);
    expect(groups[0].likeness).toBeGreaterThan(0.8);
  });
});

describe('what was found before', () => {
  it('is found no more once it is retired, and again when it is offered again', async () => {
    const { name } = await makePublished(server, 'Heron', file('Heron', 'The heron stands in the pond.'));
    const retire = (retired: boolean) => server.services.versions.retire(name, retired ? {} : undefined, server.user);
    expect(await names('heron')).toEqual([name]);
    await retire(true);
    expect(await names('heron')).toEqual([]);
    await retire(false);
    expect(await names('heron')).toEqual([name]);
  });
  it('is found no more by whom it is hidden from', async () => {
    const colleague = await server.as('colleague');
    const find = async () =>
      (await colleague.get('/api/texts/search').query({ q: 'orchard', for: 'fill' })).body as { name: string }[];
    expect(await find()).toHaveLength(1);
    const { id } = (await server.call.post('/api/folders').send({ title: 'Hidden', parent: 'root' }).expect(201)).body;
    await server.call.patch(`/api/folders/${id}`).send({ inherits: false, grants: [] }).expect(204);
    await server.call
      .post('/api/texts/many')
      .send({ act: 'move', names: ['orchard-walk'], folder: id })
      .expect(204);
    expect(await find()).toEqual([]);
  });
});
