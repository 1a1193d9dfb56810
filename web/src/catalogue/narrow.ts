/**
 * The typed line of the catalogue: words that everything must hold, among them words that say what is wanted. `block`,
 * `in Visits`, `by maeve`, `tagged spring`, `language de`, `with errors`, `unused`, `changed this week` …
 */
import type { Folder, TextSummary } from '@vocabula/contract';
import { fold, holdsWords } from '@vocabula/core';

export interface Narrowing {
  /** Words to be found in the text itself. */
  readonly words: string;
  /** What each understood part says, for showing what was understood. */
  readonly understood: readonly string[];
  readonly matches: (text: TextSummary) => boolean;
}
export interface NarrowContext {
  readonly folders: readonly Folder[];
  /** Names of people by their ids. */
  readonly people: ReadonlyMap<string, string>;
  /** An ISO day. */
  readonly today: string;
}
type Test = (text: TextSummary) => boolean;

const KINDS: Readonly<Record<string, TextSummary['kind']>> = {
  template: 'message',
  templates: 'message',
  block: 'block',
  blocks: 'block',
  signature: 'signature',
  signatures: 'signature',
  series: 'series',
};
const STATES: Readonly<Record<string, Test>> = {
  unpublished: ({ state }) => state === 'not published',
  published: ({ version }) => version !== undefined,
  changed: ({ state }) => state === 'changed',
  withdrawn: ({ state }) => state === 'withdrawn',
  retired: ({ state }) => state === 'retired',
  unused: ({ used }) => used === 0,
  offered: ({ offered }) => offered,
};
const LEVELS = { errors: 0, warnings: 1, notes: 2 } as const;
const SPANS: Readonly<Record<string, number>> = { today: 0, week: 7, month: 31, year: 366 };

/** Reads the line. What is not understood is a word to be found. */
export function narrow(line: string, context: NarrowContext): Narrowing {
  const given = line.split(/\s+/).filter(Boolean);
  const tests: Test[] = [];
  const understood: string[] = [];
  const words: string[] = [];
  for (let at = 0; at < given.length;) {
    const found = read(given.slice(at), context);
    if (found) {
      tests.push(found.test);
      understood.push(given.slice(at, at + found.taken).join(' '));
      at += found.taken;
    } else {
      words.push(given[at] ?? '');
      at += 1;
    }
  }
  return { words: words.join(' '), understood, matches: (text) => tests.every((test) => test(text)) };
}

/** Whether the words stand in what a line of the list shows. */
export const holds = (text: TextSummary, words: string): boolean =>
  holdsWords(`${text.title} ${text.subject} ${text.call ?? ''} ${text.tags.join(' ')}`, words);

function read(rest: readonly string[], context: NarrowContext): { test: Test; taken: number } | undefined {
  const [first = '', second = '', third = ''] = rest.map(fold);
  const kind = KINDS[first];
  if (kind) return { test: (text) => text.kind === kind, taken: 1 };
  if (first === 'overdue') return { test: ({ reviewBy }) => (reviewBy ?? '9') < context.today, taken: 1 };
  const span = SPANS[second === 'this' ? third : second];
  if ((first === 'changed' || first === 'used') && span !== undefined) {
    const since = dayBefore(context.today, span);
    const of = (text: TextSummary): string => (first === 'used' ? text.lastUsed : text.updatedAt) ?? '';
    return { test: (text) => of(text) >= since, taken: second === 'this' ? 3 : 2 };
  }
  const state = STATES[first];
  if (state) return { test: state, taken: 1 };
  if (first === 'with' && second in LEVELS) {
    const level = LEVELS[second as keyof typeof LEVELS];
    return { test: ({ findings }) => (findings?.[level] ?? 0) > 0, taken: 2 };
  }
  if (first === 'with' && second === 'findings')
    return { test: ({ findings }) => (findings ?? []).some((count) => count > 0), taken: 2 };
  if (second === '') return undefined;
  if (first === 'tagged') return { test: ({ tags }) => tags.some((tag) => fold(tag) === second), taken: 2 };
  if (first === 'language') return { test: ({ locale }) => (locale ?? '').toLowerCase().startsWith(second), taken: 2 };
  if (first === 'by') {
    const who = (text: TextSummary): string => `${context.people.get(text.madeBy ?? '') ?? ''} ${text.owner ?? ''}`;
    return { test: (text) => holdsWords(who(text), second), taken: 2 };
  }
  if (first === 'in') {
    const ids = new Set(context.folders.filter(({ title }) => fold(title).startsWith(second)).map(({ id }) => id));
    if (ids.size === 0) return undefined;
    for (const { id, parent } of context.folders) if (parent !== undefined && ids.has(parent)) ids.add(id);
    return { test: ({ folder }) => ids.has(folder), taken: 2 };
  }
  return undefined;
}

function dayBefore(day: string, days: number): string {
  const date = new Date(`${day}T00:00:00Z`);
  date.setUTCDate(date.getUTCDate() - days);
  return date.toISOString().slice(0, 10);
}
