import { lastOf } from '../words/ends.js';
import { advice } from '../findings/finding.js';
import { articleFor } from './articles.js';
import { placeIn, replacing, type Check } from './check.js';
import type { FilledCheck } from './filled.js';

const ARTICLE = /(?<![\p{L}\p{N}.'’&-])(an?)[ \u00A0]+(["“‘(]?)([\p{L}\p{N}]+)/giu;
/** “A” that is a name: “vitamin A or”, “plan A is”. */
const NO_NOUN = /^(?:and|or|is|are|was|to|in|on|at|of|as|if|it|I)$/;

/** “a” where “an” belongs, and the other way round, in fixed text. */
export const aOrAn: Check = {
  languages: ['en'],
  run: ({ lines }) =>
    lines.flatMap((line) =>
      [...line.text.matchAll(ARTICLE)].flatMap((match) => {
        const [whole, article = '', , word = ''] = match;
        const right = articleFor(word);
        if (!right || right === article.toLowerCase() || NO_NOUN.test(word)) return [];
        const place = placeIn(line, match.index, article.length);
        const written = /^A/.test(article) ? right.replace('a', 'A') : right;
        return [
          advice(
            { code: 'a-or-an', written: whole, right: `${written} ${word}` },
            place,
            'warning',
            replacing(`Write “${written}”`, place, written),
          ),
        ];
      }),
    ),
};

/** The same where the word is a value. */
export const aOrAnBefore: FilledCheck = {
  languages: ['en'],
  run: ({ lines }) =>
    lines.flatMap(({ pieces }) =>
      pieces.flatMap((piece, index) => {
        const before = pieces[index - 1];
        if (!before || !mayBeArticle(before.text)) return [];
        const article = /(?<![\p{L}\p{N}.'’&-])(an?)[ \u00A0]+$/iu.exec(lastOf(before.text, 12))?.[1];
        const word = /^[\p{L}\p{N}]+/u.exec(piece.text)?.[0] ?? '';
        if (!article || before.origin === piece.origin || NO_NOUN.test(word)) return [];
        const right = articleFor(word);
        return !right || right === article.toLowerCase()
          ? []
          : [
              {
                data: { code: 'a-or-an', written: `${article} ${word}`, right: `${right} ${word}` },
                origin: before.origin,
              },
            ];
      }),
    ),
};

/** Few words before values are articles, and most are told by their last letters. */
function mayBeArticle(text: string): boolean {
  const last = text.charAt(text.length - 1);
  const before = text.charAt(text.length - 2);
  return (last === ' ' || last === '\u00A0') && (before === 'a' || before === 'n' || before === 'A' || before === 'N');
}
