/** A server of its own for one test file: a database in a folder that goes away, people of every role, nothing logged. */
import { copyFileSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pino } from 'pino';
import request from 'supertest';
import { readText } from '@vocabula/core/markdown';
import type { Role, WorkingCopy } from '@vocabula/contract';
import type { TextDocument } from '@vocabula/core';
import { adopt } from '../db/adopt.js';
import { Database } from '../db/database.js';
import { makeApp } from '../http/app.js';
import { makeServices, type Services, type Surroundings } from '../services.js';
import { Workers } from '../workers/pool.js';
import { sessionCookie } from '../http/session.js';
import type { User } from '../people/user.js';
import { addPerson } from '../people/service.js';
import { addSession } from '../people/sessions.js';
import { newToken } from '../people/secrets.js';

type Caller = ReturnType<typeof request.agent>;

export interface Started {
  readonly url: string;
  readonly database: Database;
  readonly services: Services;
  readonly app: ReturnType<typeof makeApp>;
  /** Calls as an administrator. */
  readonly call: Caller;
  /** The administrator that `call` calls as. */
  readonly user: User;
  /** Calls as nobody. */
  readonly nobody: Caller;
  /** Calls as a new person of that role. */
  as(role: Role, name?: string): Promise<Caller & { readonly user: User }>;
  stop(): Promise<void>;
}

let count = 0;
/** One pool for all servers of a process: threads begin slowly, and keep nothing of a server. */
const workers = new Workers();

/** A database as a new one is, made once in this process and copied for every server. */
let template: Promise<string> | undefined;
async function makeTemplate(): Promise<string> {
  const folder = mkdtempSync(join(tmpdir(), 'vocabula-template-'));
  process.once('exit', () => rmSync(folder, { recursive: true, force: true }));
  const path = join(folder, 'template.db');
  const database = await Database.open(`file:${path}`);
  await adopt(database);
  await database.close();
  return path;
}

/** Starts on a database of its own, or on the one at `url`. @param around the mail service, if there is one */
export async function start(url?: string, around: Surroundings = {}): Promise<Started> {
  const folder = url === undefined ? mkdtempSync(join(tmpdir(), 'vocabula-')) : undefined;
  const address = url ?? `file:${join(folder as string, 'test.db')}`;
  if (folder !== undefined) copyFileSync(await (template ??= makeTemplate()), join(folder, 'test.db'));
  const database = await Database.open(address);
  await adopt(database);
  const services = makeServices(database, { workers, ...around });
  const app = makeApp(services, around.log ?? pino({ level: 'silent' }), { pages: 'no pages', checked: true });
  const as = async (role: Role, name?: string): Promise<Caller & { readonly user: User }> => {
    count += 1;
    const id = `${role}-${process.pid}-${count}`;
    const token = newToken();
    const user = await database.write(async (writer) => {
      const added = await addPerson(writer, {
        id,
        name: name ?? id,
        address: `${id}@larkmoor.example`,
        role,
        password: 'never',
      });
      await addSession(writer, id, 'test', token);
      return added;
    });
    return Object.assign(request.agent(app).set('cookie', sessionCookie(token)), { user });
  };
  const call = await as('administrator');
  return {
    url: address,
    database,
    services,
    app,
    call,
    user: call.user,
    nobody: request.agent(app),
    as,
    async stop() {
      await services.courier.stop();
      await services.findings.countAll();
      await database.close();
      if (folder !== undefined) rmSync(folder, { recursive: true, force: true });
    },
  };
}

/** A file of the format with one greeting. */
export const file = (title: string, body = 'Dear {{name}},', more = ''): string =>
  `---\nvocabula: 1\nkind: message\ntitle: ${title}\n${more}subject: "Hello {{name}}"\nto: "{{recipient.email}}"\nvariables:\n  name: { type: text, required: true }\n---\n${body}\n`;

/** The same as a block. */
export const blockFile = (title: string, body: string): string =>
  file(title, body)
    .replace('kind: message', 'kind: block')
    .replace(/subject.*\nto.*\n/, '')
    .replace(/variables:\n.*\n/, '');

export const documentOf = (source: string): TextDocument => readText(source).document;

/** Makes a text and gives its working copy. */
export async function makeText(
  { call }: { readonly call: Caller },
  title: string,
  source = file(title),
  folder?: string,
): Promise<WorkingCopy> {
  const answer = await call
    .post('/api/texts')
    .send({ kind: documentOf(source).attrs.front.kind, title, document: documentOf(source), folder });
  if (answer.status !== 201) throw new Error(answer.text);
  return answer.body as WorkingCopy;
}

/** Publishes the working copy that there is. */
export async function publish({ call }: { readonly call: Caller }, name: string, note = 'New'): Promise<void> {
  const { body } = await call.get(`/api/versions/${name}`);
  const answer = await call.post(`/api/versions/${name}/publish`).send({ revision: body.revision, note });
  if (answer.status !== 200) throw new Error(answer.text);
}

/** Makes a text and publishes it. */
export async function makePublished(
  started: { readonly call: Caller },
  title: string,
  source = file(title),
  folder?: string,
): Promise<WorkingCopy> {
  const made = await makeText(started, title, source, folder);
  await publish(started, made.name);
  return made;
}
