/**
 * Writes `core/src/render/arrives/support.ts`: what families of mail programs take out of messages. The families are
 * groups by behaviour of the programs in the open data set of the package `caniemail` (MIT), which names and dates every
 * test; of the programs nothing but their number is kept. Run by `npm run support` after the package has changed.
 */
import { readFileSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { format, resolveConfig } from 'prettier';

const TARGET = 'core/src/render/arrives/support.ts';

interface Feature {
  readonly slug: string;
  /** By program, platform and version: `y`, `n`, `a` for partly, `u` for unknown, with the numbers of notes. */
  readonly stats: Readonly<Record<string, Readonly<Record<string, Readonly<Record<string, string>>>>>>;
  readonly notes_by_num: Readonly<Record<string, string>> | null;
}
type Answer = 'y' | 'n' | 'a' | 'u';
interface Program {
  readonly answers: Map<string, { readonly answer: Answer; readonly notes: readonly string[] }>;
}

/** The properties that our messages use, with the feature that is tested for each. */
const PROPERTIES: Readonly<Record<string, string>> = {
  'background-color': 'css-background-color',
  border: 'css-border',
  'border-bottom': 'css-border',
  'border-collapse': 'css-border-collapse',
  'border-left': 'css-border',
  'border-radius': 'css-border-radius',
  'border-top': 'css-border',
  display: 'css-display',
  'font-family': 'css-font',
  'font-size': 'css-font-size',
  'font-weight': 'css-font-weight',
  height: 'css-height',
  'line-height': 'css-line-height',
  margin: 'css-margin',
  'margin-left': 'css-margin',
  'margin-right': 'css-margin',
  'max-width': 'css-max-width',
  padding: 'css-padding',
  'text-align': 'css-text-align',
  'text-decoration': 'css-text-decoration',
  'vertical-align': 'css-vertical-align',
  'white-space': 'css-white-space',
  width: 'css-width',
};
/** Other things that our messages use. */
const FEATURES: Readonly<Record<string, string>> = {
  style: 'html-style',
  'body style': 'html-body',
  'dark partners': 'css-at-media-prefers-color-scheme',
  'min()': 'css-function-min',
  'images in the HTML': 'image-base64',
};

const path = join(
  dirname(createRequire(import.meta.url).resolve('caniemail/package.json')),
  'dist/data/caniemail.json',
);
const { data, last_update_date: date } = JSON.parse(readFileSync(path, 'utf8')) as {
  readonly data: readonly Feature[];
  readonly last_update_date: string;
};

const programs = new Map<string, Program>();
for (const { slug, stats, notes_by_num: notes } of data)
  for (const [family, platforms] of Object.entries(stats))
    for (const [platform, versions] of Object.entries(platforms)) {
      const [answer = 'u', ...numbers] = (Object.values(versions).at(-1) ?? 'u').split(' ');
      const key = `${family} ${platform}`;
      const program = programs.get(key) ?? { answers: new Map<string, never>() };
      programs.set(key, program);
      program.answers.set(slug, {
        answer: answer as Answer,
        notes: numbers.flatMap((each) => notes?.[each.replace('#', '')] ?? []),
      });
    }
const says = (program: Program, slug: string, ...wanted: Answer[]): boolean =>
  wanted.includes(program.answers.get(slug)?.answer ?? 'u');
// Programs of which little was tested say nothing about a family.
const known = [...programs.values()].filter(
  (each) => !says(each, 'css-padding', 'u') && !says(each, 'html-style', 'u'),
);

/** Which programs a family is made of, by what they do. */
const FAMILIES: Readonly<Record<string, (program: Program) => boolean>> = {
  page: (each) =>
    says(each, 'html-style', 'y', 'a') &&
    says(each, 'css-selector-class', 'y', 'a') &&
    says(each, 'css-at-media', 'y', 'a'),
  inline: (each) => says(each, 'html-style', 'n') || says(each, 'css-selector-class', 'n'),
  // They read page styles but no conditions in them, and give room to cells only.
  word: (each) =>
    says(each, 'html-style', 'y', 'a') && says(each, 'css-at-media', 'n') && says(each, 'css-padding', 'a'),
  dark: (each) => says(each, 'css-at-media-prefers-color-scheme', 'n'),
};

/** Where a program keeps a property, as its notes say it. */
function limitOf(notes: readonly string[]): Record<string, readonly string[]> {
  const text = notes.join(' ');
  const tags = (words: string): string[] => [...words.matchAll(/<([a-z0-9]+)>/g)].map(([, tag = '']) => tag);
  const limit: Record<string, readonly string[]> = {};
  if (/Only supported on table cells/.test(text)) limit.only = ['td', 'th'];
  const only = /Only works on ((?:`<[a-z0-9]+>`(?:, | and )?)+) elements/.exec(text);
  if (only) limit.only = tags(only[1] ?? '');
  const not = /Not supported on ((?:`<[a-z0-9]+>`(?:, | and | or )?)+) elements/.exec(text);
  if (not) limit.not = tags(not[1] ?? '');
  const value = /`(\w+)` value is not supported/.exec(text);
  if (value) limit.values = [value[1] ?? ''];
  return limit;
}

function familyOf(isOf: (program: Program) => boolean): object {
  const members = known.filter(isOf);
  const share = (slug: string, ...answers: Answer[]): number => {
    const told = members.filter((each) => !says(each, slug, 'u'));
    return told.length === 0 ? 0 : told.filter((each) => says(each, slug, ...answers)).length / told.length;
  };
  const properties: Record<string, object> = {};
  for (const [property, slug] of Object.entries(PROPERTIES)) {
    if (share(slug, 'n') >= 0.5) properties[property] = {};
    else if (share(slug, 'n', 'a') >= 0.5) {
      // A limit counts as a loss does: where at least half of them have it.
      const limits = members.map((each) => JSON.stringify(limitOf(each.answers.get(slug)?.notes ?? [])));
      const limit = limits.find(
        (each) => each !== '{}' && limits.filter((other) => other === each).length >= members.length / 2,
      );
      if (limit) properties[property] = JSON.parse(limit) as object;
    }
  }
  const features = Object.entries(FEATURES)
    .filter(([, slug]) => share(slug, 'n') >= 0.5)
    .map(([name]) => name);
  return { programs: members.length, properties, features };
}

const support = Object.fromEntries(Object.entries(FAMILIES).map(([name, isOf]) => [name, familyOf(isOf)]));
const source = `/**
 * Written by \`npm run support\` from the data set of caniemail (MIT) of ${date.slice(0, 10)}; not to be changed by hand.
 * Of each family: how many programs of it were tested, and what at least half of them leave out.
 */
import type { Support } from './support-filter.js';

/** How many programs were tested. */
export const TESTED = ${known.length};

/** What mail programs of each family support, counted from the caniemail data (MIT) by \`npm run support\`. */
export const SUPPORT: Readonly<Record<${Object.keys(FAMILIES)
  .map((each) => `'${each}'`)
  .join(' | ')}, Support>> = ${JSON.stringify(support, null, 2)};
`;
const written = await format(source, { ...(await resolveConfig(TARGET)), parser: 'typescript' });
if (process.argv.includes('--check')) {
  if (readFileSync(TARGET, 'utf8') !== written) {
    console.error(`${TARGET} is not what the data says: run npm run support.`);
    process.exit(1);
  }
} else writeFileSync(TARGET, written);
