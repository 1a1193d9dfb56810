/** The table of endpoints holds together: what the routes, the client and the OpenAPI document are made of. */
import * as z from 'zod';
import { describe, expect, it } from 'vitest';
import { ENDPOINTS, FILE, PROGRAM_ENDPOINTS, type Endpoint, type EndpointName } from './index.js';

const ALL = Object.entries(ENDPOINTS) as [EndpointName, Endpoint][];
const parametersIn = (path: string): string[] => [...path.matchAll(/\{(\w+)\}/g)].map(([, name = '']) => name);

describe('every endpoint', () => {
  it.each(ALL)('%s has a method and a path', (name) => {
    expect(name).toMatch(/^(GET|POST|PUT|PATCH|DELETE) (\/([a-z0-9.-]+|\{[a-zA-Z]+\}))+$/);
  });
  it.each(ALL)('%s takes the parameters of its path, and no other', (name, { params }) => {
    expect(Object.keys(params?.shape ?? {}).sort()).toEqual(parametersIn(name).sort());
  });
  it.each(ALL)('%s bounds what stands in its path', (_name, { params }) => {
    for (const [key, schema] of Object.entries(params?.shape ?? {}) as [string, z.ZodType][])
      expect([key, schema.safeParse('x'.repeat(5000)).success]).toEqual([key, false]);
  });
  it('that reads takes no body, and one that changes says who may, or which keys', () => {
    for (const [name, endpoint] of ALL) {
      if (name.startsWith('GET ')) expect([name, endpoint.body, endpoint.file]).toEqual([name, undefined, undefined]);
      expect('role' in endpoint || 'scope' in endpoint).toBe(true);
      if (name.startsWith('GET ')) expect([name, endpoint.answer === undefined]).toEqual([name, false]);
    }
  });
  it('that is for everybody is one of those before signing in', () => {
    const open = ALL.filter(([, endpoint]) => 'role' in endpoint && endpoint.role === 'anyone').map(([name]) => name);
    // A program reads how to call before it has a key.
    expect(open.filter((name) => !/ \/(door|health|v1$|v1\/openapi)/.test(name))).toEqual([]);
  });
  it('with a form or a file says how large it may be', () => {
    for (const [, { file }] of ALL) {
      if (!file) continue;
      expect(file.bytes).toBeGreaterThan(0);
      expect(file.bytes).toBeLessThanOrEqual(600_000_000);
    }
  });
  it('is there once: no two differ in the names of their parameters alone', () => {
    const bare = ALL.map(([name]) => name.replace(/\{\w+\}/g, '{}'));
    expect(bare.filter((name, at) => bare.indexOf(name) !== at)).toEqual([]);
  });
});

describe('what endpoints take', () => {
  const bodies = ALL.flatMap(([name, { body }]) => (body ? [[name, body] as const] : []));
  it.each(bodies)('%s refuses what is no object', (_name, body) => {
    for (const wrong of [null, 7, 'words', [], [{}]]) expect(body.safeParse(wrong).success).toBe(false);
  });
  it.each(bodies)('%s refuses names that it does not know', (_name, body) => {
    const result = body.safeParse({ surely_not_a_name: 1 });
    expect(result.success).toBe(false);
    expect(JSON.stringify(result.error?.issues)).toMatch(/unrecognized_keys|invalid_/);
  });
  const queries = ALL.flatMap(([name, { query }]) => (query ? [[name, query] as const] : []));
  it.each(queries)('%s bounds what stands in its query', (_name, query) => {
    for (const [key, schema] of Object.entries(query.shape) as [string, z.ZodType][])
      expect([key, schema.safeParse('x'.repeat(100_000)).success]).toEqual([key, false]);
  });
});

describe('endpoints for other programs', () => {
  const programs = Object.entries(PROGRAM_ENDPOINTS);
  it('have ids of their own, a summary that is a sentence, and an answer that can be described', () => {
    const ids = programs.map(([, { id }]) => id);
    expect(new Set(ids).size).toBe(ids.length);
    for (const [name, { summary, answer }] of programs) {
      expect([name, summary]).toEqual([name, expect.stringMatching(/^[A-Z].*\.$/)]);
      expect(answer === (FILE as unknown)).toBe(false);
      expect(() => z.toJSONSchema(answer, { io: 'output' })).not.toThrow();
    }
  });
  it('stand below their version, where pages call nothing', () => {
    for (const [name, endpoint] of ALL)
      if (!name.startsWith('GET /v1/openapi'))
        expect([name, 'scope' in endpoint]).toEqual([name, / \/v1\//.test(name)]);
  });
  it('that render take fields and answers, and have what is usual where they are left out', () => {
    const body = PROGRAM_ENDPOINTS['POST /v1/texts/{name}/render'].body;
    expect(body.parse({})).toEqual({ recipient: {}, answers: {}, timezone: 'UTC' });
    expect(body.safeParse({ today: '2027-02-30' }).success).toBe(false);
    expect(body.safeParse({ timezone: 'Europe/Atlantis' }).success).toBe(false);
  });
});
