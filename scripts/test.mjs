/** `npm test`: sets up what is missing, then lint, types, unit tests and browser journeys; last line a plain count. */
import { spawn } from 'node:child_process';
import { readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, packages, realParts, run } from './setup.mjs';

packages();
realParts();
let passed = 0;
let failed = 0;
const count = (ok) => (ok ? (passed += 1) : (failed += 1));

for (const { status, output } of await Promise.all(['lint', 'types'].map(script))) {
  process.stdout.write(output);
  count(status === 0);
}

const unit = join(tmpdir(), `vocabula-unit-${process.pid}.json`);
const units = ['--no-install', 'vitest', 'run', '--reporter=default', '--reporter=json', `--outputFile.json=${unit}`];
const unitsPassed = run('npx', units) === 0;
// A file that fails before its tests begin has none that failed.
add(unit, (report) => [report.numPassedTests, Math.max(report.numFailedTests, unitsPassed ? 0 : 1)]);

if (chromium() && run('npm', ['run', '-s', 'build']) === 0) {
  const journeys = join(tmpdir(), `vocabula-e2e-${process.pid}.json`);
  run('npx', ['--no-install', 'playwright', 'test', '--reporter=list,json'], {
    env: { ...process.env, PLAYWRIGHT_JSON_OUTPUT_NAME: journeys },
  });
  add(journeys, (report) => [report.stats.expected, report.stats.unexpected]);
} else count(false);

/** Runs a script of the package beside others. */
function script(name) {
  const child = spawn('npm', ['run', '-s', name], { stdio: ['ignore', 'pipe', 'pipe'] });
  let output = '';
  child.stdout.on('data', (data) => (output += data));
  child.stderr.on('data', (data) => (output += data));
  return new Promise((resolve) => child.on('close', (status) => resolve({ status, output })));
}

/** Adds a runner's counts; a report that is not there is a failure. */
function add(file, read) {
  try {
    const [good, bad] = read(JSON.parse(readFileSync(file, 'utf8')));
    passed += good;
    failed += bad;
    if (good + bad === 0) failed += 1;
    rmSync(file);
  } catch {
    failed += 1;
  }
}

console.log(`${passed} passed, ${failed} failed`);
process.exit(failed > 0 ? 1 : 0);
