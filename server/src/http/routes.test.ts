/** Every route there is: what it answers to a right call, and to wrong ones. */
import { ENDPOINTS, USUAL_WAYS, type Caller, type Endpoint, type EndpointName } from '@vocabula/contract';
import { PLAIN_HOUSE } from '@vocabula/core';
import type { Router } from 'express';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import {
  blockFile,
  documentOf,
  file,
  makePublished,
  makeText,
  publish,
  start,
  type Started,
} from '../testing/start.js';

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
let series: string;
let standing: string;
let hook: string;
let mailed: string;
let asking: string;
let trial: string;
/** Somebody else, and what is theirs alone. */
let owner: Started['call'] & { readonly user: { readonly id: string; readonly address: string } };
let theirs: Theirs;
const DIGEST = '0123456789abcdef';
const TRIAL = { arms: [1, 2].map((version) => ({ version, weight: 1 })), outcome: 'answered', matters: 0.05 };
const REPORT = { messages: 1, set: 'People', errors: 0, warnings: 0, findings: [] };
beforeAll(async () => {
  // Nothing listens there: what is to be sent waits.
  server = await start(undefined, { smtp: () => 'smtp://127.0.0.1:9' });
  [author, colleague] = [await server.as('author'), await server.as('colleague')];
  const { call, services, user } = server;
  await services.letters.take('b@x.example', [user.address], Buffer.from('Subject: Hello\r\n\r\nDear Ann'));
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
  await makePublished(server, 'Course', seriesOf('Course', 'visit'));
  series = await started(call, 'course');
  standing = (await call.post('/api/standing').send(STANDING)).body.id;
  hook = (await call.post('/api/webhooks').send({ url: 'http://127.0.0.1:9/hook', events: ['sent'] })).body.id;
  const invited = await call.post('/api/people').send({ name: 'Eve', address: 'eve@x.example', role: 'colleague' });
  person = invited.body.id;
  link = invited.body.link.path.replace('/enter/', '');
  group = (await call.post('/api/people/groups').send({ title: 'G', members: [person] })).body.id;
  const scopes = ['read', 'render', 'begin', 'recipients', 'publish'];
  key = (await call.post('/api/me/keys').send({ title: 'All', scopes })).body.key;
  spare = (await call.post('/api/me/keys').send({ title: 'Spare', scopes })).body.id;
  folder = (await call.post('/api/folders').send({ parent: 'root', title: 'F' })).body.id;
  await makeText(server, 'Plain');
  await makeText(server, 'Later');
  const at = new Date(Date.now() + 3_600_000).toISOString();
  await call.post('/api/versions/later/publish').send({ revision: 1, note: 'Later', at });
  timed = (await call.get('/api/versions/later')).body.timed[0].id;
  for (const title of ['Tried', 'Trying']) {
    await makePublished(server, title);
    await publish(server, title.toLowerCase());
  }
  trial = (await call.post('/api/versions/trying/trials').send(TRIAL)).body.id;
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
  readonly series: string;
  readonly standing: string;
  readonly session: string;
  readonly key: string;
  readonly text: string;
  readonly table: string;
  readonly folder: string;
  readonly request: string;
  readonly remark: string;
}
/** The file of a series that sends one text in a month. */
const seriesOf = (title: string, text: string): string =>
  `---\nvocabula: 1\nkind: series\ntitle: ${title}\nsteps: [{ text: ${text}, wait: 30 days }]\n---\n`;
const STANDING = {
  ...{ title: 'Visits', when: 'words.contains("ann")', text: 'visit', values: { name: { from: 'name' } } },
  ...{ does: 'suggest', everyDays: 7, hours: false, mostADay: 10, timezone: 'UTC' },
};
const STARTED = { timezone: 'UTC', answers: { name: 'Ann' } };
const started = async (call: Started['call'], text: string): Promise<string> =>
  (await call.post('/api/series').send({ ...STARTED, text, to: { people: [{ email: 'ann@x.example' }] } })).body
    .started[0];
async function thingsOf(call: typeof owner): Promise<Theirs> {
  const { services } = server;
  await services.letters.take('b@x.example', [call.user.address], Buffer.from('Subject: Theirs\r\n\r\nDear Ann'));
  const private_ = (await call.get('/api/folders')).body.find(({ own }: { own: boolean }) => own).id;
  const folder_ = (await call.post('/api/folders').send({ parent: private_, title: 'Below' })).body.id;
  const { name } = await makePublished({ call }, 'Private words', undefined, private_);
  const made = (await call.post('/api/fills').send({ text: name })).body.id;
  await call.put(`/api/fills/${made}`).send({ recipient: { email: 'ann@x.example' }, answers: { name: 'Ann' } });
  const mailing_ = (await call.post('/api/mailings').send({ fill: made })).body.id;
  await call.post(`/api/mailings/${mailing_}/recipients`).send({ paste: 'ann@x.example, bo@x.example' });
  const outgoing = (await call.post(`/api/fills/${made}/hand-over`).send({ way: 'service' })).body.outgoing;
  const course = await makePublished({ call }, 'Private course', seriesOf('Private course', name), private_);
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
    series: await started(call, course.name),
    standing: (await call.post('/api/standing').send({ ...STANDING, text: name })).body.id,
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
  ['/api/series/', 'series'],
  ['/api/standing/', 'standing'],
  ['/api/mailroom/letters/', 'letter'],
  ['/api/me/sessions/', 'session'],
  ['/api/me/keys/', 'key'],
  ['/api/texts/', 'text'],
  ['/api/insight/texts/', 'text'],
  ['/api/versions/', 'text'],
  ['/api/languages/', 'text'],
  ['/api/proofs/', 'text'],
  ['/api/requests/for/', 'text'],
  ['/api/requests/', 'request'],
  ['/api/tables/own/', 'text'],
  ['/api/tables/', 'table'],
  ['/api/folders/', 'folder'],
  ['/api/v1/texts/', 'text'],
  ['/api/v1/lists/', 'table'],
  ['/api/v1/series/', 'series'],
];
/** What all may do with what is somebody's: authors read the lists that all write to, to copy and to save them. */
const SHARED = new Set([
  'GET /api/tables/:id',
  'GET /api/tables/:id/csv',
  'GET /api/tables/:id/json',
  'POST /api/tables/:id/copy',
]);
/** Routes whose first parameter is no thing that has an owner. */
const UNOWNED = new Set(['GET /api/assets/:file', 'GET /api/door/links/:token', 'DELETE /api/me/addresses/:address']);

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

interface RightCall {
  readonly endpoint: EndpointName;
  /** Made when the test runs: it may need what was made before. */
  readonly path?: () => string;
  readonly body?: () => unknown;
  readonly bytes?: string | (() => Uint8Array);
  /** A form with a file. */
  readonly form?: () => { readonly choices: unknown; readonly file: Buffer };
  /** What it answers with, where that is not what the table says. */
  readonly status?: number;
}
/** How each is rightly called, where there is more to it than its method and path. */
const CALLS: readonly RightCall[] = [
  { endpoint: 'POST /texts', body: () => ({ kind: 'block', title: 'Ways in' }) },
  { endpoint: 'GET /texts/search', path: () => '/api/texts/search?q=vis' },
  {
    endpoint: 'POST /texts/import',
    body: () => ({ files: [{ file: 'two.md', content: file('Two') }] }),
  },
  { endpoint: 'GET /texts/{name}', path: () => '/api/texts/visit' },
  { endpoint: 'GET /texts/{name}/closure', path: () => '/api/texts/visit/closure' },
  { endpoint: 'GET /texts/{name}/file', path: () => '/api/texts/visit/file' },
  {
    endpoint: 'PUT /texts/{name}',
    path: () => '/api/texts/visit',
    body: () => ({ document: documentOf(file('Visit', 'Good day')), revision: 1 }),
  },
  { endpoint: 'DELETE /texts/{name}', path: () => '/api/texts/two' },
  { endpoint: 'POST /texts/{name}/restore', path: () => '/api/texts/two/restore' },
  { endpoint: 'GET /tables', path: () => '/api/tables?use=recipients' },
  { endpoint: 'POST /tables/recognise', bytes: 'a,b\n1,2\n' },
  {
    endpoint: 'POST /tables',
    path: () => '/api/tables?use=sample&title=T',
    bytes: 'a,b\n1,2\n',
  },
  { endpoint: 'GET /tables/{id}', path: () => `/api/tables/${table}` },
  { endpoint: 'GET /tables/{id}/csv', path: () => `/api/tables/${table}/csv` },
  { endpoint: 'GET /tables/{id}/json', path: () => `/api/tables/${table}/json` },
  {
    endpoint: 'POST /tables/made',
    body: () => ({
      use: 'sample',
      title: 'Made up',
      columns: [{ key: 'a', name: 'A', type: 'text' }],
      rows: [{ a: '1' }],
      ownOf: 'visit',
    }),
  },
  {
    endpoint: 'PUT /tables/own/{name}',
    path: () => '/api/tables/own/visit',
    body: () => ({ table: null }),
  },
  {
    endpoint: 'PATCH /tables/{id}',
    path: () => `/api/tables/${table}`,
    body: () => ({ revision: 1, changes: [{ what: 'title', title: 'People' }] }),
  },
  {
    endpoint: 'POST /tables/{id}/rows',
    path: () => `/api/tables/${table}/rows?revision=2`,
    bytes: 'first_name,email\nBo,bo@x.example\n',
  },
  {
    endpoint: 'POST /tables/{id}/copy',
    path: () => `/api/tables/${table}/copy`,
    body: () => ({ title: 'Copy', disguise: true }),
  },
  { endpoint: 'DELETE /tables/{id}', path: () => `/api/tables/${table}` },
  { endpoint: 'POST /tables/{id}/restore', path: () => `/api/tables/${table}/restore` },
  { endpoint: 'GET /proofs/{name}', path: () => '/api/proofs/visit' },
  {
    endpoint: 'POST /proofs/{name}/looked-at',
    path: () => '/api/proofs/visit/looked-at',
    body: () => ({ case: 'late=yes', digest: DIGEST }),
  },
  {
    endpoint: 'DELETE /proofs/{name}/looked-at/{digest}',
    path: () => `/api/proofs/visit/looked-at/${DIGEST}`,
  },
  {
    endpoint: 'POST /proofs/{name}/set-aside',
    path: () => '/api/proofs/visit/set-aside',
    body: () => ({ fingerprint: DIGEST, code: 'a-or-an', message: 'a a', reason: 'a name' }),
  },
  {
    endpoint: 'DELETE /proofs/{name}/set-aside/{digest}',
    path: () => `/api/proofs/visit/set-aside/${DIGEST}`,
  },
  {
    endpoint: 'POST /proofs/{name}/send',
    path: () => '/api/proofs/visit/send',
    body: () => ({ to: ['me@x.example'], cases: [{ label: 'Ann', recipient: {}, answers: {} }] }),
    // Nothing here takes mail; that proofs arrive is tested with the stand-in.
    status: 422,
  },
  { endpoint: 'GET /recipients', path: () => '/api/recipients?q=ann' },
  {
    endpoint: 'GET /recipients/record',
    path: () => '/api/recipients/record?address=ann@x.example',
  },
  {
    endpoint: 'PUT /recipients/do-not-write',
    body: () => ({ address: 'never@x.example', because: 'asked' }),
  },
  {
    endpoint: 'DELETE /recipients/do-not-write',
    path: () => '/api/recipients/do-not-write?address=never@x.example',
  },
  { endpoint: 'POST /recipients/forget', body: () => ({ address: 'gone@x.example' }) },
  { endpoint: 'GET /outgoing/{id}', path: () => `/api/outgoing/${waiting}` },
  {
    endpoint: 'PATCH /outgoing/{id}',
    path: () => `/api/outgoing/${waiting}`,
    body: () => ({ act: 'take back' }),
  },
  {
    endpoint: 'POST /series',
    body: () => ({ ...STARTED, text: 'course', to: { paste: 'bo@x.example' } }),
  },
  { endpoint: 'GET /series/{id}', path: () => `/api/series/${series}` },
  { endpoint: 'GET /series/{id}/steps/{at}', path: () => `/api/series/${series}/steps/0` },
  {
    endpoint: 'PATCH /series/{id}/steps/{at}',
    path: () => `/api/series/${series}/steps/0`,
    body: () => ({ act: 'skip' }),
  },
  { endpoint: 'POST /series/{id}/stop', path: () => `/api/series/${series}/stop` },
  { endpoint: 'POST /standing', body: () => STANDING },
  { endpoint: 'GET /standing/{id}', path: () => `/api/standing/${standing}` },
  { endpoint: 'PUT /standing/{id}', path: () => `/api/standing/${standing}`, body: () => STANDING },
  { endpoint: 'POST /standing/{id}/try', path: () => `/api/standing/${standing}/try`, body: () => ({ wrong: [] }) },
  {
    endpoint: 'GET /standing/{id}/replies/{letter}',
    path: () => `/api/standing/${standing}/replies/${letter}`,
  },
  { endpoint: 'PATCH /standing/{id}', path: () => `/api/standing/${standing}`, body: () => ({ act: 'off' }) },
  { endpoint: 'POST /webhooks', body: () => ({ url: 'http://127.0.0.1:9/hook', events: ['sent'] }) },
  { endpoint: 'POST /webhooks/{id}/try', path: () => `/api/webhooks/${hook}/try` },
  { endpoint: 'DELETE /webhooks/{id}', path: () => `/api/webhooks/${hook}` },
  { endpoint: 'POST /mailings', body: () => ({ fill }) },
  { endpoint: 'GET /mailings/{id}', path: () => `/api/mailings/${mailing}` },
  { endpoint: 'GET /mailings/{id}/rows', path: () => `/api/mailings/${mailing}/rows` },
  {
    endpoint: 'GET /mailings/{id}/progress',
    path: () => `/api/mailings/${mailing}/progress`,
  },
  {
    endpoint: 'PATCH /mailings/{id}',
    path: () => `/api/mailings/${mailing}`,
    body: () => ({ differing: ['name'] }),
  },
  {
    endpoint: 'POST /mailings/{id}/recipients',
    path: () => `/api/mailings/${mailing}/recipients`,
    body: () => ({ paste: 'cy@x.example' }),
  },
  {
    endpoint: 'PATCH /mailings/{id}/rows/{row}',
    path: () => `/api/mailings/${mailing}/rows/${mailed}`,
    body: () => ({ out: true }),
  },
  {
    endpoint: 'POST /mailings/{id}/drive',
    path: () => `/api/mailings/${mailing}/drive`,
    body: () => ({ act: 'first', count: 7 }),
    status: 422,
  },
  {
    endpoint: 'PATCH /mailroom/letters/{id}',
    path: () => `/api/mailroom/letters/${letter}`,
    body: () => ({ done: true }),
  },
  {
    endpoint: 'POST /mailroom/drop',
    bytes: 'From: ann@x.example\r\nSubject: Hello\r\n\r\nDear all\r\n',
  },
  { endpoint: 'POST /mailroom/clock', body: () => ({ hours: 1 }) },
  { endpoint: 'PUT /me/ways', body: () => USUAL_WAYS },
  { endpoint: 'PUT /me/at-hand', body: () => ({ names: ['visit'] }) },
  { endpoint: 'PUT /me/workspace', body: () => ({ counting: false }) },
  {
    endpoint: 'POST /fills/read',
    bytes: 'From: ann@x.example\r\nSubject: Hello\r\n\r\nDear all\r\n',
  },
  { endpoint: 'GET /fills/read/{letter}', path: () => `/api/fills/read/${letter}` },
  {
    endpoint: 'GET /fills/{id}/memory',
    path: () => `/api/fills/${fill}/memory?address=ann@x.example`,
  },
  { endpoint: 'GET /fills/{id}/newest', path: () => `/api/fills/${fill}/newest` },
  {
    endpoint: 'POST /fills/{id}/parts',
    path: () => `/api/fills/${fill}/parts`,
    body: () => ({ name: 'greeting', at: 0 }),
  },
  {
    endpoint: 'POST /fills/{id}/suggest',
    path: () => `/api/fills/${fill}/suggest`,
    body: () => ({ text: 'visit', path: [9, 0] }),
    status: 404,
  },
  {
    endpoint: 'GET /mailroom/letters/{id}',
    path: () => `/api/mailroom/letters/${letter}`,
  },
  {
    endpoint: 'POST /assets',
    path: () => '/api/assets?name=plan.txt',
    bytes: 'a plan',
  },
  { endpoint: 'GET /assets/{file}', path: () => '/api/assets/plan.txt' },
  { endpoint: 'POST /convert/mails', path: () => '/api/convert/mails?name=a.txt', bytes: 'Dear Ann' },
  { endpoint: 'GET /insight/texts/{name}', path: () => '/api/insight/texts/visit' },
  { endpoint: 'POST /convert/sent/chosen', body: () => ({ outgoing: ['1'] }) },
  { endpoint: 'POST /convert', path: () => '/api/convert?name=a.txt', bytes: 'Dear Ann' },
  { endpoint: 'PUT /house', body: () => ({ house: PLAIN_HOUSE, revision: 0 }) },
  { endpoint: 'POST /fills', body: () => ({ text: 'visit' }) },
  { endpoint: 'GET /fills/{id}', path: () => `/api/fills/${fill}` },
  {
    endpoint: 'PUT /fills/{id}',
    path: () => `/api/fills/${fill}`,
    body: () => ({ recipient: { email: 'ann@x.example' }, answers: { name: 'Ann' } }),
  },
  {
    endpoint: 'POST /fills/{id}/hand-over',
    path: () => `/api/fills/${fill}/hand-over`,
    body: () => ({ way: 'copy', timezone: 'Europe/Dublin' }),
  },
  { endpoint: 'DELETE /fills/{id}', path: () => `/api/fills/${fill}` },
  { endpoint: 'POST /fills/{id}/restore', path: () => `/api/fills/${fill}/restore` },
  {
    endpoint: 'POST /me/addresses',
    body: () => ({ address: 'desk@larkmoor.example' }),
  },
  {
    endpoint: 'DELETE /me/addresses/{address}',
    path: () => '/api/me/addresses/desk@larkmoor.example',
  },
  {
    endpoint: 'PUT /people/{id}/addresses/{address}',
    path: () => `/api/people/${asking}/addresses/shared@larkmoor.example`,
  },
  {
    endpoint: 'DELETE /people/{id}/addresses/{address}',
    path: () => `/api/people/${asking}/addresses/shared@larkmoor.example`,
  },
  {
    endpoint: 'PUT /me',
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
  },
  // People
  {
    endpoint: 'POST /door/first',
    body: () => ({ name: 'Ann', address: 'ann@x.example', password: 'long enough' }),
    status: 409,
  },
  {
    endpoint: 'POST /door/sign-in',
    body: () => ({ address: 'nobody@x.example', password: 'x' }),
    status: 401,
  },
  { endpoint: 'GET /door/links/{token}', path: () => `/api/door/links/${link}` },
  {
    endpoint: 'POST /door/password',
    body: () => ({ token: link, password: 'long enough' }),
  },
  // Who set a password is signed in by it: what follows is called as before.
  { endpoint: 'POST /door/sign-out' },
  {
    endpoint: 'POST /me/password',
    body: () => ({ old: 'x', password: 'long enough' }),
    status: 422,
  },
  { endpoint: 'DELETE /me/sessions/{id}', path: () => `/api/me/sessions/${session}` },
  { endpoint: 'POST /me/keys', body: () => ({ title: 'Website', scopes: ['read'] }) },
  { endpoint: 'DELETE /me/keys/{id}', path: () => `/api/me/keys/${spare}` },
  {
    endpoint: 'POST /people',
    body: () => ({ name: 'Bo', address: 'bo@x.example', role: 'author' }),
  },
  {
    endpoint: 'PATCH /people/{id}',
    path: () => `/api/people/${person}`,
    body: () => ({ role: 'author' }),
  },
  { endpoint: 'POST /people/{id}/link', path: () => `/api/people/${person}/link` },
  { endpoint: 'POST /people/groups', body: () => ({ title: 'Desk', members: [] }) },
  {
    endpoint: 'PUT /people/groups/{id}',
    path: () => `/api/people/groups/${group}`,
    body: () => ({ title: 'Desks', members: [] }),
  },
  {
    endpoint: 'DELETE /people/groups/{id}',
    path: () => `/api/people/groups/${group}`,
  },
  // Folders
  { endpoint: 'POST /folders', body: () => ({ parent: 'root', title: 'Visits' }) },
  { endpoint: 'GET /folders/{id}/rights', path: () => `/api/folders/${folder}/rights` },
  {
    endpoint: 'PATCH /folders/{id}',
    path: () => `/api/folders/${folder}`,
    body: () => ({ title: 'Groups' }),
  },
  { endpoint: 'DELETE /folders/{id}', path: () => `/api/folders/${folder}` },
  {
    endpoint: 'POST /texts/many',
    body: () => ({ act: 'tag', names: ['visit'], tags: ['spring'] }),
  },
  { endpoint: 'GET /texts/neighbours', path: () => '/api/texts/neighbours?of=visit' },
  // Versions
  { endpoint: 'GET /versions/{name}/findings', path: () => '/api/versions/visit/findings' },
  { endpoint: 'GET /versions/{name}', path: () => '/api/versions/visit' },
  {
    endpoint: 'POST /versions/{name}/publish',
    path: () => '/api/versions/plain/publish',
    body: () => ({ revision: 1, note: 'New' }),
  },
  {
    endpoint: 'DELETE /versions/{name}/timed/{id}',
    path: () => `/api/versions/later/timed/${timed}`,
  },
  {
    endpoint: 'GET /versions/{name}/states/{state}',
    path: () => '/api/versions/plain/states/version:1',
  },
  {
    endpoint: 'POST /versions/{name}/restore',
    path: () => '/api/versions/plain/restore',
    body: () => ({ state: 'version:1', revision: 1 }),
  },
  {
    endpoint: 'POST /versions/{name}/checkpoints',
    path: () => '/api/versions/plain/checkpoints',
    body: () => ({ reason: 'merge' }),
  },
  {
    endpoint: 'GET /versions/{name}/versions/{number}/sent',
    path: () => '/api/versions/plain/versions/1/sent',
  },
  {
    endpoint: 'POST /versions/{name}/versions/{number}/withdraw',
    path: () => '/api/versions/plain/versions/1/withdraw',
    body: () => ({ because: 'wrong' }),
  },
  {
    endpoint: 'PUT /versions/{name}/retired',
    path: () => '/api/versions/plain/retired',
    body: () => ({}),
  },
  {
    endpoint: 'DELETE /versions/{name}/retired',
    path: () => '/api/versions/plain/retired',
  },
  {
    endpoint: 'GET /versions/{name}/dependents',
    path: () => '/api/versions/visit/dependents',
  },
  {
    endpoint: 'GET /versions/{name}/impact/{template}',
    path: () => '/api/versions/visit/impact/visit',
  },
  { endpoint: 'GET /versions/{name}/trials', path: () => '/api/versions/trying/trials' },
  { endpoint: 'POST /versions/{name}/trials', path: () => '/api/versions/tried/trials', body: () => TRIAL },
  {
    endpoint: 'POST /versions/{name}/trials/{id}/end',
    path: () => `/api/versions/trying/trials/${trial}/end`,
    body: () => ({ publish: 1 }),
  },
  { endpoint: 'GET /languages/{name}/agreed', path: () => '/api/languages/visit/agreed' },
  {
    endpoint: 'POST /languages/{name}/agreed',
    path: () => '/api/languages/visit/agreed',
    body: () => ({ pairs: [{ original: 'Dear', version: 'Guten Tag' }] }),
  },
  { endpoint: 'GET /versions/{name}/remarks', path: () => '/api/versions/visit/remarks' },
  {
    endpoint: 'POST /versions/{name}/remarks',
    path: () => '/api/versions/visit/remarks',
    body: () => ({ quote: { exact: 'Dear', prefix: '', suffix: '' }, body: 'Hm' }),
  },
  {
    endpoint: 'PATCH /versions/{name}/remarks/{id}',
    path: () => `/api/versions/visit/remarks/${remark}`,
    body: () => ({ settled: true }),
  },
  {
    endpoint: 'POST /requests/{id}/answer',
    path: () => `/api/requests/${request}/answer`,
    body: () => ({ answer: 'return', remark: 'Not yet' }),
  },
  { endpoint: 'DELETE /requests/{id}', path: () => `/api/requests/${request}` },
  {
    endpoint: 'POST /requests/for/{name}',
    path: () => '/api/requests/for/later',
    body: () => ({ revision: 1, note: 'Please', report: REPORT }),
  },
  // In and out
  { endpoint: 'POST /library/zip', body: () => ({}) },
  { endpoint: 'POST /library/look', bytes: () => zip },
  {
    endpoint: 'POST /library/take',
    form: () => ({ choices: { choices: {}, into: 'root' }, file: zip }),
  },
  { endpoint: 'GET /v1/search', path: () => '/api/v1/search?q=visit' },
  { endpoint: 'GET /v1/texts/{name}', path: () => '/api/v1/texts/visit' },
  {
    endpoint: 'POST /v1/texts/{name}/questions',
    path: () => '/api/v1/texts/visit/questions',
    body: () => ({}),
  },
  {
    endpoint: 'POST /v1/texts/{name}/render',
    path: () => '/api/v1/texts/visit/render',
    body: () => ({ answers: { name: 'Ann' } }),
  },
  {
    endpoint: 'POST /v1/texts/{name}/publish',
    path: () => '/api/v1/texts/later/publish',
    body: () => ({ revision: 1, note: 'New' }),
  },
  {
    endpoint: 'POST /v1/messages',
    body: () => ({ template: 'tried' }),
  },
  {
    endpoint: 'PUT /v1/lists/{id}/recipients',
    path: () => `/api/v1/lists/${table}/recipients`,
    body: () => ({ recipients: [{ email: 'cy@x.example' }] }),
  },
  {
    endpoint: 'POST /v1/series',
    body: () => ({ series: 'course', recipients: [{ email: 'di@x.example' }], answers: { name: 'Di' } }),
  },
  { endpoint: 'GET /v1/series/{id}', path: () => `/api/v1/series/${series}` },
  { endpoint: 'POST /v1/series/{id}/stop', path: () => `/api/v1/series/${series}/stop` },
];

interface Case extends Omit<RightCall, 'endpoint'> {
  /** As Express writes it. */
  readonly route: string;
  /** `key` is another program, with a personal key. */
  readonly who: Caller | 'key';
  readonly status: number;
}
const routeOf = (name: string): string => name.replace(' ', ' /api').replace(/\{(\w+)\}/g, ':$1');
/** Every endpoint of the table, with how it is rightly called. */
const CASES: readonly Case[] = [
  ...CALLS,
  ...(Object.keys(ENDPOINTS) as EndpointName[])
    .filter((name) => !CALLS.some(({ endpoint }) => endpoint === name))
    .map((endpoint): RightCall => ({ endpoint })),
].map(({ endpoint: name, ...call }) => {
  const endpoint: Endpoint = ENDPOINTS[name];
  return {
    route: routeOf(name),
    who: 'scope' in endpoint ? 'key' : endpoint.role,
    ...call,
    status: call.status ?? endpoint.status ?? (endpoint.answer === undefined ? 204 : 200),
  };
});

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
  const at = pattern.replace(/:(\w+)/g, (_, name: string) =>
    name === 'number' ? '1' : name === 'at' ? '0' : 'nobody',
  );
  return send(each, each.route.startsWith('GET') ? { as } : { as, at });
};

describe('every route', () => {
  it('is in the table of endpoints, but for the two that messages hold', () => {
    const counted = ['GET /counted/link/:token', 'GET /counted/open/:token'];
    expect(registered(server.app.router).sort()).toEqual([...counted, ...CASES.map(({ route }) => route)].sort());
  });
  describe('as nobody', () => {
    it.each(CASES.filter(({ who }) => who !== 'anyone'))('$route is shut', async (each) => {
      const answer = await knock(each, server.nobody);
      expect([answer.status, typeof answer.body.code]).toEqual([401, 'string']);
    });
    it.each(CASES.filter(({ who }) => who === 'key'))('$route takes no session for a key', async (each) => {
      expect((await knock(each, colleague)).status).toBe(401);
    });
  });
  describe.each(RANK)('as %s', (role) => {
    const callers = (): Calling => ({ colleague, author, administrator: server.call })[role];
    const may = ({ who }: Case): boolean =>
      who !== 'anyone' && who !== 'key' && RANK.indexOf(who) <= RANK.indexOf(role);
    const mayNot = ({ who }: Case): boolean =>
      who !== 'anyone' && who !== 'key' && RANK.indexOf(who) > RANK.indexOf(role);
    it.each(CASES.filter(may))('$route is open', async (each) => {
      // The table's own things are the administrator's: others are told that there is no such thing.
      expect([200, 201, 204, 400, 403, 404, 422]).toContain((await knock(each, callers())).status);
      const answer = await knock(each, callers());
      expect(answer.body.message ?? '').not.toMatch(/^(?:This is for (?:authors|administrators)\.|Sign in first\.)$/);
    });
    if (CASES.some(mayNot))
      it.each(CASES.filter(mayNot))('$route is shut', async (each) => {
        const answer = await send(each, { as: callers() });
        expect([answer.status, answer.body.code]).toEqual([403, 'not-allowed']);
      });
  });
  describe('rightly called', () => {
    beforeAll(async () => {
      // Knocking as the administrator ended the one there was.
      await server.services.sessions.begin(server.user.id, 'another');
      session = (await server.call.get('/api/me/sessions')).body.find(({ here }: { here: boolean }) => !here).id;
    });
    it.each(CASES)('$route answers with $status', async (each) => {
      const answer = await send(each);
      expect([answer.status, answer.status === each.status ? '' : answer.text]).toEqual([each.status, '']);
    });
  });
  it.each(CASES.filter(({ body }) => body))('$route refuses a body of the wrong type with words', async (each) => {
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
  it.each(CASES.filter(({ route }) => /:(?:id|name|file|token|template)/.test(route)))(
    '$route knows no unknown id',
    async (each) => {
      const pattern = each.route.split(' ')[1] as string;
      const at = pattern
        .replace(/:(?:id|name|file|token|template|letter)/g, 'nobody')
        .replace(':number', '1')
        .replace(':at', '0')
        .replace(':state', 'version:1');
      const answer = await send(each, { at });
      expect([answer.status, answer.body.code]).toEqual([404, 'not-found']);
    },
  );
  describe('on what is another person’s', () => {
    const owned = CASES.filter(
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
            at: '0',
            state: 'version:1',
            template: theirs.text,
            digest: DIGEST,
          }[parameter] ?? 'nobody'
        );
      });
    };
    it.each(owned)('$route does nothing for another author', async (each) => {
      const own = (
        await author
          .post('/api/me/keys')
          .send({ title: 'Mine', scopes: ['read', 'render', 'begin', 'recipients', 'publish'] })
      ).body;
      const call = send(each, { as: author, at: aimed(each) });
      if (each.who === 'key') call.set('authorization', `Bearer ${own.key}`);
      const answer = await call;
      expect([403, 404], `${answer.status} ${JSON.stringify(answer.body).slice(0, 200)}`).toContain(answer.status);
      expect(JSON.stringify(answer.body)).not.toContain('Private words');
    });
    const personal = new Set(['standing', 'fill', 'letter', 'outgoing', 'mailing', 'session', 'key', 'text', 'folder']);
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
        `/api/series/${theirs.series}`,
        `/api/standing/${theirs.standing}`,
        `/api/outgoing/${theirs.outgoing}`,
        `/api/texts/${theirs.text}`,
        `/api/tables/${theirs.table}`,
        `/api/mailroom/letters/${theirs.letter}`,
      ])
        expect([path, (await owner.get(path)).status]).toEqual([path, 200]);
      expect((await owner.get(`/api/outgoing/${theirs.outgoing}`)).body.state).toBe('waiting');
    });
  });
  it.each(CASES.filter(({ route }) => !route.startsWith('GET')))('$route refuses other sites', async (each) => {
    const answer = await send(each).set('origin', 'https://elsewhere.example');
    expect([answer.status, answer.body.code]).toEqual([403, 'foreign-origin']);
  });
  it.each(['link', 'open'])('/counted/%s knows no unknown token', async (what) => {
    expect((await server.nobody.get(`/counted/${what}/none`)).body.code).toBe('not-found');
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
  const subjects = Object.keys(ENDPOINTS).flatMap((name) => /^\w+ (\/[^/]+)/.exec(name)?.[1] ?? []);
  const PREFIXES = ['/api', '/counted', ...new Set(subjects), ''];
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
