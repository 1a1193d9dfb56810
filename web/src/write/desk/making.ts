/** Making variables and passages of words, and putting things in, in whichever editor has the focus. */
import type { Editor } from '@tiptap/core';
import type { Node as PmNode } from '@tiptap/pm/model';
import { TextSelection } from '@tiptap/pm/state';
import {
  findMatches,
  patternFor,
  replaceMatches,
  type Condition,
  type LineRef,
  type Match,
  type Variable,
} from '@vocabula/core';
import { caretPath } from '../caret';
import { changeTo, documentOf } from '../editor/operations/apply';
import { insertNode, placeBlock } from '../editor/operations/insert';
import type { Range } from '../editor/operations/places';
import { declare, newVariable, optionsFrom, setVariables, variablesOf } from '../editor/operations/variables';
import { wrap } from '../editor/operations/wrap';
import type { Insertion } from '../bar/insertions';

/** Where words are selected: in the manuscript, or in the wording that a line's editor shows. */
export interface Spot {
  readonly main: Editor;
  readonly target: Editor;
  /** The line of the target, if it is not the manuscript. */
  readonly line?: LineRef;
}

export type Making =
  | { readonly what: 'variable'; readonly variable: Variable; readonly others: readonly Match[] }
  | { readonly what: 'optional'; readonly label: string; readonly range: Range }
  | { readonly what: 'alternative'; readonly label: string; readonly options: readonly string[]; readonly range: Range }
  | { readonly what: 'condition'; readonly label: string; readonly expression: string; readonly range: Range }
  | { readonly what: 'governed'; readonly condition: Condition; readonly range: Range }
  | { readonly what: 'repeat'; readonly list: Variable; readonly range: Range };

const condition = (of: string, is: readonly string[] = []): Condition => ({ of, is, not: false, run: 0 });

/** The selected words, without white space at their ends, as a match of their line; undefined where they span lines. */
export function selectedMatch({ target, line, main }: Spot): Match | undefined {
  const { $from, $to, from, to } = target.state.selection;
  if ($from.parent !== $to.parent || !$from.parent.isTextblock) return undefined;
  const text = target.state.doc.textBetween(from, to, '\uFFFC', '\uFFFC');
  if (text.trim() === '') return undefined;
  const start = $from.parentOffset + (text.length - text.trimStart().length);
  const end = $to.parentOffset - (text.length - text.trimEnd().length);
  const ref: LineRef = line ?? { kind: 'line', path: caretPath(main) };
  return { line: ref, start, end, before: '', words: text.trim(), after: '' };
}

/** Every other place where the selected words stand, also in another case or spacing. */
export function otherPlaces(spot: Spot, locale: string): Match[] {
  const own = selectedMatch(spot);
  const pattern = own && patternFor(own.words, { whole: true });
  if (!own || !pattern) return [];
  const same = (match: Match): boolean =>
    JSON.stringify(match.line) === JSON.stringify(own.line) && match.start < own.end && match.end > own.start;
  return findMatches(documentOf(spot.main), pattern, locale).filter((match) => !same(match));
}

/** Makes what was asked for of the selected words, in one step of undo. Gives words for the foot. */
export function make(spot: Spot, making: Making): string {
  const { main } = spot;
  switch (making.what) {
    case 'variable': {
      const own = selectedMatch(spot);
      if (!own) return 'Words of one line become a variable.';
      const count = 1 + making.others.length;
      replaceBy(spot, own, [own, ...making.others], making.variable);
      return `${making.variable.label ?? making.variable.key}: ${count} ${count === 1 ? 'place' : 'places'}.`;
    }
    case 'optional': {
      const variable = newVariable(main.state.doc, making.label, 'yes-no', { default: 'false' });
      put(spot, condition(variable.key), making.range, [variable]);
      return `${making.label}: kept when ticked.`;
    }
    case 'alternative': {
      const options = optionsFrom(making.options);
      const usual = options[0]?.key ?? '';
      const variable = newVariable(main.state.doc, making.label, 'choice', { options, default: usual, required: true });
      const [first, ...others] = options.map((option) => condition(variable.key, [option.key]));
      if (first) put(spot, first, making.range, [variable], others);
      return `${making.label}: ${options.length} alternatives.`;
    }
    case 'condition': {
      const variable = newVariable(main.state.doc, making.label, 'yes-no', { value: making.expression });
      put(spot, condition(variable.key), making.range, [variable]);
      return `Kept only if ${making.label}.`;
    }
    case 'governed':
      put(spot, making.condition, making.range);
      return 'Condition added.';
    case 'repeat': {
      const known = variablesOf(main.state.doc).some(({ key }) => key === making.list.key);
      put(spot, condition(making.list.key), making.range, known ? [] : [making.list]);
      return `Repeated for each row of ${making.list.label ?? making.list.key}.`;
    }
  }
}

/** Puts a placeholder of a new variable in place of matches. */
function replaceBy({ main, target, line }: Spot, own: Match, matches: readonly Match[], variable: Variable): void {
  const { tr, schema, selection } = main.state;
  const changed = replaceMatches(documentOf(main), matches, () => ({ name: variable.key, view: '' }));
  const attrs = { ...changed.attrs, variables: [...changed.attrs.variables, variable] };
  changeTo(tr, schema.nodeFromJSON({ ...changed, attrs }));
  if (!line) {
    // The caret stands behind the placeholder: as far from its line's end as the words were.
    const fromEnd = selection.$to.parent.content.size - own.end;
    const $line = tr.doc.resolve(tr.mapping.map(selection.$from.start(), -1));
    tr.setSelection(TextSelection.near(tr.doc.resolve($line.end() - fromEnd)));
  }
  main.view.dispatch(tr.scrollIntoView());
  target.commands.focus();
}

/** Puts the selection under a condition. In a line's editor that is always a phrase. */
function put(
  { main, target, line }: Spot,
  governing: Condition,
  range: Range,
  variables: readonly Variable[] = [],
  others: readonly Condition[] = [],
): void {
  if (!line) return wrap(main, governing, variables, others, range);
  if (variables.length > 0) declare(main, variables);
  const mark = target.schema.marks.phrase?.create(governing);
  if (mark) target.view.dispatch(target.state.tr.addMark(range.from, range.to, mark));
}

/** Puts in what was chosen from the insert list. */
export function insert(spot: Spot, insertion: Insertion): void {
  const { target } = spot;
  const { schema } = target.state;
  const alone = target.state.selection.$from.parent.content.size === 0;
  const { doc } = spot.main.state;
  switch (insertion.what) {
    case 'placeholder':
      return putIn(spot, schema.nodes.placeholder?.create({ name: insertion.name, view: insertion.view }));
    case 'passage':
      return putIn(spot, passage(target, insertion.condition));
    case 'new-passage': {
      const variable = newVariable(doc, insertion.label.trim() || 'Optional passage', 'yes-no', { default: 'false' });
      return putIn(spot, passage(target, condition(variable.key)), variable);
    }
    case 'new-variable': {
      const variable = newVariable(doc, insertion.label, 'text', { required: true });
      return putIn(spot, schema.nodes.placeholder?.create({ name: variable.key, view: '' }), variable);
    }
    case 'computed': {
      const { label, type, currency, expression } = insertion;
      const variable = newVariable(doc, label, type, { value: expression, ...(currency ? { currency } : {}) });
      return putIn(spot, schema.nodes.placeholder?.create({ name: variable.key, view: '' }), variable);
    }
    case 'note':
      return putIn(spot, schema.nodes[alone ? 'comment' : 'inlineComment']?.create({ text: insertion.words }));
    case 'block':
      return putIn(spot, schema.nodes[alone ? 'inclusion' : 'inlineInclusion']?.create({ name: insertion.name }));
  }
}

const passage = ({ schema }: Editor, governing: Condition): PmNode | undefined =>
  schema.nodes.passage?.create(governing, schema.nodes.paragraph?.create());

/** Puts a node in at the caret, with the variable that it needs, as one change. */
function putIn({ main, target, line }: Spot, node: PmNode | undefined, variable?: Variable): void {
  if (!node) return;
  const { tr } = target.state;
  if (variable && line) declare(main, [variable]);
  else if (variable) setVariables(tr, [...variablesOf(main.state.doc), variable]);
  if (node.isInline) insertNode(target, node, tr);
  else placeBlock(target, [node], tr);
}
