/** What other programs may do beside reading: begin messages, keep recipients, start and stop series, read outcomes. */
import type { Answered, Endpoints, Run, TableChange } from '@vocabula/contract';
import { bareAddress } from '@vocabula/core/filling';
import { and, asc, eq, gt, gte, inArray, min, or } from 'drizzle-orm';
import { schema, type Reader } from '../db/database.js';
import type { HandlersOf } from '../http/endpoints.js';
import { notFound, RequestProblem } from '../http/problem.js';
import { fromRows } from '../mailings/recipients.js';
import type { User } from '../people/user.js';
import type { Services } from '../services.js';

export type WritingParts = Pick<Services, 'database' | 'fills' | 'tables' | 'series' | 'wake'>;

type Handled =
  | 'POST /v1/messages'
  | 'GET /v1/messages'
  | 'GET /v1/lists'
  | 'PUT /v1/lists/{id}/recipients'
  | 'POST /v1/series'
  | 'GET /v1/series/{id}'
  | 'POST /v1/series/{id}/stop';

export const writingHandlers = ({
  database,
  fills,
  tables,
  series,
  wake,
}: WritingParts): Pick<HandlersOf<'v1'>, Handled> => ({
  'POST /v1/messages': async ({ body: { template, recipient, answers }, user }) => {
    const { id, version, notes } = await fills.start({ text: template, recipient, answers }, user);
    return { id, path: `/fill/${id}`, ...(version === undefined ? {} : { version }), notes: [...notes] };
  },
  'GET /v1/messages': ({ query, user }) => messagesOf(database.read, query, user),
  'GET /v1/lists': async ({ user }) => ({
    lists: (await tables.list('recipients', user))
      .filter(({ mayChange }) => mayChange)
      .map(({ id, title, rows }) => ({ id, title, rows })),
  }),
  'PUT /v1/lists/{id}/recipients': async ({ params: { id }, body: { recipients }, user }) => {
    const list = await tables.get(id, user);
    if (list.use !== 'recipients') throw notFound('list');
    const { changes, added, changed } = changesFor(list, recipients);
    await tables.change(id, { revision: list.revision, changes }, user);
    return { added, changed };
  },
  'POST /v1/series': async ({ body: { series: text, recipients, answers, timezone }, user }) => {
    const { started, refused } = await series.start({ text, timezone, answers, to: { people: recipients } }, user);
    wake();
    return { started: [...started], refused: [...refused] };
  },
  'GET /v1/series/{id}': async ({ params: { id }, user }) => runOf(await series.get(id, user)),
  'POST /v1/series/{id}/stop': async ({ params: { id }, user }) => runOf(await series.stop(id, user)),
});

const runOf = ({ id, text, address, state, why, plan }: Run): Answered<Endpoints['GET /v1/series/{id}']> => ({
  ...{ id, series: text, recipient: address, state, why },
  steps: plan.map((step) => ({
    ...{ template: step.text, state: step.state },
    ...(step.moment === undefined ? {} : { at: step.moment }),
  })),
});

type Messages = Answered<Endpoints['GET /v1/messages']>;

/** A page of what somebody has handed over, with when each outcome first came. */
async function messagesOf(
  reader: Reader,
  {
    since,
    after,
    limit,
  }: { readonly since?: string | undefined; readonly after?: string | undefined; readonly limit: number },
  user: User,
): Promise<Messages> {
  const { handedOver, counts } = schema;
  const [before] =
    after === undefined
      ? []
      : await reader
          .select({ at: handedOver.at })
          .from(handedOver)
          .where(and(eq(handedOver.id, after), eq(handedOver.person, user.id)));
  if (after !== undefined && !before) throw notFound('message');
  const rows = await reader
    .select()
    .from(handedOver)
    .where(
      and(
        eq(handedOver.person, user.id),
        since === undefined ? undefined : gte(handedOver.at, new Date(since).toISOString()),
        before && or(gt(handedOver.at, before.at), and(eq(handedOver.at, before.at), gt(handedOver.id, after ?? ''))),
      ),
    )
    .orderBy(asc(handedOver.at), asc(handedOver.id))
    .limit(limit + 1);
  const page = rows.slice(0, limit);
  const sent = page.flatMap(({ outgoing }) => outgoing ?? []);
  const came = await reader
    .select({ outgoing: counts.outgoing, what: counts.what, at: min(counts.at) })
    .from(counts)
    .where(inArray(counts.outgoing, sent))
    .groupBy(counts.outgoing, counts.what);
  const messages = page.map((row): Messages['messages'][number] => ({
    ...{ id: row.id, template: row.text, recipient: row.address, subject: row.subject, at: row.at, way: row.way },
    ...(row.version === null ? {} : { version: row.version }),
    ...Object.fromEntries(
      came.filter(({ outgoing }) => outgoing === row.outgoing).map(({ what, at }) => [what, at ?? undefined]),
    ),
  }));
  return { messages, ...(rows.length > limit ? { next: page.at(-1)?.id } : {}) };
}

/** What of a list changes when people are put in: known addresses are changed in their rows, others get new ones. */
function changesFor(
  { columns, cells }: Pick<Awaited<ReturnType<WritingParts['tables']['get']>>, 'columns' | 'cells'>,
  recipients: readonly Readonly<Record<string, string>>[],
): { readonly changes: TableChange[]; readonly added: number; readonly changed: number } {
  const email = columns.find(({ type, key }) => type === 'email' || key === 'email')?.key;
  if (email === undefined) throw new RequestProblem(422, 'no-address', 'This list has no column for addresses.');
  const { broken } = fromRows(recipients, 'email');
  if (broken.length > 0)
    throw new RequestProblem(422, 'bad-address', `Nothing was changed. ${broken[0]}: no address to write to.`, broken);
  const known = new Map(columns.map(({ key }) => [key, true]));
  const unknown = new Set(
    recipients.flatMap((row) => Object.keys(row).filter((key) => key !== 'email' && !known.has(key))),
  );
  const at = new Map(cells.map((row, position) => [bareAddress(row[email] ?? ''), position]));
  const added = new Map<string, Record<string, string>>();
  const changes: TableChange[] = [...unknown].map((key) => ({
    what: 'column',
    column: { key, name: key, type: 'text' },
  }));
  let changed = 0;
  for (const { email: address = '', ...rest } of recipients) {
    const bare = bareAddress(address);
    const position = at.get(bare);
    if (position === undefined) added.set(bare, { ...added.get(bare), ...rest, [email]: address });
    else {
      changes.push({ what: 'cells', position, cells: rest });
      changed += 1;
    }
  }
  if (added.size > 0) changes.push({ what: 'add-rows', rows: [...added.values()] });
  return { changes, added: added.size, changed };
}
