import PostalMime from 'postal-mime';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { compile, render } from '@vocabula/core';
import { documentOf, file, makePublished, publish, start, type Started } from '../testing/start.js';

let server: Started;
beforeEach(async () => {
  server = await start();
});
afterEach(() => server.stop());

const begin = async (text = 'visit') => (await server.call.post('/api/fills').send({ text })).body;
const answer = (id: string, answers: object, recipient: object = { email: 'ann@x.example' }) =>
  server.call.put(`/api/fills/${id}`).send({ recipient, answers });
const handOver = (id: string, more: object = {}) =>
  server.call.post(`/api/fills/${id}/hand-over`).send({ way: 'copy', ...more });

describe('a fill', () => {
  it('keeps the wording it was begun on, through later edits of every text', async () => {
    await makePublished(
      server,
      'Hours',
      file('Hours', 'open at nine')
        .replace('kind: message', 'kind: block')
        .replace(/subject.*\nto.*\n/, ''),
    );
    const { revision } = await makePublished(server, 'Visit', file('Visit', 'Dear {{name}},\n\n{{> hours}}'));
    const { id } = await begin();
    await answer(id, { name: 'Ann' });
    await server.call
      .put('/api/texts/visit')
      .send({ document: documentOf(file('Visit', 'Changed {{name}}')), revision });
    await server.call.delete('/api/texts/hours');
    await publish(server, 'visit');
    expect((await handOver(id)).body.text).toBe('Dear Ann,\n\nopen at nine\n');
    const again = await begin();
    await answer(again.id, { name: 'Ann' });
    expect((await handOver(again.id)).body.text).toBe('Changed Ann\n');
  });

  it('keeps what is given, and is found unfinished', async () => {
    await makePublished(server, 'Visit');
    const { id } = await begin();
    await answer(id, { name: 'Ann' }, { first_name: 'Ann', last_name: 'Lee' });
    expect((await server.call.get(`/api/fills/${id}`)).body).toMatchObject({
      answers: { name: 'Ann' },
      fields: { first_name: 'Ann', last_name: 'Lee' },
    });
    expect((await server.call.get('/api/fills')).body).toMatchObject([
      { id, state: 'unfinished', recipient: 'Ann Lee' },
    ]);
  });

  it('with a blank is handed over only when that is asked for', async () => {
    await makePublished(server, 'Visit');
    const { id } = await begin();
    const refused = await handOver(id);
    expect([refused.status, refused.body.code, refused.body.details.blanks]).toEqual([422, 'not-ready', ['name']]);
    expect((await server.call.get('/api/fills')).body[0].state).toBe('unfinished');
    const anyway = await handOver(id, { incomplete: true });
    expect(anyway.body.text).toBe('Dear [Name],\n');
    expect((await server.call.get('/api/fills')).body[0].state).toBe('handed over');
  });

  it('as a draft is a mail that says what the engine renders', async () => {
    await makePublished(server, 'Visit', file('Visit', 'Dear {{name}},\n\n*Ünïcode* & 漢字'));
    const { id } = await begin();
    await answer(id, { name: 'Ann <i>' });
    const eml = await handOver(id, { way: 'draft' })
      .buffer(true)
      .parse((response, done) => {
        const parts: Buffer[] = [];
        response.on('data', (part: Buffer) => parts.push(part));
        response.on('end', () => done(null, Buffer.concat(parts)));
      });
    expect(eml.headers['content-type']).toContain('message/rfc822');
    expect(eml.headers['content-disposition']).toContain('visit.eml');
    const mail = await PostalMime.parse(eml.body as Buffer);
    const document = documentOf(file('Visit', 'Dear {{name}},\n\n*Ünïcode* & 漢字'));
    const expected = render(compile({ name: 'visit', document }, { library: { get: () => undefined } }), {
      recipient: { email: 'ann@x.example' },
      answers: { name: 'Ann <i>' },
      today: '2026-11-24',
    });
    expect(mail.subject).toBe(expected.subject);
    expect(mail.to).toEqual([{ address: 'ann@x.example', name: '' }]);
    expect(mail.html?.trimEnd()).toBe(expected.html);
    expect(mail.text?.trimEnd()).toBe(expected.text.trimEnd());
    expect(mail.headers.find((header) => header.key === 'x-unsent')?.value).toBe('1');
  });

  it('is not begun on a block, on nothing, or on what is in the bin', async () => {
    await makePublished(server, 'Visit');
    await server.call.delete('/api/texts/visit');
    expect((await server.call.post('/api/fills').send({ text: 'visit' })).status).toBe(404);
  });
});
