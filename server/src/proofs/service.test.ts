import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { readEml } from '@vocabula/mail';
import type { Letter, LetterSummary } from '@vocabula/contract';
import { compile, render } from '@vocabula/core';
import { documentOf, file, makeText, start, type Started } from '../testing/start.js';
import { startStandIn, type StandIn } from '../mailroom/stand-in.js';
import { ProofService } from './service.js';

let server: Started;
let standIn: StandIn;
beforeEach(async () => {
  server = await start();
  standIn = await startStandIn(server.services.letters);
  await makeText(server, 'Visit');
});
afterEach(async () => {
  await standIn.close();
  await server.stop();
});
const ME = {
  name: 'Maeve Aldous',
  email: '',
  title: '',
  telephone: '',
  pronouns: '',
  booking_link: '',
  own: {},
  signature: '',
  reply_signature: '',
};
/** The service, sending to the stand-in or elsewhere. */
const proofs = (url: string | undefined = standIn.url): ProofService => {
  const { people, assets } = server.services;
  return new ProofService((people as unknown as { database: never }).database, people, assets, () => url);
};
const letters = async (): Promise<LetterSummary[]> =>
  (await server.call.get('/api/mailroom/letters')).body as LetterSummary[];
const cases = ['Ann', 'Bo & <b>'].map((name) => ({
  label: name,
  recipient: { email: `real-${name.length}@elsewhere.example` },
  answers: { name },
}));

describe('a proof that is sent', () => {
  it('arrives as it would read, marked in the subject, at the typed address and nowhere else', async () => {
    await server.call.put('/api/me').send(ME);
    const sent = await proofs().send('visit', { to: ['Me <me@larkmoor.example>'], cases }, server.user);
    expect(sent).toEqual({ sent: 2, to: ['Me <me@larkmoor.example>'] });
    const list = await letters();
    expect(list.map(({ subject }) => subject).sort()).toEqual([
      '[Proof] Hello Ann (Ann)',
      '[Proof] Hello Bo & <b> (Bo & <b>)',
    ]);
    for (const { sender, recipients } of list)
      expect([sender, recipients]).toEqual([server.user.address, ['me@larkmoor.example']]);
    const program = compile(
      { name: 'visit', document: documentOf(file('Visit')) },
      { library: { get: () => undefined } },
    );
    const shown = render(program, { ...cases[0], today: '2026-11-24' });
    const first = list.find(({ subject }) => subject.includes('Ann'));
    const letter = (await server.call.get(`/api/mailroom/letters/${first?.id}`)).body as Letter;
    expect(letter.text.replace(/\r\n/g, '\n').trim()).toBe(shown.text.trim());
    expect(letter.html.replace(/\r\n/g, '\n').trim()).toBe(shown.html.trim());
  });
  it('is refused in words without one address to send to, a service, or one that answers', async () => {
    const send = (service = proofs()) => service.send('visit', { to: ['me@larkmoor.example'], cases }, server.user);
    await expect(
      proofs().send('visit', { to: ['a@x.example, b@x.example'], cases }, server.user),
    ).rejects.toMatchObject({ status: 422, code: 'bad-address' });
    await expect(send(new ProofService(...without()))).rejects.toMatchObject({ code: 'no-mail-service' });
    await expect(send(proofs('smtp://127.0.0.1:1'))).rejects.toMatchObject({ code: 'not-sent' });
    expect(await letters()).toEqual([]);
  });
  const without = (): ConstructorParameters<typeof ProofService> => {
    const { people, assets } = server.services;
    return [(people as unknown as { database: never }).database, people, assets, () => undefined];
  };
});

describe('the stand-in', () => {
  it('keeps what is no proper mail as it came', async () => {
    await server.services.letters.take('', [server.user.address], Buffer.from('nothing of a mail'));
    const [letter] = await letters();
    expect(letter?.recipients).toEqual([server.user.address]);
    expect((await server.call.get(`/api/mailroom/letters/${letter?.id}`)).status).toBeLessThan(500);
    await expect(readEml(Buffer.from('Subject: x\r\n\r\ny'))).resolves.toMatchObject({ subject: 'x' });
  });
});

describe('what is kept of proofing', () => {
  const digest = 'a'.repeat(16);
  const record = async () => (await server.call.get('/api/proofs/visit')).body;
  it('is who looked at what and when, until it is taken back', async () => {
    await server.call.put('/api/me').send(ME);
    await server.call.post('/api/proofs/visit/looked-at').send({ case: 'guide=yes', digest });
    await server.call.post('/api/proofs/visit/looked-at').send({ case: 'guide=yes', digest });
    expect((await record()).lookedAt).toEqual([
      { case: 'guide=yes', digest, who: 'Maeve Aldous', at: expect.stringMatching(/^\d{4}-/) },
    ]);
    await server.call.delete(`/api/proofs/visit/looked-at/${digest}`);
    expect((await record()).lookedAt).toEqual([]);
  });
  it('is what was set aside and why; the last reason counts', async () => {
    const aside = { fingerprint: digest, code: 'a-or-an', message: 'a a' };
    expect((await server.call.post('/api/proofs/visit/set-aside').send({ ...aside, reason: ' ' })).status).toBe(400);
    for (const reason of ['a name', 'a brand'])
      await server.call.post('/api/proofs/visit/set-aside').send({ ...aside, reason });
    expect((await record()).setAside).toEqual([expect.objectContaining({ ...aside, reason: 'a brand' })]);
    await server.call.delete(`/api/proofs/visit/set-aside/${digest}`);
    expect((await record()).setAside).toEqual([]);
  });
});
