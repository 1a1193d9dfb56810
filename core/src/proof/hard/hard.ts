/** Hard cases: made-up recipients that break templates (engine notes, section 9). */
import type { Program } from '../../compile/program.js';
import { isMissing, valueType } from '../../values/index.js';
import type { Filling } from '../cover/inputs.js';
import { cellFor } from '../samples/made-up.js';
import { fillingOfRow, needs, type Need } from '../samples/needs.js';
import { SERIES } from './values.js';

/** A filling made up to provoke one kind of trouble. */
export interface HardCase {
  /** Stays the same from one making to the next: `empty first_name`, `longest`. */
  readonly key: string;
  readonly label: string;
  /** What it is there to provoke, in words. */
  readonly provokes: string;
  readonly filling: Filling;
}

/** What hard cases are made for. */
export interface HardOptions {
  /** ISO day. */
  readonly today: string;
  readonly sender?: Filling['sender'];
  /** A row of a sample set, for what is usual; what it lacks is made up. */
  readonly usual?: Readonly<Record<string, string>>;
}

/** The most fields that are left empty one after the other. */
const MOST_EMPTY = 60;

/** The hard cases of a template. Each differs from what is usual, and every value in one is a value that is taken. */
export function hardCases(program: Program, { today, sender = {}, usual = {} }: HardOptions): HardCase[] {
  const wanted = needs(program);
  const row = Object.fromEntries(
    wanted.flatMap((need) => {
      const cell = usual[need.column] || cellFor(need, 0, today);
      return cell === '' ? [] : [[need.column, cell]];
    }),
  );
  const given = fillingOfRow(program, { ...usual, ...row }, sender);
  const lists = wanted.flatMap((need) => (need.type === 'list' ? [[need.column, rowsOf(need, 2, today)]] : []));
  const base = { ...given, answers: { ...Object.fromEntries(lists), ...given.answers } };
  const cases: HardCase[] = [];
  const seen = new Set([JSON.stringify(base)]);
  const add = (key: string, label: string, provokes: string, filling: Filling): void => {
    const id = JSON.stringify(filling);
    if (seen.has(id)) return;
    seen.add(id);
    cases.push({ key, label, provokes, filling });
  };
  const optional = wanted.filter(({ required }) => !required);
  for (const need of optional.slice(0, MOST_EMPTY))
    add(
      `empty ${need.column}`,
      `No ${need.label}`,
      'a gap where it stands, and the marks and spaces beside it',
      changed(base, [[need, undefined]]),
    );
  if (optional.length > 1)
    add(
      'empty',
      'Nothing that is optional',
      'all gaps at once',
      changed(
        base,
        optional.map((need) => [need, undefined]),
      ),
    );
  for (const { key, label, provokes, offer } of SERIES) {
    const changes = wanted.flatMap((need): [Need, unknown][] => {
      const given = valueType(need.type).hard?.(offer(need.column, today), need.slot?.variable);
      return given === undefined || !takes(need, given, today) ? [] : [[need, given]];
    });
    if (changes.length > 0) add(key, label, provokes, changed(base, changes));
  }
  for (const [count, label, provokes] of ROWS) {
    const changes = wanted.flatMap((need): [Need, unknown][] => {
      const rows = need.type === 'list' ? rowsOf(need, count, today) : undefined;
      return rows && takes(need, rows, today) ? [[need, rows]] : [];
    });
    if (changes.length > 0) add(`rows-${count}`, label, provokes, changed(base, changes));
  }
  return cases;
}

const ROWS = [
  [0, 'Lists without a row', 'a table with a head and nothing under it'],
  [1, 'Lists of one row', 'several where there is one'],
  [40, 'Long lists', 'a message that has no end'],
] as const;

function rowsOf({ slot }: Need, count: number, today: string): unknown[] | undefined {
  const columns = slot?.variable.columns?.filter(({ value }) => value === undefined);
  if (!slot || !columns) return undefined;
  return Array.from({ length: count }, (_, at) =>
    Object.fromEntries(
      columns.map((variable) => [
        variable.key,
        cellFor(
          {
            column: variable.key,
            label: variable.key,
            type: variable.type,
            required: true,
            slot: { ...slot, variable },
            as: 'answer',
          },
          at,
          today,
        ),
      ]),
    ),
  );
}

function takes({ slot, required }: Need, value: unknown, today: string): boolean {
  if (!slot) return true;
  if (isMissing(value)) return !required;
  return slot.declarations.every(
    ({ variable, locale, type }) => 'value' in type.parse(value, variable, { locale, today, zone: 'UTC' }),
  );
}

function changed(base: Filling, changes: readonly (readonly [Need, unknown])[]): Filling {
  const recipient = { ...base.recipient };
  const answers = { ...base.answers };
  for (const [{ column, as }, value] of changes) {
    const target = as === 'field' ? recipient : answers;
    if (value === undefined) delete target[column];
    else target[column] = as === 'field' && !Array.isArray(value) ? String(value) : value;
    // A column of the variable's own key is the recipient's, too.
    if (as === 'answer' && Object.hasOwn(recipient, column)) delete recipient[column];
  }
  return { ...base, recipient, answers };
}
