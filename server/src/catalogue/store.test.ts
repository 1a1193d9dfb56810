/** What is derived from a text when it is saved is what would be derived from it alone. */
import { sql } from 'drizzle-orm';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { documentOf, makeText, start, type Started } from '../testing/start.js';
import { derive } from './store.js';

let server: Started;
beforeAll(async () => {
  server = await start();
  for (const title of ['Hours', 'Way']) await makeText(server, title, source(title, 'words', 'block'));
});
afterAll(() => server.stop());

const source = (title: string, body: string, kind = 'message'): string =>
  `---\nvocabula: 1\nkind: ${kind}\ntitle: ${title}\n${kind === 'message' ? 'subject: "About {{name}}"\n' : ''}variables:\n  name: { type: text, label: First name }\n---\n${body}\n`;

/** Everything derived from the working copy of a text. */
async function derivedOf(name: string): Promise<unknown> {
  const { read } = server.database;
  const uses = await read.values(
    sql`SELECT what, target FROM uses WHERE text = ${name} AND state = 'working' ORDER BY 1, 2`,
  );
  const words = await read.values(
    sql`SELECT title, subject, "call", labels, body FROM search WHERE rowid IN (SELECT id FROM searched WHERE name = ${name} AND state = 'working')`,
  );
  return { uses, words };
}
const knownWords = async (): Promise<string[]> =>
  (await server.database.read.values<[string]>(sql`SELECT word FROM known_words`)).map(([word]) => word);

const bodies = fc.array(
  fc.constantFrom(
    'Dear {{name}},',
    'The geese know.',
    '{{> hours}}',
    '{{> way}}',
    '{{fact.gate}}',
    'Größe und Ærø',
    '',
  ),
  { maxLength: 5 },
);

describe('saving', () => {
  it('leaves the same search, uses and known words as deriving all anew', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.tuple(fc.constantFrom('Visit', 'Tour'), bodies), { minLength: 1, maxLength: 4 }),
        async (saves) => {
          let { name, revision } = await makeText(server, 'Text', source('Text', 'First.'));
          for (const [title, body] of saves) {
            const document = documentOf(source(title, body.join('\n\n')));
            const saved = await server.services.catalogue.save(name, { document, revision }, server.user);
            ({ name, revision } = saved);
            const kept = await derivedOf(name);
            await server.database.write((writer) => derive(writer, name, 'working', saved.document));
            expect(kept).toEqual(await derivedOf(name));
          }
        },
      ),
      { numRuns: 25 },
    );
    expect(await knownWords()).toEqual(expect.arrayContaining(['geese', 'grosse']));
  });
});
