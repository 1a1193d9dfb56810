/** Series under way: begun for one or many, looked at, changed for one recipient, stopped. */
import {
  MOST_STARTED,
  type ChangeStep,
  type Run,
  type RunStep,
  type RunSummary,
  type StartedSeries,
  type StartSeries,
  type ShownMessage,
} from '@vocabula/contract';
import { foresee, type Foreseen } from '@vocabula/core/series';
import { and, desc, eq, inArray, sql } from 'drizzle-orm';
import { note } from '../audit/service.js';
import { schema, type Database, type Writer } from '../db/database.js';
import { begin } from '../fills/beginning.js';
import { messageOf, programOf } from '../fills/rendering.js';
import { fillOf } from '../fills/rows.js';
import { addFills } from '../fills/store.js';
import { notFound, RequestProblem } from '../http/problem.js';
import { fromRows, peopleOfList, readPasted, type Given, type Read } from '../mailings/recipients.js';
import { profileOf } from '../people/service.js';
import type { User } from '../people/user.js';
import { refusedAmong } from '../recipients/service.js';
import type { TableService } from '../samples/service.js';
import type { Outbox } from '../sending/outbox.js';
import { compiledRun, stepsOf, type CompiledRun } from './compiled.js';
import { newRun, templatesOf } from './starting.js';
import type { SeriesRunner } from './runner.js';
import { addRun, changeStep, isOpen, type RunRow, type StepRow } from './store.js';

const { seriesRuns, seriesSteps, fills, handedOver } = schema;
/** Series that are brought forward before it is answered that they have begun. */
const AT_ONCE = 5;
/** Series that are listed; those under way come first. */
const MOST_LISTED = 300;

export class SeriesService {
  constructor(
    private readonly database: Database,
    private readonly lists: TableService,
    private readonly outbox: Outbox,
    readonly runner: SeriesRunner,
  ) {}

  /** Begins a series for each of some people. Whoever it cannot be begun for is given back with the reason. */
  async start({ text, timezone, answers, to }: StartSeries, user: User): Promise<StartedSeries> {
    this.outbox.demandService();
    const { people, broken } = await this.peopleOf(to, user);
    if (people.length > MOST_STARTED)
      throw new RequestProblem(422, 'too-many', `A series is started for ${MOST_STARTED} people at most at once.`);
    const refused = [...broken];
    const never = await refusedAmong(
      this.database.read,
      people.map(({ address }) => address),
    );
    const startedAt = (await this.runner.now()).toISOString();
    const started = await this.database.write(async (writer) => {
      const begun = await begin(writer, text, user, [], undefined, 'series');
      const base = { ...begun, person: user.id, zone: timezone, recipient: {}, answers };
      const compiled = await compiledRun(writer, base);
      const templates = await templatesOf(writer, compiled, user);
      const already = await underWay(writer, text, people);
      const ids: string[] = [];
      const seen = new Set<string>();
      for (const person of people) {
        const { address } = person;
        if (seen.has(address)) continue;
        seen.add(address);
        if (never.has(address)) refused.push(`${address}: on the do-not-write list`);
        else if (already.has(address)) refused.push(`${address}: gets this series already`);
        else {
          const { run, steps, fills: messages } = newRun(base, person, compiled, templates, startedAt);
          await addFills(writer, messages);
          await addRun(writer, run, steps);
          ids.push(run.id);
        }
      }
      const words = `${begun.title}: ${ids.length} ${ids.length === 1 ? 'person' : 'people'}`;
      if (ids.length > 0) await note(writer, user, 'started', 'series', text, words);
      return ids;
    });
    // The others are brought forward when it is next looked for what is due.
    for (const id of started.slice(0, AT_ONCE)) await this.runner.advance(id, true);
    return { started, refused };
  }

  private async peopleOf(to: StartSeries['to'], user: User): Promise<Read> {
    if ('people' in to) return fromRows(to.people, 'email');
    return 'paste' in to ? readPasted(to.paste) : peopleOfList(this.database, this.lists, to, user);
  }

  /** The user's own: what waits to be looked at first, then what is under way, then what has ended. */
  async list(user: User): Promise<RunSummary[]> {
    const { read } = this.database;
    const rows = await read
      .select()
      .from(seriesRuns)
      .where(eq(seriesRuns.person, user.id))
      .orderBy(sql`${seriesRuns.state} <> 'going'`, desc(seriesRuns.startedAt))
      .limit(MOST_LISTED);
    const ids = rows.map(({ id }) => id);
    const steps = await read
      .select()
      .from(seriesSteps)
      .where(inArray(seriesSteps.run, ids))
      .orderBy(seriesSteps.position);
    const byRun = new Map<string, StepRow[]>(ids.map((id) => [id, []]));
    for (const step of steps) byRun.get(step.run)?.push(step);
    const listed = rows.map((row) => summaryOf(row, byRun.get(row.id) ?? []));
    return [...listed.filter(({ next }) => next?.look), ...listed.filter(({ next }) => !next?.look)];
  }

  async get(id: string, user: User): Promise<Run> {
    const run = await this.own(id, user);
    const steps = await stepsOf(this.database.read, id);
    const compiled = await compiledRun(this.database.read, run);
    const now = await this.runner.now();
    const { from, to, days, holidays, zone } = compiled.calendar;
    const plan = await this.planOf(run, steps, compiled, now);
    const last =
      plan
        .map(({ moment = '' }) => moment.slice(0, 10))
        .sort()
        .at(-1) ?? '';
    return {
      ...summaryOf(run, steps),
      ...{ zone, from, to, days: [...days], now: now.toISOString(), plan },
      holidays: [...holidays].filter((day) => day >= run.startedAt.slice(0, 10) && day <= last),
    };
  }

  /** The steps with their moments: those that were, and those that are foreseen. */
  private async planOf(run: RunRow, steps: readonly StepRow[], compiled: CompiledRun, now: Date): Promise<RunStep[]> {
    const first = run.state === 'going' ? steps.findIndex(isOpen) : -1;
    const current = steps[first];
    const before = steps
      .slice(0, Math.max(0, first))
      .filter(({ at }) => at !== null)
      .at(-1);
    const begun = Date.parse(before?.at ?? run.startedAt);
    const foreseen: readonly Foreseen[] =
      first < 0 ? [] : foresee(compiled.series, compiled.input(now), compiled.calendar, begun, first, current?.due);
    return steps.map((step, at): RunStep => {
      const ahead = first >= 0 && at >= first && isOpen(step) ? foreseen[at - first] : undefined;
      const due = step.due ?? (ahead?.at === undefined ? undefined : new Date(ahead.at).toISOString());
      const moment = step.at ?? (isOpen(step) && run.state === 'going' ? due : undefined);
      return {
        ...{ at, text: step.text, title: step.title, state: step.state, why: step.why, moved: step.moved },
        ...{ look: step.look, fill: step.fill, perhaps: ahead?.what === 'perhaps' },
        ...(moment === undefined || moment === null ? {} : { moment }),
      };
    });
  }

  /** A step's message as it reads now, or as it went. */
  async message(id: string, at: number, user: User): Promise<ShownMessage> {
    const run = await this.own(id, user);
    const step = await this.step(id, at);
    const { read } = this.database;
    const [went] = await read
      .select({ subject: handedOver.subject, html: handedOver.html, text: handedOver.plain })
      .from(handedOver)
      .where(eq(handedOver.fillId, step.fill))
      .orderBy(desc(handedOver.at))
      .limit(1);
    if (went) return { ...went, blanks: [] };
    const [row] = await read.select().from(fills).where(eq(fills.id, step.fill));
    if (!row) throw notFound('message');
    const fill = await fillOf(read, row);
    const program = programOf(fill);
    const now = step.due === null ? await this.runner.now() : new Date(step.due);
    const message = messageOf(program, fill, await profileOf(read, user.id), { now, zone: run.zone });
    const labels = message.blanks.map((key) => program.slots.find((slot) => slot.key === key)?.label ?? key);
    return { subject: message.subject, html: message.html, text: message.text, blanks: labels };
  }

  /** Another moment, left out, taken in again, or let go after it was looked at. */
  async change(id: string, at: number, change: ChangeStep, user: User): Promise<Run> {
    const run = await this.own(id, user);
    if (run.state !== 'going') throw new RequestProblem(409, 'ended', 'This series has ended.');
    const step = await this.step(id, at);
    const steps = await stepsOf(this.database.read, id);
    if (steps.some(({ position, state }) => position > at && state === 'gone'))
      throw new RequestProblem(409, 'over', 'A later step has gone: this one stays as it is.');
    const now = (await this.runner.now()).toISOString();
    const [changed, from] = changedStep(step, change, now);
    await this.database.write(async (writer) => {
      if (!(await changeStep(writer, step, changed, from)))
        throw new RequestProblem(409, 'settled', 'This step was settled meanwhile.');
      // What is counted from it is counted anew, but what somebody chose stays.
      for (const later of steps)
        if (later.position > at && isOpen(later) && !later.moved) await changeStep(writer, later, { due: null });
    });
    await this.runner.advance(id, true);
    return this.get(id, user);
  }

  async stop(id: string, user: User): Promise<Run> {
    const run = await this.own(id, user);
    if (run.state === 'going')
      await this.runner.stop(run, await stepsOf(this.database.read, id), `stopped by ${user.name}`, user);
    return this.get(id, user);
  }

  private async own(id: string, user: User): Promise<RunRow> {
    const [run] = await this.database.read
      .select()
      .from(seriesRuns)
      .where(and(eq(seriesRuns.id, id), eq(seriesRuns.person, user.id)));
    if (!run) throw notFound('series');
    return run;
  }

  private async step(run: string, position: number): Promise<StepRow> {
    const [step] = await this.database.read
      .select()
      .from(seriesSteps)
      .where(and(eq(seriesSteps.run, run), eq(seriesSteps.position, position)));
    if (!step) throw notFound('step');
    return step;
  }
}

/** What becomes of a step, and the states that it may be in for that. */
function changedStep(step: StepRow, change: ChangeStep, now: string): [Partial<StepRow>, StepRow['state'][]] {
  const open: StepRow['state'][] = ['waiting', 'look'];
  if ('due' in change) {
    if (change.due < now) throw new RequestProblem(422, 'past', 'This time is past.');
    return [{ due: new Date(change.due).toISOString(), moved: true, state: 'waiting', why: '' }, open];
  }
  switch (change.act) {
    case 'skip':
      return [{ state: 'skipped', why: 'left out by hand', due: null }, open];
    case 'take in':
      return [{ state: 'waiting', why: '', due: null, moved: false }, ['skipped', 'left out', 'passed']];
    case 'let go':
      // Without a day it goes at once.
      return [{ state: 'waiting', why: '', looked: true, due: step.due ?? now }, open];
  }
}

/** Of some people, those who get a series already. */
async function underWay(writer: Writer, text: string, given: readonly Given[]): Promise<Set<string>> {
  const rows = await writer
    .select({ address: seriesRuns.address })
    .from(seriesRuns)
    .where(
      and(
        eq(seriesRuns.text, text),
        eq(seriesRuns.state, 'going'),
        inArray(
          seriesRuns.address,
          given.map(({ address }) => address),
        ),
      ),
    );
  return new Set(rows.map(({ address }) => address));
}

function summaryOf(run: RunRow, steps: readonly StepRow[]): RunSummary {
  const next = run.state === 'going' ? steps.find(isOpen) : undefined;
  return {
    ...{ id: run.id, text: run.text, title: run.title, version: run.version ?? undefined },
    ...{ address: run.address.startsWith('forgotten-') ? '' : run.address, name: run.name },
    ...{ state: run.state, why: run.why, startedAt: run.startedAt, endedAt: run.endedAt ?? undefined },
    steps: steps.length,
    gone: steps.filter(({ state }) => state === 'gone').length,
    next: next && {
      ...{ at: next.position, title: next.title, due: next.due ?? undefined, look: next.state === 'look' },
      why: next.why,
    },
  };
}
