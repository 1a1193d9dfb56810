/** Sets up what is missing: npm packages, and for tests Chromium from Debian's packages. */
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';

export const CHROMIUM = '/usr/bin/chromium';
/** Chromium without windows: the same engine, in which journeys take about two thirds of the time. */
const WITHOUT_WINDOWS = '/usr/bin/chromium-headless-shell';

/** Runs a command in this terminal; its exit code. */
export function run(command, args, options = {}) {
  return spawnSync(command, args, { stdio: 'inherit', ...options }).status ?? 1;
}

/** Installs npm packages where there are none. */
export function packages() {
  if (existsSync('node_modules/.package-lock.json')) return;
  if (run('npm', ['ci']) !== 0) process.exit(1);
}

const isRoot = () => process.getuid?.() === 0;

/** Installs Debian's packages; whether that worked. */
const install = (...names) =>
  run('apt-get', ['update', '-qq']) === 0 &&
  run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', ...names], {
    env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
  }) === 0;

/** Installs Chromium where it is missing and may be; otherwise says what to do. */
export function chromium() {
  if (existsSync(CHROMIUM)) return true;
  if (!isRoot()) {
    console.error('Chromium is missing. Install it with: sudo apt-get install chromium');
    return false;
  }
  return install('chromium', 'fonts-liberation');
}

/** Installs the browser of the journeys; Chromium itself does where that cannot be. */
export function browserForJourneys() {
  if (existsSync(WITHOUT_WINDOWS)) return true;
  return (isRoot() && install('chromium-headless-shell', 'fonts-liberation')) || chromium();
}

/**
 * Installs programs that check what leaves and what comes from outside: readers of mail and calendars, a writer of documents,
 * a mail transfer agent, and an IMAP server. The servers only where no service would be started and no other agent replaced. Tests of what is missing are skipped.
 */
export function realParts() {
  if (!isRoot()) return;
  const calendars = spawnSync('/usr/bin/python3', ['-c', 'import icalendar']).status === 0;
  const documents = spawnSync('/usr/bin/python3', ['-c', 'import odf']).status === 0;
  const agent = existsSync('/usr/sbin/sendmail') || existsSync('/run/systemd/system');
  const mailbox = existsSync('/usr/sbin/dovecot') || existsSync('/run/systemd/system');
  const wanted = [
    ...(calendars ? [] : ['python3', 'python3-icalendar']),
    ...(documents ? [] : ['python3', 'python3-odf']),
    ...(agent ? [] : ['opensmtpd']),
    ...(mailbox ? [] : ['dovecot-imapd']),
  ];
  if (wanted.length > 0) install(...wanted);
}
