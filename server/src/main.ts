/**
 * Starts the server: one process, or with `WORKERS=n` several on one address and one database. The first of them does
 * what is to be done once: filling the demo, publishing at a time, emptying old lists. All answer requests and send.
 */
import cluster from 'node:cluster';
import { once } from 'node:events';

const wanted = Number(process.env.WORKERS ?? 1);

if (cluster.isPrimary && wanted > 1) await lead(wanted);
else await import('./serve.js');

/** Starts the workers, the first before the others, and starts one anew that ends by itself. */
async function lead(count: number): Promise<void> {
  const numbers = new Map<number, number>();
  let stopping = false;
  const start = (number: number) => {
    const worker = cluster.fork({ WORKER: String(number) });
    numbers.set(worker.id, number);
    return worker;
  };
  const stop = (signal: NodeJS.Signals): void => {
    stopping = true;
    for (const worker of Object.values(cluster.workers ?? {})) worker?.process.kill(signal);
  };
  process.on('SIGINT', () => stop('SIGINT'));
  process.on('SIGTERM', () => stop('SIGTERM'));
  const answering = new Set<number>();
  cluster.on('listening', ({ id }) => void answering.add(id));
  cluster.on('exit', ({ id }) => {
    const number = numbers.get(id);
    numbers.delete(id);
    if (stopping || number === undefined) return;
    if (answering.delete(id)) return void start(number);
    // One that cannot start at all would only be started again and again.
    process.exitCode = 1;
    stop('SIGTERM');
  });
  const first = start(1);
  await Promise.race([once(first, 'listening'), once(first, 'exit')]);
  for (let number = 2; number <= count && !stopping; number += 1) start(number);
}
