/** What the application gives away beside its answers: headers, its log, its health, and what lies behind a proxy. */
import { chmodSync, mkdtempSync, mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import request from 'supertest';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { Database } from '../db/database.js';
import { troubleOf } from '../db/database-errors.js';
import { makePublished, start, type Started } from '../testing/start.js';
import { makeApp } from './app.js';
import { loggedError, loggedPath, makeLog } from './log.js';
import { proxies } from './proxies.js';

let server: Started;
let logged: string;
const log = makeLog('info', { write: (line) => void (logged += line) });
beforeEach(async () => {
  logged = '';
  server = await start(undefined, { log });
});
afterEach(() => server.stop());

describe('the log', () => {
  it('holds no tokens of links', async () => {
    const { body } = await server.call
      .post('/api/people')
      .send({ name: 'Eve', address: 'eve@x.example', role: 'colleague' });
    const token = body.link.path.replace('/enter/', '');
    await server.nobody.get(`/api/door/links/${token}`).expect(200);
    await server.nobody.get(`/counted/open/${token}`);
    await server.call.put(`/api/people/${body.id}/addresses/secret@x.example`);
    expect(logged).toContain('/api/door/links/…');
    expect(logged).not.toContain(token);
    expect(logged).not.toContain('secret@');
    expect(logged).toContain(body.id);
  });
  it('keeps paths that are no secrets', () => {
    expect(loggedPath('/api/texts/a-very-long-name-of-a-text-indeed')).toBe(
      '/api/texts/a-very-long-name-of-a-text-indeed',
    );
    expect(loggedPath('/enter/kSxk2Q-9yWc0aXBJ_dQb5w2mBq3oKq1mZ0x')).toBe('/enter/…');
  });
  it('holds nothing of what a failed write was to keep', async () => {
    await server.database.write((writer) => writer.run('DROP TABLE table_rows' as never));
    const answer = await server.call
      .post('/api/tables?use=recipients&title=People')
      .set('content-type', 'application/octet-stream')
      .send(Buffer.from('first_name,email\nVeronica,veronica@x.example\n'));
    expect(answer.status).toBe(500);
    expect(logged).toContain('request failed');
    expect(logged).not.toMatch(/veronica/i);
    const inner = new Error('Failed query: insert\nparams: Veronica', { cause: new Error('x\nparams: Veronica') });
    expect(JSON.stringify(loggedError(inner))).not.toContain('Veronica');
  });
});

describe('answers', () => {
  it('are not kept by anybody in between, and a file that is not there is none', async () => {
    await makePublished(server, 'Visit');
    for (const path of ['/api/texts', '/api/me', '/api/texts/visit', '/api/nothing', '/api/health'])
      expect([path, (await server.call.get(path)).get('cache-control')]).toEqual([path, 'no-store']);
    const pages = mkdtempSync(join(tmpdir(), 'vocabula-pages-'));
    mkdirSync(join(pages, 'assets'));
    writeFileSync(join(pages, 'index.html'), '<!doctype html>the page');
    const app = makeApp(server.services, log, { pages });
    expect((await request(app).get('/assets/gone-123.js')).status).toBe(404);
    expect((await request(app).get('/catalogue')).text).toContain('the page');
    rmSync(pages, { recursive: true });
  });
  it('let nothing be framed', async () => {
    const policy = (await server.nobody.get('/api/health')).get('content-security-policy') ?? '';
    expect(policy).toContain("frame-src 'none'");
    expect(policy).toContain("frame-ancestors 'none'");
  });
  it('write nothing into the trail where something is only read', async () => {
    const count = async () => (await server.call.get('/api/audit')).body.length as number;
    const before = await count();
    for (const path of [
      '/api/texts',
      '/api/library/zip',
      '/api/audit/csv',
      '/api/me',
      '/api/folders',
      '/api/recipients/lists',
    ])
      await server.call.get(path);
    expect(await count()).toBe(before);
  });
  it.each([
    ['/api/mailings', { fill: 'x', timezone: 'Mars/Base' }],
    ['/api/fills/x/hand-over', { way: 'copy', timezone: 'Mars/Base' }],
    ['/api/proofs/x/send', { to: ['a@x.example'], cases: [{ label: 'a', recipient: {}, answers: {} }], timezone: 'X' }],
  ])('of %s with an unknown time zone are 422', async (path, body) => {
    const answer = await server.call.post(path).send(body);
    expect([answer.status, answer.body.code]).toEqual([422, 'unknown-zone']);
  });
});

describe('behind a proxy', () => {
  const through = (trustProxy: ReturnType<typeof proxies>) =>
    request(makeApp(server.services, log, { pages: 'none', trustProxy }))
      .post('/api/door/sign-in')
      .set({ 'x-forwarded-proto': 'https', 'x-forwarded-for': '203.0.113.9', 'x-forwarded-host': 'words.example' })
      .set('origin', 'https://words.example');
  it('that is believed, cookies are secure, and the caller’s own address and host count', async () => {
    await server.call
      .post('/api/people')
      .send({ name: 'Eve', address: 'eve@x.example', role: 'colleague' })
      .then(({ body }) =>
        server.nobody
          .post('/api/door/password')
          .send({ token: body.link.path.replace('/enter/', ''), password: 'a long sentence' }),
      );
    const answer = await through(1).send({ address: 'eve@x.example', password: 'a long sentence' });
    expect([answer.status, answer.get('set-cookie')?.[0]]).toEqual([204, expect.stringContaining('Secure')]);
    await through(1).send({ address: 'eve@x.example', password: 'wrong' });
    const attempts = await server.database.read.query.attempts.findMany();
    expect(attempts.map(({ key }) => key)).toContain('place:203.0.113.9');
  });
  it('that is not, nothing it says counts', async () => {
    const answer = await through(proxies('')).send({ address: 'eve@x.example', password: 'wrong' });
    expect(answer.body.code).toBe('foreign-origin');
  });
  it('is named by number or address, and by nothing else', () => {
    expect([proxies(undefined), proxies('2'), proxies('loopback, 10.0.0.0/8')]).toEqual([
      false,
      2,
      'loopback, 10.0.0.0/8',
    ]);
    expect(() => proxies('true')).toThrow('TRUST_PROXY');
  });
});

describe('a database in trouble', () => {
  it('is told in one line, at the start and by health', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'vocabula-trouble-'));
    writeFileSync(join(folder, 'words.db'), 'not a database, only words. '.repeat(100));
    const damaged = await Database.open(`file:${join(folder, 'words.db')}`).catch(troubleOf);
    expect(damaged).toContain('is damaged');
    chmodSync(folder, 0o700);
    rmSync(folder, { recursive: true });
    expect((await server.nobody.get('/api/health')).status).toBe(200);
    server.database.noteTrouble(Object.assign(new Error('attempt to write'), { code: 'SQLITE_READONLY' }));
    const health = await server.nobody.get('/api/health');
    expect([health.status, health.body]).toEqual([503, { ok: false, why: expect.stringContaining('read-only') }]);
    await server.call.put('/api/me/workspace').send({ counting: false }).expect(200);
    expect((await server.nobody.get('/api/health')).status).toBe(200);
  });
});
