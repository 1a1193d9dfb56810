/** What can be put in at the caret, and how a typed line narrows it. */
import type { TextSummary } from '@vocabula/contract';
import { holdsWords, labelFromKey, valueType, type Condition, type TypeName, type Variable } from '@vocabula/core';
import { NAME_GROUPS } from '../../ui/condition/names';

export type Insertion =
  | { readonly what: 'placeholder'; readonly name: string; readonly view: string }
  | { readonly what: 'passage'; readonly condition: Condition }
  | { readonly what: 'new-passage'; readonly label: string }
  | { readonly what: 'new-variable'; readonly label: string }
  | {
      /** A new variable that is worked out. */
      readonly what: 'computed';
      readonly label: string;
      readonly type: TypeName;
      readonly currency?: string | undefined;
      readonly expression: string;
    }
  | { readonly what: 'note'; readonly words: string }
  | { readonly what: 'block' | 'copy'; readonly name: string };

/** The groups, in the order in which they are shown, and what they are called. */
export const GROUP_LABELS = {
  columns: 'Columns of this row',
  variables: NAME_GROUPS.variables,
  recipient: NAME_GROUPS.recipient,
  own: NAME_GROUPS.own,
  facts: NAME_GROUPS.facts,
  totals: 'Totals',
  passages: 'Passages',
  live: 'Blocks, live',
  copies: 'Blocks, as a copy',
  new: 'New',
} as const;
export type Group = keyof typeof GROUP_LABELS;

export interface Entry {
  readonly group: Group;
  readonly words: string;
  readonly detail: string;
  readonly insertion: Insertion;
}

export interface Insertable {
  readonly variables: readonly Variable[];
  /** The columns of the lists that are repeated around the caret, innermost first. */
  readonly columns: readonly Variable[];
  /** `recipient.x`, then `sender.x`. */
  readonly fields: readonly string[];
  /** Facts of the house, as variables called `house.x`. */
  readonly facts: readonly Variable[];
  readonly texts: readonly TextSummary[];
  /** The text's own name, which it cannot include. */
  readonly own: string;
  /** Passages and blocks stand in the body only. */
  readonly inBody: boolean;
}

/** How many placeholders are shown before anything is typed; one types to find the others. */
const AT_FIRST = 12;

/** The entries for what has been typed, grouped; plain placeholders before their other views. */
export function entriesFor(insertable: Insertable, typed: string): readonly Entry[] {
  const { variables, columns, fields, facts, texts, own, inBody } = insertable;
  const found = placeholders(variables, 'variables').filter((entry) => holds(entry, typed));
  const others = [
    ...fields.map(field),
    ...placeholders(facts, 'facts'),
    ...variables.flatMap(totals),
    ...(inBody ? variables.flatMap(passages) : []),
    ...(inBody ? blocks(texts, own) : []),
  ];
  return [
    ...placeholders(columns, 'columns').filter((entry) => holds(entry, typed)),
    ...(typed.trim() === '' ? found.slice(0, AT_FIRST) : found),
    ...others.filter((entry) => holds(entry, typed)),
    ...made(typed.trim(), inBody),
  ];
}

const holds = ({ words, detail, group }: Entry, typed: string): boolean =>
  holdsWords(`${words} ${detail} ${GROUP_LABELS[group]}`, typed.trim());

const labelOf = ({ label, key }: Variable): string => label ?? labelFromKey(key.split('.').at(-1) ?? key);

/** Plain ones, then every other view. A list has views only. */
function placeholders(variables: readonly Variable[], group: Group): Entry[] {
  const one = (variable: Variable, view: string): Entry => ({
    group,
    words: view === '' ? labelOf(variable) : `${labelOf(variable)} · ${view}`,
    detail: variable.value === undefined ? variable.type : 'calculated',
    insertion: { what: 'placeholder', name: variable.key, view },
  });
  const plain = variables.flatMap((variable) => (variable.type === 'list' ? [] : [one(variable, '')]));
  const viewed = variables.flatMap((variable) =>
    valueType(variable.type)
      .views(variable)
      .map((view) => one(variable, view)),
  );
  return [...plain, ...viewed];
}

const field = (name: string): Entry => ({
  group: name.startsWith('sender') ? 'own' : 'recipient',
  words: labelFromKey(name.split('.')[1] ?? name),
  detail: name,
  insertion: { what: 'placeholder', name, view: '' },
});

/** The sums of a list's columns of numbers and amounts. */
function totals({ key, type, columns = [], label }: Variable): Entry[] {
  if (type !== 'list') return [];
  const list = label ?? labelFromKey(key);
  return columns
    .filter((column) => column.type === 'number' || column.type === 'money')
    .map((column) => ({
      group: 'totals',
      words: `Total of ${list}, ${labelOf(column)}`,
      detail: 'calculated',
      insertion: {
        what: 'computed',
        label: `Total ${labelOf(column).toLowerCase()}`,
        type: column.type,
        currency: column.currency,
        expression: `sum(${key}.${column.key})`,
      },
    }));
}

/** The passages that a variable can govern without a condition of its own. */
function passages(variable: Variable): Entry[] {
  const passage = (words: string, is: readonly string[], not: boolean): Entry => ({
    group: 'passages',
    words,
    detail: is.length > 0 ? 'alternative' : 'passage',
    insertion: { what: 'passage', condition: { of: variable.key, is, not, run: 0 } },
  });
  const label = labelOf(variable);
  switch (valueType(variable.type).governs) {
    case 'yes-no':
      return [passage(`Only with: ${label}`, [], false), passage(`Only without: ${label}`, [], true)];
    case 'option':
      return (variable.options ?? []).map((option) =>
        passage(`Only with: ${label}, ${option.label ?? labelFromKey(option.key)}`, [option.key], false),
      );
    case 'list':
      return [passage(`For each of: ${label}`, [], false), passage(`If there are none: ${label}`, [], true)];
    default:
      return [];
  }
}

/** Blocks and signatures, each live and as a copy. */
function blocks(texts: readonly TextSummary[], own: string): Entry[] {
  const usable = texts.filter((text) => text.kind !== 'message' && text.name !== own && !text.binned);
  const entries = (group: Group, what: 'block' | 'copy'): Entry[] =>
    usable.map(({ title, kind, name }) => ({ group, words: title, detail: kind, insertion: { what, name } }));
  return [...entries('live', 'block'), ...entries('copies', 'copy')];
}

/** What nobody has yet can be made of the words that were typed. */
function made(label: string, inBody: boolean): Entry[] {
  const named = label === '' ? '' : ` “${label}”`;
  const entry = (words: string, detail: string, insertion: Insertion): Entry => ({
    group: 'new',
    words: `${words}${named}`,
    detail,
    insertion,
  });
  return [
    ...(label === '' ? [] : [entry('New variable', 'text', { what: 'new-variable', label })]),
    ...(inBody ? [entry('New optional passage', 'switched by a tick', { what: 'new-passage', label })] : []),
    ...(inBody && label !== '' ? [entry('New note', 'for us, never sent', { what: 'note', words: label })] : []),
  ];
}
