/** What conditions and expressions may name: variables, fields of recipient and sender, facts. */
import {
  comparisonsOf,
  familyOf,
  labelFromKey,
  takesValue,
  type Comparison,
  type ComparisonName,
  type Variable,
} from '@vocabula/core';

/** Where names come from, and what that is called. */
export const NAME_GROUPS = {
  variables: 'Variables',
  recipient: 'Recipient',
  own: 'My fields',
  facts: 'Facts',
  mail: 'The mail',
} as const;

/** A name as it is offered; fields are text, facts have their own type. */
export interface Named {
  readonly name: string;
  readonly label: string;
  readonly group: keyof typeof NAME_GROUPS;
  readonly variable: Variable;
}

export function namesOf({
  variables,
  fields,
  facts,
}: {
  readonly variables: readonly Variable[];
  readonly fields: readonly string[];
  readonly facts: readonly Variable[];
}): Named[] {
  const of =
    (group: Named['group']) =>
    (variable: Variable): Named => ({
      name: variable.key,
      label: variable.label ?? labelFromKey(variable.key.split('.').at(-1) ?? variable.key),
      group,
      variable,
    });
  return [
    ...variables.map(of('variables')),
    ...fields.map((name) => of(name.startsWith('sender') ? 'own' : 'recipient')({ key: name, type: 'text' })),
    ...facts.map(of('facts')),
  ];
}

/** What a comparison begins with: its first option, a weekday, else nothing. */
export function firstValue(how: ComparisonName, variable: Variable | undefined): string {
  if (!takesValue(how)) return '';
  return how === 'weekday' ? 'mon' : (variable?.options?.[0]?.key ?? '');
}

/** The likeliest comparison of a name. */
export function firstComparison(named: Named | undefined): Comparison {
  const how = comparisonsOf(familyOf(named?.variable.type ?? 'text'))[0] as ComparisonName;
  return { of: named?.name ?? '', how, value: firstValue(how, named?.variable) };
}

/** Our functions, with what they take, for completion. */
export const FUNCTIONS: readonly { readonly name: string; readonly takes: string }[] = [
  { name: 'today', takes: '()' },
  { name: 'addDays', takes: '(day, number)' },
  { name: 'addWorkingDays', takes: '(day, number)' },
  { name: 'daysBetween', takes: '(day, day)' },
  { name: 'weekday', takes: '(day)' },
  { name: 'filled', takes: '(name)' },
  { name: 'size', takes: '(list)' },
  { name: 'round', takes: '(number, decimals)' },
  { name: 'sum', takes: '(list.column)' },
  { name: 'min', takes: '(a, b)' },
  { name: 'max', takes: '(a, b)' },
  { name: 'upper', takes: '(text)' },
  { name: 'lower', takes: '(text)' },
  { name: 'join', takes: '(texts, between)' },
];

export interface Completion {
  readonly words: string;
  readonly detail: string;
  readonly insert: string;
  /** How far behind the beginning of what is put in the caret goes. */
  readonly caret: number;
}

/** The word being typed at the caret of an expression, and where it begins; empty inside quotation marks. */
export function wordAt(source: string, caret: number): { readonly word: string; readonly start: number } {
  const before = source.slice(0, caret);
  if ((before.match(/(?<!\\)"/g)?.length ?? 0) % 2 === 1) return { word: '', start: caret };
  const word = /[a-zA-Z][a-zA-Z0-9_.]*$/.exec(before)?.[0] ?? '';
  return { word, start: caret - word.length };
}

/** What could be meant by the word at the caret, likeliest first. */
export function completionsAt(source: string, caret: number, names: readonly Named[]): Completion[] {
  const { word } = wordAt(source, caret);
  if (word === '') return [];
  const typed = word.toLowerCase();
  const columns = names.flatMap(({ name, variable }) =>
    (variable.columns ?? []).map((column): Completion => ({
      words: `${name}.${column.key}`,
      detail: `column, ${column.type}`,
      insert: `${name}.${column.key}`,
      caret: name.length + 1 + column.key.length,
    })),
  );
  const all: Completion[] = [
    ...names.map(({ name, label, variable }): Completion => ({
      words: name,
      detail: `${label}, ${variable.type}`,
      insert: name,
      caret: name.length,
    })),
    ...columns,
    ...FUNCTIONS.map(({ name, takes }): Completion => ({
      words: `${name}${takes}`,
      detail: 'function',
      insert: `${name}()`,
      caret: takes === '()' ? name.length + 2 : name.length + 1,
    })),
  ];
  const begins = ({ words }: Completion): boolean => words.toLowerCase().startsWith(typed);
  const holds = ({ words, detail }: Completion): boolean => `${words} ${detail}`.toLowerCase().includes(typed);
  const found = [...all.filter(begins), ...all.filter((each) => !begins(each) && holds(each))];
  return found.filter(({ insert }) => insert !== word).slice(0, 8);
}
