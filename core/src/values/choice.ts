/**
 * Pick one and pick several. A value is an option's key (or free words, where `other` admits them), or
 * keys in the order of the options. The plain view is the wording, which renders as a line of its own;
 * the formatters here give its words without form, for places that hold plain text only.
 */
import { listFormat, numberFormat } from './intl.js';
import { isKey, labelFromKey } from '../template/keys.js';
import { plainWords } from '../template/document.js';
import type { Option, Variable } from '../template/variable.js';
import { fold } from '../words/fold.js';
import { YES_NO_LEVELS } from './yes-no.js';
import {
  MAX_LENGTH,
  TOO_LONG,
  limitsSwapped,
  textOf,
  type DeclarationProblem,
  type Parsed,
  type ValueType,
} from './type.js';

/** What an option is called where it is picked. */
export const labelOf = (option: Option): string => option.label ?? labelFromKey(option.key);
const find = (variable: Variable, key: string): Option | undefined =>
  variable.options?.find((option) => option.key === key);

/** The label of a key; free words are their own. */
export const labelOfKey = (variable: Variable, key: string): string => {
  const option = find(variable, key);
  return option ? labelOf(option) : key;
};

const wordingOfKey = (variable: Variable, key: string): string => {
  const option = find(variable, key);
  return option?.wording ? plainWords(option.wording) : labelOfKey(variable, key);
};

function parseKey(input: unknown, variable: Variable): Parsed {
  const text = textOf(input)?.trim();
  if (text === undefined) return { problem: 'This must be one of the options.' };
  if (find(variable, text)) return { value: text };
  if (variable.other)
    return text.length > MAX_LENGTH ? { problem: TOO_LONG } : { value: text.replace(/\s*\n\s*/g, ' ') };
  const keys = (variable.options ?? []).slice(0, 12).map((option) => option.key);
  return {
    problem: `“${text.slice(0, 60)}” is not one of the options: ${keys.join(', ')}${(variable.options?.length ?? 0) > 12 ? ' …' : ''}.`,
  };
}

/** The most options that a question may have: more cannot be chosen from, and make every list slow. */
export const MOST_OPTIONS = 2000;
/** Says that there are too many options. */
export const tooManyOptions = (count: number): string =>
  `There may be ${MOST_OPTIONS} options at most; here ${count === 1 ? 'is' : 'are'} ${count}.`;

function declaredOptions(variable: Variable): DeclarationProblem[] {
  const problems: DeclarationProblem[] = [];
  const count = variable.options?.length ?? 0;
  if (count === 0) problems.push({ attribute: 'options', message: 'There must be at least one option.' });
  if (count > MOST_OPTIONS) problems.push({ attribute: 'options', message: tooManyOptions(count) });
  const seen = new Set<string>();
  for (const { key } of variable.options ?? []) {
    if (!isKey(key))
      problems.push({
        attribute: 'options',
        message: `An option's key has small letters, digits and underscores and begins with a letter: “${key}”.`,
        code: 'bad-key',
      });
    else if (key === 'empty')
      problems.push({ attribute: 'options', message: 'An option may not be called “empty”.', code: 'reserved-key' });
    if (seen.has(key))
      problems.push({ attribute: 'options', message: `There are two options “${key}”.`, code: 'duplicate-key' });
    seen.add(key);
  }
  return problems;
}

/** The key of an option that a cell names by key or label; the cell's words if it names none. */
function optionNamed(cell: string, { options = [] }: Variable): string {
  const words = cell.trim();
  const folded = fold(words);
  return options.find((each) => each.key === words || fold(labelOf(each)) === folded)?.key ?? words;
}

/** The option with the most words. */
function longestOption(variable: Variable | undefined): Option | undefined {
  const size = ({ wording, label = '', key }: Option): number =>
    wording ? JSON.stringify(wording).length : (label || key).length;
  return [...(variable?.options ?? [])].sort((a, b) => size(b) - size(a))[0];
}

/** One of several options. */
export const choice: ValueType = {
  name: 'choice',
  attributes: ['options', 'other'],
  parse: parseKey,
  views: () => ['label'],
  formatter(variable, view) {
    if (view === '') return (value) => wordingOfKey(variable, String(value));
    return view === 'label' ? (value) => labelOfKey(variable, String(value)) : undefined;
  },
  declared: declaredOptions,
  specimen: ({ options }) => options?.[0]?.key ?? '',
  expressionType: 'string',
  family: 'choice',
  control: 'options',
  governs: 'option',
  column: 'text',
  fromCell: (cell, variable) => optionNamed(cell, variable),
  outcomes(variable) {
    const options = (variable.options ?? []).map((option) => ({ key: option.key, label: labelOf(option) }));
    const mayBeEmpty = !variable.required && variable.default === undefined;
    const levels = [...options, ...(mayBeEmpty ? [{ key: 'empty', label: 'none' }] : [])];
    const levelOf = (value: unknown): number =>
      value === undefined && mayBeEmpty ? options.length : options.findIndex((option) => option.key === value);
    return [{ levels, levelOf }];
  },
  tried: ({ options = [] }, { none }) => [...options.map(({ key }) => key), ...none],
  hard: ({ isLongest }, variable) => (isLongest ? longestOption(variable)?.key : undefined),
  madeUp: ({ at }, variable) => variable?.options?.[at % Math.max(1, variable.options.length)]?.key ?? '',
};

/** Several of some options. */
export const choices: ValueType = {
  name: 'choices',
  attributes: ['options', 'other', 'least', 'most'],
  parse(input, variable) {
    const parts = Array.isArray(input)
      ? input
      : typeof input === 'string'
        ? input
            .split(/[,;|]/)
            .map((part) => part.trim())
            .filter(Boolean)
        : undefined;
    if (!parts) return { problem: 'This must be a list of options.' };
    const keys = new Set<string>();
    for (const part of parts) {
      const parsed = parseKey(part, variable);
      if ('problem' in parsed) return parsed;
      keys.add(String(parsed.value));
    }
    if (variable.least !== undefined && keys.size < variable.least)
      return { problem: `At least ${variable.least} must be picked.` };
    if (variable.most !== undefined && keys.size > variable.most)
      return { problem: `At most ${variable.most} may be picked.` };
    const known = (variable.options ?? []).map((option) => option.key).filter((key) => keys.has(key));
    return { value: [...known, ...[...keys].filter((key) => !known.includes(key))] };
  },
  views: () => ['labels', 'count'],
  formatter(variable, view, locale) {
    const list = listFormat(locale);
    const keys = (value: unknown): string[] => value as string[];
    switch (view) {
      case '':
        return (value) => list.format(keys(value).map((key) => wordingOfKey(variable, key)));
      case 'labels':
        return (value) => list.format(keys(value).map((key) => labelOfKey(variable, key)));
      case 'count': {
        const format = numberFormat(locale);
        return (value) => format.format(keys(value).length);
      }
      default:
        return undefined;
    }
  },
  declared: (variable) => [...declaredOptions(variable), ...limitsSwapped(variable, 'least', 'most')],
  specimen: ({ options = [] }) => options.slice(0, 2).map(({ key }) => key),
  expressionType: 'list<string>',
  family: 'choices',
  control: 'options',
  governs: 'option',
  column: 'text',
  fromCell: (cell, variable) => cell.split(/[,;|]/).map((part) => optionNamed(part, variable)),
  outcomes: ({ options = [] }) =>
    options.map((option) => ({
      option,
      levels: YES_NO_LEVELS,
      levelOf: (value) => (Array.isArray(value) && (value as readonly unknown[]).includes(option.key) ? 0 : 1),
    })),
  tried({ options = [], required }, { accepted }) {
    const keys = options.map(({ key }) => key);
    return accepted([...keys.map((key) => [key]), keys, keys.slice(0, 2), ...(required ? [] : [[]])]);
  },
  hard: ({ isLongest }, variable) => (isLongest ? variable?.options?.map(({ key }) => key) : undefined),
  madeUp: ({ at }, variable) =>
    (variable?.options ?? [])
      .filter((_, option) => ((at + 1) >> option) % 2 === 1)
      .map(({ key }) => key)
      .join(', '),
};
