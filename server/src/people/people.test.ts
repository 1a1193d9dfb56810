/** Coming in: first start, invitations, passwords, failures, sessions, keys. */
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import request from 'supertest';
import { eq } from 'drizzle-orm';
import { schema } from '../db/database.js';
import { sessionCookie } from '../http/session.js';
import { makePublished, start, type Started } from '../testing/start.js';
import { makeServices } from '../services.js';
import { hashed, isPassword } from './secrets.js';
import { DEMO_PASSWORD } from './sign-in.js';
import { keepWorkspaceValue } from './workspace.js';

let server: Started;
beforeEach(async () => {
  server = await start();
});
afterEach(() => server.stop());

const PASSWORD = 'a long sentence of it';
const visitor = () => request.agent(server.app);
const signIn = (address: string, password = PASSWORD) =>
  visitor().post('/api/door/sign-in').send({ address, password });

/** Invites somebody and follows the link. */
async function invited(address: string, role = 'colleague'): Promise<{ id: string; link: string }> {
  const { body } = await server.call.post('/api/people').send({ name: 'Eve', address, role });
  const link = (body.link.path as string).replace('/enter/', '');
  await visitor().post('/api/door/password').send({ token: link, password: PASSWORD }).expect(204);
  return { id: body.id, link };
}

describe('a password', () => {
  it('is kept so that it can be told from others and from nothing', async () => {
    const kept = await hashed('één');
    expect(kept).toMatch(/^scrypt\$32768\$8\$1\$/);
    expect(await isPassword('e\u0301e\u0301n', kept)).toBe(true);
    expect(await isPassword('een', kept)).toBe(false);
    expect(await isPassword('', undefined)).toBe(false);
    expect(await hashed('één')).not.toBe(kept);
  });
});

describe('the first start', () => {
  it('asks for an administrator once', async () => {
    const empty = await start();
    // The administrator of the tests has a password already: a place without one is asked of the service.
    expect((await empty.nobody.get('/api/door')).body).toEqual({ first: false, demo: [] });
    await empty.database.write(async (writer) => {
      await writer.update(schema.people).set({ password: null });
    });
    expect((await empty.nobody.get('/api/door')).body.first).toBe(true);
    const first = { name: 'Ruairí', address: 'R@x.example', password: PASSWORD };
    const answer = await empty.nobody.post('/api/door/first').send(first);
    expect([answer.status, answer.get('set-cookie')?.[0]]).toEqual([
      204,
      expect.stringMatching(/HttpOnly; SameSite=Lax/),
    ]);
    expect((await empty.nobody.get('/api/me')).body).toMatchObject({ role: 'administrator', address: 'r@x.example' });
    expect(
      (
        await request(empty.app)
          .post('/api/door/first')
          .send({ ...first, address: 'b@x.example' })
      ).status,
    ).toBe(409);
    await empty.stop();
  });
});

describe('an invitation', () => {
  it('is followed once, and its person signs in from then on, however the address is written', async () => {
    const { link } = await invited('eve@x.example');
    expect((await visitor().get(`/api/door/links/${link}`)).status).toBe(404);
    const again = await visitor().post('/api/door/password').send({ token: link, password: 'another one now' });
    expect(again.status).toBe(404);
    expect((await signIn(' EVE@x.example ')).status).toBe(204);
  });
  it('is for one address, which nobody else has', async () => {
    await invited('eve@x.example');
    const answer = await server.call.post('/api/people').send({ name: 'E', address: 'Eve@X.example', role: 'author' });
    expect([answer.status, answer.body.code]).toEqual([409, 'taken']);
  });
  it('made anew ends the one before; a reset ends the sessions there were', async () => {
    const { id } = await invited('eve@x.example');
    const eve = visitor();
    await eve.post('/api/door/sign-in').send({ address: 'eve@x.example', password: PASSWORD }).expect(204);
    const one = (await server.call.post(`/api/people/${id}/link`)).body.path.replace('/enter/', '');
    const two = (await server.call.post(`/api/people/${id}/link`)).body.path.replace('/enter/', '');
    expect((await visitor().get(`/api/door/links/${one}`)).status).toBe(404);
    expect((await visitor().get(`/api/door/links/${two}`)).body).toEqual({
      name: 'Eve',
      address: 'eve@x.example',
      what: 'reset',
    });
    await visitor().post('/api/door/password').send({ token: two, password: 'quite another one' }).expect(204);
    expect((await eve.get('/api/me')).status).toBe(401);
    expect((await signIn('eve@x.example')).status).toBe(401);
  });
});

describe('signing in', () => {
  it('answers a wrong password and an unknown address alike', async () => {
    await invited('eve@x.example');
    const [wrong, unknown] = [await signIn('eve@x.example', 'x'), await signIn('nobody@x.example', 'x')];
    expect([wrong.status, wrong.body]).toEqual([unknown.status, unknown.body]);
    expect(wrong.status).toBe(401);
  });
  it('is slowed after failures, for the right password too, and the trail tells of them', async () => {
    await invited('eve@x.example');
    const answers = [];
    for (let at = 0; at < 6; at += 1) answers.push((await signIn('eve@x.example', 'wrong')).status);
    expect(answers.slice(0, 4)).toEqual([401, 401, 401, 401]);
    expect(answers.at(-1)).toBe(429);
    const right = await signIn('eve@x.example');
    expect([right.status, right.body.code]).toEqual([429, 'wait']);
    const trail = (await server.call.get('/api/audit?q=failed')).body;
    expect(trail.length).toBeGreaterThanOrEqual(4);
  });
  it('is over for who was ended, at once', async () => {
    const { id } = await invited('eve@x.example');
    const eve = visitor();
    await eve.post('/api/door/sign-in').send({ address: 'eve@x.example', password: PASSWORD });
    expect((await eve.get('/api/me')).status).toBe(200);
    await server.call.patch(`/api/people/${id}`).send({ ended: true }).expect(200);
    expect((await eve.get('/api/me')).status).toBe(401);
    expect((await signIn('eve@x.example')).status).toBe(401);
  });
  it('leaves always an administrator', async () => {
    const answer = await server.call.patch(`/api/people/${server.user.id}`).send({ role: 'author' });
    expect([answer.status, answer.body.code]).toEqual([422, 'last-administrator']);
    expect((await server.call.get('/api/people')).status).toBe(200);
  });
});

describe('a session', () => {
  it('is listed and ended by its owner only, and a changed password ends the others', async () => {
    const { id } = await invited('eve@x.example');
    const [one, two] = [visitor(), visitor()];
    for (const each of [one, two])
      await each.post('/api/door/sign-in').send({ address: 'eve@x.example', password: PASSWORD });
    const list = (await one.get('/api/me/sessions')).body as { id: string; here: boolean }[];
    expect(list.filter(({ here }) => here)).toHaveLength(1);
    const other = list.find(({ here }) => !here)?.id;
    expect((await server.call.delete(`/api/me/sessions/${other}`)).status).toBe(404);
    await one.post('/api/me/password').send({ old: 'wrong', password: 'quite another' }).expect(422);
    await one.post('/api/me/password').send({ old: PASSWORD, password: 'quite another' }).expect(204);
    expect([(await one.get('/api/me')).status, (await two.get('/api/me')).status]).toEqual([200, 401]);
    expect(id).toBeTruthy();
  });
  it('does not begin with a made-up cookie', async () => {
    const made = await request(server.app)
      .get('/api/me')
      .set('cookie', sessionCookie('a'.repeat(43)));
    expect(made.status).toBe(401);
  });
});

describe('a key', () => {
  it('acts for its person within its scopes, until it is taken back', async () => {
    await makePublished(server, 'Visit');
    const { body } = await server.call.post('/api/me/keys').send({ title: 'Website', scopes: ['render'] });
    const call = (key: string) =>
      request(server.app)
        .post('/api/v1/texts/visit/render')
        .set('authorization', `Bearer ${key}`)
        .send({ answers: { name: 'Ann' } });
    expect((await call(body.key)).body).toMatchObject({ version: 1, subject: 'Hello Ann', text: 'Dear Ann,\n' });
    const listed = await request(server.app).get('/api/v1/texts').set('authorization', `Bearer ${body.key}`);
    expect([listed.status, listed.body.code]).toEqual([403, 'not-allowed']);
    // Keys are for the interface of programs: no page takes one.
    expect((await request(server.app).get('/api/me').set('authorization', `Bearer ${body.key}`)).status).toBe(401);
    expect((await server.call.get('/api/me/keys')).body[0]).not.toHaveProperty('key');
    await server.call.delete(`/api/me/keys/${body.id}`).expect(204);
    expect((await call(body.key)).status).toBe(401);
  });
});

describe('the audit trail', () => {
  it('is filtered, exported, and cannot be changed through the database either', async () => {
    await invited('eve@x.example', 'author');
    await makePublished(server, 'Visit');
    const acts = (await server.call.get('/api/audit?what=text')).body.map(({ act }: { act: string }) => act);
    expect(acts).toEqual(['published']);
    const csv = (await server.call.get('/api/audit/csv?q=invited')).text;
    expect(csv.split('\r\n').filter(Boolean)).toHaveLength(2);
    expect(csv).toContain('Eve as author');
    const changed = server.database.write((writer) => writer.update(schema.audit).set({ who: 'x' }));
    await expect(changed).rejects.toMatchObject({ cause: { message: expect.stringContaining('never changed') } });
    const removed = server.database.write((writer) => writer.delete(schema.audit));
    await expect(removed).rejects.toMatchObject({ cause: { message: expect.stringContaining('never changed') } });
  });
});

describe('keys, waits and doors', () => {
  it('keys end with a password that was reset, and do not come back with a restored account', async () => {
    const { id } = await invited('eve@x.example', 'author');
    const eve = visitor();
    await eve.post('/api/door/sign-in').send({ address: 'eve@x.example', password: PASSWORD }).expect(204);
    const made = async () => (await eve.post('/api/me/keys').send({ title: 'K', scopes: ['read'] })).body.key as string;
    const works = async (key: string) =>
      (await visitor().get('/api/v1/texts').set('authorization', `Bearer ${key}`)).status === 200;
    const first = await made();
    expect(await works(first)).toBe(true);
    const { path } = (await server.call.post(`/api/people/${id}/link`)).body;
    await eve
      .post('/api/door/password')
      .send({ token: path.replace('/enter/', ''), password: `${PASSWORD} 2` })
      .expect(204);
    expect(await works(first)).toBe(false);
    const second = await made();
    await server.call.patch(`/api/people/${id}`).send({ ended: true }).expect(200);
    await server.call.patch(`/api/people/${id}`).send({ ended: false }).expect(200);
    expect(await works(second)).toBe(false);
  });
  it('changing a password is slowed as signing in is', async () => {
    const eve = await server.as('colleague');
    const change = () => eve.post('/api/me/password').send({ old: 'guess', password: PASSWORD });
    const answers = [];
    for (let at = 0; at < 6; at += 1) answers.push((await change()).status);
    expect(answers).toEqual([422, 422, 422, 422, 429, 429]);
  });
  it('time that goes back does not lengthen a wait', async () => {
    await invited('eve@x.example');
    for (let at = 0; at < 6; at += 1) await signIn('eve@x.example', 'wrong');
    await server.database.write((writer) =>
      writer.update(schema.attempts).set({ count: 30, lastAt: new Date(Date.now() + 86_400_000).toISOString() }),
    );
    const { status, body } = await signIn('eve@x.example');
    expect([status, body.details.seconds <= 900]).toEqual([429, true]);
    // From then on it runs out.
    const [row] = await server.database.read.select().from(schema.attempts);
    expect(Date.parse(row?.lastAt ?? '')).toBeLessThanOrEqual(Date.now());
  });
  it('the demo’s password opens nothing elsewhere', async () => {
    await invited('eve@x.example');
    const [row] = await server.database.read
      .select()
      .from(schema.people)
      .where(eq(schema.people.address, 'eve@x.example'));
    await server.database.write((writer) => keepWorkspaceValue(writer, DEMO_PASSWORD, row?.password));
    expect((await signIn('eve@x.example')).body.code).toBe('demo-account');
    const demo = makeServices(server.database, { isDemo: () => true }).signIns;
    expect(await demo.signIn({ address: 'eve@x.example', password: PASSWORD }, 'here')).toMatchObject({ name: 'Eve' });
  });
});
