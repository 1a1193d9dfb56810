import { plainWords, type Inline } from '../template/document.js';
import { fold } from '../words/fold.js';
import { sentenceSegmenter } from '../values/intl.js';

/** What became of a sentence in one message. What was left out with its passage is not counted at all. */
export type Fate =
  { readonly kind: 'kept' } | { readonly kind: 'reworded'; readonly words: string } | { readonly kind: 'taken out' };
/** What became of the sentences of a line, in their order, and what was written besides. */
export interface LineFates {
  readonly sentences: readonly { readonly words: string; readonly fate: Fate }[];
  /** Each with the sentence that it stands behind, by its index; -1 before the first. */
  readonly added: readonly { readonly words: string; readonly after: number }[];
}
/** Replacements that say the same. */
export interface SameWords {
  /** As it was written most often; of equals, the first in the alphabet. */
  readonly words: string;
  readonly count: number;
  /** Every wording in it, with how often it was written, most often first. */
  readonly all: readonly { readonly words: string; readonly count: number }[];
}

/** From this share of its words on, in the same order, a changed sentence is the same one. */
const SAME_SENTENCE = 0.8;
/** From this share on, two replacements say the same. */
const SAME_REPLACEMENT = 0.85;
/** Below this share, new words have nothing to do with the old ones. */
const AKIN = 0.3;
/** What a placeholder is in a fingerprint, whatever it is called. */
const MARK = '[]';

/** The sentences of a line, placeholders in brackets. */
export const sentencesOf = (line: readonly Inline[], locale: string): string[] =>
  segmentsOf(line, locale).map(({ words }) => words.trim());

/** Where the sentences of a line stand in its plain words, white space around them included. None ends in a placeholder. */
function segmentsOf(line: readonly Inline[], locale: string): { readonly index: number; readonly words: string }[] {
  const inside = new Set<number>();
  let start = 0;
  for (const node of line) {
    const end = start + plainWords([node]).length;
    if (node.type !== 'text') for (let at = start + 1; at < end; at += 1) inside.add(at);
    start = end;
  }
  const segments: { index: number; words: string }[] = [];
  for (const { index, segment } of sentenceSegmenter(locale).segment(plainWords(line))) {
    const last = segments.at(-1);
    if (last && inside.has(index)) last.words += segment;
    else segments.push({ index, words: segment });
  }
  return segments.filter(({ words }) => words.trim() !== '');
}

/** A line in pieces: its sentences, and what stands before each and behind the last, mostly spaces. */
export interface SentencePieces {
  readonly sentences: readonly (readonly Inline[])[];
  /** One more than there are sentences. */
  readonly gaps: readonly (readonly Inline[])[];
}
/** A line in pieces, marks kept: all of them after each other are the line. */
export function sentencePieces(line: readonly Inline[], locale: string): SentencePieces {
  const ends = segmentsOf(line, locale).flatMap(({ index, words }) => [
    index + words.length - words.trimStart().length,
    index + words.trimEnd().length,
  ]);
  const pieces: Inline[][] = Array.from({ length: ends.length + 1 }, () => []);
  let start = 0;
  let piece = 0;
  for (const node of line) {
    const end = start + plainWords([node]).length;
    let from = start;
    // What is no text is never cut: it belongs to where it begins.
    while (piece < ends.length && (ends[piece] ?? 0) < end && (node.type === 'text' || (ends[piece] ?? 0) <= from)) {
      const to = ends[piece] ?? 0;
      if (node.type === 'text' && to > from)
        pieces[piece]?.push({ ...node, text: node.text.slice(from - start, to - start) });
      from = Math.max(from, to);
      piece += 1;
    }
    if (node.type !== 'text') pieces[piece]?.push(node);
    else if (from < end) pieces[piece]?.push({ ...node, text: node.text.slice(from - start) });
    start = end;
  }
  return {
    sentences: pieces.filter((_, at) => at % 2 === 1),
    gaps: pieces.filter((_, at) => at % 2 === 0),
  };
}
/** Pieces as a line again. */
export const joinPieces = ({ sentences, gaps }: SentencePieces): readonly Inline[] =>
  gaps.flatMap((gap, at) => [...gap, ...(sentences[at] ?? [])]);
/**
 * A line with one of its sentences in other words; everything else of it stays as it is, marks included.
 * @param at its place among the sentences of the line
 * @param instead the words, placeholders in brackets: those that the line has stay placeholders
 */
export function withSentence(line: readonly Inline[], at: number, instead: string, locale: string): readonly Inline[] {
  const { sentences, gaps } = sentencePieces(line, locale);
  if (at < 0 || at >= sentences.length) return line;
  return joinPieces({ gaps, sentences: sentences.with(at, wordsToLine(instead, line)) });
}
/** Words as content of a line: what stands in brackets is the placeholder of that name, where the line has one. */
export const wordsToLine = (words: string, line: readonly Inline[]): Inline[] =>
  words.split(/(\[[^\]]*\])/).flatMap((part): Inline[] => {
    if (part === '') return [];
    const known = line.find((node) => node.type === 'placeholder' && `[${node.attrs.name}]` === part);
    return [known ?? { type: 'text', text: part }];
  });

/** By what a sentence is found again: its folded words, with one mark for every placeholder. */
export const fingerprintOf = (sentence: string): string => wordsOf(sentence).join(' ');

const wordsOf = (sentence: string): string[] =>
  (fold(sentence).match(/\[[^\]]*\]|[\p{L}\p{N}\p{M}]+/gu) ?? []).map((word) => (word.startsWith('[') ? MARK : word));

/** The share of words, of the longer of two, that both have in the same order (longest common subsequence); 0 to 1. */
export function sharedWords(a: readonly string[], b: readonly string[]): number {
  if (a.length === 0 || b.length === 0) return a.length === b.length ? 1 : 0;
  let above = Array<number>(b.length + 1).fill(0);
  for (const word of a) {
    const row = [0];
    for (const [at, other] of b.entries())
      row.push(word === other ? (above[at] ?? 0) + 1 : Math.max(above[at + 1] ?? 0, row[at] ?? 0));
    above = row;
  }
  return (above[b.length] ?? 0) / Math.max(a.length, b.length);
}

/** Whether a sentence of one version is the same in another: it may have changed a little. */
export const isSameSentence = (a: string, b: string): boolean =>
  a === b || sharedWords(wordsOf(a), wordsOf(b)) >= SAME_SENTENCE;

/**
 * What became of the sentences of a line that was changed by hand: those that stand unchanged are found first, in order,
 * then those that stand unchanged elsewhere; between them, each takes what is most like it, and what is like none takes
 * the place of what stood there.
 * @param after what was written instead; null where the line was taken out
 */
export function fatesOf(before: readonly Inline[], after: readonly Inline[] | null, locale: string): LineFates {
  const old = sentencesOf(before, locale);
  const now = after === null ? [] : sentencesOf(after, locale);
  const pairs = unchanged(old, now);
  const fates: (Fate | undefined)[] = old.map(() => undefined);
  const taken = new Set(pairs.map(([, nowAt]) => nowAt));
  for (const [at] of pairs) fates[at] = { kind: 'kept' };
  for (const [at, sentence] of old.entries()) {
    const moved = fates[at] ? -1 : now.findIndex((each, nowAt) => each === sentence && !taken.has(nowAt));
    if (moved < 0) continue;
    fates[at] = { kind: 'kept' };
    taken.add(moved);
  }
  const added: { words: string; after: number }[] = [];
  let [from, nowFrom] = [0, 0];
  for (const [at, nowAt] of [...pairs, [old.length, now.length] as const]) {
    const open = range(from, at).filter((each) => !fates[each]);
    const fresh = range(nowFrom, nowAt).flatMap((each) => (taken.has(each) ? [] : [now[each] ?? '']));
    const told = between(
      open.map((each) => old[each] ?? ''),
      fresh,
    );
    for (const [index, each] of open.entries()) fates[each] = told.fates[index];
    added.push(...told.added.map((words) => ({ words, after: at - 1 })));
    [from, nowFrom] = [at + 1, nowAt + 1];
  }
  return { sentences: old.map((words, at) => ({ words, fate: fates[at] ?? { kind: 'taken out' } })), added };
}
const range = (from: number, to: number): number[] =>
  Array.from({ length: Math.max(0, to - from) }, (_, at) => from + at);

/** Places of sentences that both have, in the same order. */
function unchanged(old: readonly string[], now: readonly string[]): (readonly [number, number])[] {
  const best: (readonly [number, number])[][] = Array.from({ length: now.length + 1 }, () => []);
  for (const [at, sentence] of old.entries())
    for (let nowAt = now.length - 1; nowAt >= 0; nowAt -= 1) {
      if (now[nowAt] !== sentence) continue;
      // The longest run of pairs that ends before this place.
      const before = best.slice(0, nowAt + 1).reduce((long, each) => (each.length > long.length ? each : long), []);
      if (before.length + 1 > (best[nowAt + 1]?.length ?? 0)) best[nowAt + 1] = [...before, [at, nowAt]];
    }
  return best.reduce((long, each) => (each.length > long.length ? each : long), []);
}

/** Pairs what stood between two kept sentences with what stands there now. */
function between(
  old: readonly string[],
  now: readonly string[],
): { readonly fates: readonly Fate[]; readonly added: readonly string[] } {
  const fates: Fate[] = old.map(() => ({ kind: 'taken out' }));
  const left = new Set(now.keys());
  const open = new Set(old.keys());
  const likes = old
    .flatMap((was, at) => now.map((is, nowAt) => ({ at, nowAt, like: sharedWords(wordsOf(was), wordsOf(is)) })))
    .filter(({ like }) => like >= AKIN)
    .sort((a, b) => b.like - a.like || a.at - b.at || a.nowAt - b.nowAt);
  for (const { at, nowAt } of likes) {
    if (!open.has(at) || !left.has(nowAt)) continue;
    open.delete(at);
    left.delete(nowAt);
    fates[at] = { kind: 'reworded', words: now[nowAt] ?? '' };
  }
  // What is like nothing stands where the first of what is gone stood.
  const rest = [...left].map((at) => now[at] ?? '');
  const [first] = open;
  if (first === undefined || rest.length === 0) return { fates, added: rest };
  fates[first] = { kind: 'reworded', words: rest.join(' ') };
  return { fates, added: [] };
}

/** Groups replacements that say the same, most frequent first; the order of the list does not matter. */
export function sameReplacements(replacements: readonly string[]): SameWords[] {
  const counted = new Map<string, number>();
  for (const words of replacements) counted.set(words, (counted.get(words) ?? 0) + 1);
  const distinct = [...counted]
    .map(([words, count]) => ({ words, count }))
    .sort((a, b) => b.count - a.count || (a.words < b.words ? -1 : 1));
  const groups: { readonly words: readonly string[]; readonly all: { words: string; count: number }[] }[] = [];
  for (const each of distinct) {
    const words = wordsOf(each.words);
    const group = groups.find((other) => sharedWords(other.words, words) >= SAME_REPLACEMENT);
    if (group) group.all.push(each);
    else groups.push({ words, all: [each] });
  }
  return groups
    .map(({ all }) => ({ words: all[0]?.words ?? '', count: all.reduce((sum, { count }) => sum + count, 0), all }))
    .sort((a, b) => b.count - a.count || (a.words < b.words ? -1 : 1));
}
