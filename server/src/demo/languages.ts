/** Language versions of the demo: which lines were compared with their originals, some of which have changed since. */
import type { TextDocument } from '@vocabula/core';
import { agreedBy, besideOriginal } from '@vocabula/core/languages';
import type { User } from '../people/user.js';
import type { Services } from '../services.js';

/** Lines of originals as they were, by the line as it is now, for each version. */
export type DemoLanguages = Readonly<Record<string, Readonly<Record<string, string>>>>;

/** Says of all lines of the versions that have words of their own what they were compared with. */
export async function compareLanguages(
  { catalogue, languages }: Pick<Services, 'catalogue' | 'languages'>,
  before: DemoLanguages,
  user: User,
): Promise<void> {
  for (const { name, translationOf } of await catalogue.list(user)) {
    if (translationOf === undefined) continue;
    const document = async (of: string): Promise<TextDocument> => (await catalogue.get(of, user)).document;
    const { rows } = besideOriginal(await document(translationOf), await document(name));
    const pairs = agreedBy(rows.filter(({ state }) => state === 'unsure')).map((pair) => ({
      ...pair,
      original: before[name]?.[pair.original] ?? pair.original,
    }));
    if (pairs.length > 0) await languages.agree(name, { pairs }, user);
  }
}
