import { neverBoth, severalIn } from '../compile/condition-logic.js';
import { advice } from '../findings/finding.js';
import type { Condition } from '../template/condition.js';
import { bodyOf, plainWords, type Node } from '../template/document.js';
import { walk } from '../template/walk.js';
import { isClosing, isGreeting } from '../words/closing.js';
import type { Check } from './check.js';

interface Spoken {
  readonly words: string;
  readonly path: readonly number[];
  readonly conditions: readonly Condition[];
}

/** Two greetings in one message, or an English one that does not go with how the letter ends. */
export const mixedGreeting: Check = {
  languages: ['en', 'de', 'fr', 'es', 'it', 'nl'],
  run({ document, language }) {
    const { greetings, closings } = spoken(bodyOf(document), document.content.length - 1);
    const several = severalIn(document.attrs.variables);
    const together = (a: Spoken, b: Spoken): boolean =>
      !a.conditions.some((one) => b.conditions.some((other) => neverBoth(one, other, several)));
    const second = greetings.find((each, at) => greetings.slice(0, at).some((before) => together(before, each)));
    if (second) return [advice({ code: 'mixed-greeting', why: 'twice', second: second.words }, { path: second.path })];
    if (language !== 'en') return [];
    return closings.flatMap((closing) => {
      const greeting = greetings.find((each) => together(each, closing));
      if (!greeting) return [];
      const unnamed = /^dear (?:sirs?|madam|sir or madam|sir\/madam)\b/i.test(greeting.words);
      const wrong = unnamed ? /sincerely/i : /faithfully/i;
      return wrong.test(closing.words)
        ? [
            advice(
              { code: 'mixed-greeting', why: 'apart', greeting: greeting.words, closing: closing.words },
              { path: closing.path },
              'note',
            ),
          ]
        : [];
    });
  },
};

function spoken(blocks: readonly Node[], body: number): { greetings: Spoken[]; closings: Spoken[] } {
  const found: { greetings: Spoken[]; closings: Spoken[] } = { greetings: [], closings: [] };
  blocks.forEach((block, index) =>
    walk(
      block,
      ({ node, path, outer }) => {
        // Quoted words are somebody else's.
        if (node.type === 'blockquote') return false;
        if (node.type !== 'paragraph') return true;
        const words = plainWords(node.content).trim();
        if (isGreeting(words)) found.greetings.push({ words, path, conditions: outer });
        if (isClosing(words.split(/[,\n]/)[0] ?? '')) found.closings.push({ words, path, conditions: outer });
        return false;
      },
      [body, index],
    ),
  );
  return found;
}
