/** Whose mail one reads, and as whom one sends: never by saying so. */
import { EMPTY_PROFILE } from '@vocabula/contract';
import { eq } from 'drizzle-orm';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { schema } from '../db/database.js';
import { makePublished, start, type Started } from '../testing/start.js';

let server: Started;
let eve: Awaited<ReturnType<Started['as']>>;
let victim: Awaited<ReturnType<Started['as']>>;
beforeEach(async () => {
  server = await start(undefined, { smtp: () => 'smtp://127.0.0.1:9' });
  [eve, victim] = [await server.as('colleague', 'Eve'), await server.as('colleague', 'Vera')];
});
afterEach(() => server.stop());

const mail = (subject: string): Buffer => Buffer.from(`From: b@x.example\r\nSubject: ${subject}\r\n\r\nHello\r\n`);
const DESK = 'desk@larkmoor.example';
/** As a profile from before addresses were confirmed may have it. */
const claim = (person: string, email: string): Promise<unknown> =>
  server.database.write((writer) =>
    writer
      .update(schema.people)
      .set({ profile: { ...EMPTY_PROFILE, name: 'Eve', email } })
      .where(eq(schema.people.id, person)),
  );
async function senderOf(call: typeof eve): Promise<string> {
  await makePublished(server, 'Visit').catch(() => undefined);
  const { id } = (await call.post('/api/fills').send({ text: 'visit' })).body;
  await call.put(`/api/fills/${id}`).send({ recipient: { email: 'ann@x.example' }, answers: { name: 'Ann' } });
  const { outgoing } = (await call.post(`/api/fills/${id}/hand-over`).send({ way: 'service' })).body;
  const [row] = await server.database.read.select().from(schema.outgoing).where(eq(schema.outgoing.id, outgoing));
  return /^From: .*$/m.exec(String(row?.raw))?.[0] ?? '';
}

describe('an address that somebody only says is theirs', () => {
  it('is refused in a profile', async () => {
    const answer = await eve.put('/api/me').send({ ...EMPTY_PROFILE, name: 'Eve', email: victim.user.address });
    expect([answer.status, answer.body.code]).toEqual([422, 'address-not-confirmed']);
    expect((await eve.get('/api/me')).body.profile.email).toBe(eve.user.address);
  });
  it('reads no mail and sends none, even where it stands in an old profile', async () => {
    await server.services.letters.take('b@x.example', [victim.user.address], mail('Secret'));
    await claim(eve.user.id, victim.user.address);
    const { id } = (await victim.get('/api/mailroom/inbox')).body[0];
    expect((await eve.get(`/api/mailroom/letters/${id}`)).status).toBe(404);
    expect((await eve.get('/api/mailroom/letters')).body).toEqual([]);
    expect((await eve.get('/api/mailroom/inbox')).body).toEqual([]);
    expect((await eve.get(`/api/fills/read/${id}`)).status).toBe(404);
    const from = await senderOf(eve);
    expect(from).toContain(eve.user.address);
    expect(from).not.toContain(victim.user.address);
  });
});

describe('a further address', () => {
  it('counts once another person, an administrator, has confirmed it, and no longer once it is removed', async () => {
    expect((await eve.post('/api/me/addresses').send({ address: ' Desk@Larkmoor.example ' })).body).toEqual([
      { address: DESK, confirmed: false },
    ]);
    await server.services.letters.take('b@x.example', [DESK], mail('Before'));
    expect((await eve.get('/api/mailroom/inbox')).body).toEqual([]);
    await server.call.put(`/api/people/${eve.user.id}/addresses/${DESK}`).expect(204);
    await server.services.letters.take('b@x.example', [DESK], mail('To the desk'));
    expect((await eve.get('/api/mailroom/inbox')).body).toMatchObject([{ subject: 'To the desk' }]);
    const profile = { ...EMPTY_PROFILE, name: 'Eve', email: DESK };
    await eve.put('/api/me').send(profile).expect(200);
    expect(await senderOf(eve)).toBe(`From: Eve <${DESK}>`);
    await server.call.delete(`/api/people/${eve.user.id}/addresses/${DESK}`).expect(204);
    expect((await eve.get('/api/mailroom/inbox')).body).toEqual([]);
    expect(await senderOf(eve)).toContain(eve.user.address);
  });
  it('is never an account’s, and no account is made with one that is read by somebody else', async () => {
    const taken = await eve.post('/api/me/addresses').send({ address: victim.user.address });
    expect([taken.status, taken.body.code]).toEqual([409, 'taken']);
    await eve.post('/api/me/addresses').send({ address: DESK });
    await server.call.put(`/api/people/${eve.user.id}/addresses/${DESK}`).expect(204);
    const invited = await server.call.post('/api/people').send({ name: 'D', address: DESK, role: 'colleague' });
    expect([invited.status, invited.body.code]).toEqual([409, 'shared-address']);
  });
  it('of an administrator is confirmed by another one', async () => {
    await server.call.post('/api/me/addresses').send({ address: DESK });
    const own = await server.call.put(`/api/people/${server.user.id}/addresses/${DESK}`);
    expect([own.status, own.body.code]).toEqual([403, 'second-person']);
    const other = await server.as('administrator');
    await other.put(`/api/people/${server.user.id}/addresses/${DESK}`).expect(204);
    expect((await server.call.get('/api/me')).body.addresses).toEqual([{ address: DESK, confirmed: true }]);
  });
});
