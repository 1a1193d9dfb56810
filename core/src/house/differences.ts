/** Two states of the house, beside each other. */
import type { House } from './house.js';

/** One difference between two states of the house. */
export interface HouseDifference {
  readonly in: 'facts' | 'style' | 'holidays' | 'language';
  /** Of a fact its label, of the style the path of its part: `button.colour`. */
  readonly name: string;
  /** In words; none where that state has nothing there. */
  readonly before: string | undefined;
  readonly after: string | undefined;
}

/** What differs, facts first; the same values in another order are no difference. */
export function houseDifferences(before: House, after: House): HouseDifference[] {
  const found: HouseDifference[] = [];
  const add = (place: HouseDifference['in'], name: string, was: string | undefined, is: string | undefined): void => {
    if (was !== is) found.push({ in: place, name, before: was, after: is });
  };
  const keys = (a: object, b: object): string[] => [...new Set([...Object.keys(a), ...Object.keys(b)])];
  for (const key of keys(before.facts, after.facts)) {
    const label = (after.facts[key] ?? before.facts[key])?.variable.label ?? key;
    add('facts', label, factInWords(before, key), factInWords(after, key));
  }
  const [was, is] = [leaves(before.style), leaves(after.style)];
  for (const path of keys(Object.fromEntries(was), Object.fromEntries(is)))
    add('style', path, was.get(path), is.get(path));
  const days = ({ holidays }: House): string => [...holidays].sort().join(', ');
  add('holidays', 'holidays', days(before) || undefined, days(after) || undefined);
  add('language', 'language', before.locale, after.locale);
  return found;
}

function factInWords({ facts }: House, key: string): string | undefined {
  const fact = facts[key];
  if (!fact) return undefined;
  const { key: _key, label: _label, type, ...rest } = fact.variable;
  const more = Object.entries(rest).map(([name, value]) => `${name} ${JSON.stringify(value).replace(/^"|"$/g, '')}`);
  const changes = fact.changes.map(({ date, value }) => `from ${date} ${value}`);
  return [fact.value, ...changes, type, ...more].join(' · ');
}

/** The values of a nested object by their paths. */
function leaves(value: unknown, path = ''): Map<string, string> {
  if (typeof value !== 'object' || value === null) return new Map(value === undefined ? [] : [[path, String(value)]]);
  return new Map(Object.entries(value).flatMap(([key, each]) => [...leaves(each, path ? `${path}.${key}` : key)]));
}
