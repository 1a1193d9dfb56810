/**
 * What small requests can do to everybody else: each is sent to a running server while another process asks for its
 * health; printed is the longest that one had to wait, and the most memory the server took.
 */
import { fork } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { startServer, stopServer, temporaryFolder, type RunningServer } from '../server.js';
import { CASES, type Answer, type Target } from './cases.js';

/** Answers that take longer are not waited for, in milliseconds. */
const PATIENCE = Number(process.env.HOSTILE_PATIENCE ?? 20_000);
/** The longest pause that is allowed: 100 ms, and 1 ms for each 100 kB that was sent. */
const allowed = (bytes: number): number => 100 + bytes / 100_000;

export async function bench(): Promise<void> {
  const only = process.env.HOSTILE_ONLY;
  const poller = fork(fileURLToPath(new URL('./poll.mjs', import.meta.url)), { execArgv: [] });
  const longest = (): Promise<number> =>
    new Promise((resolve) => {
      poller.once('message', (answer) => resolve((answer as { longest: number }).longest));
      poller.send({ read: true });
    });
  let server: RunningServer | undefined;
  let cookie = '';
  const target = (running: RunningServer): Target => ({
    base: running.base,
    async send(method, path, body, { nobody = false, type } = {}): Promise<Answer> {
      const plain = body === undefined || body instanceof FormData || body instanceof Uint8Array;
      const headers: Record<string, string> = {
        ...(nobody ? {} : { cookie }),
        ...(type ? { 'content-type': type } : plain ? {} : { 'content-type': 'application/json' }),
      };
      try {
        const answer = await fetch(`${running.base}${path}`, {
          method,
          headers,
          signal: AbortSignal.timeout(PATIENCE),
          ...(body === undefined
            ? {}
            : { body: (plain ? body : JSON.stringify(body)) as NonNullable<RequestInit['body']> }),
        });
        const said = await answer.text();
        return { status: answer.status, body: said.startsWith('{') || said.startsWith('[') ? JSON.parse(said) : said };
      } catch {
        return { status: 0, body: undefined };
      }
    },
  });
  let over = 0;
  console.log('\n| act | kB sent | answer | longest pause, ms | of what is allowed | memory, MB |');
  console.log('|---|---:|---|---:|---:|---:|');
  for (const { name, bytes, prepare, act } of CASES) {
    if (only !== undefined && !name.includes(only)) continue;
    if (!server || server.process.exitCode !== null || server.process.signalCode !== null) {
      server = await startServer(temporaryFolder());
      cookie = await server.signIn('maeve');
    }
    const aimed = target(server);
    const prepared = await prepare?.(aimed);
    poller.send({ begin: server.base });
    await pause(60);
    const { status, body } = await act(aimed, prepared);
    await pause(60);
    const pauseLongest = await longest();
    const dead = server.process.exitCode !== null || server.process.signalCode !== null;
    const share = dead ? Infinity : pauseLongest / allowed(bytes);
    if (share > 1) over += 1;
    const said = dead
      ? 'the server died'
      : status === 0
        ? `none in ${PATIENCE / 1000} s`
        : `${status} ${(body as { code?: string } | undefined)?.code ?? ''}`;
    console.log(
      `| ${name.replaceAll('|', '\\|')} | ${Math.round(bytes / 1000)} | ${said} | ${Math.round(pauseLongest)} | ${share.toFixed(2)} | ${dead ? '' : memoryOf(server)} |`,
    );
    // A server that is still at it would spoil what comes next.
    if (!dead && (status === 0 || pauseLongest > 3000)) await stopServer(server, 'SIGKILL');
  }
  if (server) await stopServer(server, 'SIGKILL');
  poller.kill();
  console.log(`\n${over} of ${CASES.length} acts hold everybody up for longer than is allowed.`);
}

const pause = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));

/** The most memory a process ever took, where the system tells it. */
function memoryOf({ process: { pid } }: RunningServer): string {
  try {
    const [, kilobytes] = /VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8')) ?? [];
    return String(Math.round(Number(kilobytes) / 1000));
  } catch {
    return '';
  }
}
