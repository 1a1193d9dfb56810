/** Sent mail to derive from: files of every form, and one's own record. */
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { makePublished, start, type Started } from '../testing/start.js';

let server: Started;
beforeAll(async () => {
  server = await start();
});
afterAll(() => server.stop());

const EML =
  'From: Ann <ann@x.example>\r\nTo: Bo <bo@x.example>\r\nSubject: Hello\r\nDate: Tue, 3 Nov 2026 10:00:00 +0000\r\n\r\nDear Bo,\r\n\r\nWelcome.\r\n';
const send = (name: string, content: string) =>
  server.call.post('/api/convert/mails').query({ name }).type('application/octet-stream').send(Buffer.from(content));

describe('files of sent mail', () => {
  it('are read, whatever their form', async () => {
    const { body } = await send('one.eml', EML);
    expect(body).toEqual([
      expect.objectContaining({
        file: 'one.eml',
        subject: 'Hello',
        from: 'Ann <ann@x.example>',
        to: ['Bo <bo@x.example>'],
        day: '2026-11-03',
      }),
    ]);
    const box = `From ann@x.example Tue Nov  3 10:00:00 2026\n${EML}\nFrom ann@x.example Tue Nov  3 11:00:00 2026\n${EML}`;
    expect((await send('sent.mbox', box)).body.map(({ file }: { file: string }) => file)).toEqual([
      'sent.mbox 1',
      'sent.mbox 2',
    ]);
    expect((await send('page.html', '<p>Hello</p>')).body).toEqual([
      { file: 'page.html', subject: '', to: [], html: '<p>Hello</p>' },
    ]);
    expect((await send('words.txt', 'Subject: Hi\n\nHello.')).body).toMatchObject([{ subject: 'Hi' }]);
    expect((await send('words.txt', 'Only words.')).body).toEqual([
      { file: 'words.txt', subject: '', to: [], text: 'Only words.' },
    ]);
    expect((await send('empty.txt', ' \n')).body).toEqual([]);
  });
  it('are for authors', async () => {
    const colleague = await server.as('colleague');
    expect((await colleague.get('/api/convert/sent')).status).toBe(403);
  });
});

describe('one’s own record', () => {
  it('has one’s own messages of a template, and nobody else’s', async () => {
    const source =
      '---\nvocabula: 1\nkind: message\ntitle: Hello there\nsubject: Hi\nto: "{{recipient.email}}"\n---\nHello {{recipient.first_name}}.\n';
    const { name } = await makePublished(server, 'Hello there', source);
    const sendAs = async (who: Started['call'], address: string): Promise<void> => {
      const { body } = await who
        .post('/api/fills')
        .send({ text: name, recipient: { email: address, first_name: 'Bo', last_name: 'Li' } });
      const done = await who.post(`/api/fills/${body.id}/hand-over`).send({ way: 'copy', incomplete: true });
      expect(done.status).toBe(200);
    };
    const other = await server.as('author');
    await sendAs(server.call, 'bo@x.example');
    await sendAs(other, 'una@x.example');
    const mine = (await server.call.get('/api/convert/sent').query({ text: name })).body;
    expect(mine).toHaveLength(1);
    expect(mine[0]).toMatchObject({ to: ['Bo Li <bo@x.example>'], html: expect.stringContaining('Hello Bo.') });
    await sendAs(server.call, 'eve@x.example');
    expect((await server.call.get('/api/convert/sent/texts')).body).toEqual([
      { text: name, title: 'Hello there', messages: 2 },
    ]);
    expect((await other.get('/api/convert/sent/texts')).body).toEqual([]);
    expect((await server.call.get('/api/convert/sent').query({ address: 'una@x.example' })).body).toEqual([]);
  });
});
