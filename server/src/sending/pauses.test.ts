import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { schema } from '../db/database.js';
import { start, type Started } from '../testing/start.js';
import { endPauses, endPausesIfAny, pauseFor, pauseSending, scopeOf, type PauseScope } from './pauses.js';

let server: Started;
beforeAll(async () => {
  server = await start();
});
afterAll(() => server.stop());
beforeEach(() => server.database.write((writer) => writer.delete(schema.pauses)));

const NOW = Date.parse('2026-11-27T09:00:00Z');
const pause = (scope: PauseScope, why: string, now: number): Promise<string> =>
  server.database.write((writer) => pauseSending(writer, scope, why, now));
const secondsTo = (until: string, now: number): number => (Date.parse(until) - now) / 1000;

describe('a pause of sending', () => {
  it('is longer each time the service fails again, up to half an hour', async () => {
    const lengths: number[] = [];
    let now = NOW;
    for (let tried = 0; tried < 10; tried += 1) {
      const until = await pause('all', 'no connection', now);
      lengths.push(secondsTo(until, now));
      now = Date.parse(until) + 1;
    }
    expect(lengths).toEqual([2, 5, 15, 30, 60, 300, 900, 1800, 1800, 1800]);
  });
  it('is made longer once by two processes that fail at the same moment', async () => {
    const first = await pause('all', 'no connection', NOW);
    expect(await pause('all', 'no connection', NOW + 10)).toBe(first);
    expect(secondsTo(await pause('all', 'still none', Date.parse(first) + 1), Date.parse(first) + 1)).toBe(5);
  });
  it('begins short again after the service has taken a message', async () => {
    await pause('all', 'no connection', NOW);
    await pause('all', 'no connection', NOW + 60_000);
    await server.database.write((writer) => endPauses(writer, ['all']));
    expect(secondsTo(await pause('all', 'no connection', NOW + 120_000), NOW + 120_000)).toBe(2);
  });
  it('is for everybody, or for the messages of one person', async () => {
    const { read } = server.database;
    await pause(scopeOf('ann'), 'takes no mail of this sender', NOW);
    expect(await pauseFor(read, 'ann')).toMatchObject({ why: 'takes no mail of this sender', everybody: false });
    expect(await pauseFor(read, 'bo')).toBeUndefined();
    await pause('all', 'no connection', NOW + 60_000);
    expect(await pauseFor(read, 'bo')).toMatchObject({ why: 'no connection', everybody: true });
    await endPausesIfAny(server.database, ['all']);
    expect(await pauseFor(read, 'bo')).toBeUndefined();
    expect(await pauseFor(read, 'ann')).toMatchObject({ everybody: false });
  });
});
