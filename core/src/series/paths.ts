/**
 * Tries a series out before anybody gets it: every way in which it can go. Values are varied as in a covering, by those
 * that make a condition come out differently, all combinations of them where they are few enough; for each, every
 * outcome of every message that matters to a later step is gone through.
 */
import type { Program, SeriesProgram } from '../compile/program.js';
import { pairArray } from '../proof/cover/array.js';
import { fillingOf, inputsOf, type Input, type Usual } from '../proof/cover/inputs.js';
import { meetings } from '../proof/cover/meetings.js';
import type { Filling } from '../proof/filling.js';
import { namesIn } from '../expression/names.js';
import type { RenderInput } from '../render/render.js';
import { OUTCOME_FLAGS, type OutcomeFlag } from '../template/steps.js';
import { ALL_OUTCOMES, decide, NO_OUTCOMES, type Decided, type Outcomes } from './series.js';
import { dueOf, type Calendar } from './schedule.js';

/** What a series is tried out with. */
export interface TryOptions {
  /** When it begins, milliseconds since 1970. */
  readonly start: number;
  /** The day of that, ISO. */
  readonly today: string;
  readonly calendar: Calendar;
  /** A recipient whose fields are taken where nothing depends on them. */
  readonly usual?: Usual;
}

/** One way in which a series can go. */
export interface Path {
  /** The steps that go, from 0, each with its moment (milliseconds since 1970) and what came of it that mattered. */
  readonly steps: readonly { readonly at: number; readonly due: number; readonly then: readonly OutcomeFlag[] }[];
  /** It ends with its last step, or because somebody answered. */
  readonly ends: 'done' | 'answered';
  /** From its beginning to its last message, in days. */
  readonly span: number;
  /** Values with which it goes this way. */
  readonly filling: Filling;
}

/** All that can happen. */
export interface TriedOut {
  readonly paths: readonly Path[];
  /** The most messages that one person can get: where not all was gone through, no more than that. */
  readonly most: number;
  /** The longest of the paths, in days. */
  readonly longest: number;
  /** Steps that go in no path, from 0. */
  readonly never: readonly number[];
  /** Whether every combination of values was gone through, and every path is listed. */
  readonly complete: boolean;
}

const MOST_COMBINATIONS = 4000;
const MOST_PATHS = 300;
/** The most points of all paths together that are gone through. */
const MOST_VISITED = 20_000;
const DAY = 86_400_000;

/** Goes through everything that can happen in a series. */
export function tryOut(series: SeriesProgram, options: TryOptions): TriedOut {
  const { fillings, complete } = fillingsOf(series, options);
  const work = new Paths(series, options);
  const kinds = new Set<string>();
  for (const filling of fillings) {
    const judged = judge(series, inputOf(filling, options));
    const kind = JSON.stringify([judged.verdicts, judged.days]);
    // Values that every condition and every wait takes alike go the same ways.
    if (kinds.has(kind)) continue;
    kinds.add(kind);
    work.follow(filling, judged);
  }
  const paths = [...work.paths.values()].sort((a, b) => b.steps.length - a.steps.length || b.span - a.span);
  const whole = complete && work.complete;
  const gone = whole ? new Set(paths.flatMap(({ steps }) => steps.map(({ at }) => at))) : work.mayGo;
  return {
    paths,
    most: whole ? Math.max(0, ...paths.map(({ steps }) => steps.length)) : work.mayGo.size,
    longest: Math.max(0, ...paths.map(({ span }) => span)),
    never: series.steps.flatMap((_each, at) => (gone.has(at) ? [] : [at])),
    complete: whole,
  };
}

/** What a series comes to for some values, whatever becomes of its messages. */
interface Judged {
  /** By the number of the outcomes, whether each step goes. */
  readonly verdicts: readonly Decided['goes'][];
  readonly dayOf: Decided['dayOf'];
  /** The days that steps are counted from. */
  readonly days: readonly (string | undefined)[];
}
function judge(series: SeriesProgram, input: RenderInput): Judged {
  const verdicts: Decided['goes'][] = [];
  for (const outcomes of ALL_OUTCOMES) verdicts[numberOf(outcomes)] = decide(series, input, outcomes).goes;
  const { dayOf } = decide(series, input, NO_OUTCOMES);
  const days = series.steps.map(({ step: { before, after } }) => {
    const anchor = before ?? after;
    return anchor === undefined ? undefined : dayOf(anchor);
  });
  return { verdicts, dayOf, days };
}

const inputOf = ({ recipient, sender, answers }: Filling, { today, calendar }: TryOptions): RenderInput => ({
  recipient: recipient as RenderInput['recipient'],
  sender: sender as RenderInput['sender'],
  answers,
  today,
  zone: calendar.zone,
});

/** Values that make conditions and waits come out differently. */
function fillingsOf(series: SeriesProgram, { today, calendar, usual = {} }: TryOptions) {
  const flags: readonly string[] = OUTCOME_FLAGS;
  const all = inputsOf(series.plan, meetings(series.plan), { today, zone: calendar.zone }, usual);
  const inputs: Input[] = all.filter(({ name }) => !flags.includes(name));
  const counts = inputs.map(({ values }) => values.length);
  const size = counts.reduce((product, count) => product * count, 1);
  const complete = size <= MOST_COMBINATIONS;
  const choices = complete ? combinations(counts) : pairArray(counts, { seed: 1, candidates: 10, steps: 500_000 });
  return {
    complete,
    fillings: choices.map((choice) => {
      const filling = fillingOf(inputs, choice);
      return { ...filling, recipient: { ...usual, ...filling.recipient } };
    }),
  };
}

function combinations(counts: readonly number[]): number[][] {
  return counts.reduce<number[][]>(
    (rows, count) => rows.flatMap((row) => Array.from({ length: count }, (_, level) => [...row, level])),
    [[]],
  );
}

const numberOf = (outcomes: Outcomes): number =>
  OUTCOME_FLAGS.reduce((sum, flag, bit) => sum + (outcomes[flag] ? 1 << bit : 0), 0);

class Paths {
  readonly paths = new Map<string, Path>();
  complete = true;
  private visited = 0;
  /** What conditions from a step on ask of earlier messages. */
  private readonly matters: readonly OutcomeFlag[][];

  constructor(
    private readonly series: SeriesProgram,
    private readonly options: TryOptions,
  ) {
    const asked = series.steps.map(({ step }) => {
      const names = new Set(step.when === undefined ? [] : namesIn(step.when).map(({ name }) => name));
      return OUTCOME_FLAGS.filter((flag) => names.has(flag));
    });
    const stops = series.onAnswer === 'stop';
    this.matters = asked.map((_each, at) =>
      OUTCOME_FLAGS.filter(
        (flag) =>
          (flag === 'answered' && stops && at < asked.length - 1) ||
          asked.slice(at + 1).some((each) => each.includes(flag)),
      ),
    );
  }

  /** Steps that some values and some outcomes let go, whether such a path was gone through or not. */
  readonly mayGo = new Set<number>();

  /** Every way that the series goes for some values. */
  follow(filling: Filling, { verdicts, dayOf }: Judged): void {
    for (const goes of verdicts) goes.forEach((each, at) => each === true && this.mayGo.add(at));
    const { start, calendar } = this.options;
    const from = (at: number, last: number, outcomes: Outcomes, gone: Path['steps']): void => {
      if (!this.complete) return;
      this.visited += 1;
      if (this.visited > MOST_VISITED) return void (this.complete = false);
      const step = this.series.steps[at]?.step;
      if (!step) return this.end(gone, 'done', filling);
      if (verdicts[numberOf(outcomes)]?.[at] !== true) return from(at + 1, last, outcomes, gone);
      const due = dueOf(step, last, dayOf, calendar);
      if ('without' in due || due.passed) return from(at + 1, last, outcomes, gone);
      for (const then of subsets((this.matters[at] ?? []).filter((flag) => !outcomes[flag]))) {
        const went = [...gone, { at, due: due.at, then }];
        const stops = then.includes('answered') && this.series.onAnswer === 'stop';
        if (stops) this.end(went, 'answered', filling);
        else from(at + 1, due.at, { ...outcomes, ...Object.fromEntries(then.map((flag) => [flag, true])) }, went);
      }
    };
    from(0, start, NO_OUTCOMES, []);
  }

  private end(steps: Path['steps'], ends: Path['ends'], filling: Filling): void {
    const key = `${steps.map(({ at, then }) => `${at}${then.join()}`).join(' ')} ${ends}`;
    if (this.paths.has(key)) return;
    const last = steps.at(-1);
    const span = last ? Math.ceil((last.due - this.options.start) / DAY) : 0;
    if (this.paths.size >= MOST_PATHS) this.complete = false;
    else this.paths.set(key, { steps, ends, span, filling });
  }
}

/** What may come of a message: nothing, one thing, or several. */
function subsets(flags: readonly OutcomeFlag[]): OutcomeFlag[][] {
  return flags.reduce<OutcomeFlag[][]>((all, flag) => [...all, ...all.map((each) => [...each, flag])], [[]]);
}

/**
 * Answers with which a step's message can be shown before anybody has given any: those at hand, and for the rest what is
 * usual for each question.
 */
export function exampleAnswers(
  program: Program,
  given: Readonly<Record<string, unknown>>,
  { today, calendar, usual = {} }: Pick<TryOptions, 'today' | 'calendar' | 'usual'>,
): Record<string, unknown> {
  const inputs = inputsOf(program, meetings(program), { today, zone: calendar.zone }, usual);
  const { answers } = fillingOf(
    inputs,
    inputs.map(() => 0),
  );
  return { ...answers, ...given };
}
