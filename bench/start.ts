/** From starting the built server to its first answer, with the demo's data there already. */
import { figure } from './figures.js';
import { quantile, startServer, stopServer, temporaryFolder } from './server.js';

const ROUNDS = 5;
/** What is allowed, in milliseconds. */
const MOST = 2000;

export async function bench(): Promise<void> {
  const folder = temporaryFolder();
  // The first start loads the demo.
  await stopServer(await startServer(folder));
  const times: number[] = [];
  for (let round = 0; round < ROUNDS; round += 1) {
    const begun = performance.now();
    const server = await startServer(folder);
    await (await fetch(`${server.base}/api/health`)).arrayBuffer();
    times.push(performance.now() - begun);
    await stopServer(server);
  }
  const half = quantile(times, 0.5);
  figure('start to first answer, of 2 s', half / MOST, 1);
  console.log(`start to first answer: ${(half / MOST).toFixed(2)}× of ${MOST} ms (median of ${ROUNDS})`);
}
