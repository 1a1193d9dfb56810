/** Sets up what is missing: npm packages, and for tests Chromium from Debian's packages. */
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';

export const CHROMIUM = '/usr/bin/chromium';

/** Runs a command in this terminal; its exit code. */
export function run(command, args, options = {}) {
  return spawnSync(command, args, { stdio: 'inherit', ...options }).status ?? 1;
}

/** Installs npm packages where there are none. */
export function packages() {
  if (existsSync('node_modules/.package-lock.json')) return;
  if (run('npm', ['ci']) !== 0) process.exit(1);
}

/** Installs Chromium where it is missing and may be; otherwise says what to do. */
export function chromium() {
  if (existsSync(CHROMIUM)) return true;
  if (process.getuid?.() !== 0) {
    console.error('Chromium is missing. Install it with: sudo apt-get install chromium');
    return false;
  }
  return (
    run('apt-get', ['update', '-qq']) === 0 &&
    run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', 'chromium', 'fonts-liberation']) === 0
  );
}
