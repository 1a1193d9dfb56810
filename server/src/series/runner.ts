/**
 * Brings series forward: what is due goes, waits to be looked at, or is left out; what must stop is stopped. A step is
 * marked as gone in the transaction that puts its message among what goes out, so a process that is killed at any moment
 * sends none twice and forgets none, and of two that look at one moment one sends.
 */
import type { Fill } from '@vocabula/contract';
import { decide, dueOf, NO_OUTCOMES } from '@vocabula/core/series';
import { and, desc, eq, isNotNull, ne, sql } from 'drizzle-orm';
import type { Logger } from 'pino';
import { note } from '../audit/service.js';
import { assetsOf } from '../assets/message-assets.js';
import type { AssetService } from '../assets/service.js';
import { schema, type Database, type Reader, type Writer } from '../db/database.js';
import { demandWritable, recordOf } from '../fills/records.js';
import { inputOf, messageOf, programOf, whyNot } from '../fills/rendering.js';
import { fillOf, standingsOf } from '../fills/rows.js';
import { RequestProblem } from '../http/problem.js';
import { userById } from '../people/user-by-id.js';
import type { User } from '../people/user.js';
import { refusedAmong } from '../recipients/service.js';
import type { Outbox } from '../sending/outbox.js';
import { changeOutgoing } from '../sending/store.js';
import { compiledRun, outcomesOf, stepsOf, type CompiledRun } from './compiled.js';
import { changeStep, endRun, isOpen, OPEN_STEPS, type RunRow, type StepRow } from './store.js';

const { seriesRuns, fills, handedOver, outgoing, people, versions } = schema;
/** Series that are looked after at once; what is left waits for the next look. */
const MOST = 100;
/** How long a step rests whose sending failed for a reason that is not its own, in milliseconds. */
const REST = 600_000;

export class SeriesRunner {
  private working: Promise<number> | undefined;

  constructor(
    private readonly database: Database,
    private readonly outbox: Outbox,
    private readonly assets: AssetService,
    /** The moment that counts: the stand-in's clock may be ahead. */
    readonly now: () => Promise<Date>,
    private readonly wake: () => void,
    private readonly log: Logger,
  ) {}

  /** Looks after every series in which something is to do. Calls while it works join it. @returns how many there were */
  tick(): Promise<number> {
    return (this.working ??= this.work().finally(() => (this.working = undefined)));
  }

  private async work(): Promise<number> {
    const ids = await dueRuns(this.database.read, (await this.now()).toISOString());
    for (const id of ids)
      await this.advance(id).catch(async (error: unknown) => {
        this.log.error({ err: error, run: id }, 'a series could not be brought forward');
        await this.rest(id);
      });
    return ids.length;
  }

  /** Brings one series as far as it can go now. @param byHand somebody is there, who may take back what goes */
  async advance(id: string, byHand = false): Promise<void> {
    let compiled: CompiledRun | undefined;
    // Each round settles a step, so there are no more rounds than steps, and one to end.
    for (;;) {
      const [run] = await this.database.read.select().from(seriesRuns).where(eq(seriesRuns.id, id));
      if (run?.state !== 'going') return;
      const steps = await this.withHandedOver(run, await stepsOf(this.database.read, id));
      const why = await whyToStop(this.database.read, run, steps);
      if (why !== undefined) return this.stop(run, steps, why);
      // What it began with never changes.
      compiled ??= await compiledRun(this.database.read, run);
      if (!(await this.next(run, steps, compiled, byHand))) return;
    }
  }

  /** Stops a series, and takes back what of it waits to go. */
  async stop(run: RunRow, steps: readonly StepRow[], why: string, user?: User): Promise<void> {
    await this.database.write(async (writer) => {
      if (!(await endRun(writer, run.id, 'stopped', why))) return;
      const waiting = steps.flatMap((step) => step.outgoing ?? []);
      await changeOutgoing(
        writer,
        waiting,
        { state: 'taken back', why: 'the series was stopped' },
        sql`outgoing.state IN ('waiting', 'ready', 'draft')`,
      );
      if (user) await note(writer, user, 'stopped', 'series', run.id, run.title);
    });
  }

  /** Steps that somebody handed over by hand have gone. */
  private async withHandedOver(run: RunRow, steps: readonly StepRow[]): Promise<StepRow[]> {
    const { read } = this.database;
    const handed = await read
      .select({ id: fills.id })
      .from(fills)
      .where(and(eq(fills.series, run.id), ne(fills.state, 'unfinished')));
    const ids = new Set(handed.map(({ id }) => id));
    const found: StepRow[] = [];
    for (const step of steps) {
      const at = isOpen(step) && ids.has(step.fill) ? await handedOverAt(read, step.fill) : undefined;
      const changed = at && ({ state: 'gone', why: 'handed over by hand', at: at.at, outgoing: at.outgoing } as const);
      if (changed) await this.database.write((writer) => changeStep(writer, step, changed));
      found.push({ ...step, ...changed });
    }
    return found;
  }

  /** Does what comes next. @returns whether there may be more to do at once */
  private async next(run: RunRow, steps: readonly StepRow[], compiled: CompiledRun, byHand: boolean): Promise<boolean> {
    const before = steps.filter(({ state }) => state === 'gone').at(-1);
    if (before && !(await this.hasGone(run, steps, before))) return false;
    const step = steps.find(isOpen);
    if (!step) {
      await this.database.write((writer) => endRun(writer, run.id, 'done'));
      return false;
    }
    const now = await this.now();
    const fill = await this.fillOf(step);
    const input = compiled.input(now, fill?.answers);
    const settle = (changed: Partial<StepRow>): Promise<boolean> =>
      this.database.write((writer) => changeStep(writer, step, changed));
    const lookAt = async (why: string): Promise<false> => {
      await settle({ state: 'look', why, looked: false });
      return false;
    };
    if (step.due === null) {
      const { series, calendar } = compiled;
      const wanted = series.steps[step.position]?.step ?? { text: step.text };
      const due = dueOf(
        wanted,
        Date.parse(before?.at ?? run.startedAt),
        decide(series, input, NO_OUTCOMES).dayOf,
        calendar,
      );
      if ('without' in due)
        return lookAt(`a day is missing that it is counted from: ${labelOf(compiled, due.without)}`);
      if (due.passed) return settle({ state: 'passed', why: 'its day had passed' });
      return settle({ due: new Date(due.at).toISOString() });
    }
    if (step.state === 'look' || step.due > now.toISOString()) return false;
    // Looked at with a moment chosen by hand, it goes whatever its condition says.
    const holds =
      step.looked || decide(compiled.series, input, await outcomesOf(this.database.read, steps)).goes[step.position];
    if (holds === false) return settle({ state: 'left out', why: 'its condition did not hold' });
    if (holds === undefined) return lookAt('a value is missing that its condition asks for');
    if (step.look && !step.looked) return lookAt('to be looked at');
    if (!fill) return lookAt('its message was deleted');
    return this.send(run, step, fill, compiled, now, byHand);
  }

  /** Whether the message of a step has left; where it cannot, the series stops or its step waits for somebody. */
  private async hasGone(run: RunRow, steps: readonly StepRow[], step: StepRow): Promise<boolean> {
    if (step.outgoing === null) return true;
    const [row] = await this.database.read
      .select({ state: outgoing.state, why: outgoing.why })
      .from(outgoing)
      .where(eq(outgoing.id, step.outgoing));
    if (!row || row.state === 'gone') return true;
    if (row.state === 'refused') await this.stop(run, steps, `a message could not be sent: ${row.why}`);
    if (row.state === 'taken back')
      await this.database.write((writer) =>
        changeStep(
          writer,
          step,
          { state: 'look', why: 'its message was taken back', looked: false, outgoing: null, at: null },
          ['gone'],
        ),
      );
    return false;
  }

  private async fillOf(step: StepRow): Promise<Fill | undefined> {
    const { read } = this.database;
    const [row] = await read.select().from(fills).where(eq(fills.id, step.fill));
    return row && row.binnedAt === null ? fillOf(read, row) : undefined;
  }

  private async send(
    run: RunRow,
    step: StepRow,
    fill: Fill,
    { profile }: CompiledRun,
    now: Date,
    byHand: boolean,
  ): Promise<boolean> {
    const { read } = this.database;
    const user = await userById(read, run.person);
    const program = programOf(fill);
    const moment = { now, zone: run.zone };
    const message = messageOf(program, fill, profile, moment);
    const changed = async (state: Partial<StepRow>): Promise<false> => {
      await this.database.write((writer) => changeStep(writer, step, state));
      return false;
    };
    if (!message.ready) return changed({ state: 'look', why: whyNot(message, program), looked: false });
    try {
      await demandWritable(read, message);
      const at = new Date();
      await this.outbox.add({
        ...{
          fill,
          message,
          profile,
          user,
          due: byHand ? undefined : at.toISOString(),
          moment: { now: at, zone: run.zone },
        },
        assets: await this.assets.source(assetsOf(message)),
        record: recordOf(fill, message, inputOf(fill, {}, moment), user, 'service'),
        along: (writer, id) => this.claim(writer, run, step, id, now),
      });
    } catch (problem) {
      if (!(problem instanceof RequestProblem)) throw problem;
      // Another process has sent it, or it was changed just now: it is looked at again.
      if (problem.status === 409) return false;
      return changed({ state: 'look', why: problem.message, looked: false });
    }
    this.wake();
    return true;
  }

  /** Marks a step as gone, in the transaction that puts its message in. */
  private async claim(writer: Writer, run: RunRow, step: StepRow, id: string, now: Date): Promise<void> {
    const [still] = await writer.select({ state: seriesRuns.state }).from(seriesRuns).where(eq(seriesRuns.id, run.id));
    const gone = { state: 'gone', why: '', outgoing: id, at: now.toISOString() } as const;
    if (still?.state !== 'going' || !(await changeStep(writer, step, gone, ['waiting'])))
      throw new RequestProblem(409, 'settled', 'This step was settled meanwhile.');
  }

  /** Lets a series rest that failed for no reason of its own. */
  private async rest(id: string): Promise<void> {
    const due = new Date((await this.now()).getTime() + REST).toISOString();
    await this.database.write(async (writer) => {
      const step = (await stepsOf(writer, id)).find(isOpen);
      if (step) await changeStep(writer, step, { due, why: 'tried again later' });
    });
  }
}

const labelOf = ({ series }: CompiledRun, key: string): string =>
  series.plan.slots.find((slot) => slot.key === key)?.label ?? key;

/** Series under way in which something is to do: a step is due, something came of a message, or something was withdrawn. */
async function dueRuns(reader: Reader, now: string): Promise<string[]> {
  const open = sql.raw(`('${OPEN_STEPS.join("', '")}')`);
  const current = sql`(SELECT min(position) FROM series_steps WHERE run = series_runs.id AND state IN ${open})`;
  const rows = await reader
    .select({ id: seriesRuns.id })
    .from(seriesRuns)
    .where(
      and(
        eq(seriesRuns.state, 'going'),
        sql`(${current} IS NULL
          OR EXISTS (SELECT 1 FROM series_steps s WHERE s.run = series_runs.id AND s.position = ${current}
                     AND s.state = 'waiting' AND (s.due IS NULL OR s.due <= ${now}))
          OR EXISTS (SELECT 1 FROM series_steps s JOIN fills f ON f.id = s.fill WHERE s.run = series_runs.id
                     AND s.state IN ${open} AND f.state <> 'unfinished')
          OR EXISTS (SELECT 1 FROM series_steps s JOIN outgoing o ON o.id = s.outgoing WHERE s.run = series_runs.id
                     AND o.state IN ('refused', 'taken back'))
          OR EXISTS (SELECT 1 FROM series_steps s JOIN counts c ON c.outgoing = s.outgoing WHERE s.run = series_runs.id
                     AND (c.what = 'bounced' OR (c.what = 'answered' AND series_runs.on_answer = 'stop')))
          OR EXISTS (SELECT 1 FROM do_not_write d WHERE d.address = series_runs.address)
          OR EXISTS (SELECT 1 FROM people p WHERE p.id = series_runs.person AND p.ended_at IS NOT NULL)
          OR EXISTS (SELECT 1 FROM versions v WHERE v.text = series_runs.text AND v.number = series_runs.version
                     AND v.withdrawn_at IS NOT NULL)
          OR EXISTS (SELECT 1 FROM series_steps s JOIN fills f ON f.id = s.fill
                     JOIN versions v ON v.text = f.text AND v.number = f.version
                     WHERE s.run = series_runs.id AND s.state IN ${open} AND v.withdrawn_at IS NOT NULL))`,
      ),
    )
    .limit(MOST);
  return rows.map(({ id }) => id);
}

/** Why a series must not go on, in words; undefined where nothing stands against it. */
async function whyToStop(reader: Reader, run: RunRow, steps: readonly StepRow[]): Promise<string | undefined> {
  const { answered, bounced } = await outcomesOf(reader, steps);
  if (bounced) return 'a message came back';
  if (answered && run.onAnswer === 'stop') return 'answered';
  if ((await refusedAmong(reader, [run.address])).size > 0) return 'on the do-not-write list';
  const [person] = await reader.select({ ended: people.endedAt }).from(people).where(eq(people.id, run.person));
  if (!person || person.ended !== null) return 'who sent it is here no longer';
  const [withdrawn] = await reader
    .select({ number: versions.number })
    .from(versions)
    .where(and(eq(versions.text, run.text), eq(versions.number, run.version ?? -1), isNotNull(versions.withdrawnAt)));
  if (withdrawn) return 'its version was withdrawn';
  const open = steps.filter(isOpen);
  const rows = await reader
    .select()
    .from(fills)
    .where(and(eq(fills.series, run.id), isNotNull(fills.version)));
  const standings = await standingsOf(
    reader,
    rows.filter(({ id }) => open.some(({ fill }) => fill === id)),
  );
  const gone = open.find(({ fill }) => standings.get(fill) === 'withdrawn');
  return gone && `“${gone.title}” was withdrawn`;
}

/** When an unfinished message was handed over, and what it goes by. */
async function handedOverAt(
  reader: Reader,
  fill: string,
): Promise<{ readonly at: string; readonly outgoing: string | null } | undefined> {
  const [waits] = await reader
    .select({ id: outgoing.id, at: outgoing.createdAt })
    .from(outgoing)
    .where(and(eq(outgoing.fill, fill), sql`${outgoing.state} NOT IN ('taken back', 'draft')`))
    .orderBy(desc(outgoing.createdAt))
    .limit(1);
  if (waits) return { at: waits.at, outgoing: waits.id };
  const [last] = await reader
    .select({ at: handedOver.at, outgoing: handedOver.outgoing })
    .from(handedOver)
    .where(eq(handedOver.fillId, fill))
    .orderBy(desc(handedOver.at))
    .limit(1);
  return last;
}
