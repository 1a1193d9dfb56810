/** The series that were started for somebody. */
import type { PersonRecord } from '@vocabula/contract';
import { desc, eq, inArray } from 'drizzle-orm';
import { schema, type Reader } from '../db/database.js';
import { nameOfRow } from '../people/names.js';
import type { User } from '../people/user.js';
import type { Access } from '../rights/access.js';

const { seriesRuns, seriesSteps, texts, people } = schema;
const MOST = 50;

/** That there was one is everybody's to know; of what, only who may see its text. @param address bare */
export async function seriesFor(
  reader: Reader,
  address: string,
  user: User,
  access: Access,
): Promise<PersonRecord['series']> {
  const rows = await reader
    .select({ run: seriesRuns, folder: texts.folder, person: people })
    .from(seriesRuns)
    .leftJoin(texts, eq(texts.name, seriesRuns.text))
    .leftJoin(people, eq(people.id, seriesRuns.person))
    .where(eq(seriesRuns.address, address))
    .orderBy(desc(seriesRuns.startedAt))
    .limit(MOST);
  const steps = await reader
    .select({ run: seriesSteps.run, state: seriesSteps.state })
    .from(seriesSteps)
    .where(
      inArray(
        seriesSteps.run,
        rows.map(({ run }) => run.id),
      ),
    );
  return rows.map(({ run, folder, person }) => {
    const own = steps.filter((step) => step.run === run.id);
    const isTheirs = run.person === user.id;
    const seen = isTheirs || (folder !== null && access.may('fill', folder));
    return {
      ...(isTheirs ? { id: run.id } : {}),
      ...(seen ? { title: run.title } : {}),
      ...{ state: run.state, why: run.why, by: person ? nameOfRow(person) : '', startedAt: run.startedAt },
      steps: own.length,
      gone: own.filter(({ state }) => state === 'gone').length,
    };
  });
}
