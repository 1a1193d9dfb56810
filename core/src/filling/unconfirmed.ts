/** Which values of a message nobody has looked at yet. */
import type { Question } from '../questions/questions.js';
import type { Variable } from '../template/variable.js';
import { valueType } from '../values/index.js';

/** Values that come from elsewhere than this recipient, this sender or this person's own hand. */
const BORROWED: ReadonlySet<string> = new Set(['last', 'memory', 'clipboard']);

/** True for a value that was taken over from an earlier message or the clipboard: the wrong one is a slip. */
export const isBorrowed = ({ source }: Pick<Question, 'source'>): boolean => BORROWED.has(source);

/** The questions whose values are to be confirmed: borrowed ones, and the default options of choices. */
export function unconfirmed(questions: readonly Question[], confirmed: ReadonlySet<string>): Question[] {
  return questions.filter(
    (question) =>
      question.value !== undefined &&
      !confirmed.has(question.key) &&
      (isBorrowed(question) || (question.source === 'default' && isPicked(question.variable))),
  );
}

const isPicked = ({ type }: Variable): boolean => valueType(type).governs === 'option';

/** How far the memory for a variable reaches: the last answer for the same recipient, for anybody, or not at all. */
export function memoryOf({ from, remember, type, value }: Variable): 'last' | 'memory' | undefined {
  if (value !== undefined) return undefined;
  if (from === 'last') return 'last';
  return remember && !valueType(type).isPersonal ? 'memory' : undefined;
}
