/** What differs between two states of a text or of the house, sorted by what it is about. */
import type { House, TextDocument } from '@vocabula/core';
import { houseDifferences, labelFromKey } from '@vocabula/core';
import { bringTogether, type Difference } from '@vocabula/core/together';

export interface Compared {
  readonly where: string;
  readonly before: readonly string[];
  readonly after: readonly string[];
}
export interface ComparedGroup {
  readonly title: string;
  readonly items: readonly Compared[];
}

const TITLES = ['Steps', 'Words', 'Envelope', 'Variables', 'Conditions'] as const;
type Title = (typeof TITLES)[number];
/** A written line that opens, closes or turns a passage. */
const TAG = /\{\{[#^/]/;

const isHouse = (document: TextDocument | House): document is House => !('type' in document);

/** The differences, in groups that are not empty. */
export function differencesOf(before: TextDocument | House, after: TextDocument | House): ComparedGroup[] {
  if (isHouse(before) || isHouse(after)) {
    if (!isHouse(before) || !isHouse(after)) return [];
    return groupsOfHouse(before, after);
  }
  // What is new takes the side that a conflict calls one's own.
  const { differences } = bringTogether(after, before);
  const groups = new Map<Title, Compared[]>(TITLES.map((title) => [title, []]));
  for (const each of differences)
    groups.get(titleOf(each, before, after))?.push({ where: whereOf(each), before: each.theirs, after: each.yours });
  return [...groups].filter(([, items]) => items.length > 0).map(([title, items]) => ({ title, items }));
}

function titleOf(difference: Difference, before: TextDocument, after: TextDocument): Title {
  if (difference.in === 'variable') {
    const variables = [...after.attrs.variables, ...before.attrs.variables];
    const found = variables.find(({ key }) => key === difference.name);
    return found?.type === 'yes-no' && found.value !== undefined ? 'Conditions' : 'Variables';
  }
  if (difference.in === 'front' && difference.name === 'steps') return 'Steps';
  if (difference.in !== 'body') return 'Envelope';
  const lines = [...difference.yours, ...difference.theirs];
  const plain = (side: readonly string[]): string => side.filter((line) => !TAG.test(line)).join('\n');
  return lines.some((line) => TAG.test(line)) && plain(difference.yours) === plain(difference.theirs)
    ? 'Conditions'
    : 'Words';
}

const whereOf = ({ in: place, name }: Difference): string =>
  place === 'body' ? '' : place === 'variable' ? name : labelFromKey(name);

function groupsOfHouse(before: House, after: House): ComparedGroup[] {
  const titles = { facts: 'Facts', style: 'House style', holidays: 'Holidays', language: 'Language' } as const;
  const all = houseDifferences(before, after);
  return Object.entries(titles).flatMap(([place, title]) => {
    const items = all
      .filter((each) => each.in === place)
      .map(({ name, before: was, after: is }) => ({
        where: name,
        before: was === undefined ? [] : [was],
        after: is === undefined ? [] : [is],
      }));
    return items.length > 0 ? [{ title, items }] : [];
  });
}
