import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compile } from '../../compile/compile.js';
import type { Program } from '../../compile/program.js';
import { readText } from '../../formats/markdown/index.js';
import { render } from '../../render/render.js';
import { cover, covering, type Covering } from './cover.js';
import { meetings } from './meetings.js';
import { factorsOf, observe } from './observe.js';

const TODAY = '2026-11-24';
const program = (variables: string, body: string): Program =>
  compile(
    {
      name: 't',
      document: readText(`---\nkind: message\ntitle: T\nsubject: S\nvariables:\n${variables}\n---\n${body}\n`).document,
    },
    { library: { get: () => undefined } },
  );
const said = ({ factors }: Covering, together: Covering['notFound'][number]): string =>
  together.map(({ factor, level }) => `${factors[factor]?.name}=${factors[factor]?.levels[level]?.key}`).join(' ');

/** What two factors do together over every one of the fillings, found without anything that made the cases. */
function reachable(of: Program, fillings: readonly Record<string, unknown>[]): Set<string> {
  const factors = factorsOf(meetings(of));
  const found = new Set<string>();
  for (const answers of fillings) {
    const levels = observe(of, factors, { answers, recipient: {}, sender: {} }, TODAY);
    levels.forEach((level, i) =>
      levels.forEach((other, j) => {
        if (j > i && level >= 0 && other >= 0)
          found.add(
            `${factors[i]?.name}=${factors[i]?.levels[level]?.key} ${factors[j]?.name}=${factors[j]?.levels[other]?.key}`,
          );
      }),
    );
  }
  return found;
}

describe('the covering set of a template', () => {
  const nested = program(
    '  guide: { type: yes-no }\n  gate: { type: choice, required: true, options: { north: North, river: River, lake: Lake } }\n  dogs: { type: yes-no }\n  note: { type: text }',
    '{{#guide}}\n\nYour guide waits at {{gate}}.\n\n{{/guide}}\n\n{{#dogs}}\n\nDogs.\n\n{{/dogs}}\n\n{{note}}',
  );

  it('shows every pair that can occur, and says why the others cannot', () => {
    const found = cover(nested, { today: TODAY });
    expect(found.factors.map(({ name, levels }) => `${name}:${levels.length}`)).toEqual([
      'guide:2',
      'gate:3',
      'dogs:2',
      'note:2',
    ]);
    expect(found.notFound).toEqual([]);
    expect(found.impossible.map(({ together, because }) => [said(found, together), because])).toEqual([
      ['guide=no gate=north', '“Gate” does not come up when “Guide” is no'],
      ['guide=no gate=river', '“Gate” does not come up when “Guide” is no'],
      ['guide=no gate=lake', '“Gate” does not come up when “Guide” is no'],
    ]);
    // 2·3 + 2·2 + 2·2 + 3·2 + 3·2 + 2·2, less the three that cannot be.
    expect(found.covered).toBe(27);
    expect(found.cases.length).toBeLessThanOrEqual(9);
    expect(found.cases.reduce((sum, { news }) => sum + news, 0)).toBe(27);
  });

  it('seeks the outcomes of a condition from what it is compared with', () => {
    const found = cover(
      program(
        '  party: { type: number, min: 1, required: true }\n  large: { type: yes-no, value: party >= 15 }\n  huge: { type: yes-no, value: party > 39 }',
        '{{party}}{{#large}}, large{{/large}}{{#huge}}, huge{{/huge}}',
      ),
      { today: TODAY },
    );
    expect(found.covered).toBe(3);
    expect(found.impossible.map(({ together }) => said(found, together))).toEqual(['large=no huge=yes']);
    expect(new Set(found.cases.map(({ levels }) => levels.join()))).toEqual(new Set(['0,0', '0,1', '1,1']));
  });

  it('says of an outcome that nothing brings about', () => {
    const found = cover(
      program('  a: { type: yes-no }\n  never: { type: yes-no, value: a && !a }', '{{#a}}A{{/a}}{{#never}}B{{/never}}'),
      { today: TODAY },
    );
    expect(found.impossible.map(({ because }) => because)).toContain('nothing makes it so that “Never” is yes');
  });

  it('knows lists, several options, fields of the recipient and what may stay empty', () => {
    const found = cover(
      program(
        '  tickets: { type: list, columns: { item: { type: text } } }\n  extras: { type: choices, options: { tea: Tea, boat: Boat } }\n  local: { type: yes-no, value: \'recipient.city == "Cork"\' }',
        '{{#tickets}}\n\n{{item}}\n\n{{/tickets}}\n\n{{extras}}{{#local}}, near{{/local}}',
      ),
      { today: TODAY },
    );
    expect(found.factors.map(({ name, levels }) => `${name}:${levels.length}`)).toEqual([
      'tickets:3',
      'extras.tea:2',
      'extras.boat:2',
      'local:2',
    ]);
    expect([found.impossible, found.notFound]).toEqual([[], []]);
    expect(found.covered).toBe(6 + 6 + 6 + 4 + 4 + 4);
  });

  it('makes cases that render, the same for a seed, and can be left at any time', () => {
    const { cases } = cover(nested, { today: TODAY, seed: 5 });
    for (const { answers, recipient, sender } of cases)
      expect(render(nested, { answers, recipient, sender, today: TODAY }).findings).toEqual([]);
    expect(cover(nested, { today: TODAY, seed: 5 }).cases).toEqual(cases);
    const work = covering(nested, { today: TODAY });
    expect(work.next().value).toMatchObject({ open: expect.any(Number) as number });
    work.return(undefined as never);
  });

  it('of triples shows each that can occur', () => {
    const found = cover(nested, { today: TODAY, strength: 3 });
    expect(found.notFound).toEqual([]);
    // guide·gate·dogs, guide·gate·note, guide·dogs·note, gate·dogs·note
    expect(found.covered).toBe(6 + 6 + 8 + 12);
  });

  it('agrees with every filling there is, for made-up templates', () => {
    const names = ['a', 'b', 'c', 'd'] as const;
    type Tree = { readonly of: (typeof names)[number]; readonly not: boolean; readonly inside: readonly Tree[] };
    const treeOf = fc.memo((depth): fc.Arbitrary<Tree> =>
      fc.record({
        of: fc.constantFrom(...names),
        not: fc.boolean(),
        inside: depth <= 1 ? fc.constant([]) : fc.array(treeOf(depth - 1), { maxLength: 2 }),
      }),
    );
    const tree = treeOf(4);
    const write = ({ of, not, inside }: Tree): string =>
      `{{${not ? '^' : '#'}${of}}}\n\nWords.\n\n${inside.map(write).join('\n\n')}\n\n{{/${of}}}`;
    const every = Array.from({ length: 8 }, (_, bits) => ({ a: (bits & 1) > 0, b: (bits & 2) > 0, c: (bits & 4) > 0 }));
    fc.assert(
      fc.property(fc.array(tree, { minLength: 1, maxLength: 3 }), (trees) => {
        const made = program(
          '  a: { type: yes-no }\n  b: { type: yes-no }\n  c: { type: yes-no }\n  d: { type: yes-no, value: a && b || c }',
          trees.map(write).join('\n\n'),
        );
        const found = cover(made, { today: TODAY });
        const truth = reachable(made, every);
        const shown = reachable(
          made,
          found.cases.map(({ answers }) => answers),
        );
        if (found.factors.length > 1) expect(shown).toEqual(truth);
        expect(found.notFound).toEqual([]);
        for (const { together } of found.impossible) expect(truth.has(said(found, together))).toBe(false);
      }),
      { numRuns: 60 },
    );
  });
});

describe('a template with very many ways to go', () => {
  it('comes to an end, in steps, with every pair shown', () => {
    const options = Array.from({ length: 12 }, (_, at) => `o${at}: { wording: "way ${at}" }`).join(', ');
    const keys = Array.from({ length: 30 }, (_, at) => `k${at}`);
    const made = program(
      keys.map((key) => `  ${key}: { type: choice, required: true, options: { ${options} } }`).join('\n'),
      keys.map((key) => `{{${key}}}`).join(' '),
    );
    const found = cover(made, { today: TODAY });
    expect(found.covered).toBe(((30 * 29) / 2) * 12 * 12);
    expect([found.impossible, found.notFound]).toEqual([[], []]);
  });
  it('or in which a condition divides by nothing for one recipient', () => {
    const made = program(
      '  party: { type: number, default: 0 }\n  dear: { type: yes-no, value: "100.0 / party > 5.0" }',
      '{{#dear}}\n\nDear.\n\n{{/dear}}',
    );
    const found = cover(made, { today: TODAY });
    expect(found.factors.map(({ name }) => name)).toEqual(['dear']);
    expect(found.cases.length).toBeGreaterThan(0);
    expect(render(made, { answers: { party: 0 }, today: TODAY }).findings).toEqual([]);
  });
});
