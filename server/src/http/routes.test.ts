/** Every route there is: what it answers to a right call, and to wrong ones. */
import { PLAIN_HOUSE } from '@vocabula/core';
import type { Router } from 'express';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { documentOf, file, makeText, start, type Started } from '../testing/start.js';

let server: Started;
let table: string;
let fill: string;
let letter: string;
const DIGEST = '0123456789abcdef';
beforeAll(async () => {
  server = await start();
  await server.services.letters.take('a@x.example', ['b@x.example'], Buffer.from('Subject: Hello\r\n\r\nDear Ann'));
  letter = (await server.call.get('/api/mailroom/letters')).body[0].id;
  await makeText(server, 'Visit');
  const csv = 'first_name,email\nAnn,ann@x.example\n';
  table = (await upload('/api/tables?use=recipients&title=People', csv)).body.id;
  fill = (await server.call.post('/api/fills').send({ text: 'visit' })).body.id;
});
afterAll(() => server.stop());

const upload = (path: string, body: string | Buffer) =>
  server.call
    .post(path)
    .set('content-type', 'application/octet-stream')
    .send(Buffer.isBuffer(body) ? body : Buffer.from(body));

interface Case {
  readonly route: string;
  /** Made when the test runs: it may need what was made before. */
  readonly path?: () => string;
  readonly body?: () => unknown;
  readonly bytes?: string;
  readonly status: number;
}
const CALLS: readonly Case[] = [
  { route: 'GET /api/health', status: 200 },
  { route: 'GET /api/texts', status: 200 },
  { route: 'POST /api/texts', body: () => ({ kind: 'block', title: 'Ways in' }), status: 201 },
  { route: 'GET /api/texts/search', path: () => '/api/texts/search?q=vis', status: 200 },
  {
    route: 'POST /api/texts/import',
    body: () => ({ files: [{ file: 'two.md', content: file('Two') }] }),
    status: 200,
  },
  { route: 'GET /api/texts/:name', path: () => '/api/texts/visit', status: 200 },
  { route: 'GET /api/texts/:name/closure', path: () => '/api/texts/visit/closure', status: 200 },
  { route: 'GET /api/texts/:name/file', path: () => '/api/texts/visit/file', status: 200 },
  {
    route: 'PUT /api/texts/:name',
    path: () => '/api/texts/visit',
    body: () => ({ document: documentOf(file('Visit', 'Good day')), revision: 1 }),
    status: 200,
  },
  { route: 'DELETE /api/texts/:name', path: () => '/api/texts/two', status: 204 },
  { route: 'POST /api/texts/:name/restore', path: () => '/api/texts/two/restore', status: 204 },
  { route: 'GET /api/tables', path: () => '/api/tables?use=recipients', status: 200 },
  { route: 'POST /api/tables/recognise', bytes: 'a,b\n1,2\n', status: 200 },
  { route: 'POST /api/tables', path: () => '/api/tables?use=sample&title=T', bytes: 'a,b\n1,2\n', status: 201 },
  { route: 'GET /api/tables/recipients', path: () => '/api/tables/recipients?q=ann', status: 200 },
  { route: 'GET /api/tables/:id', path: () => `/api/tables/${table}`, status: 200 },
  { route: 'GET /api/tables/:id/csv', path: () => `/api/tables/${table}/csv`, status: 200 },
  { route: 'GET /api/tables/:id/json', path: () => `/api/tables/${table}/json`, status: 200 },
  {
    route: 'POST /api/tables/made',
    body: () => ({
      use: 'sample',
      title: 'Made up',
      columns: [{ key: 'a', name: 'A', type: 'text' }],
      rows: [{ a: '1' }],
      ownOf: 'visit',
    }),
    status: 201,
  },
  {
    route: 'PUT /api/tables/own/:name',
    path: () => '/api/tables/own/visit',
    body: () => ({ table: null }),
    status: 204,
  },
  {
    route: 'PATCH /api/tables/:id',
    path: () => `/api/tables/${table}`,
    body: () => ({ revision: 1, changes: [{ what: 'title', title: 'People' }] }),
    status: 200,
  },
  {
    route: 'POST /api/tables/:id/rows',
    path: () => `/api/tables/${table}/rows?revision=2`,
    bytes: 'first_name,email\nBo,bo@x.example\n',
    status: 200,
  },
  {
    route: 'POST /api/tables/:id/copy',
    path: () => `/api/tables/${table}/copy`,
    body: () => ({ title: 'Copy', disguise: true }),
    status: 201,
  },
  { route: 'DELETE /api/tables/:id', path: () => `/api/tables/${table}`, status: 204 },
  { route: 'POST /api/tables/:id/restore', path: () => `/api/tables/${table}/restore`, status: 204 },
  { route: 'GET /api/proofs/:name', path: () => '/api/proofs/visit', status: 200 },
  {
    route: 'POST /api/proofs/:name/looked-at',
    path: () => '/api/proofs/visit/looked-at',
    body: () => ({ case: 'late=yes', digest: DIGEST }),
    status: 204,
  },
  {
    route: 'DELETE /api/proofs/:name/looked-at/:digest',
    path: () => `/api/proofs/visit/looked-at/${DIGEST}`,
    status: 204,
  },
  {
    route: 'POST /api/proofs/:name/set-aside',
    path: () => '/api/proofs/visit/set-aside',
    body: () => ({ fingerprint: DIGEST, code: 'a-or-an', message: 'a a', reason: 'a name' }),
    status: 204,
  },
  {
    route: 'DELETE /api/proofs/:name/set-aside/:digest',
    path: () => `/api/proofs/visit/set-aside/${DIGEST}`,
    status: 204,
  },
  {
    route: 'POST /api/proofs/:name/send',
    path: () => '/api/proofs/visit/send',
    body: () => ({ to: ['me@x.example'], cases: [{ label: 'Ann', recipient: {}, answers: {} }] }),
    // Nothing here takes mail; that proofs arrive is tested with the stand-in.
    status: 422,
  },
  { route: 'GET /api/mailroom/letters', status: 200 },
  { route: 'GET /api/mailroom/letters/:id', path: () => `/api/mailroom/letters/${letter}`, status: 200 },
  { route: 'GET /api/assets', status: 200 },
  { route: 'POST /api/assets', path: () => '/api/assets?name=plan.txt', bytes: 'a plan', status: 201 },
  { route: 'GET /api/assets/:file', path: () => '/api/assets/plan.txt', status: 200 },
  { route: 'GET /api/starters', status: 200 },
  { route: 'POST /api/convert', path: () => '/api/convert?name=a.txt', bytes: 'Dear Ann', status: 200 },
  { route: 'GET /api/house', status: 200 },
  { route: 'PUT /api/house', body: () => ({ house: PLAIN_HOUSE, revision: 0 }), status: 200 },
  { route: 'GET /api/house/file', status: 200 },
  { route: 'GET /api/fills', status: 200 },
  { route: 'POST /api/fills', body: () => ({ text: 'visit' }), status: 201 },
  { route: 'GET /api/fills/:id', path: () => `/api/fills/${fill}`, status: 200 },
  {
    route: 'PUT /api/fills/:id',
    path: () => `/api/fills/${fill}`,
    body: () => ({ recipient: { email: 'ann@x.example' }, answers: { name: 'Ann' } }),
    status: 200,
  },
  {
    route: 'POST /api/fills/:id/hand-over',
    path: () => `/api/fills/${fill}/hand-over`,
    body: () => ({ way: 'copy', timezone: 'Europe/Dublin' }),
    status: 200,
  },
  { route: 'DELETE /api/fills/:id', path: () => `/api/fills/${fill}`, status: 204 },
  { route: 'POST /api/fills/:id/restore', path: () => `/api/fills/${fill}/restore`, status: 204 },
  { route: 'GET /api/me', status: 200 },
  {
    route: 'PUT /api/me',
    body: () => ({
      name: 'Maeve',
      email: 'maeve@larkmoor.example',
      title: '',
      telephone: '',
      pronouns: '',
      booking_link: '',
      own: { desk: '4' },
      signature: '',
      reply_signature: '',
    }),
    status: 200,
  },
];

function send({ route, path, body, bytes }: Case, given: unknown = body?.()) {
  const [method = 'GET', pattern = ''] = route.split(' ');
  const address = path?.() ?? pattern;
  if (bytes !== undefined) return upload(address, bytes);
  const verb = method.toLowerCase() as 'get' | 'put' | 'post' | 'patch' | 'delete';
  return given === undefined ? server.call[verb](address) : server.call[verb](address).send(given as object);
}

describe('every route', () => {
  it('is in the table above', () => {
    expect(registered(server.app.router).sort()).toEqual(CALLS.map(({ route }) => route).sort());
  });
  it.each(CALLS)('$route answers a right call with $status', async (each) => {
    expect((await send(each)).status).toBe(each.status);
  });
  it.each(CALLS.filter(({ body }) => body))('$route refuses a body of the wrong type with words', async (each) => {
    const wrong = [[], { nonsense: true }, 'not JSON', { text: 5, document: {}, files: 'x', way: 'fly', title: 7 }];
    for (const given of wrong) {
      const answer = await send(each, given);
      expect([answer.status, typeof answer.body.code, answer.body.message.length > 0]).toEqual([400, 'string', true]);
    }
  });
  it.each(CALLS.filter(({ route }) => /:(?:id|name|file)/.test(route)))('$route knows no unknown id', async (each) => {
    const pattern = each.route.split(' ')[1] as string;
    const answer = await send({ ...each, path: () => pattern.replace(/:(?:id|name|file)/, 'nobody') });
    expect([answer.status, answer.body.code]).toEqual([404, 'not-found']);
  });
  it.each(CALLS.filter(({ route }) => !route.startsWith('GET')))('$route refuses other sites', async (each) => {
    const answer = await send(each).set('origin', 'https://elsewhere.example');
    expect([answer.status, answer.body.code]).toEqual([403, 'foreign-origin']);
  });
  it('says so where there is nothing', async () => {
    expect((await server.call.get('/api/nothing')).body.code).toBe('not-found');
  });
});

describe('bad bodies', () => {
  it('that are no JSON, too large or too deep are the sender’s fault', async () => {
    const put = () => server.call.put(`/api/fills/${fill}`).set('content-type', 'application/json');
    expect((await put().send('{"recipient":')).status).toBe(400);
    const large = JSON.stringify({ recipient: { a: 'x'.repeat(7_000_000) }, answers: {} });
    expect((await put().send(large)).body.code).toBe('too-large');
    const deep = `{"recipient":{},"answers":{"a":${'['.repeat(20_000)}${']'.repeat(20_000)}}}`;
    expect((await put().send(deep)).status).toBe(400);
  });
  it('cannot reach into prototypes', async () => {
    const answer = await server.call
      .put(`/api/fills/${fill}`)
      .set('content-type', 'application/json')
      .send('{"recipient":{"__proto__":{"x":"y"}},"answers":{"constructor":{"prototype":{}}}}');
    expect([200, 400]).toContain(answer.status);
    expect(({} as { x?: unknown }).x).toBeUndefined();
  });
});

interface Layer {
  readonly route?: { readonly path: string; readonly methods: Record<string, boolean> };
  readonly handle: Partial<Router> & { readonly stack?: readonly Layer[] };
  readonly matchers?: readonly ((path: string) => { path: string } | false)[];
}

/** The routes an application has, found by asking each mounted router which of our prefixes it serves. */
function registered(router: Router): string[] {
  const PREFIXES = [
    '/api/tables',
    '/api/proofs',
    '/api/mailroom',
    '/api/texts',
    '/api/fills',
    '/api/assets',
    '/api/house',
    '/api',
    '',
  ];
  const routesOf = (layers: readonly Layer[], prefix: string): string[] =>
    layers.flatMap((layer) => {
      if (layer.route)
        return Object.keys(layer.route.methods).map(
          (method) => `${method.toUpperCase()} ${prefix}${layer.route?.path === '/' ? '' : layer.route?.path}`,
        );
      if (!layer.handle.stack) return [];
      const mount = PREFIXES.find((each) =>
        layer.matchers?.some((match) => match(`${each}/x`) && (match(`${each}/x`) as { path: string }).path === each),
      );
      return routesOf(layer.handle.stack, `${prefix}${mount ?? '?'}`);
    });
  return routesOf(router.stack as unknown as readonly Layer[], '').filter((route) => !route.includes('.*'));
}
