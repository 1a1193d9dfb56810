/** Makes the database that journeys begin with, and signs the demo's author in once for all that begin as she. */
import { mkdirSync, rmSync } from 'node:fs';
import { request } from '@playwright/test';
import { DEMO_DATABASE } from './journey.js';
import { OwnServer } from './own-server.js';
import { signIn } from './people.js';

export const MAEVE = 'test-results/maeve.json';

export default async function setup(): Promise<void> {
  mkdirSync('test-results', { recursive: true });
  rmSync(DEMO_DATABASE, { force: true });
  const server = new OwnServer(4190);
  await server.start();
  const context = await request.newContext({ baseURL: server.url });
  await signIn(context, 'maeve');
  await context.storageState({ path: MAEVE });
  await context.dispose();
  await server.stop('SIGTERM');
  server.keep(DEMO_DATABASE);
  await server.end();
}
