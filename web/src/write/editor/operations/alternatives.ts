/** One more alternative beside those that are there. */
import type { Editor } from '@tiptap/core';
import { TextSelection } from '@tiptap/pm/state';
import { keyFromLabel, type Condition } from '@vocabula/core';
import type { Bracket } from '../brackets';
import { alternativesAt } from '../plugins/folding';
import { setVariables, variablesOf } from './variables';

/**
 * Adds an alternative behind those that a bracket stands with, and an option for it where each has one already. The
 * caret goes into it. Undefined where the bracket is none of an alternative, or its variable is not here.
 */
export function addAlternative(
  editor: Editor,
  { form, condition, from, to }: Bracket,
): { readonly of: string; readonly option: string } | undefined {
  const { tr, doc, schema } = editor.state;
  const variables = variablesOf(doc);
  const variable = variables.find(({ key }) => key === condition?.of);
  if (!condition || condition.is.length === 0 || !variable?.options) return undefined;
  const together = form === 'passage' ? alternativesAt(doc, from) : [];
  const taken = new Set(together.flatMap((pos) => (doc.nodeAt(pos)?.attrs as Condition).is));
  const free = form === 'passage' ? variable.options.find(({ key }) => !taken.has(key)) : undefined;
  const label = `Alternative ${variable.options.length + 1}`;
  const option = free ?? { key: keyFromLabel(label, new Set(variable.options.map(({ key }) => key))), label };
  const governing: Condition = { of: variable.key, is: [option.key], not: false, run: 0 };
  if (!free)
    setVariables(
      tr,
      variables.map((each) => (each === variable ? { ...each, options: [...(each.options ?? []), option] } : each)),
    );
  if (form === 'passage') {
    const last = together.at(-1) ?? from;
    const end = last + (doc.nodeAt(last)?.nodeSize ?? 0);
    const passage = schema.nodes.passage?.create(governing, schema.nodes.paragraph?.create());
    if (!passage) return undefined;
    tr.insert(end, passage).setSelection(TextSelection.create(tr.doc, end + 2));
  } else if (form === 'phrase') {
    const mark = schema.marks.phrase?.create(governing);
    const place = schema.nodes.inlineComment?.create({ text: '' }, undefined, mark ? [mark] : []);
    if (!mark || !place) return undefined;
    tr.insert(to, place)
      .setSelection(TextSelection.create(tr.doc, to + 1))
      .setStoredMarks([mark]);
  } else return undefined;
  editor.view.dispatch(tr.scrollIntoView());
  return { of: variable.key, option: option.key };
}
