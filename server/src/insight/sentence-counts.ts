/** Counts what happened to each sentence of a text: how often it was sent, reworded or taken out. */
import type { SentenceInsight, TextInsight } from '@vocabula/contract';
import { bodyOf, nodeAt, visit, type Inline, type NamedDocument, type TextDocument } from '@vocabula/core';
import { inlineOf, type Rewording } from '@vocabula/core/filling';
import { fatesOf, isSameSentence, sameReplacements, sentencesOf } from '@vocabula/core/insight';
import type { SentMessage, traceOf } from './sent-messages.js';

type AddedSentence = TextInsight['added'][number];

/** A line of a document: the text it belongs to and its path there. */
interface Line {
  readonly text: string;
  readonly path: readonly number[];
}
/** Where a sentence was added: behind one of a line, -1 for its beginning; and a sentence that was shown there. */
interface Place {
  readonly line: Line;
  readonly at: number;
  readonly shown: SentenceCount;
}
/** A sentence of the current texts with its counts so far. */
interface SentenceCount {
  readonly sentence: Pick<SentenceInsight, 'text' | 'path' | 'at' | 'words'>;
  shown: number;
  takenOut: number;
  /** The words that replaced it, one entry for each message that reworded it. */
  readonly rewordings: string[];
}

const keyOf = ({ text, path }: Line): string => `${text} ${path.join('.')}`;

export class SentenceCounts {
  private readonly counts: readonly SentenceCount[];
  private readonly added: { readonly words: string; readonly place: Place | undefined }[] = [];
  /** Cache: indexes of the current sentences that a line of an earlier version holds, by version and line. */
  private readonly indexesByLine = new Map<string, readonly number[]>();

  /**
   * @param texts  The text and its blocks in their current versions.
   * @param locale Language of the text, for the ends of sentences.
   */
  constructor(
    texts: readonly NamedDocument[],
    private readonly locale: string,
  ) {
    this.counts = texts.flatMap(({ name, document }) =>
      linesOf(name, document).flatMap(({ path, line }) =>
        sentencesOf(line, locale).map((words, at) => ({
          sentence: { text: name, path, at, words },
          shown: 0,
          takenOut: 0,
          rewordings: [],
        })),
      ),
    );
  }

  /** Counts one message. Sentences of passages that were left out of it do not count. */
  add(message: SentMessage, trace: ReturnType<typeof traceOf>): void {
    const shown = linesShown(message, trace);
    for (const line of shown.values())
      for (const index of this.indexesOf(message, line)) {
        const count = this.counts[index];
        if (count) count.shown += 1;
      }
    for (const change of message.changes.reworded) if (shown.has(keyOf(change))) this.addRewording(change);
  }

  /** The sentences in the order of the texts. */
  result(): SentenceInsight[] {
    return this.counts.map(({ sentence, shown, takenOut, rewordings }) => ({
      ...sentence,
      shown,
      takenOut,
      reworded: rewordings.length,
      replacements: sameReplacements(rewordings).map((each) => ({ ...each, all: [...each.all] })),
    }));
  }

  /** Sentences that were written in addition, the most frequent first, each where it was written most often. */
  additions(): AddedSentence[] {
    return sameReplacements(this.added.map(({ words }) => words)).map(({ words, count, all }) => {
      const same = new Set(all.map((each) => each.words));
      const places = this.added.flatMap((each) => (same.has(each.words) && each.place ? [each.place] : []));
      const place = mostFrequent(places, ({ line, at }) => `${keyOf(line)} ${at}`);
      if (!place) return { words, count, of: 0 };
      const { text, path } = place.line;
      return { words, count, of: place.shown.shown, place: { text, path, at: place.at } };
    });
  }

  private indexesOf({ version, texts }: SentMessage, line: Line): readonly number[] {
    const key = `${version} ${keyOf(line)}`;
    const cached = this.indexesByLine.get(key);
    if (cached) return cached;
    const document = texts.find(({ name }) => name === line.text)?.document;
    const node = document && nodeAt(document, line.path);
    const indexes = (node ? sentencesOf(inlineOf(node), this.locale) : [])
      .map((words) => this.indexOf(line, words))
      .filter((index) => index >= 0);
    this.indexesByLine.set(key, indexes);
    return indexes;
  }

  /** Index of the current sentence with these words: in the same line if there is one, else anywhere in the text; or -1. */
  private indexOf(line: Line, words: string): number {
    const isSame = ({ sentence }: SentenceCount): boolean =>
      sentence.text === line.text && isSameSentence(sentence.words, words);
    const inLine = this.counts.findIndex((count) => keyOf(count.sentence) === keyOf(line) && isSame(count));
    return inLine >= 0 ? inLine : this.counts.findIndex(isSame);
  }

  private addRewording(change: Rewording): void {
    const { sentences, added } = fatesOf(change.before, change.after, this.locale);
    for (const { words, after } of added) {
      const behind = this.counts[this.indexOf(change, sentences[after]?.words ?? '')];
      const first = after < 0 ? this.counts[this.indexOf(change, sentences[0]?.words ?? '')] : undefined;
      const count = behind ?? first;
      const place = count && { line: count.sentence, at: count.sentence.at - (behind ? 0 : 1), shown: count };
      this.added.push({ words, place });
    }
    for (const { words, fate } of sentences) {
      const count = this.counts[this.indexOf(change, words)];
      if (!count) continue;
      if (fate.kind === 'reworded') count.rewordings.push(fate.words);
      if (fate.kind === 'taken out') count.takenOut += 1;
    }
  }
}

/** The one that there is most often, by its key; of equals the first. */
function mostFrequent<T>(all: readonly T[], keyFor: (each: T) => string): T | undefined {
  const counts = new Map<string, number>();
  for (const each of all) counts.set(keyFor(each), (counts.get(keyFor(each)) ?? 0) + 1);
  return all.toSorted((a, b) => (counts.get(keyFor(b)) ?? 0) - (counts.get(keyFor(a)) ?? 0))[0];
}

/** The lines of a document that hold words. */
function linesOf(text: string, document: TextDocument): (Line & { readonly line: readonly Inline[] })[] {
  const lines: (Line & { readonly line: readonly Inline[] })[] = [];
  if (bodyOf(document).length === 0) return lines;
  visit(document, (node, path) => {
    const line = inlineOf(node);
    if (line.length > 0) lines.push({ text, path: [...path], line });
  });
  return lines;
}

/** The lines that a message shows, by key. */
function linesShown({ texts }: SentMessage, trace: ReturnType<typeof traceOf>): Map<string, Line> {
  const lines = new Map<string, Line>();
  for (const { origin } of trace) {
    const document = texts.find(({ name }) => name === origin.text)?.document;
    const path = document && linePathOf(document, origin.path);
    if (path) lines.set(keyOf({ text: origin.text, path }), { text: origin.text, path });
  }
  return lines;
}

/** Path of the line around a place; undefined if the place is in no line. */
function linePathOf(document: TextDocument, path: readonly number[]): readonly number[] | undefined {
  for (let length = path.length; length > 0; length -= 1) {
    const node = nodeAt(document, path.slice(0, length));
    if (node && inlineOf(node).length > 0) return path.slice(0, length);
  }
  return undefined;
}
