/** What may be changed in a message: not the words of a fixed block, and nothing that was not there before. */
import type { WorkingCopy } from '@vocabula/contract';
import { says, type FillChanges, type Rewording } from '@vocabula/core/filling';
import type { Inline } from '@vocabula/core';
import { RequestProblem } from '../http/problem.js';
import { fixedIn } from './rows.js';

/**
 * The changes that hold for some texts, and how many do not, because a text says something else there or is not among
 * them. Throws for changes that nobody may make.
 */
export function checkChanges(
  texts: readonly WorkingCopy[],
  { parts, reworded }: FillChanges,
): { readonly kept: FillChanges; readonly lost: number } {
  const fixed = new Set(fixedIn(texts));
  const names = new Map(texts.map((text) => [text.name, text.document]));
  for (const each of reworded) {
    if (fixed.has(each.text))
      throw new RequestProblem(422, 'fixed-words', `The words of “${each.text}” are not to be changed here.`);
    if (!addsNothing(each))
      throw new RequestProblem(422, 'bad-changes', 'Only words can be typed into a line; placeholders stay or go.');
  }
  const keptParts = parts.filter(({ name }) => names.has(name));
  const keptWords = reworded.filter(({ text, path, before }) => {
    const document = names.get(text);
    return document !== undefined && says(document, path, before);
  });
  return {
    kept: { parts: keptParts, reworded: keptWords },
    lost: parts.length + reworded.length - keptParts.length - keptWords.length,
  };
}

/** True if what stands there now is words, or stood there before. */
function addsNothing({ before, after }: Rewording): boolean {
  const known = new Set(before.filter((node) => node.type !== 'text').map((node) => JSON.stringify(node)));
  const marks = new Set(before.flatMap((node) => (node.marks ?? []).map((mark) => JSON.stringify(mark))));
  const isKnown = (node: Inline): boolean =>
    node.type === 'text' || node.type === 'hardBreak'
      ? (node.marks ?? []).every((mark) => marks.has(JSON.stringify(mark)))
      : known.has(JSON.stringify(node));
  return (after ?? []).every(isKnown);
}
