/** Every route there is: what it answers to a right call, and to wrong ones. */
import { USUAL_WAYS } from '@vocabula/contract';
import { PLAIN_HOUSE } from '@vocabula/core';
import type { Router } from 'express';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Caller } from '../people/asker.js';
import { blockFile, documentOf, file, makePublished, makeText, start, type Started } from '../testing/start.js';

type Calling = Started['call'];
let server: Started;
let author: Calling;
let colleague: Calling;
let table: string;
let fill: string;
let letter: string;
let link: string;
let person: string;
let group: string;
let session: string;
let key: string;
let spare: string;
let folder: string;
let timed: string;
let remark: string;
let request: string;
let zip: Buffer;
let waiting: string;
let mailing: string;
let mailed: string;
let asking: string;
/** Somebody else, and what is theirs alone. */
let owner: Started['call'] & { readonly asker: { readonly id: string; readonly address: string } };
let theirs: Theirs;
const DIGEST = '0123456789abcdef';
const REPORT = { messages: 1, set: 'People', errors: 0, warnings: 0, findings: [] };
beforeAll(async () => {
  // Nothing listens there: what is to be sent waits.
  server = await start(undefined, { smtp: () => 'smtp://127.0.0.1:9' });
  [author, colleague] = [await server.as('author'), await server.as('colleague')];
  const { call, services, asker } = server;
  await services.letters.take('b@x.example', [asker.address], Buffer.from('Subject: Hello\r\n\r\nDear Ann'));
  letter = (await call.get('/api/mailroom/letters')).body[0].id;
  await makePublished(server, 'Visit');
  const csv = 'first_name,email\nAnn,ann@x.example\n';
  table = (await upload('/api/tables?use=recipients&title=People', csv)).body.id;
  fill = (await call.post('/api/fills').send({ text: 'visit' })).body.id;
  await makePublished(server, 'Greeting', blockFile('Greeting', 'Hello'));
  const ready = (await call.post('/api/fills').send({ text: 'visit' })).body.id;
  await call.put(`/api/fills/${ready}`).send({ recipient: { email: 'ann@x.example' }, answers: { name: 'Ann' } });
  waiting = (await call.post(`/api/fills/${ready}/hand-over`).send({ way: 'service' })).body.outgoing;
  mailing = (await call.post('/api/mailings').send({ fill })).body.id;
  await call.post(`/api/mailings/${mailing}/recipients`).send({ paste: 'ann@x.example, bo@x.example' });
  mailed = (await call.get(`/api/mailings/${mailing}/rows`)).body[0].id;
  const invited = await call.post('/api/people').send({ name: 'Eve', address: 'eve@x.example', role: 'colleague' });
  person = invited.body.id;
  link = invited.body.link.path.replace('/enter/', '');
  group = (await call.post('/api/people/groups').send({ title: 'G', members: [person] })).body.id;
  const scopes = ['read', 'render', 'publish'];
  key = (await call.post('/api/me/keys').send({ title: 'All', scopes })).body.key;
  spare = (await call.post('/api/me/keys').send({ title: 'Spare', scopes })).body.id;
  folder = (await call.post('/api/folders').send({ parent: 'root', title: 'F' })).body.id;
  await makeText(server, 'Plain');
  await makeText(server, 'Later');
  const at = new Date(Date.now() + 3_600_000).toISOString();
  await call.post('/api/versions/later/publish').send({ revision: 1, note: 'Later', at });
  timed = (await call.get('/api/versions/later')).body.timed[0].id;
  const quote = { exact: 'Dear', prefix: '', suffix: '' };
  remark = (await call.post('/api/versions/visit/remarks').send({ quote, body: 'Hm' })).body.id;
  request = (await call.post('/api/requests/for/later').send({ revision: 1, note: 'Please', report: REPORT })).body.id;
  await author.post('/api/me/addresses').send({ address: 'shared@larkmoor.example' });
  asking = (await author.get('/api/me')).body.id;
  owner = await server.as('author');
  theirs = await thingsOf(owner);
  zip = (await call.post('/api/library/zip').send({}).buffer().parse(inBytes)).body;
});
afterAll(() => server.stop());

/** One of everything that has an owner, by the name of the parameter or the place it stands in. */
interface Theirs {
  readonly fill: string;
  readonly letter: string;
  readonly outgoing: string;
  readonly mailing: string;
  readonly row: string;
  readonly session: string;
  readonly key: string;
  readonly text: string;
  readonly table: string;
  readonly folder: string;
  readonly request: string;
  readonly remark: string;
}
async function thingsOf(call: typeof owner): Promise<Theirs> {
  const { services } = server;
  await services.letters.take('b@x.example', [call.asker.address], Buffer.from('Subject: Theirs\r\n\r\nDear Ann'));
  const private_ = (await call.get('/api/folders')).body.find(({ own }: { own: boolean }) => own).id;
  const folder_ = (await call.post('/api/folders').send({ parent: private_, title: 'Below' })).body.id;
  const { name } = await makePublished({ call }, 'Private words', undefined, private_);
  const made = (await call.post('/api/fills').send({ text: name })).body.id;
  await call.put(`/api/fills/${made}`).send({ recipient: { email: 'ann@x.example' }, answers: { name: 'Ann' } });
  const mailing_ = (await call.post('/api/mailings').send({ fill: made })).body.id;
  await call.post(`/api/mailings/${mailing_}/recipients`).send({ paste: 'ann@x.example, bo@x.example' });
  const outgoing = (await call.post(`/api/fills/${made}/hand-over`).send({ way: 'service' })).body.outgoing;
  const list = await call
    .post('/api/tables?use=recipients&title=Theirs')
    .set('content-type', 'application/octet-stream')
    .send(Buffer.from('first_name,email\nAnn,ann@x.example\n'));
  const asked = await call.post(`/api/requests/for/${name}`).send({ revision: 1, note: 'Please', report: REPORT });
  const quote = { exact: 'Dear', prefix: '', suffix: '' };
  return {
    fill: made,
    letter: (await call.get('/api/mailroom/inbox')).body[0].id,
    outgoing,
    mailing: mailing_,
    row: (await call.get(`/api/mailings/${mailing_}/rows`)).body[0].id,
    session: (await call.get('/api/me/sessions')).body[0].id,
    key: (await call.post('/api/me/keys').send({ title: 'Theirs', scopes: ['read'] })).body.id,
    text: name,
    table: list.body.id,
    folder: folder_,
    request: asked.body.id,
    remark: (await call.post(`/api/versions/${name}/remarks`).send({ quote, body: 'Hm' })).body.id,
  };
}
/** Which thing the parameters of a route mean, by how the route begins. */
const MEANT: readonly (readonly [begins: string, thing: keyof Theirs])[] = [
  ['/api/fills/read/', 'letter'],
  ['/api/fills/', 'fill'],
  ['/api/outgoing/', 'outgoing'],
  ['/api/mailings/', 'mailing'],
  ['/api/mailroom/letters/', 'letter'],
  ['/api/me/sessions/', 'session'],
  ['/api/me/keys/', 'key'],
  ['/api/texts/', 'text'],
  ['/api/versions/', 'text'],
  ['/api/proofs/', 'text'],
  ['/api/requests/for/', 'text'],
  ['/api/requests/', 'request'],
  ['/api/tables/own/', 'text'],
  ['/api/tables/', 'table'],
  ['/api/folders/', 'folder'],
  ['/api/v1/texts/', 'text'],
];
/** What all may do with what is somebody's: authors read the lists that all write to, to copy and to save them. */
const SHARED = new Set([
  'GET /api/tables/:id',
  'GET /api/tables/:id/csv',
  'GET /api/tables/:id/json',
  'POST /api/tables/:id/copy',
]);
/** Routes whose first parameter is no thing that has an owner. */
const UNOWNED = new Set([
  'GET /api/assets/:file',
  'GET /api/door/links/:token',
  'GET /counted/link/:token',
  'GET /counted/open/:token',
  'DELETE /api/me/addresses/:address',
]);

const inBytes = (answer: unknown, done: (problem: Error | null, body: Buffer) => void): void => {
  const response = answer as NodeJS.ReadableStream;
  const chunks: Buffer[] = [];
  response.on('data', (chunk: Buffer) => chunks.push(chunk));
  response.on('end', () => done(null, Buffer.concat(chunks)));
};

const upload = (path: string, body: string | Buffer) =>
  server.call
    .post(path)
    .set('content-type', 'application/octet-stream')
    .send(Buffer.isBuffer(body) ? body : Buffer.from(body));

interface Case {
  readonly route: string;
  /** Who may call it: `key` is another program, with a personal key. */
  readonly who: Caller | 'key';
  /** Made when the test runs: it may need what was made before. */
  readonly path?: () => string;
  readonly body?: () => unknown;
  readonly bytes?: string | (() => Uint8Array);
  /** A form with a file. */
  readonly form?: () => { readonly choices: unknown; readonly file: Buffer };
  readonly status: number;
}
const CALLS: readonly Case[] = [
  { route: 'GET /api/health', who: 'anyone', status: 200 },
  { route: 'GET /api/texts', who: 'colleague', status: 200 },
  { route: 'POST /api/texts', who: 'author', body: () => ({ kind: 'block', title: 'Ways in' }), status: 201 },
  { route: 'GET /api/texts/search', who: 'colleague', path: () => '/api/texts/search?q=vis', status: 200 },
  {
    route: 'POST /api/texts/import',
    who: 'author',
    body: () => ({ files: [{ file: 'two.md', content: file('Two') }] }),
    status: 200,
  },
  { route: 'GET /api/texts/:name', who: 'colleague', path: () => '/api/texts/visit', status: 200 },
  { route: 'GET /api/texts/:name/closure', who: 'colleague', path: () => '/api/texts/visit/closure', status: 200 },
  { route: 'GET /api/texts/:name/file', who: 'colleague', path: () => '/api/texts/visit/file', status: 200 },
  {
    route: 'PUT /api/texts/:name',
    who: 'colleague',
    path: () => '/api/texts/visit',
    body: () => ({ document: documentOf(file('Visit', 'Good day')), revision: 1 }),
    status: 200,
  },
  { route: 'DELETE /api/texts/:name', who: 'colleague', path: () => '/api/texts/two', status: 204 },
  { route: 'POST /api/texts/:name/restore', who: 'colleague', path: () => '/api/texts/two/restore', status: 204 },
  { route: 'GET /api/tables', who: 'author', path: () => '/api/tables?use=recipients', status: 200 },
  { route: 'POST /api/tables/recognise', who: 'author', bytes: 'a,b\n1,2\n', status: 200 },
  {
    route: 'POST /api/tables',
    who: 'author',
    path: () => '/api/tables?use=sample&title=T',
    bytes: 'a,b\n1,2\n',
    status: 201,
  },
  { route: 'GET /api/tables/:id', who: 'author', path: () => `/api/tables/${table}`, status: 200 },
  { route: 'GET /api/tables/:id/csv', who: 'author', path: () => `/api/tables/${table}/csv`, status: 200 },
  { route: 'GET /api/tables/:id/json', who: 'author', path: () => `/api/tables/${table}/json`, status: 200 },
  {
    route: 'POST /api/tables/made',
    who: 'author',
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
    who: 'author',
    path: () => '/api/tables/own/visit',
    body: () => ({ table: null }),
    status: 204,
  },
  {
    route: 'PATCH /api/tables/:id',
    who: 'author',
    path: () => `/api/tables/${table}`,
    body: () => ({ revision: 1, changes: [{ what: 'title', title: 'People' }] }),
    status: 200,
  },
  {
    route: 'POST /api/tables/:id/rows',
    who: 'author',
    path: () => `/api/tables/${table}/rows?revision=2`,
    bytes: 'first_name,email\nBo,bo@x.example\n',
    status: 200,
  },
  {
    route: 'POST /api/tables/:id/copy',
    who: 'author',
    path: () => `/api/tables/${table}/copy`,
    body: () => ({ title: 'Copy', disguise: true }),
    status: 201,
  },
  { route: 'DELETE /api/tables/:id', who: 'author', path: () => `/api/tables/${table}`, status: 204 },
  { route: 'POST /api/tables/:id/restore', who: 'author', path: () => `/api/tables/${table}/restore`, status: 204 },
  { route: 'GET /api/proofs/:name', who: 'author', path: () => '/api/proofs/visit', status: 200 },
  {
    route: 'POST /api/proofs/:name/looked-at',
    who: 'author',
    path: () => '/api/proofs/visit/looked-at',
    body: () => ({ case: 'late=yes', digest: DIGEST }),
    status: 204,
  },
  {
    route: 'DELETE /api/proofs/:name/looked-at/:digest',
    who: 'author',
    path: () => `/api/proofs/visit/looked-at/${DIGEST}`,
    status: 204,
  },
  {
    route: 'POST /api/proofs/:name/set-aside',
    who: 'author',
    path: () => '/api/proofs/visit/set-aside',
    body: () => ({ fingerprint: DIGEST, code: 'a-or-an', message: 'a a', reason: 'a name' }),
    status: 204,
  },
  {
    route: 'DELETE /api/proofs/:name/set-aside/:digest',
    who: 'author',
    path: () => `/api/proofs/visit/set-aside/${DIGEST}`,
    status: 204,
  },
  {
    route: 'POST /api/proofs/:name/send',
    who: 'author',
    path: () => '/api/proofs/visit/send',
    body: () => ({ to: ['me@x.example'], cases: [{ label: 'Ann', recipient: {}, answers: {} }] }),
    // Nothing here takes mail; that proofs arrive is tested with the stand-in.
    status: 422,
  },
  { route: 'GET /api/recipients', who: 'colleague', path: () => '/api/recipients?q=ann', status: 200 },
  {
    route: 'GET /api/recipients/record',
    who: 'colleague',
    path: () => '/api/recipients/record?address=ann@x.example',
    status: 200,
  },
  { route: 'GET /api/recipients/lists', who: 'colleague', status: 200 },
  { route: 'GET /api/recipients/do-not-write', who: 'colleague', status: 200 },
  {
    route: 'PUT /api/recipients/do-not-write',
    who: 'colleague',
    body: () => ({ address: 'never@x.example', because: 'asked' }),
    status: 204,
  },
  {
    route: 'DELETE /api/recipients/do-not-write',
    who: 'author',
    path: () => '/api/recipients/do-not-write?address=never@x.example',
    status: 204,
  },
  { route: 'POST /api/recipients/forget', who: 'author', body: () => ({ address: 'gone@x.example' }), status: 200 },
  { route: 'GET /api/outgoing', who: 'colleague', status: 200 },
  { route: 'GET /api/outgoing/service', who: 'colleague', status: 200 },
  { route: 'GET /api/outgoing/:id', who: 'colleague', path: () => `/api/outgoing/${waiting}`, status: 200 },
  {
    route: 'PATCH /api/outgoing/:id',
    who: 'colleague',
    path: () => `/api/outgoing/${waiting}`,
    body: () => ({ act: 'take back' }),
    status: 200,
  },
  { route: 'GET /api/mailings', who: 'colleague', status: 200 },
  { route: 'POST /api/mailings', who: 'colleague', body: () => ({ fill }), status: 201 },
  { route: 'GET /api/mailings/:id', who: 'colleague', path: () => `/api/mailings/${mailing}`, status: 200 },
  { route: 'GET /api/mailings/:id/rows', who: 'colleague', path: () => `/api/mailings/${mailing}/rows`, status: 200 },
  {
    route: 'GET /api/mailings/:id/progress',
    who: 'colleague',
    path: () => `/api/mailings/${mailing}/progress`,
    status: 200,
  },
  {
    route: 'PATCH /api/mailings/:id',
    who: 'colleague',
    path: () => `/api/mailings/${mailing}`,
    body: () => ({ differing: ['name'] }),
    status: 200,
  },
  {
    route: 'POST /api/mailings/:id/recipients',
    who: 'colleague',
    path: () => `/api/mailings/${mailing}/recipients`,
    body: () => ({ paste: 'cy@x.example' }),
    status: 200,
  },
  {
    route: 'PATCH /api/mailings/:id/rows/:row',
    who: 'colleague',
    path: () => `/api/mailings/${mailing}/rows/${mailed}`,
    body: () => ({ out: true }),
    status: 200,
  },
  {
    route: 'POST /api/mailings/:id/drive',
    who: 'colleague',
    path: () => `/api/mailings/${mailing}/drive`,
    body: () => ({ act: 'first', count: 7 }),
    status: 422,
  },
  { route: 'GET /api/mailroom/inbox', who: 'colleague', status: 200 },
  {
    route: 'PATCH /api/mailroom/letters/:id',
    who: 'colleague',
    path: () => `/api/mailroom/letters/${letter}`,
    body: () => ({ done: true }),
    status: 204,
  },
  {
    route: 'POST /api/mailroom/drop',
    who: 'colleague',
    bytes: 'From: ann@x.example\r\nSubject: Hello\r\n\r\nDear all\r\n',
    status: 201,
  },
  { route: 'GET /api/mailroom/clock', who: 'colleague', status: 200 },
  { route: 'POST /api/mailroom/clock', who: 'author', body: () => ({ hours: 1 }), status: 200 },
  { route: 'PUT /api/me/ways', who: 'colleague', body: () => USUAL_WAYS, status: 200 },
  { route: 'GET /api/me/at-hand', who: 'colleague', status: 200 },
  { route: 'PUT /api/me/at-hand', who: 'colleague', body: () => ({ names: ['visit'] }), status: 200 },
  { route: 'PUT /api/me/workspace', who: 'administrator', body: () => ({ counting: false }), status: 200 },
  {
    route: 'POST /api/fills/read',
    who: 'colleague',
    bytes: 'From: ann@x.example\r\nSubject: Hello\r\n\r\nDear all\r\n',
    status: 200,
  },
  { route: 'GET /api/fills/read/:letter', who: 'colleague', path: () => `/api/fills/read/${letter}`, status: 200 },
  {
    route: 'GET /api/fills/:id/memory',
    who: 'colleague',
    path: () => `/api/fills/${fill}/memory?address=ann@x.example`,
    status: 200,
  },
  { route: 'GET /api/fills/:id/newest', who: 'colleague', path: () => `/api/fills/${fill}/newest`, status: 200 },
  {
    route: 'POST /api/fills/:id/parts',
    who: 'colleague',
    path: () => `/api/fills/${fill}/parts`,
    body: () => ({ name: 'greeting', at: 0 }),
    status: 201,
  },
  {
    route: 'POST /api/fills/:id/suggest',
    who: 'colleague',
    path: () => `/api/fills/${fill}/suggest`,
    body: () => ({ text: 'visit', path: [9, 0] }),
    status: 404,
  },
  { route: 'GET /counted/link/:token', who: 'anyone', path: () => '/counted/link/none', status: 404 },
  { route: 'GET /counted/open/:token', who: 'anyone', path: () => '/counted/open/none', status: 404 },
  { route: 'GET /api/mailroom/letters', who: 'colleague', status: 200 },
  {
    route: 'GET /api/mailroom/letters/:id',
    who: 'colleague',
    path: () => `/api/mailroom/letters/${letter}`,
    status: 200,
  },
  { route: 'GET /api/assets', who: 'colleague', status: 200 },
  {
    route: 'POST /api/assets',
    who: 'colleague',
    path: () => '/api/assets?name=plan.txt',
    bytes: 'a plan',
    status: 201,
  },
  { route: 'GET /api/assets/:file', who: 'colleague', path: () => '/api/assets/plan.txt', status: 200 },
  { route: 'GET /api/starters', who: 'author', status: 200 },
  { route: 'POST /api/convert', who: 'author', path: () => '/api/convert?name=a.txt', bytes: 'Dear Ann', status: 200 },
  { route: 'GET /api/house', who: 'colleague', status: 200 },
  { route: 'PUT /api/house', who: 'author', body: () => ({ house: PLAIN_HOUSE, revision: 0 }), status: 200 },
  { route: 'GET /api/house/file', who: 'colleague', status: 200 },
  { route: 'GET /api/fills', who: 'colleague', status: 200 },
  { route: 'POST /api/fills', who: 'colleague', body: () => ({ text: 'visit' }), status: 201 },
  { route: 'GET /api/fills/:id', who: 'colleague', path: () => `/api/fills/${fill}`, status: 200 },
  {
    route: 'PUT /api/fills/:id',
    who: 'colleague',
    path: () => `/api/fills/${fill}`,
    body: () => ({ recipient: { email: 'ann@x.example' }, answers: { name: 'Ann' } }),
    status: 200,
  },
  {
    route: 'POST /api/fills/:id/hand-over',
    who: 'colleague',
    path: () => `/api/fills/${fill}/hand-over`,
    body: () => ({ way: 'copy', timezone: 'Europe/Dublin' }),
    status: 200,
  },
  { route: 'DELETE /api/fills/:id', who: 'colleague', path: () => `/api/fills/${fill}`, status: 204 },
  { route: 'POST /api/fills/:id/restore', who: 'colleague', path: () => `/api/fills/${fill}/restore`, status: 204 },
  { route: 'GET /api/me', who: 'colleague', status: 200 },
  {
    route: 'POST /api/me/addresses',
    who: 'colleague',
    body: () => ({ address: 'desk@larkmoor.example' }),
    status: 201,
  },
  {
    route: 'DELETE /api/me/addresses/:address',
    who: 'colleague',
    path: () => '/api/me/addresses/desk@larkmoor.example',
    status: 204,
  },
  {
    route: 'PUT /api/people/:id/addresses/:address',
    who: 'administrator',
    path: () => `/api/people/${asking}/addresses/shared@larkmoor.example`,
    status: 204,
  },
  {
    route: 'DELETE /api/people/:id/addresses/:address',
    who: 'administrator',
    path: () => `/api/people/${asking}/addresses/shared@larkmoor.example`,
    status: 204,
  },
  {
    route: 'PUT /api/me',
    who: 'colleague',
    body: () => ({
      name: 'Maeve',
      email: '',
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
  // People
  { route: 'GET /api/door', who: 'anyone', status: 200 },
  {
    route: 'POST /api/door/first',
    who: 'anyone',
    body: () => ({ name: 'Ann', address: 'ann@x.example', password: 'long enough' }),
    status: 409,
  },
  {
    route: 'POST /api/door/sign-in',
    who: 'anyone',
    body: () => ({ address: 'nobody@x.example', password: 'x' }),
    status: 401,
  },
  { route: 'GET /api/door/links/:token', who: 'anyone', path: () => `/api/door/links/${link}`, status: 200 },
  {
    route: 'POST /api/door/password',
    who: 'anyone',
    body: () => ({ token: link, password: 'long enough' }),
    status: 204,
  },
  { route: 'POST /api/door/sign-out', who: 'anyone', status: 204 },
  {
    route: 'POST /api/me/password',
    who: 'colleague',
    body: () => ({ old: 'x', password: 'long enough' }),
    status: 422,
  },
  { route: 'GET /api/me/sessions', who: 'colleague', status: 200 },
  { route: 'DELETE /api/me/sessions/:id', who: 'colleague', path: () => `/api/me/sessions/${session}`, status: 204 },
  { route: 'DELETE /api/me/sessions', who: 'colleague', status: 204 },
  { route: 'GET /api/me/keys', who: 'colleague', status: 200 },
  { route: 'POST /api/me/keys', who: 'colleague', body: () => ({ title: 'Website', scopes: ['read'] }), status: 201 },
  { route: 'DELETE /api/me/keys/:id', who: 'colleague', path: () => `/api/me/keys/${spare}`, status: 204 },
  { route: 'GET /api/people', who: 'author', status: 200 },
  {
    route: 'POST /api/people',
    who: 'administrator',
    body: () => ({ name: 'Bo', address: 'bo@x.example', role: 'author' }),
    status: 201,
  },
  {
    route: 'PATCH /api/people/:id',
    who: 'administrator',
    path: () => `/api/people/${person}`,
    body: () => ({ role: 'author' }),
    status: 200,
  },
  { route: 'POST /api/people/:id/link', who: 'administrator', path: () => `/api/people/${person}/link`, status: 200 },
  { route: 'GET /api/people/groups', who: 'author', status: 200 },
  { route: 'POST /api/people/groups', who: 'administrator', body: () => ({ title: 'Desk', members: [] }), status: 201 },
  {
    route: 'PUT /api/people/groups/:id',
    who: 'administrator',
    path: () => `/api/people/groups/${group}`,
    body: () => ({ title: 'Desks', members: [] }),
    status: 200,
  },
  {
    route: 'DELETE /api/people/groups/:id',
    who: 'administrator',
    path: () => `/api/people/groups/${group}`,
    status: 204,
  },
  { route: 'GET /api/audit', who: 'administrator', status: 200 },
  { route: 'GET /api/audit/csv', who: 'administrator', status: 200 },
  // Folders
  { route: 'GET /api/folders', who: 'colleague', status: 200 },
  { route: 'POST /api/folders', who: 'author', body: () => ({ parent: 'root', title: 'Visits' }), status: 201 },
  { route: 'GET /api/folders/:id/rights', who: 'author', path: () => `/api/folders/${folder}/rights`, status: 200 },
  {
    route: 'PATCH /api/folders/:id',
    who: 'author',
    path: () => `/api/folders/${folder}`,
    body: () => ({ title: 'Groups' }),
    status: 204,
  },
  { route: 'DELETE /api/folders/:id', who: 'author', path: () => `/api/folders/${folder}`, status: 204 },
  {
    route: 'POST /api/texts/many',
    who: 'author',
    body: () => ({ act: 'tag', names: ['visit'], tags: ['spring'] }),
    status: 204,
  },
  { route: 'GET /api/texts/alike', who: 'author', status: 200 },
  { route: 'GET /api/texts/neighbours', who: 'colleague', path: () => '/api/texts/neighbours?of=visit', status: 200 },
  // Versions
  { route: 'GET /api/versions/:name/findings', who: 'author', path: () => '/api/versions/visit/findings', status: 200 },
  { route: 'GET /api/versions/:name', who: 'colleague', path: () => '/api/versions/visit', status: 200 },
  {
    route: 'POST /api/versions/:name/publish',
    who: 'author',
    path: () => '/api/versions/plain/publish',
    body: () => ({ revision: 1, note: 'New' }),
    status: 200,
  },
  {
    route: 'DELETE /api/versions/:name/timed/:id',
    who: 'author',
    path: () => `/api/versions/later/timed/${timed}`,
    status: 204,
  },
  {
    route: 'GET /api/versions/:name/states/:state',
    who: 'colleague',
    path: () => '/api/versions/plain/states/version:1',
    status: 200,
  },
  {
    route: 'POST /api/versions/:name/restore',
    who: 'author',
    path: () => '/api/versions/plain/restore',
    body: () => ({ state: 'version:1', revision: 1 }),
    status: 200,
  },
  {
    route: 'POST /api/versions/:name/checkpoints',
    who: 'author',
    path: () => '/api/versions/plain/checkpoints',
    body: () => ({ reason: 'merge' }),
    status: 204,
  },
  {
    route: 'GET /api/versions/:name/versions/:number/sent',
    who: 'author',
    path: () => '/api/versions/plain/versions/1/sent',
    status: 200,
  },
  {
    route: 'POST /api/versions/:name/versions/:number/withdraw',
    who: 'author',
    path: () => '/api/versions/plain/versions/1/withdraw',
    body: () => ({ because: 'wrong' }),
    status: 204,
  },
  {
    route: 'PUT /api/versions/:name/retired',
    who: 'author',
    path: () => '/api/versions/plain/retired',
    body: () => ({}),
    status: 204,
  },
  {
    route: 'DELETE /api/versions/:name/retired',
    who: 'author',
    path: () => '/api/versions/plain/retired',
    status: 204,
  },
  {
    route: 'GET /api/versions/:name/dependents',
    who: 'author',
    path: () => '/api/versions/visit/dependents',
    status: 200,
  },
  {
    route: 'GET /api/versions/:name/impact/:template',
    who: 'author',
    path: () => '/api/versions/visit/impact/visit',
    status: 200,
  },
  { route: 'GET /api/versions/:name/remarks', who: 'author', path: () => '/api/versions/visit/remarks', status: 200 },
  {
    route: 'POST /api/versions/:name/remarks',
    who: 'author',
    path: () => '/api/versions/visit/remarks',
    body: () => ({ quote: { exact: 'Dear', prefix: '', suffix: '' }, body: 'Hm' }),
    status: 201,
  },
  {
    route: 'PATCH /api/versions/:name/remarks/:id',
    who: 'author',
    path: () => `/api/versions/visit/remarks/${remark}`,
    body: () => ({ settled: true }),
    status: 200,
  },
  { route: 'GET /api/requests', who: 'author', status: 200 },
  {
    route: 'POST /api/requests/:id/answer',
    who: 'author',
    path: () => `/api/requests/${request}/answer`,
    body: () => ({ answer: 'return', remark: 'Not yet' }),
    status: 200,
  },
  { route: 'DELETE /api/requests/:id', who: 'author', path: () => `/api/requests/${request}`, status: 204 },
  {
    route: 'POST /api/requests/for/:name',
    who: 'author',
    path: () => '/api/requests/for/later',
    body: () => ({ revision: 1, note: 'Please', report: REPORT }),
    status: 201,
  },
  // In and out
  { route: 'POST /api/library/zip', who: 'colleague', body: () => ({}), status: 200 },
  { route: 'POST /api/library/look', who: 'author', bytes: () => zip, status: 200 },
  {
    route: 'POST /api/library/take',
    who: 'author',
    form: () => ({ choices: { choices: {}, into: 'root' }, file: zip }),
    status: 200,
  },
  { route: 'GET /api/v1', who: 'anyone', status: 200 },
  { route: 'GET /api/v1/openapi.json', who: 'anyone', status: 200 },
  { route: 'GET /api/v1/texts', who: 'key', status: 200 },
  { route: 'GET /api/v1/search', who: 'key', path: () => '/api/v1/search?q=visit', status: 200 },
  { route: 'GET /api/v1/texts/:name', who: 'key', path: () => '/api/v1/texts/visit', status: 200 },
  {
    route: 'POST /api/v1/texts/:name/questions',
    who: 'key',
    path: () => '/api/v1/texts/visit/questions',
    body: () => ({}),
    status: 200,
  },
  {
    route: 'POST /api/v1/texts/:name/render',
    who: 'key',
    path: () => '/api/v1/texts/visit/render',
    body: () => ({ answers: { name: 'Ann' } }),
    status: 200,
  },
  {
    route: 'POST /api/v1/texts/:name/publish',
    who: 'key',
    path: () => '/api/v1/texts/later/publish',
    body: () => ({ revision: 1, note: 'New' }),
    status: 200,
  },
];

/** Calls a route as somebody. `given` takes the place of the right body. */
function send(
  { route, who, path, body, bytes, form }: Case,
  { as = server.call, given = body?.(), at }: { as?: Calling; given?: unknown; at?: string } = {},
) {
  const [method = 'GET', pattern = ''] = route.split(' ');
  const address = at ?? path?.() ?? pattern;
  const verb = method.toLowerCase() as 'get' | 'put' | 'post' | 'patch' | 'delete';
  const call = as[verb](address);
  if (who === 'key' && as === server.call) call.set('authorization', `Bearer ${key}`);
  if (form) return call.field('choices', JSON.stringify(form().choices)).attach('file', form().file, 'library.zip');
  const raw = typeof bytes === 'function' ? bytes() : bytes;
  if (raw !== undefined) return call.set('content-type', 'application/octet-stream').send(Buffer.from(raw));
  return given === undefined ? call : call.send(given as object);
}

const RANK = ['colleague', 'author', 'administrator'] as const;
/** A call that says whether the door is open, and changes nothing: of the wrong body, or for a thing that is not there. */
const knock = (each: Case, as: Calling) => {
  if (each.body) return send(each, { as, given: { nonsense: true } });
  const pattern = each.route.split(' ')[1] as string;
  const at = pattern.replace(/:(\w+)/g, (_, name: string) => (name === 'number' ? '1' : 'nobody'));
  return send(each, each.route.startsWith('GET') ? { as } : { as, at });
};

describe('every route', () => {
  it('is in the table above', () => {
    expect(registered(server.app.router).sort()).toEqual(CALLS.map(({ route }) => route).sort());
  });
  describe('as nobody', () => {
    it.each(CALLS.filter(({ who }) => who !== 'anyone'))('$route is shut', async (each) => {
      const answer = await knock(each, server.nobody);
      expect([answer.status, typeof answer.body.code]).toEqual([401, 'string']);
    });
    it.each(CALLS.filter(({ who }) => who === 'key'))('$route takes no session for a key', async (each) => {
      expect((await knock(each, colleague)).status).toBe(401);
    });
  });
  describe.each(RANK)('as %s', (role) => {
    const callers = (): Calling => ({ colleague, author, administrator: server.call })[role];
    const may = ({ who }: Case): boolean =>
      who !== 'anyone' && who !== 'key' && RANK.indexOf(who) <= RANK.indexOf(role);
    const mayNot = ({ who }: Case): boolean =>
      who !== 'anyone' && who !== 'key' && RANK.indexOf(who) > RANK.indexOf(role);
    it.each(CALLS.filter(may))('$route is open', async (each) => {
      // The table's own things are the administrator's: others are told that there is no such thing.
      expect([200, 201, 204, 400, 403, 404, 422]).toContain((await knock(each, callers())).status);
      const answer = await knock(each, callers());
      expect(answer.body.message ?? '').not.toMatch(/^(?:This is for (?:authors|administrators)\.|Sign in first\.)$/);
    });
    if (CALLS.some(mayNot))
      it.each(CALLS.filter(mayNot))('$route is shut', async (each) => {
        const answer = await send(each, { as: callers() });
        expect([answer.status, answer.body.code]).toEqual([403, 'not-allowed']);
      });
  });
  describe('rightly called', () => {
    beforeAll(async () => {
      // Knocking as the administrator ended the one there was.
      await server.services.sessions.begin(server.asker.id, 'another');
      session = (await server.call.get('/api/me/sessions')).body.find(({ here }: { here: boolean }) => !here).id;
    });
    it.each(CALLS)('$route answers with $status', async (each) => {
      expect((await send(each)).status).toBe(each.status);
    });
  });
  it.each(CALLS.filter(({ body }) => body))('$route refuses a body of the wrong type with words', async (each) => {
    const wrong = [
      [],
      { nonsense: true },
      'not JSON',
      { text: 5, document: {}, files: 'x', way: 'fly', title: 7, scopes: 1 },
    ];
    for (const given of wrong) {
      const answer = await send(each, { given });
      expect([answer.status, typeof answer.body.code, answer.body.message.length > 0]).toEqual([400, 'string', true]);
    }
  });
  it.each(CALLS.filter(({ route }) => /:(?:id|name|file|token|template)/.test(route)))(
    '$route knows no unknown id',
    async (each) => {
      const pattern = each.route.split(' ')[1] as string;
      const at = pattern
        .replace(/:(?:id|name|file|token|template)/g, 'nobody')
        .replace(':number', '1')
        .replace(':state', 'version:1');
      const answer = await send(each, { at });
      expect([answer.status, answer.body.code]).toEqual([404, 'not-found']);
    },
  );
  describe('on what is another person’s', () => {
    const owned = CALLS.filter(
      ({ route, who }) =>
        route.includes(':') && !SHARED.has(route) && !UNOWNED.has(route) && !(who === 'administrator'),
    );
    const aimed = ({ route }: Case): string => {
      const pattern = route.split(' ')[1] as string;
      const [, thing] = MEANT.find(([begins]) => pattern.startsWith(begins)) ?? [];
      if (thing === undefined) throw new Error(`${route} takes an id, and the test does not know whose.`);
      let first = true;
      return pattern.replace(/:(\w+)/g, (_whole, parameter: string) => {
        const value = first ? theirs[thing] : undefined;
        first = false;
        if (value !== undefined) return value;
        return (
          {
            row: theirs.row,
            id: theirs.remark,
            number: '1',
            state: 'version:1',
            template: theirs.text,
            digest: DIGEST,
          }[parameter] ?? 'nobody'
        );
      });
    };
    it.each(owned)('$route does nothing for another author', async (each) => {
      const own = (await author.post('/api/me/keys').send({ title: 'Mine', scopes: ['read', 'render', 'publish'] }))
        .body;
      const call = send(each, { as: author, at: aimed(each) });
      if (each.who === 'key') call.set('authorization', `Bearer ${own.key}`);
      const answer = await call;
      expect([403, 404], `${answer.status} ${JSON.stringify(answer.body).slice(0, 200)}`).toContain(answer.status);
      expect(JSON.stringify(answer.body)).not.toContain('Private words');
    });
    const personal = new Set(['fill', 'letter', 'outgoing', 'mailing', 'session', 'key', 'text', 'folder']);
    it.each(
      owned.filter(
        ({ route, who }) =>
          who !== 'key' && personal.has(MEANT.find(([begins]) => route.split(' ')[1]?.startsWith(begins))?.[1] ?? ''),
      ),
    )('$route does nothing for an administrator', async (each) => {
      const answer = await send(each, { at: aimed(each) });
      expect([403, 404], `${answer.status}`).toContain(answer.status);
    });
    it('is all still there', async () => {
      for (const path of [
        `/api/fills/${theirs.fill}`,
        `/api/mailings/${theirs.mailing}`,
        `/api/outgoing/${theirs.outgoing}`,
        `/api/texts/${theirs.text}`,
        `/api/tables/${theirs.table}`,
        `/api/mailroom/letters/${theirs.letter}`,
      ])
        expect([path, (await owner.get(path)).status]).toEqual([path, 200]);
      expect((await owner.get(`/api/outgoing/${theirs.outgoing}`)).body.state).toBe('waiting');
    });
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
    '/api/v1',
    '/api/library',
    '/api/folders',
    '/api/versions',
    '/api/requests',
    '/api/audit',
    '/api/door',
    '/api/me',
    '/api/people',
    '/api/tables',
    '/api/proofs',
    '/api/mailroom',
    '/counted',
    '/api/recipients',
    '/api/outgoing',
    '/api/mailings',
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
