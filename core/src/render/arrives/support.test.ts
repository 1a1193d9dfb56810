import { spawnSync } from 'node:child_process';
import { expect, it } from 'vitest';
import { SUPPORT, TESTED } from './support.js';

it('is what the data set says', () => {
  const { status, stderr } = spawnSync(process.execPath, ['--import', 'tsx', 'scripts/support.ts', '--check']);
  expect([status, String(stderr)]).toEqual([0, expect.not.stringContaining('support.ts is not')]);
}, 30_000);

it('has programs in each family, and names none', () => {
  for (const { programs } of Object.values(SUPPORT)) {
    expect(programs).toBeGreaterThan(0);
    expect(programs).toBeLessThanOrEqual(TESTED);
  }
  const known = new Set('page inline word dark programs properties features only not values'.split(' '));
  const keys = Object.values(SUPPORT).flatMap((support) => Object.keys(support));
  expect([...Object.keys(SUPPORT), ...keys].filter((key) => !known.has(key))).toEqual([]);
});
