/** Changes of the document as a whole, each one step of undo. */
import type { Editor } from '@tiptap/core';
import type { Fragment, Mark, Node as PmNode } from '@tiptap/pm/model';
import { NodeSelection, type Transaction } from '@tiptap/pm/state';
import {
  findMarkers,
  guessVariable,
  keyFromLabel,
  readLine,
  type Condition,
  type Marker,
  type MarkerKind,
  type Repair,
  type TypeName,
  type Variable,
} from '@vocabula/core';

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
    ...(type === 'money' ? { currency: 'EUR' } : {}),
    ...more,
  };
  return variable;
}

/** Every place where words stand, whatever their case and spacing, in any line of the document. */
export function findWords(doc: PmNode, words: string): { from: number; to: number }[] {
  const tidy = words.trim();
  if (tidy === '') return [];
  const pattern = new RegExp(
    `(?<![\\p{L}\\p{N}])${tidy
      .split(/\s+/)
      .map((word) => word.replace(/[.*+?^${}()|[\]\\]/g, '\\$&'))
      .join('\\s+')}(?![\\p{L}\\p{N}])`,
    'giu',
  );
  const found: { from: number; to: number }[] = [];
  eachLine(doc, (text, at) => {
    for (const match of text.matchAll(pattern))
      found.push({ from: at(match.index), to: at(match.index + match[0].length) });
  });
  return found;
}

/** Visits the text of every line; `at` gives the document position of an offset in it. */
function eachLine(doc: PmNode, visit: (text: string, at: (offset: number) => number) => void): void {
  doc.descendants((node, pos) => {
    if (!node.isTextblock) return true;
    if (node.type.name === 'codeBlock') return false;
    // One character for everything that is no text keeps offsets and positions alike.
    const text = node.textBetween(0, node.content.size, undefined, '\uFFFC');
    visit(text, (offset) => pos + 1 + offset);
    return false;
  });
}

/** Replaces stretches by placeholders, keeping the marks of each; from the end, so that places stay true. */
function replaceAll(tr: Transaction, places: readonly { from: number; to: number; name: string }[]): void {
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

/** Makes a variable of words, everywhere they stand or only where they are selected. */
export function makeVariable(
  editor: Editor,
  variable: Variable,
  places: readonly { from: number; to: number }[],
): void {
  const { tr } = editor.state;
  replaceAll(
    tr,
    places.map((place) => ({ ...place, name: variable.key })),
  );
  setVariables(tr, [...variablesOf(editor.state.doc), variable]);
  editor.view.dispatch(tr.scrollIntoView());
}

/** Markers of one wording, with what they would become. */
export interface MarkerGroup {
  readonly id: string;
  readonly kind: MarkerKind;
  readonly text: string;
  readonly places: readonly { from: number; to: number }[];
  readonly type: TypeName;
  readonly label: string;
  readonly options: readonly string[] | undefined;
}

/** All hand-made markers of a document, equal ones together. Rules are told apart by the word before them. */
export function findMarkerGroups(doc: PmNode): MarkerGroup[] {
  const groups = new Map<
    string,
    { marker: Marker; text: string; guess: ReturnType<typeof guessVariable>; places: { from: number; to: number }[] }
  >();
  eachLine(doc, (text, at) => {
    for (const marker of findMarkers(text)) {
      const guess = guessVariable(marker, text.slice(0, marker.start));
      const id = marker.words ? marker.words.toLowerCase().replace(/[\s_]+/g, ' ') : `rule ${guess.label}`;
      const group = groups.get(id) ?? { marker, text: text.slice(marker.start, marker.end), guess, places: [] };
      group.places.push({ from: at(marker.start), to: at(marker.end) });
      groups.set(id, group);
    }
  });
  return [...groups.entries()].map(([id, { marker, text, guess, places }]) => ({
    id,
    kind: marker.kind,
    text,
    places,
    type: guess.type,
    label: guess.label,
    options: guess.options,
  }));
}

/** Turns markers into variables in one step. A label that a variable of the type has already joins it. */
export function convertMarkers(
  editor: Editor,
  groups: readonly Pick<MarkerGroup, 'places' | 'type' | 'label' | 'options'>[],
): number {
  const { tr, doc } = editor.state;
  const variables = [...variablesOf(doc)];
  const taken = new Set(variables.map((variable) => variable.key));
  const places: { from: number; to: number; name: string }[] = [];
  for (const group of groups) {
    let variable = variables.find(
      (each) => each.type === group.type && each.label?.toLowerCase() === group.label.toLowerCase(),
    );
    if (!variable) {
      const key = keyFromLabel(group.label, taken);
      taken.add(key);
      const options = group.type === 'choice' ? optionsFrom(group.options ?? [group.label]) : undefined;
      variable = {
        key,
        type: group.type,
        label: group.label,
        required: true,
        ...(group.type === 'money' ? { currency: 'EUR' } : {}),
        ...(options ? { options } : {}),
      };
      variables.push(variable);
    }
    for (const place of group.places) places.push({ ...place, name: variable.key });
  }
  replaceAll(tr, places);
  setVariables(tr, variables);
  editor.view.dispatch(tr.scrollIntoView());
  return places.length;
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

/** Puts the selection under a condition: a phrase inside one line, else a passage around whole blocks. */
export function wrap(
  editor: Editor,
  condition: Condition,
  variables: readonly Variable[] = [],
  alternatives: readonly Condition[] = [],
): void {
  const { state } = editor;
  const { tr, schema, selection } = state;
  const { $from, $to, from, to } = selection;
  const whole =
    $from.parent !== $to.parent ||
    (from === $from.start() && to === $to.end() && inBody($from.depth, $from.node.bind($from)));
  if (!whole || !inBody($from.depth, $from.node.bind($from))) {
    const mark = schema.marks.phrase?.create(condition);
    if (mark) tr.addMark(from, to, mark);
  } else {
    const range = $from.blockRange($to, (node) =>
      ['body', 'passage', 'blockquote', 'listItem'].includes(node.type.name),
    );
    const passage = schema.nodes.passage;
    if (!range || !passage) return;
    const others = alternatives.map((each) => passage.create(each, schema.nodes.paragraph?.create()));
    tr.insert(range.end, others);
    tr.wrap(range, [{ type: passage, attrs: condition }]);
  }
  if (variables.length > 0) setVariables(tr, [...variablesOf(state.doc), ...variables]);
  editor.view.dispatch(tr.scrollIntoView());
}

function inBody(depth: number, node: (depth: number) => PmNode): boolean {
  for (let at = depth; at > 0; at -= 1) if (node(at).type.name === 'body') return true;
  return false;
}

/** Takes the bracket off the passage at a position; its words stay. */
export function unwrap(editor: Editor, pos: number): void {
  const { tr, doc } = editor.state;
  const node = doc.nodeAt(pos);
  if (node?.type.name !== 'passage') return;
  tr.replaceWith(pos, pos + node.nodeSize, node.content as Fragment);
  editor.view.dispatch(tr);
}

/** Puts a node where the caret is; blocks get a place of their own. */
export function insertNode(editor: Editor, node: PmNode): void {
  const { tr } = editor.state;
  tr.replaceSelectionWith(node, node.isInline);
  editor.view.dispatch(tr.scrollIntoView());
}

/** Takes words back that were typed to open a list, such as the braces. */
export function removeBefore(editor: Editor, length: number): void {
  const { from } = editor.state.selection;
  editor.view.dispatch(editor.state.tr.delete(from - length, from));
}

/** Selects a node and brings it into view. */
export function selectNode(editor: Editor, pos: number): void {
  editor.view.dispatch(editor.state.tr.setSelection(NodeSelection.create(editor.state.doc, pos)).scrollIntoView());
}

/** Changes one variable, everywhere it is declared here. */
export function changeVariable(editor: Editor, key: string, change: (variable: Variable) => Variable): void {
  editor.view.dispatch(
    setVariables(
      editor.state.tr,
      variablesOf(editor.state.doc).map((variable) => (variable.key === key ? change(variable) : variable)),
    ),
  );
}

/** Takes a variable out; placeholders of it become its label's words, passages on it lose their brackets. */
export function removeVariable(editor: Editor, variable: Variable): void {
  const { tr, doc, schema } = editor.state;
  const places: { pos: number; node: PmNode }[] = [];
  doc.descendants((node, pos) => {
    if (
      (node.type.name === 'placeholder' && node.attrs.name === variable.key) ||
      (node.type.name === 'passage' && node.attrs.of === variable.key)
    )
      places.push({ pos, node });
    for (const mark of node.marks)
      if (mark.type.name === 'phrase' && mark.attrs.of === variable.key) tr.removeMark(pos, pos + node.nodeSize, mark);
  });
  for (const { pos, node } of places.reverse()) {
    const at = tr.mapping.map(pos);
    const size = tr.doc.nodeAt(at)?.nodeSize ?? node.nodeSize;
    if (node.type.name === 'passage') tr.replaceWith(at, at + size, tr.doc.nodeAt(at)?.content ?? node.content);
    else tr.replaceWith(at, at + size, schema.text(variable.label ?? variable.key, node.marks));
  }
  setVariables(
    tr,
    variablesOf(doc).filter((each) => each.key !== variable.key),
  );
  editor.view.dispatch(tr);
}

/** The document position of a node by its path of child indexes. */
export function positionOf(editor: Editor, path: readonly number[]): number | undefined {
  let node = editor.state.doc;
  let pos = 0;
  for (const [depth, index] of path.entries()) {
    if (index >= node.childCount) return undefined;
    if (depth > 0) pos += 1;
    for (let before = 0; before < index; before += 1) pos += node.child(before).nodeSize;
    node = node.child(index);
  }
  return pos;
}

/** Does what a finding proposes; false where its place is no longer there. */
export function applyRepair(editor: Editor, repair: Repair): boolean {
  const { tr, doc, schema } = editor.state;
  const pos = positionOf(editor, repair.path);
  const node = pos === undefined ? null : doc.nodeAt(pos);
  if (pos === undefined || !node) return false;
  switch (repair.how) {
    case 'replace': {
      const from = pos + repair.offset;
      const to = from + repair.length;
      if (typeof repair.insert === 'string') tr.insertText(repair.insert, from, to);
      else {
        const nodes = repair.insert.map((each) => schema.nodeFromJSON(each).mark(node.marks));
        tr.replaceWith(from, to, nodes);
      }
      break;
    }
    case 'recolour': {
      const type = schema.marks[repair.mark];
      if (!type) return false;
      tr.removeMark(pos, pos + node.nodeSize, type);
      if (repair.name !== undefined) tr.addMark(pos, pos + node.nodeSize, type.create({ name: repair.name }));
      break;
    }
    case 'attributes':
      tr.setNodeMarkup(pos, undefined, { ...node.attrs, ...repair.attrs });
  }
  editor.view.dispatch(tr.scrollIntoView());
  return true;
}
