/**
 * Programs that are not ours, to check what leaves against: a mail transfer agent, and readers of mail and calendars in
 * another language. They come from Debian's packages; where one is missing its tests are skipped, in one clear line.
 */
import { execFileSync, spawn, spawnSync } from 'node:child_process';
import { once } from 'node:events';
import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  writeFileSync,
  chmodSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { answers, freePort, wait } from './ports.js';

const PYTHON = '/usr/bin/python3';
const SMTPD = '/usr/sbin/smtpd';

const hasModule = (name: string): boolean =>
  existsSync(PYTHON) && spawnSync(PYTHON, ['-c', `import ${name}`]).status === 0;

/** What is there. Says in one line what is not, and which package brings it. */
function look(there: boolean, what: string, brings: string): boolean {
  if (!there) console.warn(`Skipped: ${what}, for which Debian's package ${brings} is needed.`);
  return there;
}
/** Whether Python can read mail here. */
export const hasPython = look(hasModule('email'), 'reading mail with another program', 'python3');
/** Whether Python can read calendar files here. */
export const hasCalendars = look(
  hasModule('icalendar'),
  'reading invitations with another program',
  'python3-icalendar',
);
/** Whether a mail transfer agent can be run here. */
export const hasAgent = look(
  existsSync(SMTPD) && process.getuid?.() === 0,
  'sending through a mail transfer agent (as root)',
  'opensmtpd',
);

/** Runs a script that reads bytes and prints JSON. */
export const readWith = (script: string, bytes: Uint8Array): unknown =>
  JSON.parse(execFileSync(PYTHON, ['-c', script], { input: bytes, maxBuffer: 50_000_000 }).toString('utf8'));

/** A mail transfer agent that runs for a test. */
export interface Agent {
  readonly url: string;
  /** The mails that it has delivered, as the bytes of their files. @param count that are waited for */
  delivered(count: number): Promise<readonly Buffer[]>;
  stop(): Promise<void>;
}

/** Starts OpenSMTPD on a port of this machine; it delivers all mail into one folder. */
export async function startAgent(): Promise<Agent> {
  const folder = mkdtempSync(join(tmpdir(), 'vocabula-agent-'));
  // Mail is delivered by a user without rights, who must reach the folder.
  chmodSync(folder, 0o711);
  const box = join(folder, 'box');
  mkdirSync(box);
  execFileSync('chown', ['nobody', box]);
  const port = await freePort();
  const config = join(folder, 'smtpd.conf');
  writeFileSync(
    config,
    `smtp max-message-size "50M"
listen on 127.0.0.1 port ${port} hostname mx.larkmoor.example
table everybody { "@" = nobody }
action "keep" maildir "${box}" virtual <everybody>
match from any for any action "keep"
`,
  );
  const agent = spawn(SMTPD, ['-d', '-f', config], { stdio: 'ignore' });
  for (let tried = 0; tried < 100 && !(await answers(port)); tried += 1) await wait(100);
  const fresh = join(box, 'new');
  return {
    url: `smtp://127.0.0.1:${port}`,
    async delivered(count) {
      for (let tried = 0; tried < 200; tried += 1) {
        const files = existsSync(fresh) ? readdirSync(fresh) : [];
        if (files.length >= count) return files.map((file) => readFileSync(join(fresh, file)));
        await wait(100);
      }
      throw new Error('The mail was not delivered.');
    },
    async stop() {
      agent.kill();
      if (agent.exitCode === null) await once(agent, 'exit');
      rmSync(folder, { recursive: true, force: true });
    },
  };
}
