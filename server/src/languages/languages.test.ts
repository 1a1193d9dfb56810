/** Versions in other languages: known as such, compared with their original, and gone with it. */
import type { TextSummary } from '@vocabula/contract';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { schema } from '../db/database.js';
import { makePublished, makeText, start, type Started } from '../testing/start.js';

let server: Started;
beforeEach(async () => {
  server = await start();
});
afterEach(() => server.stop());
const german = (title: string): string =>
  `---\nvocabula: 1\nkind: message\ntitle: ${title}\nsubject: S\nlocale: de-DE\ntranslation_of: visit\n---\nGuten Tag.\n`;
const summary = async (name: string, call = server.call): Promise<TextSummary | undefined> =>
  ((await call.get('/api/texts')).body as TextSummary[]).find((text) => text.name === name);

describe('a version in another language', () => {
  it('says whose it is, to authors as written and to colleagues as published', async () => {
    await makePublished(server, 'Visit');
    await makePublished(server, 'Besuch', german('Besuch'));
    const colleague = await server.as('colleague');
    for (const call of [server.call, colleague])
      expect(await summary('besuch', call)).toMatchObject({ translationOf: 'visit', locale: 'de-DE' });
    const { body } = await server.call.get('/api/texts/besuch');
    const { translation_of: _, ...front } = body.document.attrs.front;
    const document = { ...body.document, attrs: { ...body.document.attrs, front } };
    await server.call.put('/api/texts/besuch').send({ document, revision: body.revision }).expect(200);
    expect((await summary('besuch'))?.translationOf).toBeUndefined();
    expect((await summary('besuch', colleague))?.translationOf).toBe('visit');
  });
});

describe('lines that were compared', () => {
  const pair = (nth: number) => ({ original: `Line ${nth}`, version: `Zeile ${nth}` });
  const agree = (...pairs: object[]) => server.call.post('/api/languages/besuch/agreed').send({ pairs });
  it('are kept, each once, the newest last', async () => {
    await makeText(server, 'Besuch', german('Besuch'));
    expect((await server.call.get('/api/languages/besuch/agreed')).body).toEqual({ pairs: [] });
    await agree(pair(1), pair(2), pair(3)).expect(200);
    await agree(pair(1)).expect(200);
    expect((await server.call.get('/api/languages/besuch/agreed')).body.pairs).toEqual([pair(2), pair(3), pair(1)]);
  });
  it('added by two at one moment are both kept', async () => {
    await makeText(server, 'Besuch', german('Besuch'));
    await Promise.all([1, 2, 3, 4].map((nth) => agree(pair(nth)).expect(200)));
    expect((await server.call.get('/api/languages/besuch/agreed')).body.pairs).toHaveLength(4);
  });
  it('are five thousand at most, the oldest are let go of', async () => {
    await makeText(server, 'Besuch', german('Besuch'));
    await agree(...Array.from({ length: 5000 }, (_, nth) => pair(nth))).expect(200);
    const { pairs } = (await agree(pair(5000)).expect(200)).body;
    expect([pairs.length, pairs[0], pairs.at(-1)]).toEqual([5000, pair(1), pair(5000)]);
  });
  it('are gone with the text', async () => {
    const { name } = await makeText(server, 'Besuch', german('Besuch'));
    await agree(pair(1)).expect(200);
    await server.call.delete(`/api/texts/${name}`).expect(204);
    await server.call
      .post('/api/texts/many')
      .send({ act: 'purge', names: [name] })
      .expect(204);
    expect(await server.services.database.read.select().from(schema.agreedLines)).toEqual([]);
  });
});
