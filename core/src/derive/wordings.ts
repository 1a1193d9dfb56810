/** Compares several wordings of one place token by token: what all share, and the gaps in which they differ. */
import { diffArrays } from 'diff';
import { isValue, sequenceKey, type Token } from './tokens.js';

/** Wordings by the index of their mail. */
export type Wordings = ReadonlyMap<number, readonly Token[]>;
/** A stretch that all wordings share, or a gap with what each of them has there, which may be nothing. */
export type Piece =
  | { readonly kind: 'shared'; readonly tokens: readonly Token[] }
  | { readonly kind: 'gap'; readonly wordings: Wordings };

/** A word up to this length between two gaps is taken for a coincidence. */
const COINCIDENCE = 3;
/** With more different fillers than this, a gap holds free text rather than a few alternatives. */
const FEW = 3;

/** One of the different wordings. */
interface Variant {
  readonly tokens: readonly Token[];
  readonly mails: number[];
  /** For each token of the reference its index in this wording, or -1. */
  places: readonly number[];
}

/** Splits wordings into shared stretches and gaps. The most frequent wording is the reference. */
export function compareWordings(wordings: Wordings): Piece[] {
  const variants = distinctVariants(wordings);
  const reference = variants[0]?.tokens ?? [];
  if (variants.length <= 1) return reference.length > 0 ? [{ kind: 'shared', tokens: reference }] : [];
  for (const variant of variants) variant.places = placesIn(reference, variant.tokens);
  const shared = [...reference.keys()].filter((at) => variants.every(({ places }) => (places[at] ?? -1) >= 0));
  const anchors = withoutCoincidences(shared, reference, variants);
  const pieces: Piece[] = [];
  let before = -1;
  for (const anchor of [...anchors, reference.length]) {
    const filling = variants.map((variant) => ({
      variant,
      tokens: between(variant, before, anchor, reference.length),
    }));
    if (filling.some(({ tokens }) => tokens.length > 0))
      pieces.push({
        kind: 'gap',
        wordings: new Map(
          filling.flatMap(({ variant, tokens }) => variant.mails.map((mail) => [mail, tokens] as const)),
        ),
      });
    const token = reference[anchor];
    const last = pieces.at(-1);
    if (token && last?.kind === 'shared') pieces[pieces.length - 1] = { ...last, tokens: [...last.tokens, token] };
    else if (token) pieces.push({ kind: 'shared', tokens: [token] });
    before = anchor;
  }
  return pieces;
}

/** The different wordings, the most frequent first; ties are broken by their text. */
function distinctVariants(wordings: Wordings): Variant[] {
  const variants = new Map<string, Variant>();
  for (const [mail, tokens] of wordings) {
    const key = sequenceKey(tokens);
    const known = variants.get(key);
    if (known) known.mails.push(mail);
    else variants.set(key, { tokens, mails: [mail], places: [] });
  }
  return [...variants]
    .sort(([a, x], [b, y]) => y.mails.length - x.mails.length || (a < b ? -1 : 1))
    .map(([, variant]) => variant);
}

/** For each token of the reference its index in a wording, or -1 (E. W. Myers 1986, by `diff`). */
function placesIn(reference: readonly Token[], tokens: readonly Token[]): number[] {
  const places: number[] = [];
  let at = 0;
  const keys = (list: readonly Token[]): string[] => list.map(({ key }) => key);
  for (const { added, removed, count = 0 } of diffArrays(keys(reference), keys(tokens))) {
    if (added) at += count;
    else for (let each = 0; each < count; each += 1) places.push(removed ? -1 : at++);
  }
  return places;
}
/** What a wording has between two anchors; -1 stands for its start, `end` for its end. */
const between = ({ tokens, places }: Variant, from: number, to: number, end: number): readonly Token[] =>
  tokens.slice(from < 0 ? 0 : (places[from] ?? 0) + 1, to >= end ? tokens.length : (places[to] ?? 0));

/**
 * Removes anchors that all wordings share by coincidence: a space or one short word between two gaps of which neither
 * holds a value. Without this, “Ann Marie Lee” and “Bo van Os” would be three gaps instead of one.
 */
function withoutCoincidences(
  anchors: readonly number[],
  reference: readonly Token[],
  variants: readonly Variant[],
): readonly number[] {
  const gap = (from: number, to: number): (readonly Token[])[] =>
    variants.map((variant) => between(variant, from, to, reference.length));
  let left = anchors;
  for (;;) {
    const runs = runsOf(left, (from, to) => gap(from, to).some((tokens) => tokens.length > 0));
    const coincidence = runs.find(({ from, to }, index) =>
      isCoincidence(
        reference.slice(from, to + 1),
        gap(runs[index - 1]?.to ?? -1, from),
        gap(to, runs[index + 1]?.from ?? reference.length),
      ),
    );
    if (!coincidence) return left;
    left = left.filter((at) => at < coincidence.from || at > coincidence.to);
  }
}
type Fillers = readonly (readonly Token[])[];
function isCoincidence(tokens: readonly Token[], before: Fillers, after: Fillers): boolean {
  const words = tokens.filter(({ kind }) => kind === 'word');
  const short =
    words.length <= 1 &&
    tokens.every(({ kind, text }) => kind === 'space' || (kind === 'word' && text.length <= COINCIDENCE));
  const varies = (fillers: Fillers): boolean => fillers.some((filler) => filler.length > 0);
  const holdsValue = (fillers: Fillers): boolean =>
    fillers.every(([first, ...rest]) => first !== undefined && rest.length === 0 && isValue(first));
  if (!short || !varies(before) || !varies(after) || holdsValue(before) || holdsValue(after)) return false;
  const many = (fillers: Fillers): boolean => new Set(fillers.map(sequenceKey)).size > FEW;
  // Between few alternatives on both sides a space separates two decisions: “ticket is”, “tickets are”.
  return words.length === 0 ? many(before) || many(after) : many(before) && many(after);
}

/** Groups anchors that are adjacent in every wording. */
function runsOf(
  anchors: readonly number[],
  isGapBetween: (from: number, to: number) => boolean,
): { readonly from: number; readonly to: number }[] {
  const runs: { from: number; to: number }[] = [];
  for (const at of anchors) {
    const last = runs.at(-1);
    if (last && !isGapBetween(last.to, at)) last.to = at;
    else runs.push({ from: at, to: at });
  }
  return runs;
}

/**
 * Splits a gap in which some wordings end in the same words: what varies, and an ending that is there or not. Only a
 * split that leaves fewer different wordings is made; the best leaves fewest, then the longest ending.
 * @param least how many mails must have the ending, and how many must not
 */
export function splitOptionalEnding(wordings: Wordings, least: number): readonly [Wordings, Wordings] | undefined {
  const distinct = [...new Map([...wordings.values()].map((tokens) => [sequenceKey(tokens), tokens])).values()];
  if (distinct.length < 3) return undefined;
  let best: { readonly ending: readonly Token[]; readonly left: number } | undefined;
  for (const tokens of distinct)
    for (let from = 0; from < tokens.length; from += 1) {
      const ending = tokens.slice(from);
      // One word could be the end of anything.
      if (ending.filter(({ kind }) => kind === 'word').length < 2) break;
      const having = [...wordings.values()].filter((other) => endsWith(other, ending)).length;
      if (having < least || wordings.size - having < least) continue;
      const left = new Set(distinct.map((other) => sequenceKey(withoutEnding(other, ending)))).size;
      const better = !best || left < best.left || (left === best.left && ending.length > best.ending.length);
      if (left < distinct.length && better) best = { ending, left };
    }
  if (!best) return undefined;
  const { ending } = best;
  const each = (make: (tokens: readonly Token[]) => readonly Token[]): Wordings =>
    new Map([...wordings].map(([mail, tokens]) => [mail, make(tokens)]));
  return [each((tokens) => withoutEnding(tokens, ending)), each((tokens) => (endsWith(tokens, ending) ? ending : []))];
}
const endsWith = (tokens: readonly Token[], ending: readonly Token[]): boolean =>
  tokens.length >= ending.length &&
  ending.every(({ key }, at) => tokens[tokens.length - ending.length + at]?.key === key);
const withoutEnding = (tokens: readonly Token[], ending: readonly Token[]): readonly Token[] =>
  endsWith(tokens, ending) ? tokens.slice(0, tokens.length - ending.length) : tokens;
