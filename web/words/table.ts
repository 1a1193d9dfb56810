/** The table of all words of the interface: `npm run words` writes it, a test says when it is out of date. */
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join, sep } from 'node:path';
import { fileURLToPath } from 'node:url';
import { valuesIn, wordsIn } from './collect.js';

const SOURCES = fileURLToPath(new URL('../src', import.meta.url));
export const TABLE = fileURLToPath(new URL('./en.json', import.meta.url));
/** Files without words for people: tests and their helpers. */
const WITHOUT = /\.test\.ts$|\.setup\.ts$|[/\\]testing[/\\]/;

/** Words by file, in the order in which they stand there, each once. */
export type WordTable = Readonly<Record<string, readonly string[]>>;

/** The files that hold words, relative to `web/src`. */
export const sourceFiles = (): string[] =>
  readdirSync(SOURCES, { recursive: true, encoding: 'utf8' })
    .filter((file) => /\.(vue|ts)$/.test(file) && !WITHOUT.test(file))
    .sort();
/** The source of one of them. */
export const sourceOf = (file: string): string => readFileSync(join(SOURCES, file), 'utf8');

/** Strings that programs compare, in all files. */
export const programValues = (): Set<string> =>
  new Set(sourceFiles().flatMap((file) => [...valuesIn(file, sourceOf(file))]));

/** The table as the sources have it now. */
export function currentTable(): WordTable {
  const values = programValues();
  const rows = sourceFiles().map((file): [string, string[]] => [
    file.split(sep).join('/'),
    [...new Set(wordsIn(file, sourceOf(file), values).map(({ words }) => words))],
  ]);
  return Object.fromEntries(rows.filter(([, words]) => words.length > 0));
}
export const tableText = (table: WordTable): string => `${JSON.stringify(table, null, 2)}\n`;

if (process.argv[1] === fileURLToPath(import.meta.url)) writeFileSync(TABLE, tableText(currentTable()));
