import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { zipSync } from 'fflate';
import { makeText, start, type Started } from '../testing/start.js';

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
    ['a damaged workbook', Buffer.from([0x50, 0x4b, 3, 4, 0, 0, 0, 0]), /damaged/i],
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
    expect((await server.call.get('/api/recipients?q=ann')).body).toEqual([]);
    await post('/api/tables?use=recipients&title=People', 'Vorname,Nachname,Mail\nZoë,Groß,zoe@x.example\n');
    expect((await server.call.get('/api/recipients?q=zoe%20gros')).body).toMatchObject([
      { name: 'Zoë Groß', email: 'zoe@x.example', list: 'People' },
    ]);
  });
});

describe('a set that is worked on', () => {
  const csv = 'Name,Party\nAnn,2\nBo,3\n';
  const made = async (): Promise<string> => (await take(csv)).body.id as string;
  const change = (id: string, revision: number, ...changes: object[]) =>
    server.call.patch(`/api/tables/${id}`).send({ revision, changes });
  const stored = async (id: string) => (await server.call.get(`/api/tables/${id}`)).body;

  it('changes cells, rows and columns together, and says so to whoever was slower', async () => {
    const id = await made();
    const answer = await change(
      id,
      1,
      { what: 'cells', position: 1, cells: { name: 'Zoë' } },
      { what: 'column', column: { key: 'gate', name: 'Gate', type: 'text' } },
      { what: 'add-rows', rows: [{ name: 'Eve', gate: 'north' }] },
      { what: 'remove-rows', positions: [0] },
      { what: 'title', title: 'Spring' },
    );
    expect(answer.body).toMatchObject({ title: 'Spring', revision: 2, rows: 2 });
    expect(await stored(id)).toMatchObject({
      positions: [1, 2],
      cells: [
        { name: 'Zoë', party: '3' },
        { name: 'Eve', gate: 'north' },
      ],
    });
    const late = await change(id, 1, { what: 'title', title: 'Late' });
    expect([late.status, late.body.code, (await stored(id)).title]).toEqual([409, 'stale-revision', 'Spring']);
  });

  it('makes all changes or none', async () => {
    const id = await made();
    const answer = await change(
      id,
      1,
      { what: 'cells', position: 0, cells: { name: 'Gone' } },
      { what: 'cells', position: 9, cells: { name: 'Nobody' } },
    );
    expect(answer.status).toBe(422);
    expect(await stored(id)).toMatchObject({ revision: 1, cells: [{ name: 'Ann' }, { name: 'Bo' }] });
    expect(
      (await change(id, 1, { what: 'remove-column', key: 'name' }, { what: 'remove-column', key: 'party' })).status,
    ).toBe(422);
  });

  it('works columns out, and does not let anybody write in them', async () => {
    const id = await made();
    const column = { key: 'fee', name: 'Fee', type: 'number', value: 'party * 4.5' };
    await change(id, 1, { what: 'column', column });
    expect((await stored(id)).cells.map(({ fee }: { fee: string }) => fee)).toEqual(['9', '13.5']);
    expect((await change(id, 2, { what: 'cells', position: 0, cells: { fee: '1' } })).status).toBe(422);
    await change(id, 2, { what: 'column', column: { ...column, value: 'nothing + 1' } });
    expect((await stored(id)).problems).toHaveProperty('fee');
  });

  it('takes the rows of a file, its columns where they belong', async () => {
    const id = await made();
    const file = 'PARTY,Full name,Shoe size\n7,Eve,39\n';
    const seen = await post(`/api/tables/recognise?into=${id}`, file);
    expect(seen.body.columns.map(({ key, into, by }: Record<string, unknown>) => [key, into, by])).toEqual([
      ['party', 'party', 'name'],
      ['full_name', 'name', 'likeness'],
      ['shoe_size', undefined, undefined],
    ]);
    const choices = encodeURIComponent(JSON.stringify({ full_name: { into: 'name' }, shoe_size: { into: '' } }));
    await post(`/api/tables/${id}/rows?revision=1&choices=${choices}`, file);
    const { columns, cells } = await stored(id);
    expect(columns.map(({ key }: { key: string }) => key)).toEqual(['name', 'party']);
    expect(cells.at(-1)).toEqual({ party: '7', name: 'Eve' });
  });

  it('asks about days that could be read either way, and keeps to the answer', async () => {
    const file = 'Visit\n03/04/2027\n05/06/2027\n03/04/2027\n07/08/2027\n';
    const { columns } = (await post('/api/tables/recognise', file)).body;
    expect(columns[0]).toMatchObject({ type: 'text', doubtful: ['03/04/2027', '05/06/2027', '07/08/2027'] });
    const choices = encodeURIComponent(JSON.stringify({ visit: { order: 'month first' } }));
    const { body } = await take(file, `&choices=${choices}`);
    expect((await stored(body.id)).cells[0]).toEqual({ visit: '2027-03-04' });
  });

  it('is copied with people disguised, and is never a list to write to', async () => {
    const list = await post('/api/tables?use=recipients&title=People', 'First name,Email\nReal,real@firm.test\n');
    const { body } = await server.call
      .post(`/api/tables/${list.body.id}/copy`)
      .send({ title: 'Like people', disguise: true });
    expect(body.use).toBe('sample');
    expect(JSON.stringify((await stored(body.id)).cells)).not.toMatch(/Real|firm/i);
    expect((await server.call.get('/api/recipients?q=guest')).body).toEqual([]);
  });

  it('can be a template’s own; a list cannot', async () => {
    await makeText(server, 'Visit');
    const id = await made();
    expect((await server.call.put('/api/tables/own/visit').send({ table: id })).status).toBe(204);
    expect((await stored(id)).ownOf).toEqual(['visit']);
    const list = await post('/api/tables?use=recipients&title=People', csv);
    expect((await server.call.put('/api/tables/own/visit').send({ table: list.body.id })).status).toBe(422);
  });

  it('goes out as JSON too, formulas disarmed', async () => {
    const { body } = await take('Name\n=1+1\n');
    expect((await server.call.get(`/api/tables/${body.id}/json`)).body).toEqual([{ Name: "'=1+1" }]);
  });
});

describe('other files', () => {
  it('vCards are read, several of them', async () => {
    const card = (name: string, more: string) => `BEGIN:VCARD\r\nVERSION:4.0\r\nFN:${name}\r\n${more}END:VCARD\r\n`;
    const cards =
      card('Ann Oakes', 'N:Oakes;Ann;;;\r\nEMAIL:ann@x.example\r\nTEL;VALUE=uri:tel:+353-20-910-0101\r\n') +
      card(
        'Zoë Long',
        'ORG:Quillmere School;North\r\nADR:;;1 Road;Town;;X1;Ireland\r\nNOTE:likes\\, well\\, geese\r\n',
      );
    const { body } = await take(cards);
    const { columns, cells } = (await server.call.get(`/api/tables/${body.id}`)).body;
    expect(columns.map(({ key }: { key: string }) => key)).toEqual([
      'name',
      'first_name',
      'last_name',
      'email',
      'phone',
      'organisation',
      'street',
      'town',
      'postcode',
      'country',
      'note',
    ]);
    expect(cells[0]).toMatchObject({ first_name: 'Ann', last_name: 'Oakes', email: 'ann@x.example' });
    expect(cells[1]).toMatchObject({ organisation: 'Quillmere School', town: 'Town', note: 'likes, well, geese' });
    expect((await take('BEGIN:VCARD\nVERSION:4.0\nFN:Ann\n')).status).toBe(422);
  });

  it('a workbook is read: text, numbers, days, and what formulas gave', async () => {
    const { body } = await take(workbook());
    const { columns, cells } = (await server.call.get(`/api/tables/${body.id}`)).body;
    expect(columns.map(({ key, type }: { key: string; type: string }) => `${key} ${type}`)).toEqual([
      'name text',
      'party number',
      'visit date',
    ]);
    expect(cells).toEqual([
      { name: 'Zoë & <Co>', party: '12', visit: '2027-05-11' },
      { name: 'Bo', party: '2.5', visit: '' },
    ]);
  });
  it('a packed file that is none, or unpacks to too much, is refused in words', async () => {
    const other = Buffer.from(zipSync({ 'a.txt': new Uint8Array([65]) }));
    expect((await take(other)).body.message).toMatch(/not a workbook/);
    const bomb = Buffer.from(zipSync({ 'xl/workbook.xml': new Uint8Array(210_000_000) }, { level: 1 }));
    const answer = await take(bomb);
    expect([answer.status, answer.body.message]).toEqual([422, expect.stringMatching(/more than 80 MB/)]);
  });
});

/** A small workbook, written part by part. */
function workbook(): Buffer {
  const xml = (text: string): Uint8Array =>
    new TextEncoder().encode(`<?xml version="1.0" encoding="UTF-8" standalone="yes"?>${text}`);
  const main = 'http://schemas.openxmlformats.org/spreadsheetml/2006/main';
  const relations = 'http://schemas.openxmlformats.org/package/2006/relationships';
  const office = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
  const types = 'http://schemas.openxmlformats.org/package/2006/content-types';
  const text = (at: string, words: string): string => `<c r="${at}" t="inlineStr"><is><t>${words}</t></is></c>`;
  return Buffer.from(
    zipSync({
      '[Content_Types].xml': xml(
        `<Types xmlns="${types}"><Default Extension="xml" ContentType="application/xml"/></Types>`,
      ),
      '_rels/.rels': xml(
        `<Relationships xmlns="${relations}"><Relationship Id="r1" Type="${office}/officeDocument" Target="xl/workbook.xml"/></Relationships>`,
      ),
      'xl/workbook.xml': xml(
        `<workbook xmlns="${main}" xmlns:r="${office}"><sheets><sheet name="People" sheetId="1" r:id="r1"/></sheets></workbook>`,
      ),
      'xl/_rels/workbook.xml.rels': xml(
        `<Relationships xmlns="${relations}"><Relationship Id="r1" Type="${office}/worksheet" Target="worksheets/sheet1.xml"/><Relationship Id="r2" Type="${office}/styles" Target="styles.xml"/></Relationships>`,
      ),
      'xl/styles.xml': xml(
        `<styleSheet xmlns="${main}"><cellXfs count="2"><xf numFmtId="0"/><xf numFmtId="14" applyNumberFormat="1"/></cellXfs></styleSheet>`,
      ),
      'xl/worksheets/sheet1.xml': xml(
        `<worksheet xmlns="${main}"><sheetData><row r="1">${text('A1', 'Name')}${text('B1', 'Party')}${text('C1', 'Visit')}</row><row r="2">${text('A2', 'Zoë &amp; &lt;Co&gt;')}<c r="B2"><f>6*2</f><v>12</v></c><c r="C2" s="1"><v>46518</v></c></row><row r="3">${text('A3', 'Bo')}<c r="B3"><v>2.5</v></c></row></sheetData></worksheet>`,
      ),
    }),
  );
}
