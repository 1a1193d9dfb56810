import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { start, type Started } from '../testing/start.js';

let server: Started;
beforeEach(async () => {
  server = await start();
});
afterEach(() => server.stop());

const post = (path: string, bytes: string | Buffer) =>
  server.call
    .post(path)
    .set('content-type', 'application/octet-stream')
    .send(typeof bytes === 'string' ? Buffer.from(bytes) : bytes);
const take = (bytes: string | Buffer, more = '') => post(`/api/tables?use=sample&title=T${more}`, bytes);

describe('recognising', () => {
  it('says separator, encoding, names and types', async () => {
    const bytes = Buffer.from(
      'First name;E-mail;Visit;Größe\nZoë;zoe@x.example;2027-05-11;3\n;ann@x.example;;\n',
      'latin1',
    );
    const { body } = await post('/api/tables/recognise', bytes);
    expect(body).toMatchObject({ separator: 'semicolon', encoding: 'Windows-1252', rows: 2 });
    expect(body.columns.map(({ key, type, empty }: Record<string, unknown>) => [key, type, empty])).toEqual([
      ['first_name', 'text', 1],
      ['e_mail', 'email', 0],
      ['visit', 'date', 1],
      ['gro_e', 'number', 1],
    ]);
    expect((await server.call.get('/api/tables')).body).toEqual([]);
  });
});

describe('a table that is none', () => {
  it.each([
    ['nothing', '', /empty/i],
    ['only white space', ' \n \n', /./],
    ['a ragged row', 'a,b\n1,2\n1,2,3\n', /^Line 3: /],
    ['a NUL byte', 'a,b\n1,\0\n', /^Line 2: /],
    ['a spreadsheet', Buffer.from([0x50, 0x4b, 3, 4, 0, 0, 0, 0]), /spreadsheet/i],
    ['an open quote', 'a,b\n"1,2\n', /^Line 2: /],
  ])('%s is refused in words, and nothing is kept', async (_what, bytes, words) => {
    for (const answer of [await take(bytes), await post('/api/tables/recognise', bytes)]) {
      expect([answer.status, answer.body.code]).toEqual([422, 'bad-table']);
      expect(answer.body.message).toMatch(words);
    }
    expect((await server.call.get('/api/tables')).body).toEqual([]);
  });

  it.each([
    ['repeated', 'name,name\na,b\n', ['name', 'name_2']],
    ['blank', 'name,\na,b\n', ['name', 'column_2']],
  ])('%s headers are taken only when their new names are accepted', async (_what, csv, keys) => {
    const refused = await take(csv);
    expect([refused.status, refused.body.details.notes.length]).toEqual([422, 1]);
    const { body } = await take(csv, '&accept=true');
    const stored = await server.call.get(`/api/tables/${body.id}`);
    expect(stored.body.columns.map((column: { key: string }) => column.key)).toEqual(keys);
  });
});

describe('a table', () => {
  it('of ten thousand rows comes back whole and in order', async () => {
    const csv = `name,n\n${Array.from({ length: 10_000 }, (_, at) => `Ann ${at},${at}`).join('\n')}\n`;
    const { body } = await take(csv);
    expect(body.rows).toBe(10_000);
    const stored = await server.call.get(`/api/tables/${body.id}`);
    expect(stored.body.cells.at(-1)).toEqual({ name: 'Ann 9999', n: '9999' });
  });

  it('is written so that no spreadsheet runs a cell', async () => {
    const { body } = await take('name,note\nAnn,"=1+1"\n');
    const csv = (await server.call.get(`/api/tables/${body.id}/csv`)).text;
    expect(csv).toContain("'=1+1");
    expect((await take(csv)).status).toBe(201);
  });

  it('of samples is never where recipients are looked up', async () => {
    await take('first_name,email\nAnn,ann@x.example\n');
    expect((await server.call.get('/api/tables/recipients?q=ann')).body).toEqual([]);
    await post('/api/tables?use=recipients&title=People', 'Vorname,Nachname,Mail\nZoë,Groß,zoe@x.example\n');
    expect((await server.call.get('/api/tables/recipients?q=zoe%20gros')).body).toMatchObject([
      { name: 'Zoë Groß', email: 'zoe@x.example', list: 'People' },
    ]);
  });
});
