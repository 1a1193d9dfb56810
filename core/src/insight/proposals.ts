/**
 * What messages that people changed by hand propose to change in their template. Each is weighed by what it saves of the
 * shortest description of all messages (minimum description length; Rissanen 1978): words that are typed anew each time
 * cost more than a question that is asked once and answered each time.
 */
import { leastSupport } from '../derive/support.js';
import { labelOfChoice, labelOfText, optionsFor } from '../derive/labels.js';
import { DEFAULT_LOCALE } from '../house/house.js';
import { inlineOf, replaceAt } from '../filling/index.js';
import { condition } from '../template/condition.js';
import type { Inline, Node, TextDocument } from '../template/document.js';
import { keyFromLabel } from '../template/keys.js';
import { normalise } from '../template/normalise.js';
import type { Variable } from '../template/variable.js';
import { nodeAt } from '../template/walk.js';
import { rate } from './rate.js';
import { isSameSentence, joinPieces, sentencePieces, sentencesOf, wordsToLine } from './rewording.js';

/** A sentence's place: a text, its line there, and its index among the line's sentences. */
export interface SentencePlace {
  readonly text: string;
  readonly path: readonly number[];
  /** Of what was added: the sentence it stands behind; -1 for the line's beginning. */
  readonly at: number;
}
/** What became of a sentence in the messages that showed it. */
export interface SentenceFigures extends SentencePlace {
  readonly words: string;
  readonly shown: number;
  readonly takenOut: number;
  /** What was written instead, most often first. */
  readonly replacements: readonly { readonly words: string; readonly count: number }[];
}
/** A sentence that was written in addition, in so many of the messages that showed its place. */
export interface AddedSentence {
  readonly words: string;
  readonly count: number;
  readonly of: number;
  readonly place?: SentencePlace | undefined;
}
/**
 * A change that messages propose: other words, both wordings to choose from, a sentence that is there sometimes, and a
 * new one, always or sometimes.
 */
export interface Proposal extends SentencePlace {
  readonly kind: 'replace' | 'choose' | 'optional' | 'add' | 'add sometimes';
  /** The sentence it is about; of a new one, that it stands behind. */
  readonly words: string;
  /** The new words; empty where there are none. */
  readonly instead: string;
  /** Further wordings to choose from. */
  readonly also?: readonly string[];
  /** How many of the messages did so. */
  readonly count: number;
  readonly of: number;
  /** What it saves, in bits. */
  readonly saves: number;
}

/** What a word costs to be written anew, a change by hand to be made, and a question to be put, in bits. */
const WORD = 10;
const ACT = 12;
const QUESTION = 24;
/** More wordings than these beside the template's own are not offered. */
const MOST_WORDINGS = 5;
/** One message that differs is an oddity of that message, as are very few of many. */
const isOdd = (count: number, of: number): boolean => count < Math.max(2, leastSupport(of));

const cost = (words: string): number => WORD * words.split(/\s+/).filter(Boolean).length;
/** Bits that answering the same question in so many messages takes (Shannon's entropy of the answers). */
function answers(count: number, of: number): number {
  const share = Math.min(1, count / of);
  const part = (p: number): number => (p <= 0 ? 0 : -p * Math.log2(p));
  return of * (part(share) + part(1 - share));
}
/** Whether most people do so, as far as one can be sure: the lower end of the interval is half and more. */
const mostDo = (count: number, of: number): boolean => rate(Math.min(count, of), of).low >= 0.5;

/** What messages propose, what saves most first. What saves nothing is not proposed. */
export function proposalsOf(sentences: readonly SentenceFigures[], added: readonly AddedSentence[]): Proposal[] {
  const all = [...sentences.flatMap(ofSentence), ...added.flatMap(ofAddition)];
  return all.filter(({ saves, count, of }) => saves > 0 && !isOdd(count, of)).sort((a, b) => b.saves - a.saves);
}

function ofSentence({ text, path, at, words, shown, takenOut, replacements }: SentenceFigures): Proposal[] {
  const place = { text, path, at, words, of: shown };
  const [first] = replacements;
  const out: Proposal[] = [];
  if (first) {
    // Those who kept the words may have had no time to change them, so that most people's words stand for all.
    if (mostDo(first.count, shown)) {
      const saves = first.count * cost(first.words) - Math.max(0, cost(first.words) - cost(words));
      out.push({ ...place, kind: 'replace', instead: first.words, count: first.count, saves });
    } else {
      const often = replacements.filter((each) => each === first || !isOdd(each.count, shown)).slice(0, MOST_WORDINGS);
      const count = often.reduce((sum, each) => sum + each.count, 0);
      const typed = often.reduce((sum, each) => sum + (each.count - 1) * cost(each.words), 0);
      const also = often.slice(1).map((each) => each.words);
      const saves = typed - QUESTION - answers(count, shown);
      out.push({ ...place, kind: 'choose', instead: first.words, ...(also.length > 0 ? { also } : {}), count, saves });
    }
  }
  const spent = QUESTION + answers(takenOut, shown);
  out.push({ ...place, kind: 'optional', instead: '', count: takenOut, saves: takenOut * ACT - spent });
  return out;
}

function ofAddition({ words, count, of, place }: AddedSentence): Proposal[] {
  if (!place) return [];
  const always = mostDo(count, of);
  const spent = cost(words) + (always ? 0 : QUESTION + answers(count, of));
  const kind = always ? 'add' : 'add sometimes';
  return [{ ...place, kind, words: '', instead: words, count, of, saves: count * cost(words) - spent }];
}

/** First the words of a sentence, then whether it is there, then what stands behind it. */
const ORDER: readonly Proposal['kind'][] = ['replace', 'choose', 'optional', 'add', 'add sometimes'];

/**
 * A text with proposals put into it.
 * @returns the document, and those that it no longer has a place for
 */
export function withProposals(
  document: TextDocument,
  proposals: readonly Proposal[],
): { readonly document: TextDocument; readonly left: readonly Proposal[] } {
  const left: Proposal[] = [];
  const lines = new Map<string, Proposal[]>();
  for (const each of proposals) {
    const key = each.path.join('.');
    lines.set(key, [...(lines.get(key) ?? []), each]);
  }
  let changed = document;
  for (const [, all] of [...lines].sort(([a], [b]) => (a < b ? -1 : 1))) {
    const sorted = all.toSorted((a, b) => a.at - b.at || ORDER.indexOf(a.kind) - ORDER.indexOf(b.kind));
    changed = inLine(changed, sorted, left);
  }
  return { document: changed === document ? document : normalise(changed), left };
}

/** Puts proposals into the line that they are about; those that it has no place for go to `left`. */
function inLine(document: TextDocument, proposals: readonly Proposal[], left: Proposal[]): TextDocument {
  const path = proposals[0]?.path ?? [];
  const locale = document.attrs.front.locale ?? DEFAULT_LOCALE;
  const node = nodeAt(document, path);
  const line = node ? inlineOf(node) : [];
  const words = sentencesOf(line, locale);
  const pieces = sentencePieces(line, locale);
  const sentences = pieces.sentences.map((each) => [...each]);
  const gaps = pieces.gaps.map((each) => [...each]);
  const variables = [...document.attrs.variables];
  for (const proposal of proposals) {
    const { kind, at } = proposal;
    const isNew = kind === 'add' || kind === 'add sometimes';
    if (isNew ? at >= words.length || words.length === 0 : !isSameSentence(words[at] ?? '', proposal.words)) {
      left.push(proposal);
      continue;
    }
    const made = variableFor(proposal, variables, line);
    if (made) variables.push(made);
    const content = sentenceFor(proposal, sentences[at] ?? [], wordsToLine(proposal.instead, line), made);
    if (isNew) gaps[at + 1]?.unshift(...content);
    else sentences[at] = [...content];
  }
  const content = joinPieces({ sentences, gaps });
  return replaceAt(
    { ...document, attrs: { ...document.attrs, variables } },
    path,
    (each) => ({ ...each, content }) as Node & { content: readonly Inline[] },
  );
}

/** The question that a proposal asks, under a key that is free. */
function variableFor(
  { kind, words, instead, also = [], count, of }: Proposal,
  variables: readonly Variable[],
  line: readonly Inline[],
): Variable | undefined {
  if (kind === 'replace' || kind === 'add') return undefined;
  const taken = new Set(variables.map(({ key }) => key));
  const often = count * 2 > of;
  if (kind !== 'choose') {
    const label = labelOfText(kind === 'optional' ? words : instead);
    const isUsual = kind === 'optional' ? !often : often;
    return { key: keyFromLabel(label, taken), type: 'yes-no', label, default: String(isUsual) };
  }
  const wordings = [words, instead, ...also];
  const options = optionsFor(wordings).map((option, at) => ({
    ...option,
    wording: wordsToLine(wordings[at] ?? '', line),
  }));
  const label = labelOfChoice(options);
  const usual = options[often ? 1 : 0]?.key ?? '';
  return { key: keyFromLabel(label, taken), type: 'choice', label, options, default: usual };
}

/** What stands in the place of a sentence, or behind one. */
function sentenceFor(
  { kind, at }: Proposal,
  own: readonly Inline[],
  fresh: readonly Inline[],
  made: Variable | undefined,
): readonly Inline[] {
  const space: Inline = { type: 'text', text: ' ' };
  const added = at < 0 ? [...fresh, space] : [space, ...fresh];
  const sometimes = (nodes: readonly Inline[]): Inline[] =>
    nodes.map((node) => ({
      ...node,
      marks: [{ type: 'phrase', attrs: condition(made?.key ?? '') }, ...(node.marks ?? [])],
    }));
  switch (kind) {
    case 'replace':
      return fresh;
    case 'choose':
      return [{ type: 'placeholder', attrs: { name: made?.key ?? '', view: '' } }];
    case 'optional':
      return sometimes(own);
    case 'add':
      return added;
    case 'add sometimes':
      return sometimes(added);
  }
}
