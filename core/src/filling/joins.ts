/** What a second text brings that a message has already: a greeting, a closing. */
import { bodyOf, type NamedDocument } from '../template/document.js';
import { isClosing, isGreeting } from '../words/closing.js';
import { bodyText } from '../words/lines.js';
import { inlineOf, type FillChanges, type Rewording } from './changes.js';

/** A line that says again what the message says already, and the change that takes it out. */
export interface SaidTwice {
  readonly what: 'greeting' | 'closing';
  readonly words: string;
  readonly change: Rewording;
}

/**
 * Second greetings and closings among a template and what was stitched to it: of greetings all but the first, of
 * closings all but the last.
 * @param texts the template and its parts, the template first
 */
export function saidTwice(texts: readonly NamedDocument[], { parts, reworded }: FillChanges): SaidTwice[] {
  const [own] = texts;
  if (!own || parts.length === 0) return [];
  const length = bodyOf(own.document).length;
  const order = [
    ...parts.filter(({ at }) => at <= 0),
    { name: own.name, at: -1 },
    ...parts.filter(({ at }) => at > 0 && at < length),
    ...parts.filter(({ at }) => at >= length && at > 0),
  ];
  const lines = order.flatMap(({ name }) => {
    const text = texts.find((each) => each.name === name);
    return text ? linesOf(text) : [];
  });
  const still = lines.filter(
    ({ change }) =>
      !reworded.some(
        (each) => each.text === change.text && each.path.join('.') === change.path.join('.') && each.after === null,
      ),
  );
  const of = (what: SaidTwice['what']): SaidTwice[] => still.filter((each) => each.what === what);
  return [...of('greeting').slice(1), ...of('closing').slice(0, -1)];
}

function linesOf({ name, document }: NamedDocument): SaidTwice[] {
  const body = document.content.findIndex((part) => part.type === 'body');
  return bodyOf(document).flatMap((block, at): SaidTwice[] => {
    if (block.type !== 'paragraph' && block.type !== 'heading') return [];
    const [first = '', ...more] = bodyText(block);
    const what = isGreeting(first) ? 'greeting' : isClosing(first) ? 'closing' : undefined;
    // A paragraph that greets and goes on says more than a greeting.
    if (!what || (what === 'greeting' && more.length > 0)) return [];
    const change = { text: name, path: [body, at], before: inlineOf(block), after: null, over: {} };
    return [{ what, words: first, change }];
  });
}
