/** Looking back, on the demo's half year: figures equal to plain counts, sentences, suggestions, and whose figures. */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { LEDGER_WEEKS, type LedgerRow, type OutcomesBy } from '@vocabula/contract';
import { sql } from 'drizzle-orm';
import { pino } from 'pino';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { adopt } from '../db/adopt.js';
import { Database } from '../db/database.js';
import { loadDemo } from '../demo/demo.js';
import type { User } from '../people/user.js';
import { makeServices, type Services } from '../services.js';
import { Workers } from '../workers/pool.js';
import { csvCells } from './ledger-table.js';
import { suggestionsOf } from './suggestions.js';

const folder = mkdtempSync(join(tmpdir(), 'vocabula-insight-'));
const workers = new Workers();
let database: Database;
let services: Services;
const now = new Date();
beforeAll(async () => {
  database = await Database.open(`file:${join(folder, 'demo.db')}`);
  await adopt(database);
  services = makeServices(database, { workers });
  await loadDemo(database, services, new URL('../../../demo', import.meta.url).pathname, pino({ level: 'silent' }));
}, 120_000);
afterAll(async () => {
  await database.close();
  await workers.close();
  rmSync(folder, { recursive: true, force: true });
});

const person = async (name: string): Promise<User> => {
  const [row] = await database.read.values<[string, User['role'], string]>(
    sql`SELECT id, role, address FROM people WHERE address = ${`${name}@larkmoor.example`}`,
  );
  if (!row) throw new Error(`nobody is called ${name}`);
  return { id: row[0], role: row[1], address: row[2], name } as User;
};
const ledger = async (name = 'ruairi', period = {}): Promise<LedgerRow[]> =>
  services.insight.ledger(period, await person(name), now);

describe('the ledger', () => {
  it('counts what a plain count counts', async () => {
    const rows = await ledger();
    const plain = await database.read.values<[string, number, number, number, string]>(
      sql`SELECT text, count(*), count(DISTINCT person), sum(reworded > 0), max(at) FROM handed_over GROUP BY text`,
    );
    expect(plain.length).toBeGreaterThan(15);
    for (const [text, uses, people, reworded, lastUse] of plain)
      expect(rows.find(({ name }) => name === text)).toMatchObject({
        ...{ uses, people, lastUse, reworded: { successes: reworded, trials: uses } },
      });
    const came = await database.read.values<[string, number, number, number]>(
      sql`SELECT h.text, count(DISTINCT h.outgoing),
            count(DISTINCT CASE WHEN c.what = 'answered' THEN c.outgoing END),
            count(DISTINCT CASE WHEN c.what = 'opened' THEN c.outgoing END)
          FROM handed_over h LEFT JOIN counts c ON c.outgoing = h.outgoing WHERE h.outgoing IS NOT NULL GROUP BY h.text`,
    );
    for (const [text, trials, answered, opened] of came)
      expect(rows.find(({ name }) => name === text)).toMatchObject({
        answered: { successes: answered, trials },
        opened: { successes: opened, trials },
      });
    expect(rows.map(({ uses }) => uses)).toEqual(rows.map(({ uses }) => uses).toSorted((a, b) => b - a));
  });
  it('puts every message of the last half year into its week', async () => {
    for (const { uses, weeks } of await ledger('ruairi', {
      from: new Date(now.getTime() - 181 * 86_400_000).toISOString().slice(0, 10),
    })) {
      expect(weeks).toHaveLength(LEDGER_WEEKS);
      expect(weeks.reduce((sum, each) => sum + each, 0)).toBe(uses);
    }
  });
  it('keeps to its time, both days in it', async () => {
    const day = new Date(now.getTime() - 30 * 86_400_000).toISOString().slice(0, 10);
    const [[count = 0] = []] = await database.read.values<[number]>(
      sql`SELECT count(*) FROM handed_over WHERE substr(at, 1, 10) = ${day}`,
    );
    const rows = await ledger('ruairi', { from: day, until: day });
    expect(rows.reduce((sum, { uses }) => sum + uses, 0)).toBe(count);
  });
  it('shows colleagues their own use alone, and nobody anybody else’s', async () => {
    const [hana, all] = [await person('hana'), await ledger()];
    const own = await ledger('hana');
    const [[mine = 0] = []] = await database.read.values<[number]>(
      sql`SELECT count(*) FROM handed_over WHERE person = ${hana.id}`,
    );
    expect(own.reduce((sum, { uses }) => sum + uses, 0)).toBe(mine);
    expect(own.every(({ people }) => people === 1)).toBe(true);
    expect(JSON.stringify(all)).not.toContain(hana.id);
  });
  it('as a table gives spans only where there are enough messages to say one', async () => {
    const [most] = await ledger();
    const cells = csvCells(most as LedgerRow);
    expect(Number(cells.reworded_low)).toBeLessThan(Number(cells.reworded) / Number(cells.reworded_of));
    const few = { ...(most as LedgerRow), reworded: { successes: 2, trials: 9 } };
    expect(csvCells(few)).toMatchObject({ reworded: '2', reworded_of: '9', reworded_low: '', reworded_high: '' });
  });
});

describe('one text', () => {
  it('tells what became of its sentences, with what was written instead', async () => {
    const found = await services.insight.text('lost-and-found', { zone: 'UTC' }, await person('maeve'));
    const [[uses = 0, reworded = 0] = []] = await database.read.values<[number, number]>(
      sql`SELECT count(*), sum(reworded > 0) FROM handed_over WHERE text = 'lost-and-found'`,
    );
    expect(found.uses).toBe(uses);
    const looked = found.sentences.find(({ words }) => words.startsWith('The gardeners know of it'));
    const [[not = 0] = []] = await database.read.values<[number]>(
      sql`SELECT count(*) FROM handed_over WHERE text = 'lost-and-found' AND json_extract(answers, '$.found') = 'no'`,
    );
    expect(looked?.shown).toBe(not);
    expect(looked?.reworded).toBeGreaterThan(0);
    expect((looked?.reworded ?? 0) + (looked?.takenOut ?? 0)).toBeLessThanOrEqual(reworded);
    const written = looked?.replacements.flatMap(({ all }) => all.map(({ count }) => count)) ?? [];
    expect(written.reduce((sum, each) => sum + each, 0)).toBe(looked?.reworded);
    // A greeting that nobody touched.
    expect(found.sentences[0]).toMatchObject({ shown: uses, reworded: 0, takenOut: 0 });
  });
  it('tells how its questions were answered; what is worked out is no question', async () => {
    const { questions, uses } = await services.insight.text(
      'group-visit-confirmed',
      { zone: 'UTC' },
      await person('maeve'),
    );
    const gate = questions.find(({ key }) => key === 'gate');
    expect(gate?.options.reduce((sum, { count }) => sum + count, 0)).toBe(uses - (gate?.empty ?? 0));
    expect(questions.map(({ key }) => key)).not.toContain('large_party');
  });
  it('tells what became of its messages by version, answer, passage and day, as plain counts do', async () => {
    const { outcomes } = await services.insight.text(
      'group-visit-confirmed',
      { zone: 'Europe/Dublin' },
      await person('maeve'),
    );
    const of = (by: string, about = ''): OutcomesBy | undefined =>
      outcomes.find((each) => each.by === by && each.about === about);
    const [[sent = 0, answered = 0] = []] = await database.read.values<[number, number]>(
      sql`SELECT count(*), sum(EXISTS (SELECT 1 FROM counts c WHERE c.outgoing = h.outgoing AND c.what = 'answered'))
          FROM handed_over h WHERE h.text = 'group-visit-confirmed' AND h.outgoing IS NOT NULL`,
    );
    const sum = (table: OutcomesBy | undefined, key: 'trials' | 'successes'): number =>
      (table?.groups ?? []).reduce((all, { answered: share }) => all + share[key], 0);
    for (const table of [of('weekday'), of('time of day'), of('answer', 'Gate')]) {
      expect(sum(table, 'trials')).toBe(sent);
      expect(sum(table, 'successes')).toBe(answered);
    }
    const [[river = 0] = []] = await database.read.values<[number]>(
      sql`SELECT count(*) FROM handed_over WHERE text = 'group-visit-confirmed' AND outgoing IS NOT NULL
          AND json_extract(answers, '$.gate') = 'river'`,
    );
    const gates = of('answer', 'Gate')?.groups;
    expect(gates?.find(({ label }) => label === 'River')?.messages).toBe(river);
    const days = of('weekday')?.groups.map(({ label }) => label) ?? [];
    const week = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'];
    expect(days).toEqual(week.filter((day) => days.includes(day)));
    const passages = outcomes.filter(({ by }) => by === 'passage');
    expect(passages.length).toBeGreaterThan(0);
    for (const { groups } of passages)
      expect(groups.map(({ label }) => label).toSorted()).toEqual(['kept', 'left out']);
  });
  it('tells weekdays and times in the zone that is asked for', async () => {
    const times = async (zone: string): Promise<string> =>
      JSON.stringify(
        (await services.insight.text('group-visit-confirmed', { zone }, await person('maeve'))).outcomes.filter(
          ({ by }) => by === 'time of day',
        ),
      );
    expect(await times('UTC')).not.toBe(await times('Asia/Tokyo'));
  });
  it('is not there for who may not see it', async () => {
    await expect(services.insight.text('no-such-text', { zone: 'UTC' }, await person('maeve'))).rejects.toMatchObject({
      status: 404,
    });
  });
});

describe('suggestions', () => {
  const question = { ...{ key: 'gate', label: 'Gate', type: 'choice', asked: 37, empty: 0 }, options: [] };
  const sentence = {
    ...{ text: 'a', path: [1], at: 0, words: 'Bring rugs.', shown: 40, reworded: 0, takenOut: 0 },
    replacements: [],
  };
  const kinds = (...given: Parameters<typeof suggestionsOf>): string[] =>
    suggestionsOf(...given).map(({ kind }) => kind);
  it('have their evidence: one answer for all, options that nobody takes, sentences that many change', () => {
    const [found] = suggestionsOf(37, [], [{ ...question, usual: { words: 'North', count: 37 } }]);
    expect(found).toMatchObject({ kind: 'default', evidence: '37 of 37 chose it.' });
    expect(found?.words).toBe('Make “North” the default of “Gate”?');
    const unused = { key: 'west', label: 'West', count: 0 };
    expect(kinds(37, [], [{ ...question, options: [unused] }])).toEqual(['drop option']);
    const often = { words: 'Bring rugs, please.', count: 15, all: [] };
    expect(kinds(40, [{ ...sentence, reworded: 15, replacements: [often] }], [])).toEqual(['reword']);
    expect(kinds(40, [{ ...sentence, takenOut: 15 }], [])).toEqual(['option']);
    expect(kinds(0, [], [])).toEqual(['retire']);
  });
  it('are not made of few messages, small shares, or a default that is right already', () => {
    expect(kinds(9, [], [{ ...question, asked: 9, usual: { words: 'North', count: 9 } }])).toEqual([]);
    expect(kinds(37, [], [{ ...question, changed: 0, usual: { words: 'North', count: 37 } }])).toEqual([]);
    expect(kinds(40, [{ ...sentence, reworded: 5, takenOut: 5 }], [])).toEqual([]);
    expect(kinds(20, [], [{ ...question, asked: 20, options: [{ key: 'w', label: 'W', count: 0 }] }])).toEqual([]);
  });
});
