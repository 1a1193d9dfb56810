/** What is done with brackets from the score, the outline and the tray. */
import type { Editor } from '@tiptap/core';
import { meets, valueType, type Condition, type Value, type Variable } from '@vocabula/core';
import { computed, type ComputedRef, type Ref } from 'vue';
import { useNotice } from '../../ui/notice';
import { flatten, sameBracket, type Bracket } from '../editor/brackets';
import { alternativesAt, foldAll, foldsOf, showAlone, showStacked, toggleFold } from '../editor/plugins/folding';
import { join, moveIn, moveOut, split } from '../editor/operations/passages';
import { moveEnd, type End } from '../editor/operations/ends';
import { govern, select, takeOut, unwrap } from '../editor/operations/regovern';
import { addAlternative } from '../editor/operations/alternatives';
import type { BlockInPlace } from '../block/useBlockInPlace';

export interface PassagesNeeds {
  readonly editor: Editor;
  readonly brackets: ComputedRef<readonly Bracket[]>;
  readonly chosen: ComputedRef<Bracket | undefined>;
  readonly variables: ComputedRef<readonly Variable[]>;
  readonly rest: Ref<number>;
  /** The variable's value for the current recipient. */
  readonly valueOf: (key: string) => Value | undefined;
  /** Answers in the proof only. */
  readonly answer: (key: string, value: unknown) => void;
  /** A block's own words, opened where it stands. */
  readonly inPlace: Pick<BlockInPlace, 'mayOpen' | 'open'>;
  readonly undo: () => void;
  /** Derives anew at once, for what follows an act. */
  readonly settle: () => void;
}

// eslint-disable-next-line max-lines-per-function -- acts on brackets share the editor and the choice
export function usePassages({
  editor,
  brackets,
  chosen,
  variables,
  rest,
  valueOf,
  answer,
  inPlace,
  undo,
  settle,
}: PassagesNeeds) {
  const notice = useNotice();
  const all = computed(() => flatten(brackets.value));
  const folds = computed(() => {
    void rest.value;
    return foldsOf(editor.state);
  });
  const variableOf = (bracket: Bracket): Variable | undefined =>
    variables.value.find(({ key }) => key === bracket.condition?.of);

  /** Whether a condition holds for the current recipient; undefined where that cannot be told. */
  function holds(condition: Condition | undefined): boolean | undefined {
    if (!condition) return undefined;
    const type = variables.value.find(({ key }) => key === condition.of)?.type;
    const kind = type && valueType(type).governs;
    return kind ? meets({ kind, condition }, valueOf(condition.of)) : condition.not;
  }

  const act = (done: boolean, words: string, otherwise: string): void => {
    settle();
    if (done) notice.say(words, undo);
    else notice.fail(new Error(otherwise));
  };
  /** The next bracket of the same form beside one. */
  function nextOf(bracket: Bracket): Bracket | undefined {
    return all.value.find(
      (each) =>
        each.form === bracket.form &&
        each.from >= bracket.to &&
        each.level === bracket.level &&
        each.group?.depth === bracket.group?.depth,
    );
  }

  /** Answers what governs a bracket so that it is kept, in the proof only. */
  function see(bracket: Bracket, kept = true): void {
    const variable = variableOf(bracket);
    const { condition } = bracket;
    if (!condition || !variable || variable.value !== undefined) return;
    if (variable.type === 'yes-no') answer(variable.key, kept !== condition.not);
    const option =
      condition.not === kept ? variable.options?.find(({ key }) => !condition.is.includes(key))?.key : condition.is[0];
    if (variable.type === 'choice' && option) answer(variable.key, option);
    if (variable.type === 'choices' && option) answer(variable.key, [option]);
  }
  function choose(bracket: Bracket): void {
    select(editor, bracket);
    settle();
    // An alternative is seen in the proof by choosing it.
    if ((bracket.condition?.is.length ?? 0) > 0 && holds(bracket.condition) === false) see(bracket);
  }

  return {
    all,
    folds,
    variableOf,
    holds,
    see,
    choose,
    govern(condition: Condition): void {
      if (chosen.value) govern(editor, chosen.value, condition);
    },
    unwrap(bracket: Bracket): void {
      unwrap(editor, bracket);
      act(true, 'The bracket is off; the words stay.', '');
    },
    takeOut(bracket: Bracket): void {
      takeOut(editor, bracket);
      act(true, 'The passage and its words are deleted.', '');
    },
    moveEnd(bracket: Bracket, end: End, by: number): void {
      const moved = moveEnd(editor, bracket, end, by);
      act(
        moved,
        `The ${end} of the bracket is moved.`,
        `There is nothing more to ${by > 0 ? 'take in' : 'leave out'} there.`,
      );
    },
    split(bracket: Bracket): void {
      const done = split(editor, bracket, editor.state.selection.from);
      act(done, 'Two brackets now.', 'Put the caret where to split it: between two blocks, or in a paragraph.');
    },
    join(bracket: Bracket): void {
      act(join(editor, bracket, nextOf(bracket)), 'One bracket now.', 'No bracket of the same kind follows directly.');
    },
    moveOut(bracket: Bracket): void {
      act(moveOut(editor, bracket), 'Moved outside.', 'There is nothing around it to move out of.');
    },
    moveIn(bracket: Bracket): void {
      act(
        moveIn(editor, bracket),
        'Moved inside the passage next to it.',
        'There is no passage right before or behind it.',
      );
    },
    fold(bracket: Bracket): void {
      if (bracket.form === 'passage') editor.view.dispatch(toggleFold(editor.state, bracket.from));
    },
    foldAll: (fold: boolean): void => editor.view.dispatch(foldAll(editor.state, fold)),
    alternatives: (bracket: Bracket): number[] =>
      bracket.form === 'passage' ? alternativesAt(editor.state.doc, bracket.from) : [],
    /** Shows the alternative at a position alone, and in the proof. */
    alone(pos: number): void {
      editor.view.dispatch(showAlone(editor.state, pos));
      const bracket = all.value.find(({ form, from }) => form === 'passage' && from === pos);
      if (bracket) choose(bracket);
    },
    stacked: (pos: number): void => editor.view.dispatch(showStacked(editor.state, pos)),
    /** Adds an alternative behind a bracket's, with an option of its own; the caret goes into it. */
    addAlternative(bracket: Bracket | undefined): void {
      const made = bracket && addAlternative(editor, bracket);
      if (!made) return notice.fail(new Error('Put the caret in an alternative first.'));
      settle();
      answer(made.of, made.option);
      notice.say('One more alternative. Its option is named in the tray.', undo);
    },
    mayOpen: ({ name }: Bracket): boolean => inPlace.mayOpen(name),
    openBlock: ({ from }: Bracket): void => void inPlace.open(from),
    isSame: sameBracket,
  };
}

export type Passages = ReturnType<typeof usePassages>;
