/** Finds list items and table rows that are different in every mail: they become one list instead of many lines. */
import type { Unit } from './mail.js';
import { sequenceKey } from './tokens.js';

/** An item that occurs in at least this share of the mails, and in two or more, is an ordinary line. */
const COMMON = 0.5;
/** With at least this share of ordinary lines, a run of items is not a list. */
const ORDINARY = 0.3;

const isItem = ({ shape }: Unit): boolean => /^(?:bullet|number|row )/.test(shape);

/** Consecutive items of one shape. */
interface Run {
  readonly from: number;
  readonly to: number;
}
function runsOfItems(units: readonly Unit[]): Run[] {
  const runs: { from: number; to: number }[] = [];
  for (const [at, unit] of units.entries()) {
    const last = runs.at(-1);
    if (!isItem(unit)) continue;
    if (last && last.to === at && units[at - 1]?.shape === unit.shape) last.to = at + 1;
    else runs.push({ from: at, to: at + 1 });
  }
  return runs;
}

/** Replaces each run of items that is a list by one unit, whose sentences are the items. */
export function withLists(mails: readonly (readonly Unit[])[]): (readonly Unit[])[] {
  const runs = mails.map(runsOfItems);
  const most = Math.max(0, ...runs.map(({ length }) => length));
  const itemsOf = (mail: number, nth: number): readonly Unit[] => {
    const run = runs[mail]?.[nth];
    return run ? (mails[mail] ?? []).slice(run.from, run.to) : [];
  };
  const lists = new Set(
    Array.from({ length: most }, (_, nth) => nth).filter((nth) =>
      isList([...mails.keys()].map((mail) => itemsOf(mail, nth)).filter(({ length }) => length > 0)),
    ),
  );
  return mails.map((units, mail) => {
    const out: Unit[] = [];
    let at = 0;
    for (const [nth, { from, to }] of (runs[mail] ?? []).entries()) {
      const items = units.slice(from, to);
      out.push(...units.slice(at, from), ...(lists.has(nth) ? [listUnit(items)] : items));
      at = to;
    }
    return [...out, ...units.slice(at)];
  });
}
const listUnit = (items: readonly Unit[]): Unit => ({
  shape: `list of ${items[0]?.shape ?? ''}`,
  tokens: items.flatMap(({ tokens }) => tokens),
  sentences: items.map(({ tokens }) => tokens),
});

/** True if the items have one shape, their number varies between the mails, and most of them occur in few mails. */
function isList(mails: readonly (readonly Unit[])[]): boolean {
  const shapes = new Set(mails.flatMap((items) => items.map(({ shape }) => shape)));
  const lengths = new Set(mails.map(({ length }) => length));
  if (shapes.size !== 1 || lengths.size < 2) return false;
  const occurrences = new Map<string, number>();
  for (const items of mails)
    for (const key of new Set(items.map(({ tokens }) => sequenceKey(tokens))))
      occurrences.set(key, (occurrences.get(key) ?? 0) + 1);
  const all = mails.flat();
  const least = Math.max(2, mails.length * COMMON);
  const ordinary = all.filter(({ tokens }) => (occurrences.get(sequenceKey(tokens)) ?? 0) >= least);
  return ordinary.length / all.length < ORDINARY;
}
