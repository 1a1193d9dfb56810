/** A covering set in words: what each case is, and what it shows that no case before it did. */
import type { Covering } from './cover.js';

/** A case of a covering as it is listed: its key, and what it shows that earlier ones do not. */
export interface CaseInWords {
  /** Stays the same while the case's levels do: `gate=north guide=yes`. */
  readonly key: string;
  /** A few words that tell it from its neighbours. */
  readonly title: string;
  readonly news: string;
  /** The levels by factor, in words; those that are new in it are marked. */
  readonly levels: readonly { readonly label: string; readonly words: string; readonly fresh: boolean }[];
}

/** How many levels a title names, and how many letters it has. */
const MOST_IN_TITLE = 3;
const TITLE = 40;

/** Describes every case of a covering set, in its order. */
export function casesInWords({ factors, cases }: Covering): CaseInWords[] {
  const seenLevels = new Set<string>();
  const seenPairs = new Set<string>();
  return cases.map(({ levels }, index) => {
    const met = levels.flatMap((level, factor) => (level < 0 ? [] : [{ factor, level }]));
    const freshLevels = met.filter(({ factor, level }) => !seenLevels.has(`${factor} ${level}`));
    const freshPairs = met.flatMap((a, at) =>
      met.slice(at + 1).flatMap((b) => (seenPairs.has(pairKey(a, b)) ? [] : [[a, b] as const])),
    );
    for (const { factor, level } of met) seenLevels.add(`${factor} ${level}`);
    for (const [a, b] of freshPairs) seenPairs.add(pairKey(a, b));
    const weight = (each: Level): number =>
      freshPairs.filter((pair) => pair.some(({ factor }) => factor === each.factor)).length +
      (freshLevels.includes(each) ? 1000 : 0);
    const telling = [...met].sort((a, b) => weight(b) - weight(a)).slice(0, MOST_IN_TITLE);
    const say = ({ factor, level }: Level): string => levelInWords(factors[factor] as Factor, level);
    const fresh = new Set(index === 0 ? [] : freshFactors(freshLevels, freshPairs));
    return {
      key: met
        .map(({ factor, level }) => `${factors[factor]?.name}=${factors[factor]?.levels[level]?.key}`)
        .sort()
        .join(' '),
      title: capital(titleOf(telling.map((each) => ({ factor: each.factor, words: say(each) })))) || 'As it always is',
      news:
        index === 0
          ? 'all of this for the first time'
          : freshLevels.length > 0
            ? `new: ${freshLevels.map(say).join(', ')}`
            : freshPairs.length === 0
              ? 'nothing new'
              : `new: ${freshPairs
                  .slice(0, 1)
                  .map(([a, b]) => `${say(a)} and ${say(b)}`)
                  .join(', ')}${freshPairs.length > 1 ? `, and ${freshPairs.length - 1} more` : ''}`,
      levels: met.map(({ factor, level }) => ({
        label: factors[factor]?.label ?? '',
        words: factors[factor]?.levels[level]?.label ?? '',
        fresh: fresh.has(factor),
      })),
    };
  });
}

/** What is new in a case: levels that no case before it has, or else those that most of its new pairs are of. */
function freshFactors(levels: readonly Level[], pairs: readonly (readonly [Level, Level])[]): number[] {
  if (levels.length > 0) return levels.map(({ factor }) => factor);
  const counts = new Map<number, number>();
  for (const { factor } of pairs.flat()) counts.set(factor, (counts.get(factor) ?? 0) + 1);
  const most = Math.max(0, ...counts.values());
  return [...counts].flatMap(([factor, count]) => (count === most ? [factor] : []));
}

/** As many of the words as fit a line, in reading order; the most telling come first. */
function titleOf(telling: readonly { readonly factor: number; readonly words: string }[]): string {
  const kept = telling.filter(
    (_, at) => at === 0 || telling.slice(0, at + 1).reduce((sum, { words }) => sum + words.length + 3, 0) <= TITLE,
  );
  return [...kept]
    .sort((a, b) => a.factor - b.factor)
    .map(({ words }) => words)
    .join(' · ');
}

interface Level {
  readonly factor: number;
  readonly level: number;
}
type Factor = Covering['factors'][number];

const pairKey = (a: Level, b: Level): string => `${a.factor} ${a.level} ${b.factor} ${b.level}`;
const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** `rain plan`, `no rain plan`, `north`, `without first name`, `several tickets`. */
function levelInWords({ label, levels }: Factor, level: number): string {
  const { key = '', label: words = '' } = levels[level] ?? {};
  const small = label.charAt(0).toLowerCase() + label.slice(1);
  switch (key) {
    case 'yes':
      return small;
    case 'no':
    case 'none':
      return `no ${small}`;
    case 'filled':
      return `with ${small}`;
    case 'empty':
      return `without ${small}`;
    case 'one':
    case 'many':
      return levels.length === 3 && levels[0]?.key === 'none'
        ? `${key === 'one' ? 'one of' : 'several'} ${small}`
        : words;
    default:
      return words.charAt(0).toLowerCase() + words.slice(1);
  }
}

/** Reasons why combinations cannot occur, each with how many it rules out, the commonest first. */
export function reasonsOf({ impossible }: Pick<Covering, 'impossible'>): { because: string; count: number }[] {
  const counts = new Map<string, number>();
  for (const { because } of impossible) counts.set(because, (counts.get(because) ?? 0) + 1);
  return [...counts].map(([because, count]) => ({ because, count })).sort((a, b) => b.count - a.count);
}
