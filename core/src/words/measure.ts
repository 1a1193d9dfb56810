/** How long a text is, and how easy to read. */
import { plainWords, type Inline, type TextDocument } from '../template/document.js';
import { childrenOf, visit } from '../template/walk.js';
import { languageOf, sentenceSegmenter } from '../values/intl.js';

/** How long a text is, and how hard to read. */
export interface Measure {
  /** A placeholder counts as one word. */
  readonly words: number;
  readonly sentences: number;
  /** How long silent reading takes, in minutes, not rounded. */
  readonly minutes: number;
  /** 0 (hard) to 100 (easy), for languages that have a formula; undefined elsewhere and for texts under 30 words. */
  readonly ease: number | undefined;
}

/**
 * Words a minute in silent reading of prose: M. Brysbaert, “How many words do we read per minute?”, Journal of Memory
 * and Language 109 (2019).
 */
const WORDS_A_MINUTE = 238;
const FEWEST_WORDS = 30;

/**
 * Reading ease by language, of words per sentence and syllables per word. English: R. Flesch (1948); German: T. Amstad
 * (1978); French: L. Kandel and A. Moles (1958); Spanish: J. Fernández Huerta (1959); Italian: V. Franchina and
 * R. Vacca (1986); Dutch: W. Douma (1960); Portuguese: T. Martins and others (1996); Russian: I. Oborneva (2006).
 */
const FORMULAS: Readonly<Record<string, (wordsPerSentence: number, syllablesPerWord: number) => number>> = {
  en: (words, syllables) => 206.835 - 1.015 * words - 84.6 * syllables,
  de: (words, syllables) => 180 - words - 58.5 * syllables,
  fr: (words, syllables) => 207 - 1.015 * words - 73.6 * syllables,
  es: (words, syllables) => 206.84 - 1.02 * words - 60 * syllables,
  it: (words, syllables) => 206 - words - 65 * syllables,
  nl: (words, syllables) => 206.84 - 0.93 * words - 77 * syllables,
  pt: (words, syllables) => 248.835 - 1.015 * words - 84.6 * syllables,
  ru: (words, syllables) => 206.835 - 1.3 * words - 60.1 * syllables,
};

const WORD = /[\p{L}\p{N}[](?:[\p{L}\p{N}\p{M}'’\-_\]]|(?<=\p{N})[.,](?=\p{N}))*/gu;

/** Measures the lines of a text's body and subject; wordings are not among them, since only one is read. */
export function measure(document: TextDocument, locale: string): Measure {
  const lines: string[] = [];
  visit(document, (node) => {
    if (node.type === 'paragraph' || node.type === 'heading')
      lines.push(plainWords(childrenOf(node) as readonly Inline[]));
  });
  return measureLines(lines, locale);
}

/** Measures lines, each of which ends a sentence. */
export function measureLines(lines: readonly string[], locale: string): Measure {
  const language = languageOf(locale);
  let words = 0;
  let sentences = 0;
  let syllables = 0;
  for (const line of lines) {
    const found = line.match(WORD) ?? [];
    if (found.length === 0) continue;
    words += found.length;
    sentences += sentencesIn(line, locale);
    for (const word of found) syllables += syllablesIn(word, language);
  }
  const formula = Object.hasOwn(FORMULAS, language) ? FORMULAS[language] : undefined;
  const ease = formula && words >= FEWEST_WORDS ? formula(words / sentences, syllables / words) : undefined;
  return {
    words,
    sentences,
    minutes: words / WORDS_A_MINUTE,
    ease: ease === undefined ? undefined : Math.round(Math.max(0, Math.min(100, ease))),
  };
}

/** Sentences of a line by the rules of its language; what has no words is none. */
function sentencesIn(line: string, locale: string): number {
  let count = 0;
  for (const { segment } of sentenceSegmenter(locale).segment(line)) if (/[\p{L}\p{N}]/u.test(segment)) count += 1;
  return count;
}

const VOWELS = /[aeiouyáàâäãåæéèêëíìîïóòôöõøœúùûüýÿаеёиоуыэюя]+/gi;
/** Vowels that stand side by side and are spoken apart, or letters that are seen and not heard. */
const SILENT: Readonly<Record<string, RegExp>> = {
  en: /(?:[^laeiouy]e|[^aeiouy]es|[^tdaeiouy]ed)$/i,
  fr: /(?:e|es|ent)$/i,
};

/** Syllables, by the vowels that are heard: an estimate, as all such formulas rest on. */
function syllablesIn(word: string, language: string): number {
  const groups = language === 'ru' ? (word.match(/[аеёиоуыэюя]/gi)?.length ?? 0) : (word.match(VOWELS)?.length ?? 0);
  const silent = groups > 1 && SILENT[language]?.test(word) ? 1 : 0;
  return Math.max(1, groups - silent);
}
