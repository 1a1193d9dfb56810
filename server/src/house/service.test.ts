import { afterAll, beforeAll, expect, it } from 'vitest';
import type { Fill, StoredHouse } from '@vocabula/contract';
import { PLAIN_HOUSE, type House } from '@vocabula/core';
import { file, makePublished, publish, start, type Started } from '../testing/start.js';

let server: Started;
beforeAll(async () => {
  server = await start();
});
afterAll(() => server.stop());
const house: House = {
  ...PLAIN_HOUSE,
  facts: { fee: { variable: { key: 'fee', type: 'money', currency: 'EUR' }, value: '4.50', changes: [] } },
};
const importHouse = (content: string) =>
  server.call.post('/api/texts/import').send({ files: [{ file: 'library/house.yaml', content }] });

it('is the plain one until there is one, and is saved on its revision', async () => {
  expect((await server.call.get('/api/house')).body).toMatchObject({ revision: 0, house: PLAIN_HOUSE });
  expect((await server.call.put('/api/house').send({ house, revision: 0 }).expect(200)).body.revision).toBe(1);
  const stale = await server.call.put('/api/house').send({ house: PLAIN_HOUSE, revision: 0 }).expect(409);
  expect(stale.body.details.theirs.house).toEqual(house);
});

it('is refused where it would break messages', async () => {
  const wrong: unknown[] = [
    { ...house, style: { ...house.style, font: 'x; } body { display: none' } },
    { ...house, style: { ...house.style, link: { light: 'blue', dark: 'blue' } } },
    { ...house, style: { ...house.style, button: { ...house.style.button, colour: 'nowhere' } } },
    { ...house, facts: { fee: { ...house.facts.fee, variable: { key: 'other', type: 'money' } } } },
    { ...house, facts: { x: { variable: { key: 'x', type: 'list' }, value: '', changes: [] } } },
  ];
  for (const each of wrong)
    expect((await server.call.put('/api/house').send({ house: each, revision: 1 })).status).toBe(400);
});

it('comes in and goes out as a file', async () => {
  const { text } = await server.call.get('/api/house/file').expect(200);
  expect(text).toContain('fee: { type: money, currency: EUR, value: 4.50 }');
  expect((await importHouse(text).expect(200)).body).toMatchObject([{ name: 'house', outcome: 'same' }]);
  expect((await importHouse(text.replace('4.50', '5.00')).expect(200)).body).toMatchObject([{ outcome: 'changed' }]);
  expect((await importHouse('vocabula: 1\nfacts: { fee: { type: colour } }')).body.message).toMatch(/line 2/);
  expect(((await server.call.get('/api/house')).body as StoredHouse).house.facts.fee?.value).toBe('5.00');
});

it('is frozen with a message that is begun, and stands around it', async () => {
  const revision = ((await server.call.get('/api/house')).body as StoredHouse).revision;
  const letterhead = '---\nvocabula: 1\nkind: block\ntitle: Letterhead\n---\nLarkmoor\n';
  await server.call
    .post('/api/texts/import')
    .send({ files: [{ file: 'letterhead.md', content: letterhead }] })
    .expect(200);
  const framed = { ...house, style: { ...house.style, header: 'letterhead' } };
  await server.call.put('/api/house').send({ house: framed, revision }).expect(200);
  await publish(server, 'house.yaml');
  await publish(server, 'letterhead');
  await makePublished(server, 'Visit', file('Visit', 'It is {{house.fee}}.'));
  const fill = (await server.call.post('/api/fills').send({ text: 'visit' }).expect(201)).body as Fill;
  await server.call
    .put('/api/house')
    .send({ house: PLAIN_HOUSE, revision: revision + 1 })
    .expect(200);
  const again = (await server.call.get(`/api/fills/${fill.id}`)).body as Fill;
  expect([again.house, again.texts.map(({ name }) => name).sort()]).toEqual([framed, ['letterhead', 'visit']]);
  const handed = await server.call
    .post(`/api/fills/${fill.id}/hand-over`)
    .send({ way: 'copy', incomplete: true })
    .expect(200);
  expect(handed.body.text).toBe('Larkmoor\n\nIt is €4.50.\n');
});
