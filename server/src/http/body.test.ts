/** Bodies: who asks comes first, and nothing is made of what is too large, too deep or too much. */
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { start, type Started } from '../testing/start.js';
import { demandSmallJson } from './body.js';

let server: Started;
beforeAll(async () => {
  server = await start();
});
afterAll(() => server.stop());

describe('a body', () => {
  it.each([
    ['/api/library/look', 'application/octet-stream'],
    ['/api/mailroom/drop', 'application/octet-stream'],
    ['/api/convert?name=a.txt', 'application/octet-stream'],
    ['/api/assets?name=a.png', 'application/octet-stream'],
    ['/api/fills', 'application/json'],
    ['/api/v1/texts/visit/render', 'application/json'],
  ])('of nobody is not read at %s', async (path, type) => {
    const answer = await server.nobody.post(path).set('content-type', type).send(Buffer.alloc(3_000_000, 0x5b));
    // The answer is about who asks, not about the body, which would have been too large or no JSON.
    expect([answer.status, answer.body.code]).toEqual([401, expect.any(String)]);
  });
  it('at the door has 16 kB at most', async () => {
    const send = (bytes: number) =>
      server.nobody.post('/api/door/sign-in').send({ address: 'a@x.example', password: 'x', more: 'x'.repeat(bytes) });
    expect((await send(20_000)).body).toMatchObject({ code: 'too-large', message: expect.stringContaining('16 kB') });
    expect((await send(10)).status).toBe(400);
  });
  it('that is too large is refused with the limit of its route', async () => {
    const me = await server.call.put('/api/me').send({ name: 'x'.repeat(150_000) });
    expect([me.status, me.body.message]).toEqual([413, expect.stringContaining('100 kB')]);
    const text = await server.call.post('/api/texts').send({ title: 'x'.repeat(2_100_000) });
    expect([text.status, text.body.message]).toEqual([413, expect.stringContaining('1.5 MB')]);
  });
  it('that nests or holds too much is told so before anything is made of it', async () => {
    const send = (words: string) => server.call.post('/api/texts').set('content-type', 'application/json').send(words);
    expect((await send('['.repeat(500) + ']'.repeat(500))).body.message).toMatch(/nests more than 400 deep/);
    expect((await send(`[${'1,'.repeat(130_000)}1]`)).body.message).toMatch(/more than 120000 values/);
    expect((await send('{"a":')).body.message).toBe('This is not JSON.');
  });
});

describe('JSON that is small', () => {
  it('is never refused, whatever its strings hold', () => {
    fc.assert(
      fc.property(fc.jsonValue({ maxDepth: 20 }), (value) => {
        demandSmallJson(Buffer.from(JSON.stringify(value)));
      }),
    );
    const brackets = JSON.stringify({ a: `${'['.repeat(1000)}\\"${'['.repeat(1000)}` });
    expect(() => demandSmallJson(Buffer.from(brackets))).not.toThrow();
  });
});
