/** A server of its own for one test file: a database in a folder that goes away, and nothing logged. */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pino } from 'pino';
import request from 'supertest';
import { readText } from '@vocabula/core/markdown';
import type { WorkingCopy } from '@vocabula/contract';
import type { TextDocument } from '@vocabula/core';
import { Database } from '../db/database.js';
import { makeApp, makeServices, type Services } from '../http/app.js';

export interface Started {
  readonly url: string;
  readonly services: Services;
  readonly app: ReturnType<typeof makeApp>;
  readonly call: ReturnType<typeof request>;
  stop(): Promise<void>;
}

/** Starts on a database of its own, or on the one at `url`. */
export async function start(url?: string): Promise<Started> {
  const folder = url === undefined ? mkdtempSync(join(tmpdir(), 'vocabula-')) : undefined;
  const address = url ?? `file:${join(folder as string, 'test.db')}`;
  const database = await Database.open(address);
  const services = makeServices(database);
  const app = makeApp(services, pino({ level: 'silent' }), 'no pages');
  return {
    url: address,
    services,
    app,
    call: request(app),
    async stop() {
      await database.close();
      if (folder !== undefined) rmSync(folder, { recursive: true, force: true });
    },
  };
}

/** A file of the format with one greeting. */
export const file = (title: string, body = 'Dear {{name}},', more = ''): string =>
  `---\nvocabula: 1\nkind: message\ntitle: ${title}\n${more}subject: "Hello {{name}}"\nto: "{{recipient.email}}"\nvariables:\n  name: { type: text, required: true }\n---\n${body}\n`;

export const documentOf = (source: string): TextDocument => readText(source).document;

/** Makes a text and gives its working copy. */
export async function makeText(started: Started, title: string, source = file(title)): Promise<WorkingCopy> {
  const answer = await started.call
    .post('/api/texts')
    .send({ kind: documentOf(source).attrs.front.kind, title, document: documentOf(source) });
  if (answer.status !== 201) throw new Error(answer.text);
  return answer.body as WorkingCopy;
}
