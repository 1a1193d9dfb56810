/** Two variables that ask for the same become one. */
import type { TextDocument } from '../template/document.js';
import { unusual } from '../template/keys.js';
import type { Option, Variable } from '../template/variable.js';
import { labelOf } from '../values/choice.js';
import { fold } from '../words/fold.js';
import { mapDocument } from './map.js';
import { renameVariable } from './rename.js';

/** Attributes whose loss is said; options and columns are joined rather than lost. */
const JOINED: ReadonlySet<string> = new Set(['key', 'type', 'options', 'columns']);

/** A text in which two variables have become one. */
export interface Merged {
  readonly document: TextDocument;
  /** Attributes of the first variable that differ from the second's, and are gone. */
  readonly lost: readonly (keyof Variable)[];
}

/**
 * Puts one variable in place of another of its type, everywhere. Options with the same key or label are one, and the
 * others are added; for everything else the variable that stays is right.
 */
export function mergeVariables(document: TextDocument, from: string, into: string): Merged {
  const { variables } = document.attrs;
  const [gone, stays] = [from, into].map((key) => variables.find((variable) => variable.key === key));
  if (!gone || !stays || gone === stays || gone.type !== stays.type) return { document, lost: [] };
  const { options, keys } = joinOptions(gone.options, stays.options);
  const columns = [
    ...(stays.columns ?? []),
    ...(gone.columns ?? []).filter(({ key }) => !stays.columns?.some((column) => column.key === key)),
  ];
  const joined: Variable = { ...stays, ...(options ? { options } : {}), ...(stays.columns ? { columns } : {}) };
  const ready = mapDocument(document, {
    condition: (condition, shadows) =>
      condition.of === from && !shadows.has(from)
        ? { ...condition, is: [...new Set(condition.is.map((key) => keys.get(key) ?? key))] }
        : condition,
    variables: (all) =>
      all.filter(({ key }) => key !== from).map((variable) => (variable.key === into ? joined : variable)),
  });
  return {
    document: renameVariable(ready, from, into),
    lost: (Object.keys(gone) as (keyof Variable)[]).filter(
      (name) => !JOINED.has(name) && JSON.stringify(gone[name]) !== JSON.stringify(stays[name]),
    ),
  };
}

/** All options, and the keys that those of the first have among them. */
function joinOptions(
  from: readonly Option[] | undefined,
  into: readonly Option[] | undefined,
): { options: readonly Option[] | undefined; keys: ReadonlyMap<string, string> } {
  const keys = new Map<string, string>();
  if (!from || !into) return { options: into, keys };
  const options = [...into];
  for (const option of from) {
    const same =
      into.find(
        ({ key, label }) =>
          key === option.key && fold(labelOf({ key, ...(label ? { label } : {}) })) === fold(labelOf(option)),
      ) ?? into.find((each) => fold(labelOf(each)) === fold(labelOf(option)));
    const key = same?.key ?? unusual(option.key, new Set(options.map((each) => each.key)), '_');
    if (!same) options.push({ ...option, key });
    keys.set(option.key, key);
  }
  return { options, keys };
}
