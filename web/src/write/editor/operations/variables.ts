/** Variables as part of changes: declared, made of words, changed. */
import type { Editor } from '@tiptap/core';
import type { Mark, Node as PmNode } from '@tiptap/pm/model';
import type { Transaction } from '@tiptap/pm/state';
import { keyFromLabel, readLine, type TypeName, type Variable, valueType } from '@vocabula/core';
import type { Range } from './places';

export const variablesOf = (doc: PmNode): readonly Variable[] => doc.attrs.variables as readonly Variable[];
const keysOf = (doc: PmNode): Set<string> => new Set(variablesOf(doc).map((variable) => variable.key));

/** Puts variables into the document's attribute, as part of a change. */
export function setVariables(tr: Transaction, variables: readonly Variable[]): Transaction {
  return tr.setDocAttribute('variables', variables);
}

/** A new variable with a key of its own, made from its label. */
export function newVariable(doc: PmNode, label: string, type: TypeName, more: Partial<Variable> = {}): Variable {
  const variable: Variable = {
    key: keyFromLabel(label, keysOf(doc)),
    type,
    label,
    ...valueType(type).initial,
    ...more,
  };
  return variable;
}

/** Replaces stretches by placeholders, keeping the marks of each; from the end, so that places stay true. */
export function replaceAll(tr: Transaction, places: readonly (Range & { readonly name: string })[]): void {
  const type = tr.doc.type.schema.nodes.placeholder;
  for (const { from, to, name } of [...places].sort((a, b) => b.from - a.from)) {
    const marks = tr.doc.resolve(from).marksAcross(tr.doc.resolve(to)) ?? ([] as readonly Mark[]);
    const node = type?.create(
      { name, view: '' },
      undefined,
      marks.filter((mark) => mark.type.name !== 'code'),
    );
    if (node) tr.replaceWith(from, to, node);
  }
}

/** Options from lines: the label, and after a colon the wording; a line without one is both. */
export function optionsFrom(lines: readonly string[]): NonNullable<Variable['options']> {
  const taken = new Set<string>(['empty']);
  return lines
    .filter((each) => each.trim() !== '')
    .map((each) => {
      const [, label = each, wording = ''] = /^([^:]{1,40}):\s+(.+)$/.exec(each.trim()) ?? [];
      const key = keyFromLabel(label.trim(), taken);
      taken.add(key);
      return { key, label: label.trim(), wording: readLine((wording || label).trim()) };
    });
}

/** What was changed last, so that changes of one thing that follow each other quickly are one step of undo. */
const lastChange = new WeakMap<Editor, { readonly id: string; readonly at: number; readonly tr: Transaction }>();
const TOGETHER_MS = 800;

/** Declares variables as a change of its own, which what follows right away belongs to. */
export function declare(editor: Editor, variables: readonly Variable[]): void {
  const tr = setVariables(editor.state.tr, [...variablesOf(editor.state.doc), ...variables]);
  lastChange.set(editor, { id: DECLARED, at: tr.time, tr });
  editor.view.dispatch(tr);
}
const DECLARED = 'declared';

/**
 * Changes one variable. Changes with the same `id` that follow each other within a moment are undone together, as
 * typed letters are.
 */
export function changeVariable(
  editor: Editor,
  key: string,
  change: (variable: Variable) => Variable,
  id?: string,
): void {
  const { tr, doc } = editor.state;
  setVariables(
    tr,
    variablesOf(doc).map((variable) => (variable.key === key ? change(variable) : variable)),
  );
  const last = lastChange.get(editor);
  if (id !== undefined && (last?.id === id || last?.id === DECLARED) && tr.time - last.at < TOGETHER_MS)
    tr.setMeta('appendedTransaction', last.tr);
  if (id !== undefined) lastChange.set(editor, { id, at: tr.time, tr });
  else lastChange.delete(editor);
  editor.view.dispatch(tr);
}
