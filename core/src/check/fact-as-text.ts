import { advice } from '../findings/finding.js';
import { valueOn } from '../house/facts.js';
import type { Fact } from '../house/house.js';
import { labelFromKey } from '../template/keys.js';
import { textOfImage } from '../values/image.js';
import { valueType } from '../values/index.js';
import { placeIn, replacing, type Check } from './check.js';

/** A fact's words in one view. */
interface Words {
  readonly name: string;
  readonly view: string;
  readonly label: string;
  readonly words: string;
}

/** What a fact says today stands as fixed text, which stays when the fact changes. */
export const factAsText: Check = {
  run({ lines, program }) {
    const known = Object.entries(program.house.facts).flatMap(([key, fact]) =>
      wordsOf(key, fact, program.facts.get(key) ?? [], program.today, program.locale),
    );
    if (known.length === 0) return [];
    return lines.flatMap((line) =>
      known.flatMap(({ name, view, label, words }) =>
        placesOf(line.text, words).map((at) => {
          const place = placeIn(line, at, words.length);
          const insert = [{ type: 'placeholder', attrs: { name, view } }] as const;
          return advice(
            { code: 'fact-as-text', text: words, label },
            place,
            'warning',
            replacing(`Put in ${label}`, place, insert),
          );
        }),
      ),
    );
  },
};

/** Words that could hardly be meant otherwise: of several words, or with a figure or a sign among them. */
const isTelling = (words: string): boolean =>
  words.length >= 4 && (/\p{L}\s+\p{L}/u.test(words) || (words.length >= 5 && /[\d@€$£]/u.test(words)));

function wordsOf(
  key: string,
  { variable }: Fact,
  values: Parameters<typeof valueOn>[0],
  today: string,
  locale: string,
): Words[] {
  const type = valueType(variable.type);
  const value = valueOn(values, today);
  if (value === undefined || variable.type === 'yes-no' || textOfImage(value)) return [];
  const seen = new Set<string>();
  return ['', ...type.views(variable)].flatMap((view): Words[] => {
    const words = type.formatter(variable, view, locale)?.(value) ?? '';
    if (!isTelling(words) || seen.has(words)) return [];
    seen.add(words);
    return [{ name: `house.${key}`, view, label: variable.label ?? labelFromKey(key), words }];
  });
}

/** Where words stand whole: not as part of a longer word or number. */
function placesOf(text: string, words: string): number[] {
  const places: number[] = [];
  for (let at = text.indexOf(words); at >= 0; at = text.indexOf(words, at + words.length)) {
    const before = text[at - 1] ?? '';
    const after = text.slice(at + words.length, at + words.length + 2);
    if (!/[\p{L}\p{N}]/u.test(before) && !/^[\p{L}\p{N}]|^[.,]\d/u.test(after)) places.push(at);
  }
  return places;
}
