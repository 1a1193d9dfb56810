/**
 * The figures of a run: what was measured, what is to be reached, and what the run that was kept last gave. All are
 * ratios, since machines differ. `--keep` writes them to `bench/last.json`.
 */
import { existsSync, readFileSync, writeFileSync } from 'node:fs';

const LAST = 'bench/last.json';
/** Worse than the last run by so much is said. */
const TENTH = 0.1;

interface Figure {
  readonly value: number;
  readonly reach: number;
  readonly better: 'less' | 'more';
}
const measured = new Map<string, Figure>();

/** Notes a figure for the table at the end. @param reach what it is to be at most, or at least where more is better */
export function figure(name: string, value: number, reach: number, better: Figure['better'] = 'less'): void {
  measured.set(name, { value, reach, better });
}

/** Prints the figures of this run beside those that were kept. @param keep writes them down as the last */
export function printFigures(keep: boolean): void {
  if (measured.size === 0) return;
  const last: Record<string, number> = existsSync(LAST) ? JSON.parse(readFileSync(LAST, 'utf8')) : {};
  console.log('\n| figure | now | to reach | last kept | |\n|---|---:|---:|---:|---|');
  for (const [name, { value, reach, better }] of measured) {
    const before = last[name];
    const isReached = better === 'less' ? value <= reach : value >= reach;
    const change = before === undefined || before === 0 ? 0 : (value - before) / before;
    const isWorse = better === 'less' ? change > TENTH : change < -TENTH;
    const says = [isReached ? '' : 'not reached', isWorse ? 'worse than the last by a tenth or more' : ''];
    console.log(
      `| ${name} | ${value.toFixed(2)} | ${better === 'less' ? '≤' : '≥'} ${reach} | ${before?.toFixed(2) ?? '–'} | ${says.filter(Boolean).join('; ')} |`,
    );
  }
  if (!keep) return;
  const now = Object.fromEntries([...measured].map(([name, { value }]) => [name, Number(value.toFixed(3))]));
  writeFileSync(LAST, `${JSON.stringify({ ...last, ...now }, null, 2)}\n`);
}
