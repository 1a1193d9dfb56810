import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compile } from '../compile/compile.js';
import { readText, writeText } from '../formats/markdown/index.js';
import type { SeriesProgram } from '../compile/program.js';
import { mapDocument } from '../revise/map.js';
import { bringTogether } from '../revise/together.js';
import { normalise } from '../template/normalise.js';
import { readWait, writeWait, type Step } from '../template/steps.js';
import { documentOf, source } from '../testing/build.js';
import { instantOf, wallAt } from '../values/zone.js';
import { answersOf, decide, dueOf, foresee, NO_OUTCOMES, seriesQuestions, tryOut, type Calendar } from './index.js';

const ZONE = 'Europe/Dublin';
const WEEK: Calendar = {
  zone: ZONE,
  from: '09:00',
  to: '17:00',
  days: [1, 2, 3, 4, 5],
  holidays: new Set(['2026-12-25']),
};
const at = (wall: string): number => instantOf(wall, ZONE);
/** Saturday, 28 November 2026, is the day of these tests. */
const SATURDAY = at('2026-11-28T10:00');

const TEMPLATES: Readonly<Record<string, string>> = {
  welcome: source({ body: 'Dear {{first_name}}', variables: 'first_name: { type: text, required: true }' }),
  visit: source({
    body: 'Until {{visit_date}}: {{party}} of you{{#bus}}, by bus{{/bus}}. {{guide}}',
    variables:
      'visit_date: { type: date, required: true }\nparty: { type: number, required: true }\nbus: { type: yes-no }\nguide: { type: text, required: true }',
  }),
  thanks: source({
    body: 'Thank you, {{first_name}}. {{party}}',
    variables: 'first_name: { type: text }\nparty: { type: text }',
  }),
  answer: source({ body: 'Yes', front: 'kind: message\npurpose: reply' }),
  hours: source({ body: 'Open', front: 'kind: block' }),
};
const series = (steps: string, more = '') =>
  compile(
    {
      name: 'after-visit',
      document: documentOf(`---\nvocabula: 1\nkind: series\ntitle: A visit\n${more}steps:\n${steps}\n---\n`),
    },
    { library: { get: (name) => (TEMPLATES[name] ? readText(TEMPLATES[name] as string).document : undefined) } },
  );
const compiled = (steps: string, more = ''): SeriesProgram => {
  const program = series(steps, more);
  expect(program.findings).toEqual([]);
  return program.series as SeriesProgram;
};
const faults = (steps: string): string[] => series(steps).findings.map(({ message }) => message);
const input = (answers: Record<string, unknown> = {}) => ({ answers, today: '2026-11-28', zone: ZONE });

describe('a series in its file', () => {
  const FILE = `---
vocabula: 1
kind: series
title: A visit
on_answer: continue
steps:
  - { text: welcome }
  - { text: visit, wait: 3 working days before visit_date, at: "09:30", when: "!answered && party > 10", look: true, later: [guide] }
  - { text: thanks, wait: on visit_date }
---
`;
  it('is read and written again as it was', () => {
    const { document, findings } = readText(FILE);
    expect(findings).toEqual([]);
    expect(document.attrs.steps).toEqual([
      { text: 'welcome' },
      {
        text: 'visit',
        days: 3,
        working: true,
        before: 'visit_date',
        at: '09:30',
        when: '!answered && party > 10',
        look: true,
        later: ['guide'],
      },
      { text: 'thanks', after: 'visit_date' },
    ]);
    expect(writeText(document)).toBe(FILE);
  });

  it('says what is wrong in it', () => {
    const found = (steps: string) =>
      readText(`---\nvocabula: 1\nkind: series\ntitle: A\nsteps:\n${steps}\n---\n`).findings.map(
        ({ message }) => message,
      );
    expect(found('  - { text: welcome, wait: soon }')).toEqual([
      expect.stringContaining('“soon” is no wait of step 1'),
    ]);
    expect(found('  - { text: welcome, at: "25:00" }')).toEqual([expect.stringContaining('no time of day')]);
    expect(found('  - welcome')).toEqual([expect.stringContaining('Step 1 must say its template')]);
    expect(found('  - { text: welcome, every: week }')).toEqual([expect.stringContaining('“every”')]);
    expect(
      readText('---\nvocabula: 1\ntitle: A\nsteps: [{ text: a }]\n---\n').findings.map(({ code }) => code),
    ).toEqual(['bad-step']);
  });

  it('keeps every step that there can be through writing and reading', () => {
    const key = fc.constantFrom('visit_date', 'party', 'x1');
    const step = fc.record(
      {
        text: fc.constantFrom('welcome', 'visit', 'a-b-c'),
        days: fc.integer({ min: 0, max: 3650 }),
        working: fc.constant(true as const),
        anchor: fc.tuple(fc.constantFrom('before', 'after'), key),
        at: fc.constantFrom('00:00', '09:30', '23:59'),
        when: fc.constantFrom('answered', 'party > 10 && city == "A: b, {c}"', '!followed'),
        look: fc.constant(true as const),
        later: fc.uniqueArray(key),
      },
      { requiredKeys: ['text'] },
    );
    fc.assert(
      fc.property(fc.array(step, { maxLength: 6 }), (given) => {
        const steps = given.map(({ anchor, ...rest }): Step => ({
          ...rest,
          ...(anchor ? { [anchor[0]]: anchor[1] } : {}),
        }));
        const base = documentOf('---\nvocabula: 1\nkind: series\ntitle: A\n---\n');
        const document = normalise({ ...base, attrs: { ...base.attrs, steps } });
        const { document: again, findings } = readText(writeText(document));
        expect(findings).toEqual([]);
        expect(again).toEqual(document);
      }),
    );
  });

  it('reads waits as it writes them', () => {
    for (const text of [
      '1 day',
      '14 working days',
      '2 days after visit_date',
      '1 working day before x',
      'on visit_date',
    ])
      expect(writeWait({ text: 'a', ...readWait(text) })).toBe(text);
    for (const text of ['', 'soon', '3', '3 weeks', '-1 days', '9999 days', '2 days before', 'on 5'])
      expect(readWait(text)).toBeUndefined();
  });
});

describe('a series that is changed as a whole', () => {
  const text = (steps: string) => documentOf(`---\nvocabula: 1\nkind: series\ntitle: A\nsteps:\n${steps}\n---\n`);
  const before = text('  - { text: welcome }\n  - { text: thanks, wait: 3 days }');
  it('keeps its steps', () => {
    expect(mapDocument(before, {}).attrs.steps).toEqual(before.attrs.steps);
  });
  it('is brought together with what somebody else made of it, its steps from one side', () => {
    const mine = text('  - { text: welcome, look: true }\n  - { text: thanks, wait: 3 days }');
    const { differences, merge } = bringTogether(mine, before, before);
    expect(differences).toMatchObject([
      {
        in: 'front',
        name: 'steps',
        decided: 'yours',
        yours: ['1. welcome, look', '2. thanks, 3 days'],
        theirs: ['1. welcome', '2. thanks, 3 days'],
      },
    ]);
    expect(merge([]).attrs.steps).toEqual(mine.attrs.steps);
    expect(merge(['theirs']).attrs.steps).toEqual(before.attrs.steps);
  });
});

describe('a series compiled', () => {
  it('refuses what cannot be a step', () => {
    expect(series('  - { text: nowhere }').findings[0]).toMatchObject({
      code: 'bad-step',
      why: 'missing',
      step: 1,
      name: 'nowhere',
    });
    expect(faults('  - { text: hours }')[0]).toMatch(/is no template that is sent/);
    expect(faults('  - { text: answer }')[0]).toMatch(/is a reply/);
    // A series among its own steps is no message either: there is no loop to go round.
    expect(
      compile(
        {
          name: 'loop',
          document: documentOf('---\nvocabula: 1\nkind: series\ntitle: L\nsteps: [{ text: loop }]\n---\n'),
        },
        {
          library: {
            get: () => documentOf('---\nvocabula: 1\nkind: series\ntitle: L\nsteps: [{ text: loop }]\n---\n'),
          },
        },
      ).findings.map(({ message }) => message),
    ).toEqual(['“L”, of step 1, is no template that is sent as a message.']);
  });

  it('refuses days and conditions that it has no values for, and says in which step', () => {
    expect(faults('  - { text: welcome }\n  - { text: visit, wait: 3 days before party }')[0]).toMatch(
      /Step 2 is counted from “party”/,
    );
    const [wrong] = series('  - { text: welcome, when: "party >" }').findings;
    expect(wrong).toMatchObject({ code: 'bad-expression', place: { attribute: 'steps.1.when' } });
    expect(series('  - { text: welcome, when: "party > 3" }').findings[0]).toMatchObject({
      place: { attribute: 'steps.1.when' },
    });
    expect(faults('')[0]).toMatch(/must be a list|needs one step/);
  });

  it('asks once what several steps ask, apart what they mean different things by, and later what may wait', () => {
    const program = compiled(
      '  - { text: welcome }\n  - { text: visit, later: [guide] }\n  - { text: thanks, wait: 2 days after visit_date }',
    );
    const asked = seriesQuestions(program, input());
    expect(asked.map(({ id, steps, required }) => [id, steps, required])).toEqual([
      ['first_name', [0, 2], true],
      ['visit_date', [1], true],
      ['party', [1], true],
      ['bus', [1], false],
      ['party@3', [2], false],
    ]);
    const answers = { first_name: 'Ann', party: 12, 'party@3': 'a dozen' };
    expect(answersOf(program, 1, answers)).toEqual({ party: 12 });
    expect(answersOf(program, 2, answers)).toEqual({ first_name: 'Ann', party: 'a dozen' });
  });

  it('works conditions out from values and from what became of earlier messages', () => {
    const program = compiled('  - { text: visit }\n  - { text: thanks, when: "!answered && party > 10" }');
    expect(decide(program, input(), NO_OUTCOMES).goes[0]).toBe(true);
    expect(decide(program, input({ party: 12 }), NO_OUTCOMES).goes[1]).toBe(true);
    expect(decide(program, input({ party: 12 }), { ...NO_OUTCOMES, answered: true }).goes[1]).toBe(false);
    expect(decide(program, input({ party: 3 }), NO_OUTCOMES).goes[1]).toBe(false);
    expect(decide(program, input(), NO_OUTCOMES).goes[1]).toBeUndefined();
  });
});

describe('when a step is due', () => {
  const none = () => undefined;
  const wall = (
    step: Omit<Step, 'text'>,
    before = SATURDAY,
    day: (key: string) => string | undefined = none,
    week = WEEK,
  ): string => {
    const due = dueOf({ text: 'a', ...step }, before, day, week);
    return 'without' in due ? `without ${due.without}` : `${wallAt(due.at, ZONE)}${due.passed ? ' passed' : ''}`;
  };
  it('waits for working hours, over weekends and holidays', () => {
    expect(wall({})).toBe('2026-11-30T09:00');
    expect(wall({}, at('2026-11-30T10:20'))).toBe('2026-11-30T10:20');
    expect(wall({}, at('2026-11-30T18:20'))).toBe('2026-12-01T09:00');
    expect(wall({ days: 3, at: '10:15' }, at('2026-12-22T11:00'))).toBe('2026-12-28T10:15');
    expect(wall({ days: 2, working: true }, at('2026-12-23T11:00'))).toBe('2026-12-28T11:00');
    // Every day is one where the sender works on all, but holidays stay.
    expect(wall({ days: 3 }, at('2026-12-22T11:00'), none, { ...WEEK, days: [] })).toBe('2026-12-26T11:00');
    expect(wall({ days: 1, at: '06:00' }, at('2026-11-30T10:00'))).toBe('2026-12-01T09:00');
    expect(wall({ at: '09:30' }, at('2026-11-30T10:00'))).toBe('2026-12-01T09:30');
  });
  it('counts from a day among the values, before it backwards to a working day', () => {
    const visit = () => '2026-12-12';
    expect(wall({ days: 5, before: 'visit_date', at: '10:00' }, SATURDAY, visit)).toBe('2026-12-07T10:00');
    expect(wall({ days: 0, after: 'visit_date' }, SATURDAY, visit)).toBe('2026-12-14T09:00');
    expect(wall({ days: 6, before: 'visit_date' }, SATURDAY, visit)).toBe('2026-12-04T09:00');
    expect(wall({ days: 3, working: true, before: 'visit_date' }, SATURDAY, visit)).toBe('2026-12-09T09:00');
    expect(wall({ days: 1, after: 'visit_date' })).toBe('without visit_date');
  });
  it('has passed when its day is over, and goes at once later on its day', () => {
    expect(wall({ days: 3, before: 'd' }, SATURDAY, () => '2026-11-29')).toBe('2026-11-26T09:00 passed');
    expect(wall({ after: 'd', at: '09:30' }, at('2026-11-30T11:00'), () => '2026-11-30')).toBe('2026-11-30T11:00');
  });
  it('keeps the hour when clocks change', () => {
    expect(wall({ days: 1, at: '10:00' }, at('2027-03-26T10:00'), none, { ...WEEK, days: [] })).toBe(
      '2027-03-27T10:00',
    );
    expect(wall({ days: 2 }, at('2027-03-27T10:00'), none, { ...WEEK, days: [] })).toBe('2027-03-29T10:00');
  });
  it('never is before the step before it unless it says so, and always on a working day within hours', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 400 }),
        fc.boolean(),
        fc.option(fc.constantFrom('00:00', '08:59', '12:00', '23:59'), { nil: undefined }),
        fc.integer({ min: 0, max: 365 * 24 * 60 }),
        (days, working, clock, minutes) => {
          const before = SATURDAY + minutes * 60_000;
          const step = {
            text: 'a',
            days,
            ...(working ? { working: true as const } : {}),
            ...(clock ? { at: clock } : {}),
          };
          const due = dueOf(step, before, none, WEEK);
          if ('without' in due) throw new Error('counted from no value');
          expect(due.passed).toBe(false);
          expect(due.at).toBeGreaterThanOrEqual(before);
          const [day = '', time = ''] = wallAt(due.at, ZONE).split('T');
          expect(new Date(`${day}T12:00Z`).getUTCDay() % 6).not.toBe(0);
          expect(day).not.toBe('2026-12-25');
          expect(time >= '09:00' && time.slice(0, 5) <= '17:00').toBe(true);
        },
      ),
    );
  });
});

describe('what is foreseen', () => {
  it('has the moment of every step, says what depends on answers, and what has passed', () => {
    const program = compiled(
      '  - { text: visit }\n  - { text: thanks, wait: 3 days, when: followed }\n  - { text: welcome, wait: 20 days before visit_date }\n  - { text: thanks, wait: 1 day after visit_date, when: party > 10 }',
    );
    const seen = foresee(program, input({ visit_date: '2026-12-10', party: 4 }), WEEK, SATURDAY);
    expect(seen.map(({ what }) => what)).toEqual(['goes', 'perhaps', 'passed', 'left out']);
    expect(foresee(program, input({ party: 4 }), WEEK, SATURDAY)[2]).toEqual({
      what: 'unknown',
      without: 'visit_date',
    });
  });
});

describe('a series tried out', () => {
  const options = { start: SATURDAY, today: '2026-11-28', calendar: WEEK };
  const ways = (program: SeriesProgram) =>
    tryOut(program, options).paths.map(
      ({ steps, ends }) =>
        `${steps.map((step) => `${step.at + 1}${step.then.map((flag) => flag[0]).join('')}`).join(' ')} ${ends}`,
    );
  it('goes through every outcome that matters', () => {
    const program = compiled(
      '  - { text: welcome }\n  - { text: welcome, wait: 3 days, when: "!followed" }\n  - { text: welcome, wait: 5 days, when: followed }',
    );
    expect(ways(program).sort()).toEqual(
      ['1 2 done', '1 2a answered', '1 2f 3 done', '1 2fa answered', '1a answered', '1f 3 done', '1fa answered']
        .sort()
        .filter((way) => !way.includes('fa'))
        .concat(['1 2af answered', '1af answered'])
        .sort(),
    );
    expect(tryOut(program, options)).toMatchObject({ most: 3, never: [], complete: true });
  });
  it('goes on after an answer where the series says so', () => {
    const program = compiled(
      '  - { text: welcome }\n  - { text: welcome, wait: 1 day, when: answered }',
      'on_answer: continue\n',
    );
    expect(ways(program).sort()).toEqual(['1 done', '1a 2 done']);
  });
  it('varies the values that conditions ask, and finds the step that never goes', () => {
    const program = compiled(
      '  - { text: visit }\n  - { text: welcome, wait: 1 day, when: "party > 10" }\n  - { text: welcome, wait: 1 day, when: "party < 3 && party > 5" }',
      'on_answer: continue\n',
    );
    const tried = tryOut(program, options);
    expect(tried.paths.map(({ steps }) => steps.length).sort()).toEqual([1, 2]);
    expect(tried).toMatchObject({ most: 2, never: [2], complete: true });
    for (const { steps, filling } of tried.paths) {
      const given = { ...input(), ...filling } as never;
      expect(decide(program, given, NO_OUTCOMES).goes[1]).toBe(steps.length === 2);
    }
  });
  it('never sends a step twice, nor before the one before it', () => {
    const program = compiled(
      Array.from(
        { length: 8 },
        (_, step) =>
          `  - { text: welcome, wait: ${step} days, when: "${['!opened', 'followed', '!answered'][step % 3]}" }`,
      ).join('\n'),
    );
    for (const { steps } of tryOut(program, options).paths)
      steps.forEach((step, index) => {
        if (index > 0) expect(step.at).toBeGreaterThan(steps[index - 1]?.at ?? 0);
        if (index > 0) expect(step.due).toBeGreaterThanOrEqual(steps[index - 1]?.due ?? 0);
      });
  });
  it('says so where there is too much to go through', () => {
    const program = compiled(
      Array.from(
        { length: 20 },
        () => '  - { text: welcome, wait: 1 day, when: "!followed || opened || answered" }',
      ).join('\n'),
    );
    const tried = tryOut(program, options);
    expect(tried.complete).toBe(false);
    expect(tried.paths.length).toBeLessThanOrEqual(300);
  });
});
