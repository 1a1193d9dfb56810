/** Part of `npm run lint`: every table is written in one file, its store. Prints each that is not; ends with 1 if there is one. */
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';

const SERVER = join('server', 'src');
const SCHEMA = join(SERVER, 'db', 'schema');
const read = (file: string): string => readFileSync(file, 'utf8');

/** Tables by the name of their constant and by their name in the database. */
const tables = new Map(
  readdirSync(SCHEMA).flatMap((file) =>
    [...read(join(SCHEMA, file)).matchAll(/export const (\w+) = sqliteTable\(\s*'(\w+)'/g)].flatMap(
      ([, constant = '', name = '']) => [
        [constant, name],
        [name, name],
      ],
    ),
  ) as [string, string][],
);
const writers = new Map<string, Set<string>>();
for (const file of readdirSync(SERVER, { recursive: true, encoding: 'utf8' })) {
  if (!file.endsWith('.ts') || file.endsWith('.test.ts')) continue;
  const path = join(SERVER, file);
  const source = read(path);
  const written = [
    ...source.matchAll(/\b\w*writer\s*\.(?:insert|update|delete)\(\s*(?:schema\.)?(\w+)\s*\)/gi),
    ...source.matchAll(/\b(?:UPDATE|INSERT INTO|DELETE FROM) (\w+)/g),
  ];
  for (const [, name = ''] of written) {
    const table = tables.get(name);
    if (table !== undefined) writers.set(table, (writers.get(table) ?? new Set()).add(path));
  }
}
const several = [...writers].filter(([, files]) => files.size > 1);
for (const [table, files] of several) console.error(`${table} is written in ${[...files].join(', ')}`);
process.exit(several.length > 0 ? 1 : 0);
