import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { bodyOf } from '@vocabula/core';
import { inlineOf } from '@vocabula/core/filling';
import { blockFile, documentOf, makePublished, publish, start, type Started } from '../testing/start.js';

let server: Started;
const PARTY = `---
vocabula: 1
kind: message
title: Party
call: party
subject: Hello
to: "{{recipient.email}}"
fixed: [terms]
variables:
  party: { type: number, from: last, required: true }
  gate: { type: text, remember: true }
---
Dear all,

We expect {{party}} of you{{#loud}}!{{/loud}}.

{{> terms}}
`.replace('{{#loud}}!{{/loud}}', '');
beforeEach(async () => {
  server = await start();
  await makePublished(server, 'Terms', blockFile('Terms', 'Bring rugs.'));
  await makePublished(server, 'More', blockFile('More', 'Hello again,\n\nMind the geese.'));
  // Only a file brings its call word.
  await server.call.post('/api/texts/import').send({ files: [{ file: 'party.md', content: PARTY }] });
  await publish(server, 'party');
});
afterEach(() => server.stop());

const begin = async (more: object = { text: 'party' }) => (await server.call.post('/api/fills').send(more)).body;
const save = (id: string, answers: object, more: object = {}) =>
  server.call.put(`/api/fills/${id}`).send({ recipient: { email: 'ann@x.example' }, answers, ...more });
const copy = async (id: string) => (await server.call.post(`/api/fills/${id}/hand-over`).send({ way: 'copy' })).body;
const document = documentOf(PARTY);
const body = document.content.findIndex((part) => part.type === 'body');
const line = inlineOf(bodyOf(document)[1] as never);
const rewording = (after: unknown, more: object = {}) => ({
  parts: [],
  reworded: [{ text: 'party', path: [body, 1], before: line, after, over: {}, ...more }],
});
const WORDS = [{ type: 'text', text: 'Come with ' }, line[1], { type: 'text', text: ' friends of Ann.' }];

describe('what was answered before', () => {
  it('is offered for the same recipient, or for anybody where the variable says so', async () => {
    const { id } = await begin();
    await save(id, { party: 24, gate: 'north' });
    await copy(id);
    const again = await begin({ text: 'party', recipient: { email: 'ANN@x.example' } });
    expect(again.offered).toMatchObject({
      party: { value: 24, source: 'last' },
      gate: { value: 'north', source: 'memory' },
    });
    const other = await begin({ text: 'party', recipient: { email: 'bo@x.example' } });
    expect(Object.keys(other.offered)).toEqual(['gate']);
    const memory = (await server.call.get(`/api/fills/${other.id}/memory?address=ann@x.example`)).body;
    expect(memory.party.value).toBe(24);
    await save(again.id, {}, { offered: again.offered, confirmed: ['party'] });
    expect((await copy(again.id)).text).toContain('We expect 24 of you.');
    const someoneElse = await server.as('colleague');
    expect(
      (await someoneElse.post('/api/fills').send({ text: 'party', recipient: { email: 'ann@x.example' } })).body
        .offered,
    ).toEqual({});
  });

  it('is forgotten with the person: values go, the count stays', async () => {
    const { id } = await begin();
    await save(id, { party: 24 });
    await copy(id);
    await begin({ text: 'party', recipient: { email: 'ann@x.example' }, answers: { party: 3 } });
    const gone = (await server.call.post('/api/recipients/forget').send({ address: 'Ann <ann@x.example>' })).body;
    expect(gone).toEqual({ messages: 1, unfinished: 2, rows: 0 });
    expect((await server.call.get('/api/recipients/record?address=ann@x.example')).body.messages).toEqual([]);
    const kept = await server.database.read.query.handedOver.findMany();
    expect(kept).toMatchObject([{ text: 'party', version: 1, plain: '', html: '' }]);
    expect(kept.map(({ recipients, answers }) => [recipients, answers])).toEqual([[[], {}]]);
    expect(JSON.stringify(await server.database.read.query.fills.findMany())).not.toContain('ann@x.example');
  });
});

describe('an address that fills', () => {
  it('finds the template by its call word and the recipient by what is known', async () => {
    const upload = 'First name,Email\nAnn,ann@x.example\n';
    await server.call
      .post('/api/tables?use=recipients&title=P')
      .set('content-type', 'application/octet-stream')
      .send(Buffer.from(upload));
    const fill = await begin({ call: 'PARTY', to: 'ann@x.example', answers: { party: 3, nonsense: 1 } });
    expect([fill.text, fill.fields, fill.answers.party]).toEqual([
      'party',
      { first_name: 'Ann', email: 'ann@x.example' },
      3,
    ]);
    expect(fill.notes).toEqual(['Nothing here asks for nonsense.']);
    expect((await server.call.post('/api/fills').send({ call: 'none' })).status).toBe(404);
  });
});

describe('what is changed in one message', () => {
  it('is rendered, and never touches the template', async () => {
    const { id } = await begin();
    expect((await save(id, { party: 3 }, { changes: rewording(WORDS) })).status).toBe(200);
    expect((await copy(id)).text).toContain('Come with 3 friends of Ann.');
    const other = await begin();
    await save(other.id, { party: 3 });
    expect((await copy(other.id)).text).toContain('We expect 3 of you.');
  });

  it('is neither the words of a fixed block, nor anything but words', async () => {
    const { id } = await begin();
    const fixed = rewording([], { text: 'terms', path: [body, 0], before: [{ type: 'text', text: 'Bring rugs.' }] });
    expect((await save(id, {}, { changes: fixed })).body.code).toBe('fixed-words');
    const link = { type: 'text', text: 'x', marks: [{ type: 'link', attrs: { href: 'https://x.example' } }] };
    for (const after of [[{ type: 'inlineInclusion', attrs: { name: 'more' } }], [link]])
      expect((await save(id, {}, { changes: rewording(after) })).body.code).toBe('bad-changes');
    expect((await save(id, {}, { changes: rewording([], { before: [] }) })).body.code).toBe('bad-changes');
  });

  it('is carried over to a newer version while that says the same there', async () => {
    const { id } = await begin();
    await save(id, { party: 3 }, { changes: rewording(WORDS) });
    const { revision } = (await server.call.get('/api/texts/party')).body;
    await server.call
      .put('/api/texts/party')
      .send({ document: documentOf(PARTY.replace('Dear all', 'Dear friends')), revision });
    await publish(server, 'party');
    const newest = (await server.call.get(`/api/fills/${id}/newest`)).body;
    expect([newest.version, newest.changes.reworded.length]).toEqual([2, 1]);
    const anew = await begin({ text: 'party', changes: rewording(WORDS), answers: { party: 3 } });
    expect([anew.version, anew.notes]).toEqual([2, []]);
    await server.call
      .put('/api/texts/party')
      .send({ document: documentOf(PARTY.replace('We expect', 'We hope for')), revision: revision + 1 });
    await publish(server, 'party');
    expect((await begin({ text: 'party', changes: rewording(WORDS) })).notes[0]).toMatch(/could not be carried over/);
  });

  it('is suggested to whose text it is, without the recipient', async () => {
    const { id } = await begin();
    await save(id, {}, { recipient: { email: 'ann@x.example', first_name: 'Ann' }, changes: rewording(WORDS) });
    expect((await server.call.post(`/api/fills/${id}/suggest`).send({ text: 'party', path: [body, 1] })).status).toBe(
      204,
    );
    const [remark] = (await server.call.get('/api/versions/party/remarks')).body;
    expect(remark.quote.exact).toBe('We expect [party] of you.');
    expect(remark.body).toBe('Suggested wording: “Come with [party] friends of [recipient.first_name].”');
  });

  it('is another text stitched to it, frozen as the template was', async () => {
    const { id } = await begin();
    const stitched = await server.call.post(`/api/fills/${id}/parts`).send({ name: 'more', at: 99 });
    expect(stitched.body.changes.parts).toEqual([{ name: 'more', at: 99 }]);
    await save(id, { party: 3 });
    expect((await copy(id)).text).toMatch(/Bring rugs\.\n\nHello again,\n\nMind the geese\./);
    expect((await server.call.post(`/api/fills/${id}/parts`).send({ name: 'party', at: 0 })).body.code).toBe('itself');
    expect((await server.call.post(`/api/fills/${id}/parts`).send({ name: 'none', at: 0 })).status).toBe(404);
  });
});

describe('a mail that is answered', () => {
  const read = (words: string) =>
    server.call.post('/api/fills/read').set('content-type', 'application/octet-stream').send(Buffer.from(words));
  it.each([
    [
      'From: Ann Lee <ann@x.example>\nSubject: Visit\nDate: 2026-11-20 10:42\n\nMay we come?',
      'Visit',
      'Ann Lee <ann@x.example>',
      'May we come?',
    ],
    [
      'Von: Ann Lee ann@x.example\nGesendet: gestern\nBetreff: Besuch\n\nDürfen wir?',
      'Besuch',
      'Ann Lee ann@x.example <ann@x.example>',
      'Dürfen wir?',
    ],
    ['May we come on 14 June?\nann@x.example', '', 'ann@x.example', 'May we come on 14 June?\nann@x.example'],
    ['Just words', '', '', 'Just words'],
  ])('%j', async (words, subject, from, text) => {
    const { original } = (await read(words)).body;
    expect([original.subject, original.from, original.text.trim()]).toEqual([subject, from, text]);
  });
});
