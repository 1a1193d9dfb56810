/**
 * What somebody says of derived questions: that one is none, that two are one, that one is of another type; and that what
 * stands in one mail only is to be asked for.
 */
import { mergeVariables } from '../revise/merge.js';
import { mapDocument } from '../revise/map.js';
import { readersOf, replaceVariable } from '../revise/remove.js';
import { retypeVariable } from '../revise/retype.js';
import { countUses, usesOf } from '../revise/uses.js';
import { plainWords, type TextDocument } from '../template/document.js';
import { keyFromLabel } from '../template/keys.js';
import type { Option, TypeName, Variable } from '../template/variable.js';
import { valueType, type Value, type ValueContext } from '../values/index.js';
import type { DerivedQuestion } from './questions.js';

/** One such saying, by the keys of questions. */
export type Settlement =
  /** It is no question: what most mails say there becomes the words. */
  | { readonly how: 'refuse'; readonly key: string }
  /** It is the same as another of its type, whose values are right. */
  | { readonly how: 'merge'; readonly key: string; readonly into: string }
  /** It is of another type. */
  | { readonly how: 'retype'; readonly key: string; readonly type: TypeName }
  /** What very few mails have or lack, by its words as they are listed, is an option all the same. */
  | { readonly how: 'take'; readonly words: string };

/** Types that a derived question may be given, where its values are such. */
export const RETYPED = ['text', 'choice', 'number', 'money', 'date', 'time', 'email', 'phone', 'link'] as const;
/** So many different values make a choice at most. */
const MOST_OPTIONS = 40;

interface Settled {
  readonly document: TextDocument;
  readonly questions: readonly DerivedQuestion[];
}
type Answer = DerivedQuestion['answers'] extends Map<number, infer A> ? A : never;

/**
 * Settles questions one after the other; what is taken in was so while the template was built. What cannot be settled so stays as it is: a question that is not there, that a
 * calculated one reads, or whose values are not of the type.
 */
export function settle(
  document: TextDocument,
  questions: readonly DerivedQuestion[],
  all: readonly Settlement[],
  context: ValueContext,
): Settled {
  let now: Settled = { document, questions };
  for (const each of all) {
    if (each.how === 'take') continue;
    const question = now.questions.find(({ variable }) => variable.key === each.key);
    if (!question || question.variable.value !== undefined) continue;
    if (each.how !== 'retype' && readersOf(now.document, each.key).length > 0) continue;
    now =
      each.how === 'refuse'
        ? refused(now, question, context)
        : each.how === 'merge'
          ? merged(now, question, each.into)
          : retyped(now, question, each.type, context);
  }
  const places = countUses(usesOf(now.document));
  return {
    ...now,
    questions: now.questions.map((question) => ({
      ...question,
      variable: now.document.attrs.variables.find(({ key }) => key === question.variable.key) ?? question.variable,
      places: places.get(question.variable.key) ?? 0,
    })),
  };
}

/** The commonest answer; of equally common ones the first in the order of their JSON, so that the order of mails does not matter. */
function commonest({ answers }: DerivedQuestion): Answer | undefined {
  const counts = new Map<string, { readonly value: Answer; readonly count: number }>();
  for (const value of answers.values()) {
    const key = JSON.stringify(value);
    counts.set(key, { value, count: (counts.get(key)?.count ?? 0) + 1 });
  }
  const sorted = [...counts].toSorted(([a, x], [b, y]) => y.count - x.count || (a < b ? -1 : 1));
  return sorted[0]?.[1].value;
}

const parsed = (answer: unknown, variable: Variable, context: ValueContext): Value | undefined => {
  if (answer === undefined) return undefined;
  const found = valueType(variable.type).parse(answer, variable, context);
  return 'value' in found ? found.value : undefined;
};

function refused({ document, questions }: Settled, question: DerivedQuestion, context: ValueContext): Settled {
  const { variable } = question;
  const { key, type } = variable;
  const value = parsed(commonest(question), variable, context);
  const option = variable.options?.find((each) => each.key === value);
  const fixed = replaceVariable(document, key, {
    words(view) {
      if (option?.wording && view === '') return option.wording;
      const format = valueType(type).formatter(variable, view, context.locale);
      const text = value === undefined || !format ? '' : format(value);
      return text === '' ? [] : [{ type: 'text', text }];
    },
    passages(condition) {
      const meets = condition.is.length > 0 ? condition.is.includes(String(value)) : value === true;
      return meets === condition.not ? 'out' : 'unwrap';
    },
  });
  return { document: fixed, questions: questions.filter((each) => each !== question) };
}

function merged(now: Settled, question: DerivedQuestion, into: string): Settled {
  const other = now.questions.find(({ variable }) => variable.key === into);
  const { key, type } = question.variable;
  if (!other || other === question || other.variable.type !== type || other.variable.value !== undefined) return now;
  const { document } = mergeVariables(now.document, key, into);
  const answers = new Map(other.answers);
  // An option may have got another key; of all other types a value is the same wherever it stands.
  if (!other.variable.options)
    for (const [mail, value] of question.answers) if (!answers.has(mail)) answers.set(mail, value);
  return {
    document,
    questions: now.questions.flatMap((each) =>
      each === question ? [] : each === other ? [{ ...other, answers }] : [each],
    ),
  };
}

function retyped(now: Settled, question: DerivedQuestion, type: TypeName, context: ValueContext): Settled {
  const { variable } = question;
  const words = new Map<number, string>();
  for (const [mail, answer] of question.answers) {
    const said = wordsOf(parsed(answer, variable, context), variable, context);
    if (said === undefined) return now;
    words.set(mail, said);
  }
  const options = type === 'choice' ? optionsOf([...words.values()]) : undefined;
  if (type === 'choice' && !options) return now;
  const { document } = retypeVariable(now.document, variable.key, type, context);
  const declared = document.attrs.variables.find(({ key }) => key === variable.key);
  if (!declared) return now;
  const next: Variable = options ? { ...declared, options } : declared;
  const answers = new Map<number, Answer>();
  for (const [mail, said] of words) {
    const given = options?.find(({ label }) => label === said)?.key ?? said;
    if (parsed(given, next, context) === undefined) return now;
    answers.set(mail, given);
  }
  const withOptions = mapDocument(document, {
    variables: (all) => all.map((each) => (each.key === next.key ? next : each)),
  });
  return {
    document: withOptions,
    questions: now.questions.map((each) => (each === question ? { ...question, variable: next, answers } : each)),
  };
}

/** A value as its plain view writes it; an option by its wording. Undefined for what has no words. */
function wordsOf(value: Value | undefined, variable: Variable, { locale }: ValueContext): string | undefined {
  if (value === undefined || typeof value === 'boolean' || Array.isArray(value)) return undefined;
  const option = variable.options?.find(({ key }) => key === value);
  if (option) return option.wording ? plainWords(option.wording) : (option.label ?? option.key);
  return valueType(variable.type).formatter(variable, '', locale)?.(value);
}

/** An option for each of some different words, in their order; none where they are too many. */
function optionsOf(words: readonly string[]): Option[] | undefined {
  const distinct = [...new Set(words)].toSorted((a, b) => (a < b ? -1 : 1));
  if (distinct.length === 0 || distinct.length > MOST_OPTIONS) return undefined;
  const taken = new Set<string>(['empty']);
  return distinct.map((label) => {
    const key = keyFromLabel(label, taken);
    taken.add(key);
    return { key, label, wording: [{ type: 'text', text: label }] };
  });
}
