/** A series under way, compiled as it was when it began, with the calendar of who sends it. */
import { senderFields, type Profile } from '@vocabula/contract';
import { compileBundle, dayIn, type RenderInput, type SeriesProgram } from '@vocabula/core';
import { NO_OUTCOMES, type Calendar, type Outcomes } from '@vocabula/core/series';
import { and, eq, inArray } from 'drizzle-orm';
import { schema, type Reader, type Writer } from '../db/database.js';
import { frozenOf } from '../fills/rows.js';
import { notFound } from '../http/problem.js';
import { profileOf, waysOf } from '../people/service.js';
import type { RunRow, StepRow } from './store.js';

export interface CompiledRun {
  readonly series: SeriesProgram;
  readonly calendar: Calendar;
  readonly profile: Profile;
  input(now: Date, more?: Readonly<Record<string, unknown>>): RenderInput;
}

/** What a run begins on. */
export type RunBase = Pick<RunRow, 'frozen' | 'house' | 'signature' | 'person' | 'zone' | 'recipient' | 'answers'>;

export async function compiledRun(reader: Reader | Writer, run: RunBase): Promise<CompiledRun> {
  const { texts, house } = await frozenOf(reader, run);
  const [own] = texts;
  const series = own && compileBundle({ text: own, texts, house, signature: run.signature ?? undefined }).series;
  if (!series) throw notFound('series');
  const [profile, { from, to, days }] = [await profileOf(reader, run.person), await waysOf(reader, run.person)];
  return {
    series,
    profile,
    calendar: { zone: run.zone, from, to, days, holidays: new Set(house.holidays) },
    input: (now, more = {}) => ({
      recipient: run.recipient,
      sender: senderFields(profile),
      answers: { ...run.answers, ...more },
      today: dayIn(now, run.zone),
      zone: run.zone,
    }),
  };
}

export const stepsOf = (reader: Reader | Writer, run: string): Promise<StepRow[]> =>
  reader.select().from(schema.seriesSteps).where(eq(schema.seriesSteps.run, run)).orderBy(schema.seriesSteps.position);

/** What became of the messages of a series so far; `bounced` besides what conditions ask. */
export async function outcomesOf(
  reader: Reader | Writer,
  steps: readonly StepRow[],
): Promise<Outcomes & { readonly bounced: boolean }> {
  const { counts } = schema;
  const went = steps.flatMap(({ outgoing }) => outgoing ?? []);
  if (went.length === 0) return { ...NO_OUTCOMES, bounced: false };
  const found = await reader
    .selectDistinct({ what: counts.what })
    .from(counts)
    .where(and(inArray(counts.outgoing, went)));
  const came = new Set(found.map(({ what }) => what));
  return {
    answered: came.has('answered'),
    // Who followed a link has opened it, whether that was counted or not.
    opened: came.has('opened') || came.has('followed'),
    followed: came.has('followed'),
    bounced: came.has('bounced'),
  };
}
