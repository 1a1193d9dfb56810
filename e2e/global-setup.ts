/** Signs the demo's author in once, for all journeys that begin as she. */
import { request, type FullConfig } from '@playwright/test';
import { signIn } from './people.js';

export const MAEVE = 'test-results/maeve.json';

export default async function setup(config: FullConfig): Promise<void> {
  const context = await request.newContext({ baseURL: config.projects[0]?.use.baseURL });
  await signIn(context, 'maeve');
  await context.storageState({ path: MAEVE });
  await context.dispose();
}
