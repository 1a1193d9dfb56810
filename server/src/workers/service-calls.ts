/** Calls of services inside a worker thread, on a connection that stays open from call to call. */
import { Database } from '../db/database.js';
import { makeServices, type Services } from '../services.js';
import type { HeavyCall, Serving } from './heavy.js';
import { InlineWorkers } from './same-thread-workers.js';

let open: { readonly on: Serving; readonly database: Database; readonly services: Services } | undefined;

async function servicesOn(on: Serving): Promise<Services> {
  if (open?.on.url === on.url && open.on.smtp === on.smtp) return open.services;
  await open?.database.close();
  const database = Database.join(on.url);
  open = { on, database, services: makeServices(database, { smtp: () => on.smtp, workers: new InlineWorkers() }) };
  return open.services;
}

export async function call({ on, service, method, args, as }: HeavyCall): Promise<unknown> {
  const services = await servicesOn(on);
  // The caller’s types have matched service, method and arguments; across threads that is known no more.
  const target = services[service] as unknown as Record<string, (...given: readonly unknown[]) => unknown>;
  const result = await target[method]?.(...args);
  return as === 'json' ? JSON.stringify(result) : result;
}
