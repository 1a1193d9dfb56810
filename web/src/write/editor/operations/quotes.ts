/** Words of the manuscript by what they quote, with what stands around them (Web Annotation Data Model, 4.2.4). */
import type { Quote } from '@vocabula/contract';
import type { Node as PmNode } from '@tiptap/pm/model';
import { eachLine, type Range } from './places';

/** Characters before and after that are kept with a quote. */
const AROUND = 32;

/** The words of a stretch; of one over several lines those of its first. Undefined where it holds none. */
export function quoteOf(doc: PmNode, { from, to }: Range): Quote | undefined {
  let found: Quote | undefined;
  eachLine(
    doc,
    (text, at) => {
      if (found) return;
      const start = Math.max(0, from - at(0));
      const end = Math.min(text.length, to - at(0));
      const exact = text.slice(start, end);
      if (exact.trim() === '') return;
      found = {
        exact: exact.slice(0, 2000),
        prefix: text.slice(Math.max(0, start - AROUND), start),
        suffix: text.slice(end, end + AROUND),
      };
    },
    { from, to },
  );
  return found;
}

/** Where quoted words stand now: of several places the one whose surroundings are most alike. */
export function findQuote(doc: PmNode, { exact, prefix, suffix }: Quote): Range | undefined {
  let best: { readonly range: Range; readonly score: number } | undefined;
  eachLine(doc, (text, at) => {
    for (let index = text.indexOf(exact); index >= 0; index = text.indexOf(exact, index + 1)) {
      const end = index + exact.length;
      const score =
        sharedEnd(text.slice(Math.max(0, index - AROUND), index), prefix) +
        sharedEnd(reversed(text.slice(end, end + AROUND)), reversed(suffix));
      if (!best || score > best.score) best = { range: { from: at(index), to: at(end) }, score };
    }
  });
  return best?.range;
}

const reversed = (text: string): string => [...text].reverse().join('');

function sharedEnd(a: string, b: string): number {
  let count = 0;
  while (count < a.length && count < b.length && a[a.length - 1 - count] === b[b.length - 1 - count]) count += 1;
  return count;
}
