/** What a tick would add to the message, in a few words. */
import type { Program, Question } from '@vocabula/core';
import { bodyLines } from './lines';

const FEW = 44;

/** The fixed words that a yes-no keeps, shortened; empty where it keeps whole blocks or nothing of its own. */
export function addedWords(program: Program, question: Question): string {
  if (question.type !== 'yes-no') return '';
  const words = bodyLines(program)
    .flatMap((line) => line.leaves)
    .filter(
      (leaf) =>
        leaf.kind === 'text' && leaf.tests.at(-1)?.read.key === question.key && !leaf.tests.at(-1)?.condition.not,
    )
    .map((leaf) => (leaf.kind === 'text' ? leaf.text : ''))
    .join('')
    // Out of its sentence, the comma that leads in says nothing.
    .replace(/^[\s,;–—-]+|\s+$/g, '');
  return words.length > FEW ? `${words.slice(0, FEW - 1).trimEnd()}…` : words;
}
