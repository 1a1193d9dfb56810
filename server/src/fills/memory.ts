/** What somebody answered before, offered where a variable says that it may be. */
import type { OfferedValue, OfferedValues } from '@vocabula/contract';
import { bareAddress, memoryOf } from '@vocabula/core/filling';
import type { NamedDocument, Variable } from '@vocabula/core';
import { and, desc, eq, ne } from 'drizzle-orm';
import { schema, type Reader, type Writer } from '../db/database.js';
import type { User } from '../people/user.js';

/** How many earlier messages are looked through. */
const [FOR_ONE, FOR_ANYBODY] = [50, 200];

/** Values of earlier messages of the user, for the variables of some texts. @param address of the recipient */
export async function offeredFor(
  reader: Reader | Writer,
  user: User,
  texts: readonly NamedDocument[],
  address: string,
): Promise<OfferedValues> {
  const wanted = new Map<string, Variable>();
  for (const { document } of texts)
    for (const variable of document.attrs.variables)
      if (memoryOf(variable) !== undefined && !wanted.has(variable.key)) wanted.set(variable.key, variable);
  if (wanted.size === 0) return {};
  const { handedOver } = schema;
  const earlier = async (folded: string | undefined, limit: number) =>
    await reader
      .select({ answers: handedOver.answers, at: handedOver.at })
      .from(handedOver)
      .where(
        and(
          eq(handedOver.person, user.id),
          folded === undefined ? ne(handedOver.answers, {}) : eq(handedOver.address, folded),
        ),
      )
      .orderBy(desc(handedOver.at))
      .limit(limit);
  const bare = bareAddress(address);
  const [own, any] = [bare === '' ? [] : await earlier(bare, FOR_ONE), await earlier(undefined, FOR_ANYBODY)];
  const offered: Record<string, OfferedValue> = {};
  for (const [key, variable] of wanted) {
    const source = memoryOf(variable);
    const found = (source === 'last' ? own : [...own, ...any]).find(({ answers }) => Object.hasOwn(answers, key));
    if (source && found) offered[key] = { value: found.answers[key], source, from: found.at };
  }
  return offered;
}
