/** A rendered message as the lines its reader sees, each in pieces that know where they come from. */
import { PROOF_DATA } from '../../render/proof-markup.js';
import type { Origin } from '../../compile/program.js';
import type { Message, Stretch } from '../../render/render.js';

/** A stretch of a line's words with one origin. */
export interface Piece {
  readonly text: string;
  readonly origin: Origin;
}

/** A line of a traced message: its words, and where each piece of them came from. */
export interface TracedLine {
  readonly pieces: readonly Piece[];
  /** All words of the line; a break is a line feed. */
  readonly text: string;
  readonly part: 'subject' | 'body';
}

/** Tags between stretches after which another line begins; a break is part of its line. */
const BOUNDARY = /<\/?(?:p|h[1-3]|li|t[dhr]|pre|blockquote|table|ul|ol|div|hr)\b/;
const ENTITIES: Readonly<Record<string, string>> = {
  amp: '&',
  lt: '<',
  gt: '>',
  quot: '"',
  '#39': "'",
  nbsp: '\u00A0',
};

/** The words of a stretch of HTML: tags gone but for breaks, which are line feeds; images say their words. */
export function wordsOf(html: string): string {
  if (!html.includes('<') && !html.includes('&')) return html;
  return html
    .replace(/<br>/g, '\n')
    .replace(/<img [^>]*?alt="([^"]*)"[^>]*>/g, '$1')
    .replace(/<[^>]*>/g, '')
    .replace(/&(#?\w+);/g, (whole, name: string) =>
      Object.hasOwn(ENTITIES, name)
        ? (ENTITIES[name] as string)
        : /^#\d+$/.test(name)
          ? String.fromCodePoint(Number(name.slice(1)))
          : whole,
    );
}

/** The lines of a message that was rendered with its trace, the subject first. */
export function tracedLines({ subject, subjectTrace = [], fragment, trace = [] }: Message): TracedLine[] {
  const lines: TracedLine[] = [];
  const add = (pieces: readonly Piece[], part: TracedLine['part']): void => {
    if (pieces.length > 0) lines.push({ pieces, text: pieces.map(({ text }) => text).join(''), part });
  };
  add(
    subjectTrace.map(({ from, to, origin }) => ({ text: subject.slice(from, to), origin })),
    'subject',
  );
  let pieces: Piece[] = [];
  let end = 0;
  for (const { from, to, origin } of trace) {
    if (from > end && BOUNDARY.test(fragment.slice(end, from))) {
      add(pieces, 'body');
      pieces = [];
    }
    pieces.push({ text: wordsOf(fragment.slice(from, to)), origin });
    end = to;
  }
  add(pieces, 'body');
  return lines;
}

/** HTML in which every stretch stands in a span that says its number in `data-s`. */
export function withStretches(html: string, trace: readonly Stretch[]): string {
  let out = '';
  let end = 0;
  trace.forEach(({ from, to }, index) => {
    out += `${html.slice(end, from)}<span ${PROOF_DATA.stretch}="${index}">${html.slice(from, to)}</span>`;
    end = to;
  });
  return out + html.slice(end);
}
