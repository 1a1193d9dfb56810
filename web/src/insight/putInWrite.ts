/** Replaces a sentence in the working copy of its text. */
import type { SentenceInsight } from '@vocabula/contract';
import { DEFAULT_LOCALE, nodeAt, type Inline, type Node, type TextDocument } from '@vocabula/core';
import { inlineOf, replaceAt } from '@vocabula/core/filling';
import { isSameSentence, sentencesOf, withSentence } from '@vocabula/core/insight';
import { api } from '../api/client';

/**
 * Replaces the sentence at its place by `words`, and saves.
 * @throws if the working copy no longer has the sentence there, or cannot be saved
 */
export async function putInWrite({ text, path, at, words: was }: SentenceInsight, words: string): Promise<void> {
  const { document, revision } = await api.text(text);
  await api.saveText(text, { document: saying(document, path, at, was, words), revision });
}

/** The document with the sentence replaced. @throws if the line no longer has it */
export function saying(
  document: TextDocument,
  path: readonly number[],
  at: number,
  was: string,
  words: string,
): TextDocument {
  const locale = document.attrs.front.locale ?? DEFAULT_LOCALE;
  const node = nodeAt(document, path);
  const line = node ? inlineOf(node) : [];
  if (!isSameSentence(sentencesOf(line, locale)[at] ?? '', was))
    throw new Error('The working copy no longer has this sentence. Change it in Write.');
  const content = withSentence(line, at, words, locale);
  return replaceAt(document, path, (each) => ({ ...each, content }) as Node & { content: readonly Inline[] });
}
