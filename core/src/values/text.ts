/** One line of text, or several. A value is a string. */
import type { Variable } from '../template/variable.js';
import { usualHtml } from '../words/escape.js';
import { compilePattern } from './patterns.js';
import {
  MAX_LENGTH,
  TOO_LONG,
  asItIs,
  inOneLine,
  limitsSwapped,
  textOf,
  type AsGiven,
  type DeclarationProblem,
  type Formatter,
  type Parsed,
  type Value,
  type ValueType,
} from './type.js';

function constraint(text: string, variable: Variable): string | undefined {
  const { min_length, max_length, pattern } = variable;
  const length = min_length === undefined && max_length === undefined ? 0 : [...text].length;
  if (min_length !== undefined && length < min_length)
    return `This must have ${min_length} characters or more; it has ${length}.`;
  if (max_length !== undefined && length > max_length)
    return `This must have ${max_length} characters or fewer; it has ${length}.`;
  if (pattern !== undefined && compilePattern(pattern)?.matches(text) === false) {
    return `This does not have the form that is asked for${variable.example ? `, such as “${variable.example}”` : ''}.`;
  }
  return undefined;
}

function declared(variable: Variable): DeclarationProblem[] {
  const problems = limitsSwapped(variable, 'min_length', 'max_length');
  if (variable.pattern !== undefined && compilePattern(variable.pattern) === null)
    problems.push({ attribute: 'pattern', message: 'This is not a pattern (RE2 syntax).' });
  return problems;
}

const usualText: AsGiven = (input) =>
  typeof input === 'string' && input !== '' && input.length <= MAX_LENGTH ? usualHtml(input) : undefined;

const asGiven = ({ min_length, max_length, pattern }: Variable): AsGiven | undefined =>
  min_length === undefined && max_length === undefined && pattern === undefined ? usualText : undefined;

function parseText(input: unknown, variable: Variable, tidy: (text: string) => string): Parsed {
  const raw = textOf(input);
  if (raw === undefined) return { problem: 'This must be text.' };
  if (raw.length > MAX_LENGTH) return { problem: TOO_LONG };
  const text = tidy(raw);
  const problem = constraint(text, variable);
  return problem ? { problem } : { value: text };
}

/** Each word's first letter large; the rest stays, so that “McAuley” does. */
const titleCase = (text: string, locale: string): string =>
  text.replace(
    /(^|[\s\-–—(“"‘])(\p{Ll})/gu,
    (_, before: string, letter: string) => before + letter.toLocaleUpperCase(locale),
  );

/** The views that recipient and sender fields share with text. */
export function textFormatter(view: string, locale: string): Formatter | undefined {
  const casing: Record<string, (text: string) => string> = {
    upper: (text) => text.toLocaleUpperCase(locale),
    lower: (text) => text.toLocaleLowerCase(locale),
    title: (text) => titleCase(text, locale),
    sentence: (text) => text.replace(/^\p{Ll}/u, (letter) => letter.toLocaleUpperCase(locale)),
  };
  if (view === '') return asItIs;
  const change = Object.hasOwn(casing, view) ? casing[view] : undefined;
  return change && ((value: Value) => change(String(value)));
}

/** What somebody writes who has much to say. */
const MUCH = 'Quite a lot to say about geese. '.repeat(20).trim();
const shortened = (words: string, variable: Variable | undefined): string =>
  variable?.max_length === undefined ? words : words.slice(0, variable.max_length).trim();

/** How a text can be shown: in capitals, in small letters, as a title, as a sentence. */
export const TEXT_VIEWS = ['upper', 'lower', 'title', 'sentence'] as const;

/** One line of text. */
export const text: ValueType = {
  name: 'text',
  attributes: ['min_length', 'max_length', 'pattern', 'fallback'],
  parse: (input, variable) => parseText(input, variable, inOneLine),
  asGiven,
  views: () => TEXT_VIEWS,
  formatter: (_variable, view, locale) => textFormatter(view, locale),
  declared,
  specimen: () => 'some words',
  expressionType: 'string',
  family: 'text',
  control: 'line',
  column: 'text',
  hard: ({ words, isLongest }, variable) => words && (isLongest ? shortened(words, variable) : words),
  madeUp: ({ words }) => words(),
};

/** Text of several paragraphs. */
export const paragraphs: ValueType = {
  name: 'paragraphs',
  attributes: ['min_length', 'max_length', 'fallback'],
  parse: (input, variable) => parseText(input, variable, (raw) => raw),
  asGiven,
  views: () => [],
  formatter: (_variable, view) => (view === '' ? asItIs : undefined),
  declared,
  specimen: () => 'some words',
  expressionType: 'string',
  family: 'text',
  control: 'lines',
  column: 'text',
  hard: ({ words, isLongest }, variable) => words && (isLongest ? shortened(`${words}\n\n${MUCH}`, variable) : words),
  madeUp: ({ words }) => words(),
};
