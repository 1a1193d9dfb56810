/** What a series asks at its beginning, and which of its steps go. */
import { goesKey } from '../compile/steps.js';
import type { SeriesProgram } from '../compile/program.js';
import { questions, type Question } from '../questions/questions.js';
import { valuesOf, type RenderInput } from '../render/render.js';
import { OUTCOME_FLAGS, type OutcomeFlag } from '../template/steps.js';
import { dueOf, type Calendar } from './schedule.js';

/** What became of the messages of a series so far. */
export type Outcomes = Readonly<Record<OutcomeFlag, boolean>>;
/** Nothing came of any message. */
export const NO_OUTCOMES: Outcomes = { answered: false, followed: false, opened: false };

/** A question of a series, which several of its steps may ask; it is asked once. */
export interface SeriesQuestion extends Question {
  /** What its answer is kept under: its key, with the number of the step behind where two steps mean different things by it. */
  readonly id: string;
  /** The steps that ask it, from 0; none where only conditions and waits do. */
  readonly steps: readonly number[];
}

/** The key under which a step's answer is kept, where an earlier step means another type by it. */
const apart = (key: string, at: number): string => `${key}@${at + 1}`;

const known = new WeakMap<SeriesProgram, ReadonlyMap<string, string>>();
/** The types of variables by their keys, as the first step that has them says. */
function typesOf(series: SeriesProgram): ReadonlyMap<string, string> {
  const before = known.get(series);
  if (before) return before;
  const { steps, plan } = series;
  const types = new Map<string, string>();
  for (const program of [plan, ...steps.map((each) => each.program)])
    for (const { key, variable } of program?.slots ?? []) if (!types.has(key)) types.set(key, variable.type);
  known.set(series, types);
  return types;
}

/** The answers of a series as one of its steps has them. @param at the step, from 0 */
export function answersOf(
  series: SeriesProgram,
  at: number,
  answers: Readonly<Record<string, unknown>>,
): Record<string, unknown> {
  const types = typesOf(series);
  const own: Record<string, unknown> = {};
  for (const { key, variable } of series.steps[at]?.program?.slots ?? []) {
    const id = types.get(key) === variable.type ? key : apart(key, at);
    if (Object.hasOwn(answers, id)) own[key] = answers[id];
  }
  return own;
}

/** What is to be asked at the beginning, in the order in which the steps meet it; what may be told later is left out. */
export function seriesQuestions(series: SeriesProgram, input: RenderInput): SeriesQuestion[] {
  const types = typesOf(series);
  const found = new Map<string, SeriesQuestion>();
  const add = (question: Question, id: string, at: number | undefined): void => {
    const known = found.get(id);
    const steps = [...(known?.steps ?? []), ...(at === undefined ? [] : [at])];
    const required = question.required || (known?.required ?? false);
    found.set(id, { ...(known ?? question), required, id, steps });
  };
  series.steps.forEach(({ step, program }, at) => {
    if (!program) return;
    const own = { ...input, answers: answersOf(series, at, input.answers ?? {}) };
    for (const question of questions(program, own)) {
      if (step.later?.includes(question.key)) continue;
      add(question, types.get(question.key) === question.type ? question.key : apart(question.key, at), at);
    }
  });
  const flags: readonly string[] = OUTCOME_FLAGS;
  for (const question of questions(series.plan, input))
    if (!flags.includes(question.key) && !isLater(series, question.key))
      // A wait or a condition cannot do without it, whatever its template says.
      add({ ...question, required: true }, question.key, undefined);
  return [...found.values()];
}

/** Whether every step that asks for a key may be told it later. */
const isLater = ({ steps }: SeriesProgram, key: string): boolean => {
  const asking = steps.filter(({ program }) => program?.slots.some((slot) => slot.key === key));
  return asking.length > 0 && asking.every(({ step }) => step.later?.includes(key));
};

/** What conditions and waits come to, for an input and what became of earlier messages. */
export interface Decided {
  /** Whether each step goes; undefined where that cannot be told yet. */
  readonly goes: readonly (boolean | undefined)[];
  /** The ISO day that a key says, as `dueOf` asks for it. */
  readonly dayOf: (key: string) => string | undefined;
}

/** Works out all conditions and days of a series at once: what one asks, the others mostly ask too. */
export function decide({ steps, plan }: SeriesProgram, input: RenderInput, outcomes: Outcomes): Decided {
  const answers = { ...input.answers, ...outcomes };
  const values = new Map(valuesOf(plan, { ...input, answers }).map(({ slot, value }) => [slot.key, value]));
  return {
    goes: steps.map(({ step }, at) => {
      const value = step.when === undefined ? true : values.get(goesKey(at));
      return typeof value === 'boolean' ? value : undefined;
    }),
    dayOf: (key) => {
      const value = values.get(key);
      return typeof value === 'string' ? value : undefined;
    },
  };
}

/** Every combination of what may become of messages. */
export const ALL_OUTCOMES: readonly Outcomes[] = [false, true].flatMap((answered) =>
  [false, true].flatMap((followed) => [false, true].map((opened) => ({ answered, followed, opened }))),
);

/** What will become of a step, as far as it can be told now. */
export interface Foreseen {
  /** When it is due, milliseconds since 1970; none where it does not go, or a value is missing. */
  readonly at?: number;
  readonly what:
    | 'goes'
    /** Only if something comes of the messages before it. */
    | 'perhaps'
    /** Its condition does not hold. */
    | 'left out'
    /** The day it was for has passed. */
    | 'passed'
    /** A value is missing that its day or its condition depends on. */
    | 'unknown';
  /** The key of the missing value, where it is known which. */
  readonly without?: string;
}

/**
 * Foresees the steps of a series, as if nothing came of any message.
 * @param from   the first step that is foreseen, from 0
 * @param before when the step before it went, or the series began (milliseconds since 1970)
 * @param chosen when that first step goes, as an ISO moment, where that is settled
 */
export function foresee(
  series: SeriesProgram,
  input: RenderInput,
  calendar: Calendar,
  before: number,
  from = 0,
  chosen?: string | null,
): Foreseen[] {
  const now = decide(series, input, NO_OUTCOMES);
  // Asked only where a step does not go as things are.
  let later: readonly Decided[] | undefined;
  const mayGo = (at: number): boolean =>
    (later ??= ALL_OUTCOMES.map((outcomes) => decide(series, input, outcomes))).some(({ goes }) => goes[at] === true);
  let last = before;
  return series.steps.slice(from).map(({ step }, offset): Foreseen => {
    const at = from + offset;
    const due =
      offset === 0 && chosen ? { at: Date.parse(chosen), passed: false } : dueOf(step, last, now.dayOf, calendar);
    if ('without' in due) return { what: 'unknown', without: due.without };
    if (due.passed) return { what: 'passed', at: due.at };
    const goes = now.goes[at];
    if (goes === undefined) return { what: 'unknown', at: due.at };
    if (goes) {
      last = due.at;
      return { what: 'goes', at: due.at };
    }
    return mayGo(at) ? { what: 'perhaps', at: due.at } : { what: 'left out' };
  });
}
