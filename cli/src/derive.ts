/** `derive`: one template from past mails, with the answers that reproduce each of them. */
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { basename, join } from 'node:path';
import {
  derive as deriveTemplate,
  FEWEST_MAILS,
  MOST_MAILS,
  pastMailOf,
  samplesOf,
  type Derived,
  type PastMail,
  type PastWords,
} from '@vocabula/core/derive';
import { writeText } from '@vocabula/core/markdown';
import { writeCsv } from '@vocabula/core/tables';
import { readPastMails } from '@vocabula/mail';
import { oneOf, UsageError, type Call } from './arguments.js';

const ENDINGS = /\.(?:eml|mbox|html?|txt|md)$/i;

export async function derive(call: Call): Promise<number> {
  const as = oneOf(call, 'as', ['text', 'json']);
  const { out, locale } = call.options;
  const { mails, all } = await readMails(filesOf(call.paths));
  if (mails.length < FEWEST_MAILS) {
    process.stderr.write(`vocabula: derive: ${mails.length} of the files could be read as mails; two are needed\n`);
    return 1;
  }
  if (!all) process.stderr.write(`vocabula: derive: only the first ${MOST_MAILS} mails are used\n`);
  const derived = deriveTemplate(mails, typeof locale === 'string' ? { locale: localeOf(locale) } : {});
  if (typeof out === 'string') {
    mkdirSync(out, { recursive: true });
    writeFileSync(join(out, 'template.md'), writeText(derived.template));
    const { columns, rows } = samplesOf(derived);
    writeFileSync(join(out, 'samples.csv'), writeCsv(columns, rows));
  }
  process.stdout.write(as === 'json' ? `${JSON.stringify(printed(derived), null, 2)}\n` : inWords(derived));
  return 0;
}

function localeOf(locale: string): string {
  try {
    return new Intl.Locale(locale).toString();
  } catch {
    throw new UsageError('derive: --locale takes a language, such as en-IE');
  }
}

/** Reads files until there are enough mails. @returns the mails, and whether these are all */
async function readMails(
  files: readonly string[],
): Promise<{ readonly mails: readonly PastMail[]; readonly all: boolean }> {
  const found: PastWords[] = [];
  for (const path of files) {
    if (found.length > MOST_MAILS) break;
    found.push(...(await readPastMails(basename(path), readFileSync(path), MOST_MAILS + 1)));
  }
  return { mails: found.slice(0, MOST_MAILS).map(pastMailOf), all: found.length <= MOST_MAILS };
}

/** The files of paths; folders are searched with their subfolders, in the order of names. */
function filesOf(paths: readonly string[]): string[] {
  return paths.flatMap((path) => {
    if (!existsSync(path)) throw new UsageError(`derive: there is no ${path}`);
    if (!statSync(path).isDirectory()) return [path];
    return readdirSync(path, { recursive: true, withFileTypes: true })
      .filter((entry) => entry.isFile() && ENDINGS.test(entry.name))
      .map((entry) => join(entry.parentPath, entry.name))
      .sort();
  });
}

/** The fixed JSON shape. */
const printed = ({ template, mails, exact, variables, passages, oddities }: Derived): object => ({
  template: writeText(template),
  mails: mails.map(({ file, exact: same, differences, answers }) => ({ file, exact: same, differences, answers })),
  ...{ exact, variables, passages, oddities },
});

function inWords(derived: Derived): string {
  const { mails, exact, variables, passages, oddities, groups } = derived;
  const lines = [
    writeText(derived.template),
    `${exact} of ${mails.length} mails come out word for word: ${variables.length} variables, ${passages} passages.`,
    ...(groups.length > 1 ? [`They are of ${groups.length} kinds; the largest: ${(groups[0] ?? []).join(', ')}.`] : []),
    ...oddities.map(({ file, words }) => `${file}: ${words}`),
  ];
  return `${lines.join('\n')}\n`;
}
