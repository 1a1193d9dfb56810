/** What Write does with the editor: inserting, making of selected words, finding markers. */
import type { Editor } from '@tiptap/core';
import type { Node as PmNode } from '@tiptap/pm/model';
import type { Condition } from '@vocabula/core';
import type { Insertion } from './insertions';
import type { Making } from './SelectionBar.vue';
import {
  convertMarkers,
  findWords,
  insertNode,
  makeVariable,
  newVariable,
  optionsFrom,
  setVariables,
  variablesOf,
  wrap,
  type MarkerGroup,
} from './editor/operations';

const condition = (of: string, is: readonly string[] = []): Condition => ({ of, is, not: false, run: 0 });

/** Puts in what was chosen from the insert list. */
export function insert(editor: Editor, insertion: Insertion): void {
  const { schema, doc } = editor.state;
  const passage = (governing: Condition): void => {
    const node = schema.nodes.passage?.create(governing, schema.nodes.paragraph?.create());
    if (node) placeBlock(editor, node);
  };
  switch (insertion.what) {
    case 'placeholder':
      return insertPlaceholder(editor, insertion.name, insertion.view);
    case 'passage':
      return passage(insertion.condition);
    case 'new-passage': {
      const variable = newVariable(doc, insertion.label.trim() || 'Optional passage', 'yes-no', { default: 'false' });
      editor.view.dispatch(setVariables(editor.state.tr, [...variablesOf(doc), variable]));
      return passage(condition(variable.key));
    }
    case 'new-variable': {
      const variable = newVariable(doc, insertion.label, 'text', { required: true });
      editor.view.dispatch(setVariables(editor.state.tr, [...variablesOf(doc), variable]));
      return insertPlaceholder(editor, variable.key, '');
    }
    case 'block': {
      const { $from } = editor.state.selection;
      const alone = $from.parent.content.size === 0;
      const node = schema.nodes[alone ? 'inclusion' : 'inlineInclusion']?.create({ name: insertion.name });
      if (node) (alone ? placeBlock : insertNode)(editor, node);
    }
  }
}

function insertPlaceholder(editor: Editor, name: string, view: string): void {
  const node = editor.schema.nodes.placeholder?.create({ name, view });
  if (node) insertNode(editor, node);
}

/** A block takes the place of an empty paragraph, or comes after a full one; the caret goes into it. */
function placeBlock(editor: Editor, node: PmNode): void {
  const { tr, selection } = editor.state;
  const { $from } = selection;
  const empty = $from.parent.content.size === 0;
  const at = empty ? $from.before() : $from.after();
  if (empty) tr.replaceWith(at, $from.after(), node);
  else tr.insert(at, node);
  editor.view.dispatch(tr);
  editor.commands.setTextSelection(node.isAtom ? at + node.nodeSize : at + 2);
}

/** Makes what was asked for of the selected words. Gives words for the foot. */
export function make(editor: Editor, making: Making): string {
  const { doc, selection } = editor.state;
  const { from, to } = selection;
  const words = doc.textBetween(from, to, ' ');
  switch (making.what) {
    case 'variable': {
      const variable = newVariable(doc, making.label, making.type, { required: true });
      const places = making.everywhere ? findWords(doc, words) : [];
      makeVariable(
        editor,
        variable,
        places.some((place) => place.from === from) ? places : [trimmed(editor, from, to)],
      );
      return `${making.label}: ${Math.max(1, places.length)} ${places.length > 1 ? 'places' : 'place'}.`;
    }
    case 'pick-one': {
      const variable = newVariable(doc, making.label, 'choice', {
        options: optionsFrom(making.options),
        required: true,
      });
      makeVariable(editor, variable, [trimmed(editor, from, to)]);
      return `${making.label}: ${making.options.length} options.`;
    }
    case 'optional': {
      const variable = newVariable(doc, making.label, 'yes-no', { default: 'false' });
      wrap(editor, condition(variable.key), [variable]);
      return `${making.label}: kept when ticked.`;
    }
    case 'alternative': {
      const options = optionsFrom(making.options);
      const variable = newVariable(doc, making.label, 'choice', {
        options,
        default: options[0]?.key ?? '',
        required: true,
      });
      const [first, ...others] = options.map((option) => condition(variable.key, [option.key]));
      if (first) wrap(editor, first, [variable], others);
      return `${making.label}: ${options.length} alternatives.`;
    }
    case 'condition': {
      const variable = newVariable(doc, making.label, 'yes-no', { value: making.expression });
      wrap(editor, condition(variable.key), [variable]);
      return `Kept only if ${making.label}.`;
    }
  }
}

/** The selection without white space at its ends. */
function trimmed(editor: Editor, from: number, to: number): { from: number; to: number } {
  const text = editor.state.doc.textBetween(from, to, '\uFFFC', '\uFFFC');
  return { from: from + (text.length - text.trimStart().length), to: to - (text.length - text.trimEnd().length) };
}

/** Turns markers into variables. Gives words for the foot. */
export function convert(editor: Editor, groups: readonly MarkerGroup[]): string {
  const count = convertMarkers(editor, groups);
  return `${groups.length} ${groups.length === 1 ? 'variable' : 'variables'} in ${count} ${count === 1 ? 'place' : 'places'}.`;
}

/** How many placeholders, conditions and expressions use each variable. */
export function countPlaces(editor: Editor): Map<string, number> {
  const counts = new Map<string, number>();
  const add = (key: string): void => void counts.set(key, (counts.get(key) ?? 0) + 1);
  editor.state.doc.descendants((node) => {
    if (node.type.name === 'placeholder') add(String(node.attrs.name));
    if (node.type.name === 'passage') add(String(node.attrs.of));
    for (const each of (node.attrs.when ?? []) as readonly Condition[]) add(each.of);
    for (const mark of node.marks) {
      if (mark.type.name === 'phrase') add(String(mark.attrs.of));
      if (mark.type.name === 'link')
        for (const [, key = ''] of String(mark.attrs.href).matchAll(/\{\{([a-z0-9_]+)/g)) add(key);
    }
  });
  for (const variable of variablesOf(editor.state.doc))
    for (const [key] of (variable.value ?? '').matchAll(/[a-z][a-z0-9_]*/g))
      if (counts.has(key) || variablesOf(editor.state.doc).some((each) => each.key === key)) add(key);
  return counts;
}

/** The next position after the caret where a variable stands, from the top again after the last. */
export function nextPlace(editor: Editor, key: string): number | undefined {
  const places: number[] = [];
  editor.state.doc.descendants((node, pos) => {
    const uses =
      (node.type.name === 'placeholder' && node.attrs.name === key) ||
      (node.type.name === 'passage' && node.attrs.of === key) ||
      node.marks.some((mark) => mark.type.name === 'phrase' && mark.attrs.of === key);
    if (uses) places.push(pos);
  });
  return places.find((pos) => pos > editor.state.selection.from) ?? places[0];
}
