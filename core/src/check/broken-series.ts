import { childrenOf, nodeAt, type Inline, type TextDocument } from '../template/document.js';
import type { Piece } from '../proof/trace/lines.js';
import type { FilledCheck } from './filled.js';

/** “and” and “or”, by language. */
const AND: Readonly<Record<string, string>> = {
  en: 'and|or',
  de: 'und|oder',
  fr: 'et|ou',
  es: 'y|e|o|u',
  it: 'e|ed|o',
  nl: 'en|of',
};

interface Break {
  readonly pattern: RegExp;
  readonly says: string;
}
const made = new Map<string, readonly Break[]>();

function breaksOf(language: string): readonly Break[] {
  let breaks = made.get(language);
  if (!breaks) {
    const and = AND[language] ?? '';
    breaks = [
      { pattern: /^\s*[,;]/u, says: 'A line begins with' },
      { pattern: /[,;]\s*[,;]/u, says: 'There are two marks in a row:' },
      { pattern: /[,;]\s*[.!?](?!\.)/u, says: 'A series ends with' },
      { pattern: new RegExp(`(?<!\\p{L})(?:${and})\\s*[.,;!?](?!\\p{L})`, 'iu'), says: 'A series ends with' },
      { pattern: new RegExp(`(?<!\\p{L})(?:${and})\\s+(?:${and})(?!\\p{L})`, 'iu'), says: 'A series says' },
    ];
    made.set(language, breaks);
  }
  return breaks;
}

/** A series that leaving out has broken: “, and” with nothing before it, two commas, an “and” with nothing behind it. */
export const brokenSeries: FilledCheck = {
  languages: Object.keys(AND),
  run: ({ lines, language, document, program }) =>
    lines.flatMap(({ pieces, text }) => {
      const joints = jointsOf(pieces, (piece) => (piece.origin.text === program.name ? document : undefined));
      for (const { pattern, says } of breaksOf(language)) {
        const match = pattern.exec(text);
        // What the author wrote in one go is theirs; only what came together over something left out is a break.
        const joint = match && joints.find(({ at }) => at >= match.index && at <= match.index + match[0].length);
        if (joint)
          return [
            { code: 'broken-series' as const, message: `${says} “${match[0].trim()}”.`, origin: joint.piece.origin },
          ];
      }
      const andFirst = new RegExp(`^\\s*[,;]\\s*(?:${AND[language]})(?!\\p{L})`, 'iu');
      const lonely = joints.find(({ piece, item }) => item && andFirst.test(piece.text));
      return lonely
        ? [
            {
              code: 'broken-series' as const,
              message: `“${andFirst.exec(lonely.piece.text)?.[0].trim()}” follows what is left out.`,
              origin: lonely.piece.origin,
            },
          ]
        : [];
    }),
};

/** Where something was left out of a line: the offset, the piece behind, and whether it was an item with no comma of its own. */
function jointsOf(
  pieces: readonly Piece[],
  documentOf: (piece: Piece) => TextDocument | undefined,
): { readonly at: number; readonly piece: Piece; readonly item: boolean }[] {
  let at = 0;
  return pieces.flatMap((piece, index) => {
    const start = at;
    at += piece.text.length;
    const before = pieces[index - 1]?.origin;
    const line = piece.origin.path.slice(0, -1);
    const own = piece.origin.path.at(-1) ?? 0;
    const same = before?.text === piece.origin.text && before.path.slice(0, -1).join() === line.join();
    if (before && !same) return [];
    const first = before ? (before.path.at(-1) ?? 0) + 1 : 0;
    if (first >= own) return [];
    const document = documentOf(piece);
    const parent = document && nodeAt(document, line);
    const gone = parent && (childrenOf(parent)[first] as Inline | undefined);
    const opens = gone?.type === 'text' ? gone.text.trimStart() : '';
    return [{ at: start, piece, item: gone !== undefined && !/^[,;(–—-]/u.test(opens) }];
  });
}
