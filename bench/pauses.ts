/** How long acts hold everybody else up: the longest that another process waits for the server's health meanwhile. */
import { fork } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { startServer, stopServer, temporaryFolder, type RunningServer } from './server.js';
import type { Answer, Case, Target } from './hostile/cases.js';

/** Answers that take longer are not waited for, in milliseconds. */
const PATIENCE = Number(process.env.HOSTILE_PATIENCE ?? 20_000);
/**
 * Does each act on a running server while another process asks for its health, and prints a line for each.
 * @param allowed the longest pause in milliseconds, by how many bytes were sent
 * @returns the longest pause of each act, as a share of what is allowed; infinite where the server died
 */
export async function longestPauses(cases: readonly Case[], allowed: (bytes: number) => number): Promise<number[]> {
  const only = process.env.HOSTILE_ONLY;
  const poller = fork(fileURLToPath(new URL('./hostile/poll.mjs', import.meta.url)), { execArgv: [] });
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
  const shares: number[] = [];
  console.log('\n| act | kB sent | answer | longest pause, ms | of what is allowed | memory, MB |');
  console.log('|---|---:|---|---:|---:|---:|');
  for (const { name, bytes, prepare, act } of cases) {
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
    shares.push(share);
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
  return shares;
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
