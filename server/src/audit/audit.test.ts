/** The audit trail: found by who, what, when and words; a page at a time; as a file. */
import type { AuditEntry } from '@vocabula/contract';
import Papa from 'papaparse';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { start, type Started } from '../testing/start.js';
import { note } from './service.js';

let server: Started;
beforeEach(async () => {
  server = await start();
});
afterEach(() => server.stop());

const entries = async (query = ''): Promise<AuditEntry[]> => (await server.call.get(`/api/audit${query}`)).body;
const words = async (query = ''): Promise<string[]> => (await entries(query)).map((each) => each.words);
async function noted(
  ...lines: readonly (readonly [who: string, act: 'published' | 'binned', target: string, words: string])[]
) {
  await server.database.write(async (writer) => {
    for (const [who, act, target, said] of lines)
      await note(writer, { id: who.toLowerCase(), name: who }, act, 'text', target, said);
  });
}

describe('the audit trail', () => {
  it('tells the newest first, with who, what and when', async () => {
    const before = new Date().toISOString();
    await noted(['Ann', 'published', 'visit', 'Visit, version 1'], ['Bo', 'binned', 'hours', 'Hours']);
    const [last, first] = await entries();
    expect(last).toMatchObject({
      who: 'bo',
      whoName: 'Bo',
      act: 'binned',
      what: 'text',
      target: 'hours',
      words: 'Hours',
    });
    expect(first?.whoName).toBe('Ann');
    expect((last?.at ?? '') >= before && (last?.at ?? '') <= new Date().toISOString()).toBe(true);
    expect((last?.id ?? 0) > (first?.id ?? 0)).toBe(true);
  });
  it('is narrowed by person, kind and target, and by all words of a line, in any column', async () => {
    await noted(
      ['Ann', 'published', 'visit', 'Visit, version 1'],
      ['Ann', 'binned', 'hours', 'Hours'],
      ['Bo', 'published', 'hours', 'Hours, version 2'],
    );
    expect(await words('?who=bo')).toEqual(['Hours, version 2']);
    expect(await words('?target=hours')).toEqual(['Hours, version 2', 'Hours']);
    expect(await words('?q=ann%20hours')).toEqual(['Hours']);
    expect(await words('?q=version%20published')).toEqual(['Hours, version 2', 'Visit, version 1']);
    expect(await words('?what=house')).toEqual([]);
    // What patterns take for any letter is no letter here.
    expect(await words('?q=%25%25')).toHaveLength(3);
    expect(await words('?q=v_rsion')).toEqual([]);
  });
  it('is of the days that are asked for, both included', async () => {
    await noted(['Ann', 'published', 'visit', 'today']);
    const day = (shift: number): string => new Date(Date.now() + shift * 86_400_000).toISOString().slice(0, 10);
    expect(await words(`?from=${day(0)}&until=${day(0)}`)).toEqual(['today']);
    expect(await words(`?from=${day(1)}`)).toEqual([]);
    expect(await words(`?until=${day(-1)}`)).toEqual([]);
    for (const wrong of ['from=yesterday', 'until=2027-02-30', 'before=-1', 'before=x'])
      expect((await server.call.get(`/api/audit?${wrong}`)).status).toBe(400);
  });
  it('is read on from the last entry of a page', async () => {
    await noted(...Array.from({ length: 230 }, (_, at) => ['Ann', 'published', 'visit', `entry ${at}`] as const));
    const first = await entries();
    const second = await entries(`?before=${first.at(-1)?.id}`);
    const all = [...first, ...second].map((each) => each.words);
    expect(first).toHaveLength(200);
    expect(all).toEqual(Array.from({ length: 230 }, (_, at) => `entry ${229 - at}`));
  });
  it('is a file that other programs read: oldest first, all pages, whatever stands in it', async () => {
    const odd = 'He said “yes”, "no",\nand; =1+1';
    await noted(
      ['Ann', 'published', 'visit', odd],
      ...Array.from({ length: 205 }, () => ['Bo', 'binned', 'x', 'X'] as const),
    );
    const { text, headers } = await server.call.get('/api/audit/csv');
    expect(headers['content-type']).toContain('text/csv');
    const [head, ...rows] = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), { skipEmptyLines: true }).data;
    expect(rows).toHaveLength(206);
    expect(rows[0]?.length).toBe(head?.length);
    expect(rows[0]?.join('|')).toContain('and; =1+1');
  });
  it('is for administrators', async () => {
    for (const role of ['author', 'colleague'] as const) {
      const person = await server.as(role);
      for (const path of ['/api/audit', '/api/audit/csv']) expect((await person.get(path)).status).toBe(403);
    }
    expect((await server.nobody.get('/api/audit')).status).toBe(401);
  });
  it('keeps what was noted in a change that failed out of itself', async () => {
    const failing = server.database.write(async (writer) => {
      await note(writer, { id: 'a', name: 'Ann' }, 'published', 'text', 'visit', 'never happened');
      throw new Error('no');
    });
    await expect(failing).rejects.toThrow('no');
    expect(await words()).toEqual([]);
  });
});
