/** Another key for a variable, everywhere. */
import { renameIn } from '../expression/names.js';
import type { TextDocument } from '../template/document.js';
import { isKey, isReserved } from '../template/keys.js';
import type { Variable } from '../template/variable.js';
import { mapDocument } from './map.js';
import { mapTags } from './tags.js';

/** Why a key cannot be a variable's, in words; undefined if it can. */
export function keyProblem(document: TextDocument, key: string): string | undefined {
  if (!isKey(key))
    return 'A key has small letters, digits and underscores, begins with a letter, and is 40 long at most.';
  if (isReserved(key)) return `“${key}” has a meaning of its own in expressions.`;
  return document.attrs.variables.some((variable) => variable.key === key)
    ? `There is a variable “${key}” already; the two can be merged.`
    : undefined;
}

/**
 * The text with a variable called by another key in lines, conditions, targets and expressions.
 * `to` is a key that `keyProblem` has nothing against, or that of the variable it is about to become one with.
 */
export function renameVariable(document: TextDocument, key: string, to: string): TextDocument {
  const renamed = mapDocument(document, {
    inline: (node, shadows) =>
      node.type === 'placeholder' && node.attrs.name === key && !shadows.has(key)
        ? [{ ...node, attrs: { ...node.attrs, name: to } }]
        : [node],
    condition: (condition, shadows) =>
      condition.of === key && !shadows.has(key) ? { ...condition, of: to } : condition,
    target: (href, shadows) =>
      shadows.has(key)
        ? href
        : mapTags(href, {
            placeholder: (name, view) => ({ name: name === key ? to : name, view }),
            condition: (condition) => (condition.of === key ? { ...condition, of: to } : condition),
          }),
    variables: (variables) =>
      variables.map((variable) => {
        const named = variable.key === key ? { ...variable, key: to } : variable;
        return withExpressions(named, (source) => renameIn(source, key, to), key);
      }),
  });
  const { remarks, ...front } = renamed.attrs.front;
  if (!remarks) return renamed;
  const moved = Object.fromEntries(
    Object.entries(remarks).map(([at, words]) => [at === `variables.${key}` ? `variables.${to}` : at, words]),
  );
  return { ...renamed, attrs: { ...renamed.attrs, front: { ...front, remarks: moved } } };
}

/** A declaration with its expressions changed; those of columns only where no column has the key that is meant. */
function withExpressions(variable: Variable, change: (source: string) => string, key: string): Variable {
  const columns = variable.columns?.some((column) => column.key === key)
    ? variable.columns
    : variable.columns?.map((column) =>
        column.value === undefined ? column : { ...column, value: change(column.value) },
      );
  return {
    ...variable,
    ...(variable.value === undefined ? {} : { value: change(variable.value) }),
    ...(columns ? { columns } : {}),
  };
}
