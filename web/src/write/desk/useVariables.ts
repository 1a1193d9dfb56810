/** What the tray does with variables; each act is one step of undo. */
import type { Editor } from '@tiptap/core';
import {
  keyFromLabel,
  keyProblem,
  mergeVariables,
  readersOf,
  removeVariable,
  renameVariable,
  retypeVariable,
  usesOf,
  type Left,
  type Merged,
  type Retyped,
  type TypeName,
  type Use,
  type Variable,
} from '@vocabula/core';
import { ref } from 'vue';
import { useNotice } from '../../ui/notice';
import { today } from '../../ui/today';
import { changeTo, documentOf } from '../editor/operations/apply';
import { positionOf } from '../editor/operations/places';
import { TAKES_BRACKETS } from '../editor/bracketRemoval';
import { changeVariable, newVariable, setVariables, variablesOf } from '../editor/operations/variables';

/** How a text is changed from outside its editor. */
function applyTo(editor: Editor, next: ReturnType<typeof documentOf>): void {
  const { tr } = editor.state;
  if (changeTo(tr, editor.schema.nodeFromJSON(next))) editor.view.dispatch(tr.setMeta(TAKES_BRACKETS, true));
}

/** The key of a variable that has not been given a label yet. */
const FRESH = /^new_variable(?:_\d+)?$/;
const named = (variable: Variable): string => `“${variable.label ?? variable.key}”`;

export function useVariables(editor: Editor, undo: () => void) {
  const notice = useNotice();
  /** The variable whose details are open. */
  const open = ref<string>();
  const find = (key: string): Variable | undefined => variablesOf(editor.state.doc).find((each) => each.key === key);
  const context = () => ({ today: today(), locale: documentOf(editor).attrs.front.locale ?? 'en-GB' });

  function change(key: string, how: (variable: Variable) => Variable, id?: string): void {
    changeVariable(editor, key, how, id);
  }
  /** Sets an attribute; nothing, false and the empty text take it out, and `off` is a no where yes is usual. */
  function set(key: string, name: keyof Variable, value: unknown, id?: string): void {
    change(
      key,
      ({ [name]: _old, ...rest }) =>
        (value === '' || value === undefined || value === false
          ? rest
          : { ...rest, [name]: name === 'grouping' && value === 'off' ? false : value }) as Variable,
      id,
    );
  }
  function add(label = 'New variable', type: TypeName = 'text'): void {
    const variable = newVariable(editor.state.doc, label, type, { required: true });
    editor.view.dispatch(setVariables(editor.state.tr, [...variablesOf(editor.state.doc), variable]));
    open.value = variable.key;
  }
  /** Gives a variable a label; one that was just made takes its key from it. */
  function relabel(key: string, label: string): void {
    set(key, 'label', label);
    const document = documentOf(editor);
    if (label === '' || !FRESH.test(key) || usesOf(document).some((use) => use.key === key)) return;
    const taken = new Set(document.attrs.variables.map((each) => each.key));
    const { tr } = editor.state;
    const next = renameVariable(document, key, keyFromLabel(label, taken));
    if (!changeTo(tr, editor.schema.nodeFromJSON(next))) return;
    // Label and key are one act.
    editor.view.dispatch(tr.setMeta('appendedTransaction', tr));
    open.value = next.attrs.variables.at(document.attrs.variables.findIndex((each) => each.key === key))?.key;
  }
  /** Gives a variable another key everywhere; says why where it cannot have it. */
  function rename(key: string, to: string): boolean {
    if (to === key) return true;
    const document = documentOf(editor);
    const problem = keyProblem(document, to);
    if (problem) {
      notice.fail(new Error(problem));
      return false;
    }
    applyTo(editor, renameVariable(document, key, to));
    if (open.value === key) open.value = to;
    notice.say(`${key} is ${to} now, everywhere.`, undo);
    return true;
  }
  /** What another type would lose; `apply` gives it. */
  function retyped(key: string, type: TypeName): Retyped & { apply: () => void } {
    const result = retypeVariable(documentOf(editor), key, type, context());
    return {
      ...result,
      apply() {
        applyTo(editor, result.document);
        notice.say(`It is a ${type} now.`, undo);
      },
    };
  }
  /** What merging would lose; `apply` merges. */
  function merged(from: string, into: string): Merged & { apply: () => void } {
    const result = mergeVariables(documentOf(editor), from, into);
    const [gone, stays] = [find(from), find(into)];
    return {
      ...result,
      apply() {
        applyTo(editor, result.document);
        open.value = into;
        if (gone && stays) notice.say(`${named(gone)} is ${named(stays)} now, everywhere.`, undo);
      },
    };
  }
  function remove(variable: Variable, left: Left): void {
    const document = documentOf(editor);
    const readers = readersOf(document, variable.key);
    applyTo(editor, removeVariable(document, variable.key, left));
    open.value = undefined;
    const still = readers.length > 0 ? ` ${readers.join(', ')} still asks for it.` : '';
    notice.say(`${named(variable)} is taken out.${still}`, undo);
  }
  /** The position of a use; undefined for those in wordings and expressions. */
  const placeOf = ({ path }: Use): number | undefined => (path ? positionOf(editor.state.doc, path) : undefined);

  return { open, find, change, set, add, relabel, rename, retyped, merged, remove, placeOf };
}

export type Variables = ReturnType<typeof useVariables>;
