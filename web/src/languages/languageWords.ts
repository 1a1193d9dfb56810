/** The words of language versions: of lines, and of how far they are. */
import { labelFromKey, type Condition, type Variable } from '@vocabula/core';
import type { LanguageLine, LanguageRow, LineState } from '@vocabula/core/languages';

/** How far a line is, in a word or two. */
export const STATE: Readonly<Record<LineState, string>> = {
  done: '',
  nothing: '',
  changed: 'changed',
  open: 'to translate',
  unsure: 'not compared',
  missing: 'only in the original',
  own: 'only here',
};
/** States in which something is to be done about a line. */
const TO_DO: ReadonlySet<LineState> = new Set(['changed', 'open', 'unsure', 'missing']);
/** Whether something is to be done about a line. */
export const isToDo = ({ state }: LanguageRow): boolean => TO_DO.has(state);

const WHAT: Readonly<Record<string, string>> = {
  title: 'Title',
  subject: 'Subject',
  place: 'Place',
  attachment: 'Attachment',
  button: 'Button',
  heading: 'Heading',
  alt: 'Alternative text',
  label: 'label',
  help: 'help',
  example: 'example',
  fallback: 'if empty',
  unit: 'unit',
  default: 'default',
  wording: 'wording',
  yes: 'for yes',
  no: 'for no',
};

const named = (variables: readonly Variable[], key: string): string =>
  variables.find((each) => each.key === key)?.label ?? labelFromKey(key);

/** What a line is: `Subject`, `Gate: wording of North gate`; empty for a paragraph. */
export function lineName({ place, what }: LanguageLine, variables: readonly Variable[]): string {
  if (place.in !== 'variable') return WHAT[what] ?? '';
  const variable = variables.find(({ key }) => key === place.key);
  const [first = '', second = ''] = place.way;
  const part = [...(variable?.options ?? []), ...(variable?.columns ?? [])].find(({ key }) => key === second);
  const of = part ? ` of ${part.label ?? labelFromKey(part.key)}` : '';
  const word = first === 'plural' ? `plural, ${second}` : first === 'forms' ? `${second}, ${place.way[2]}` : WHAT[what];
  return `${named(variables, place.key)}: ${word ?? what}${of}`;
}

/** The conditions around a line: `if With a guide › each Ticket`. */
export const governedWords = (governed: readonly Condition[], variables: readonly Variable[]): string =>
  governed
    .map(({ of, is, not }) => {
      const variable = variables.find(({ key }) => key === of);
      const options = is.map((key) => variable?.options?.find((each) => each.key === key)?.label ?? labelFromKey(key));
      const word = variable?.columns ? (not ? 'without' : 'each of') : not ? 'unless' : 'if';
      return `${word} ${named(variables, of)}${options.length > 0 ? ` is ${options.join(' or ')}` : ''}`;
    })
    .join(' › ');

/** How much is to be done: “2 changed, 3 to translate”. */
export function toDoWords(counts: Readonly<Record<LineState, number>>): string {
  const parts = (['changed', 'open', 'missing', 'unsure'] as const)
    .filter((state) => counts[state] > 0)
    .map((state) => `${counts[state]} ${STATE[state]}`);
  return parts.join(', ') || 'Every line says what the original says.';
}
