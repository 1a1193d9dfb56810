import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { start, type Started } from '../testing/start.js';
import type { Asset } from '@vocabula/contract';

let server: Started;
beforeAll(async () => {
  server = await start();
});
afterAll(() => server.stop());
const add = (name: string, bytes: Uint8Array | string, more = '') =>
  server.call
    .post(`/api/assets?name=${encodeURIComponent(name)}${more}`)
    .set('content-type', 'application/octet-stream')
    .send(Buffer.from(bytes as string));
const png = (byte: number): Buffer =>
  Buffer.concat([Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]), Buffer.from([byte])]);

describe('assets', () => {
  it('are kept once, under a name made of theirs and of what they are', async () => {
    const one = (await add('Größe Map.JPG', png(1)).expect(201)).body as Asset;
    expect(one).toEqual({ path: 'assets/grosse-map.png', type: 'image/png', size: 9 });
    expect((await add('other.png', png(1)).expect(201)).body).toEqual(one);
    expect(((await add('Größe Map.png', png(2)).expect(201)).body as Asset).path).toBe('assets/grosse-map-2.png');
    expect(((await add('../../etc/passwd', 'text').expect(201)).body as Asset).path).toBe('assets/passwd');
  });

  it('keep the name that texts call them by, where that is asked for', async () => {
    expect(((await add('assets/plan.pdf', '%PDF', '&exact=true').expect(201)).body as Asset).path).toBe(
      'assets/plan.pdf',
    );
    expect((await add('assets/plan.pdf', '%PDF', '&exact=true')).status).toBe(201);
    expect((await add('assets/plan.pdf', '%PDF other', '&exact=true')).status).toBe(409);
    expect((await add('../plan.pdf', 'a', '&exact=true')).status).toBe(409);
  });

  it('are shown as what they are, and can do nothing', async () => {
    await add('page.html', '<script>alert(1)</script>').expect(201);
    const page = await server.call.get('/api/assets/page.html').expect(200);
    expect(page.headers['content-type']).toContain('application/octet-stream');
    expect(page.headers['content-disposition']).toContain('attachment');
    expect(page.headers['content-security-policy']).toContain('sandbox');
    expect((await server.call.get('/api/assets/nowhere.png')).status).toBe(404);
    expect((await server.call.get('/api/assets/..%2F..%2Fpackage.json')).status).toBe(404);
  });

  it.each([
    ['a.svg', '<?xml version="1.0"?><svg xmlns="http://www.w3.org/2000/svg"><script>alert(1)</script></svg>', 422],
    ['a.png', '<svg onload="alert(1)">', 422],
    ['a.png', '', 422],
    ['big.png', Buffer.concat([png(1), Buffer.alloc(30_000_000)]), 413],
    ['large.png', Buffer.concat([png(1), Buffer.alloc(9_000_000)]), 413],
  ])('%s is refused with words', async (name, bytes, status) => {
    const answer = await add(name, bytes);
    expect([answer.status, (answer.body as { message: string }).message.length > 10]).toEqual([status, true]);
  });
});
