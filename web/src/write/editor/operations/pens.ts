/** Words highlighted in the colours that people mark with, in letters of old, what is to be changed each time. */
import type { Node as PmNode } from '@tiptap/pm/model';
import type { Range } from './places';

/** Words in one colour, without white space at their ends. */
export interface PenRun extends Range {
  readonly text: string;
  /** The colour's name, and all that is in it. */
  readonly colour: string;
  readonly whole: Range;
}

/** What is marked is a name, a day, a few words; what is longer is stressed. */
const MOST_LETTERS = 60;
const MOST_WORDS = 8;
const isShort = ({ text }: PenRun): boolean =>
  text.length <= MOST_LETTERS && text.split(/\s+/).length <= MOST_WORDS && !text.includes('\uFFFC');

/**
 * What is highlighted in colours that mark things here: those in which nothing longer than a few words stands, and no
 * placeholder. A colour in which sentences or values stand is part of how the message looks.
 */
export function penRuns(doc: PmNode): PenRun[] {
  const runs = highlightedRuns(doc);
  const looks = new Set(runs.filter((run) => !isShort(run)).map(({ colour }) => colour));
  return runs.filter(({ colour, text }) => !looks.has(colour) && text !== '');
}

/** Every stretch of a line in one highlighting, with one character for what is no text. */
function highlightedRuns(doc: PmNode): PenRun[] {
  const runs: PenRun[] = [];
  doc.descendants((line, at) => {
    if (!line.isTextblock) return true;
    let open: { colour: string; text: string; from: number } | undefined;
    const close = (): void => {
      if (open) runs.push(trimmed(open));
      open = undefined;
    };
    line.forEach((node, offset) => {
      const mark = node.marks.find(({ type }) => type.name === 'highlight');
      const colour = mark && String(mark.attrs.name);
      if (open && open.colour !== colour) close();
      if (colour === undefined) return;
      open ??= { colour, text: '', from: at + 1 + offset };
      open.text += node.text ?? '\uFFFC'.repeat(node.nodeSize);
    });
    close();
    return false;
  });
  return runs;
}
function trimmed({ colour, text, from }: { colour: string; text: string; from: number }): PenRun {
  const words = text.trim();
  const start = from + (text.length - text.trimStart().length);
  const whole = { from, to: from + text.length };
  return { colour, text: words, from: start, to: start + words.length, whole };
}
