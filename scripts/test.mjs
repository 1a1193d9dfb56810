/**
 * `npm test`: sets up what is missing, then lint, types, unit tests and browser journeys. Says where the time went; its
 * last line is a plain count.
 */
import { spawn } from 'node:child_process';
import { readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { browserForJourneys, packages, realParts, run } from './setup.mjs';

/** How many tests are named as the slowest. */
const SLOWEST = 20;

let passed = 0;
let failed = 0;
const count = (ok) => (ok ? (passed += 1) : (failed += 1));
/** Seconds that each stage took, by its name. */
const stages = [];
/** Every test that ran, with its milliseconds. */
const tests = [];

await stage('setting up', () => {
  packages();
  realParts();
});
await stage('lint and types', async () => {
  for (const { status, output } of await Promise.all(['lint', 'types'].map(script))) {
    process.stdout.write(output);
    count(status === 0);
  }
});
await stage('unit tests', () => {
  const file = join(tmpdir(), `vocabula-unit-${process.pid}.json`);
  const ran = run('npx', [
    '--no-install',
    'vitest',
    'run',
    '--reporter=default',
    '--reporter=json',
    `--outputFile.json=${file}`,
  ]);
  add(file, (report) => {
    for (const { assertionResults } of report.testResults)
      for (const { fullName, duration } of assertionResults) tests.push([duration ?? 0, fullName]);
    // A file that fails before its tests begin has none that failed.
    return [report.numPassedTests, Math.max(report.numFailedTests, ran === 0 ? 0 : 1)];
  });
});
let isBuilt = false;
await stage('building', () => void (isBuilt = browserForJourneys() && run('npm', ['run', '-s', 'build']) === 0));
await stage('journeys', () => {
  if (!isBuilt) return count(false);
  const file = join(tmpdir(), `vocabula-e2e-${process.pid}.json`);
  run('npx', ['--no-install', 'playwright', 'test', '--reporter=list,json'], {
    env: { ...process.env, PLAYWRIGHT_JSON_OUTPUT_NAME: file },
  });
  add(file, (report) => {
    for (const suite of report.suites) journeysOf(suite);
    return [report.stats.expected, report.stats.unexpected];
  });
});

/** Notes the journeys of a suite, and of those in it. */
function journeysOf({ specs = [], suites = [] }) {
  for (const { title, tests: runs } of specs)
    tests.push([Math.max(0, ...runs.flatMap(({ results }) => results.map(({ duration }) => duration))), title]);
  suites.forEach(journeysOf);
}

/** Runs a stage, and notes how long it took. */
async function stage(name, work) {
  const begun = performance.now();
  await work();
  stages.push([(performance.now() - begun) / 1000, name]);
}

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

const inSeconds = (list, digits) => list.map(([seconds, name]) => `${seconds.toFixed(digits).padStart(7)} s  ${name}`);
console.log(`\nThe slowest ${SLOWEST} tests:`);
const slowest = tests.sort(([a], [b]) => b - a).slice(0, SLOWEST);
console.log(
  inSeconds(
    slowest.map(([milliseconds, name]) => [milliseconds / 1000, name]),
    1,
  ).join('\n'),
);
console.log(`\nEach stage:\n${inSeconds(stages, 0).join('\n')}`);
console.log(`${passed} passed, ${failed} failed`);
process.exit(failed > 0 ? 1 : 0);
