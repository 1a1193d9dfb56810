import type { Inline, TextDocument } from '../template/document.js';
import { childrenOf, nodeAt } from '../template/walk.js';
import type { Piece } from '../proof/trace/lines.js';
import type { FilledCheck, Noticed } from './filled.js';

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
  readonly how: 'begins' | 'two-marks' | 'ends' | 'two-words';
}
interface Patterns {
  readonly breaks: readonly Break[];
  /** “, and” at the beginning of what follows. */
  readonly andFirst: RegExp;
}
const made = new Map<string, Patterns>();

function patternsOf(language: string): Patterns {
  let patterns = made.get(language);
  if (!patterns) {
    const and = AND[language] ?? '';
    patterns = {
      breaks: [
        { pattern: /^\s*[,;]/u, how: 'begins' },
        { pattern: /[,;]\s*[,;]/u, how: 'two-marks' },
        { pattern: /[,;]\s*[.!?](?!\.)/u, how: 'ends' },
        { pattern: new RegExp(`(?<!\\p{L})(?:${and})\\s*[.,;!?](?!\\p{L})`, 'iu'), how: 'ends' },
        { pattern: new RegExp(`(?<!\\p{L})(?:${and})\\s+(?:${and})(?!\\p{L})`, 'iu'), how: 'two-words' },
      ],
      andFirst: new RegExp(`^\\s*[,;]\\s*(?:${and})(?!\\p{L})`, 'iu'),
    };
    made.set(language, patterns);
  }
  return patterns;
}

/** A series that leaving out has broken: “, and” with nothing before it, two commas, an “and” with nothing behind it. */
export const brokenSeries: FilledCheck = {
  languages: Object.keys(AND),
  run: ({ lines, language, document, program }) =>
    lines.flatMap(({ pieces, text }): Noticed[] => {
      if (!pieces.some(followsGap)) return [];
      const joints = jointsOf(pieces, (piece) => (piece.origin.text === program.name ? document : undefined));
      if (joints.length === 0) return [];
      const { breaks, andFirst } = patternsOf(language);
      for (const { pattern, how } of breaks) {
        const match = pattern.exec(text);
        // What the author wrote in one go is theirs; only what came together over something left out is a break.
        const joint = match && joints.find(({ at }) => at >= match.index && at <= match.index + match[0].length);
        if (joint) return [{ data: { code: 'broken-series', how, text: match[0].trim() }, origin: joint.piece.origin }];
      }
      const lonely = joints.find(({ piece, item }) => item && andFirst.test(piece.text));
      return lonely
        ? [
            {
              data: {
                code: 'broken-series',
                how: 'nothing-before',
                text: andFirst.exec(lonely.piece.text)?.[0].trim() ?? '',
              },
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
    const { path } = piece.origin;
    if (!followsGap(piece, index, pieces)) return [];
    const first = before ? (before.path.at(-1) ?? 0) + 1 : 0;
    const document = documentOf(piece);
    const parent = document && nodeAt(document, path.slice(0, -1));
    const gone = parent && (childrenOf(parent)[first] as Inline | undefined);
    const opens = gone?.type === 'text' ? gone.text.trimStart() : '';
    return [{ at: start, piece, item: gone !== undefined && !/^[,;(–—-]/u.test(opens) }];
  });
}

/** True for a piece with something of its line left out right before it. */
function followsGap({ origin }: Piece, index: number, pieces: readonly Piece[]): boolean {
  const before = pieces[index - 1]?.origin;
  const own = origin.path.at(-1) ?? 0;
  if (!before) return own > 0;
  return own > (before.path.at(-1) ?? 0) + 1 && sameLine(before, origin);
}

/** True for origins whose nodes stand in one line. */
function sameLine(a: Piece['origin'], b: Piece['origin']): boolean {
  if (a.text !== b.text || a.path.length !== b.path.length) return false;
  for (let at = a.path.length - 2; at >= 0; at -= 1) if (a.path[at] !== b.path[at]) return false;
  return true;
}
