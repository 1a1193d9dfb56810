/** What a series begins with: its row, one for each step, and each step's message, unfinished until it goes. */
import { randomUUID } from 'node:crypto';
import { answersOf } from '@vocabula/core/series';
import { begin, type Begun } from '../fills/beginning.js';
import { nameOfFields } from '../fills/rows.js';
import type { Given } from '../mailings/recipients.js';
import type { User } from '../people/user.js';
import type { schema, Writer } from '../db/database.js';
import type { CompiledRun, RunBase } from './compiled.js';
import type { RunRow, StepRow } from './store.js';

/** What a step's message begins on, and whether somebody looks at it first. */
export type StepTemplate = Begun & { readonly look: boolean };

/** What each step's message begins on. Throws where one of them can not be begun by the user. */
export async function templatesOf(writer: Writer, { series }: CompiledRun, user: User): Promise<StepTemplate[]> {
  const found: StepTemplate[] = [];
  for (const { step } of series.steps)
    found.push({ ...(await begin(writer, step.text, user)), look: step.look === true });
  return found;
}

/** A series to one recipient, before anything of it has gone. @param startedAt ISO */
export function newRun(
  base: Omit<RunBase, 'recipient'> & Begun,
  { fields: recipient, address }: Given,
  { series }: CompiledRun,
  templates: readonly StepTemplate[],
  startedAt: string,
): { readonly run: RunRow; readonly steps: StepRow[]; readonly fills: (typeof schema.fills.$inferInsert)[] } {
  const { text, title, version, person } = base;
  const id = randomUUID();
  // A column of a list that is called as a question answers it for its row.
  const answers = { ...recipient, ...base.answers };
  const fills = templates.map(({ look: _look, ...begun }, at) => ({
    ...{ ...begun, id: randomUUID(), person, series: id, recipient, answers: answersOf(series, at, answers) },
    ...{ state: 'unfinished' as const, createdAt: startedAt, updatedAt: startedAt },
  }));
  const run: RunRow = {
    ...{ id, person, text, title, version, frozen: base.frozen, house: base.house, signature: base.signature },
    ...{ zone: base.zone, onAnswer: series.onAnswer, address, name: nameOfFields(recipient), recipient, answers },
    ...{ state: 'going', why: '', startedAt, endedAt: null },
  };
  const steps = templates.map((begun, position): StepRow => ({
    ...{ run: id, position, text: begun.text, title: begun.title, look: begun.look, fill: fills[position]?.id ?? '' },
    ...{ state: 'waiting', why: '', due: null, moved: false, looked: false, outgoing: null, at: null },
  }));
  return { run, steps, fills };
}
