/** What can be put in at the caret, and how a typed line narrows it. */
import type { TextSummary } from '@vocabula/contract';
import { holdsWords, labelFromKey, valueType, type Condition, type Variable } from '@vocabula/core';

export type Insertion =
  | { readonly what: 'placeholder'; readonly name: string; readonly view: string }
  | { readonly what: 'passage'; readonly condition: Condition }
  | { readonly what: 'new-passage'; readonly label: string }
  | { readonly what: 'new-variable'; readonly label: string }
  | { readonly what: 'block'; readonly name: string };

/** The groups, in the order in which they are shown. */
export type Group = 'Variables' | 'Recipient' | 'My fields' | 'Passages' | 'Blocks, live' | 'New';

export interface Entry {
  readonly group: Group;
  readonly words: string;
  readonly detail: string;
  readonly insertion: Insertion;
}

export interface Insertable {
  readonly variables: readonly Variable[];
  /** `recipient.x`, then `sender.x`. */
  readonly fields: readonly string[];
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
  const { variables, fields, texts, own, inBody } = insertable;
  const plain = variables.flatMap((variable) => (variable.type === 'list' ? [] : [placeholder(variable, '')]));
  const viewed = variables.flatMap((variable) =>
    valueType(variable.type)
      .views(variable)
      .map((view) => placeholder(variable, view)),
  );
  const found = [...plain, ...viewed].filter((entry) => holds(entry, typed));
  return [
    ...(typed.trim() === '' ? found.slice(0, AT_FIRST) : found),
    ...fields.map(field).filter((entry) => holds(entry, typed)),
    ...(inBody ? variables.flatMap(passages).filter((entry) => holds(entry, typed)) : []),
    ...(inBody ? blocks(texts, own).filter((entry) => holds(entry, typed)) : []),
    ...made(typed.trim(), inBody),
  ];
}

const holds = ({ words, detail, group }: Entry, typed: string): boolean =>
  holdsWords(`${words} ${detail} ${group}`, typed.trim());

const labelOf = ({ label, key }: Variable): string => label ?? labelFromKey(key);

const placeholder = (variable: Variable, view: string): Entry => ({
  group: 'Variables',
  words: view === '' ? labelOf(variable) : `${labelOf(variable)} · ${view}`,
  detail: variable.value === undefined ? variable.type : 'worked out',
  insertion: { what: 'placeholder', name: variable.key, view },
});

const field = (name: string): Entry => ({
  group: name.startsWith('sender') ? 'My fields' : 'Recipient',
  words: labelFromKey(name.split('.')[1] ?? name),
  detail: name,
  insertion: { what: 'placeholder', name, view: '' },
});

/** The passages that a variable can govern without a condition of its own. */
function passages(variable: Variable): Entry[] {
  const passage = (words: string, is: readonly string[], not: boolean): Entry => ({
    group: 'Passages',
    words,
    detail: is.length > 0 ? 'alternative' : 'passage',
    insertion: { what: 'passage', condition: { of: variable.key, is, not, run: 0 } },
  });
  const label = labelOf(variable);
  switch (variable.type) {
    case 'yes-no':
      return [passage(`Only with: ${label}`, [], false), passage(`Only without: ${label}`, [], true)];
    case 'choice':
    case 'choices':
      return (variable.options ?? []).map((option) =>
        passage(`Only with: ${label}, ${option.label ?? labelFromKey(option.key)}`, [option.key], false),
      );
    default:
      return [];
  }
}

const blocks = (texts: readonly TextSummary[], own: string): Entry[] =>
  texts
    .filter((text) => text.kind !== 'message' && text.name !== own && !text.binned)
    .map(({ title, kind, name }) => ({
      group: 'Blocks, live',
      words: title,
      detail: kind,
      insertion: { what: 'block', name },
    }));

/** What nobody has yet can be made of the words that were typed. */
function made(label: string, inBody: boolean): Entry[] {
  const named = label === '' ? '' : ` “${label}”`;
  const passage: Entry = {
    group: 'New',
    words: `New optional passage${named}`,
    detail: 'switched by a tick',
    insertion: { what: 'new-passage', label },
  };
  const variable: Entry = {
    group: 'New',
    words: `New variable${named}`,
    detail: 'text',
    insertion: { what: 'new-variable', label },
  };
  return [...(label === '' ? [] : [variable]), ...(inBody ? [passage] : [])];
}
