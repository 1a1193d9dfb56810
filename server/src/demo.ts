/** Loads the demo through the importers that everyone uses, once, into an empty database. */
import { readdirSync, readFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { profileSchema } from '@vocabula/contract';
import type { Logger } from 'pino';
import type { Services } from './http/app.js';
import { askerOf } from './people/service.js';

/** @param folder with `library/` (files of the format), `samples/` and `recipients/` (CSV), and `profile.json` */
export async function loadDemo(
  { catalogue, tables, people, assets }: Services,
  folder: string,
  log: Logger,
): Promise<void> {
  const asker = askerOf();
  if ((await catalogue.list(asker)).length > 0) return;
  const files = (path: string): string[] =>
    readdirSync(path, { withFileTypes: true }).flatMap((entry) =>
      entry.isDirectory() ? files(join(path, entry.name)) : [join(path, entry.name)],
    );
  const library = join(folder, 'library');
  const texts = files(library).filter((file) => file.endsWith('.md') || file.endsWith('house.yaml'));
  for (const file of files(library).filter((each) => relative(library, each).startsWith('assets')))
    await assets.add(relative(library, file), readFileSync(file), true, asker);
  await catalogue.import({ files: texts.map((file) => ({ file, content: readFileSync(file, 'utf8') })) }, asker);
  for (const [use, sub] of [
    ['sample', 'samples'],
    ['recipients', 'recipients'],
  ] as const) {
    for (const file of files(join(folder, sub))) {
      const title = (file.split('/').at(-1) ?? file).replace(/\.csv$/, '').replace(/-/g, ' ');
      await tables.import(
        use,
        title.charAt(0).toUpperCase() + title.slice(1),
        readFileSync(file),
        { accept: false },
        asker,
      );
    }
  }
  await people.save(asker, profileSchema.parse(JSON.parse(readFileSync(join(folder, 'profile.json'), 'utf8'))));
  log.info({ texts: texts.length }, 'demo loaded');
}
