/** What can be done with a bracket, by which key in the outline: the one table for menu, outline and tray. */
import { command } from '../../ui/keys';
import type { Bracket } from '../editor/brackets';
import type { Passages } from '../desk/usePassages';

export interface BracketAct {
  readonly id: string;
  readonly words: string;
  /** As it is shown, and as it is listened for. */
  readonly keys: string;
  readonly is: (event: KeyboardEvent) => boolean;
  readonly run: () => void;
}

const letter =
  (key: string) =>
  ({ key: pressed, ctrlKey, metaKey, altKey, shiftKey }: KeyboardEvent): boolean =>
    pressed.toLowerCase() === key && !ctrlKey && !metaKey && !altKey && !shiftKey;
const end =
  (key: string, start: boolean) =>
  ({ key: pressed, ctrlKey, metaKey, altKey, shiftKey }: KeyboardEvent): boolean =>
    pressed === key && shiftKey && !altKey && (ctrlKey || metaKey) === start;

/** The acts that a bracket admits, the likeliest first. */
// eslint-disable-next-line max-lines-per-function -- a table of acts
export function actsOf(passages: Passages, bracket: Bracket): BracketAct[] {
  const { form, condition } = bracket;
  const isBlock = form === 'block' || form === 'inline-block';
  const isPassage = form === 'passage';
  const alternative = (condition?.is.length ?? 0) > 0;
  const together = alternative && isPassage ? passages.alternatives(bracket) : [];
  const alone = together.some((pos) => passages.folds.value.hidden.has(pos));
  const act = (
    id: string,
    words: string,
    keys: string,
    is: BracketAct['is'],
    run: () => void,
    when = true,
  ): BracketAct[] => (when ? [{ id, words, keys, is, run }] : []);
  return [
    ...act(
      'edit',
      'Edit it here',
      'e',
      letter('e'),
      () => passages.openBlock(bracket),
      isBlock && passages.mayOpen(bracket),
    ),
    ...act(
      'see',
      'See it kept',
      'v',
      letter('v'),
      () => passages.see(bracket),
      !isBlock && passages.variableOf(bracket)?.value === undefined,
    ),
    ...act(
      'leave',
      'See it left out',
      'n',
      letter('n'),
      () => passages.see(bracket, false),
      !isBlock && passages.variableOf(bracket)?.value === undefined && !alternative,
    ),
    ...act(
      'add',
      'Add an alternative',
      'a',
      letter('a'),
      () => passages.addAlternative(bracket),
      alternative && (isPassage || form === 'phrase'),
    ),
    ...act(
      'alone',
      alone ? 'Show all, stacked' : 'Show one at a time',
      't',
      letter('t'),
      () => (alone ? passages.stacked(bracket.from) : passages.alone(bracket.from)),
      together.length > 1,
    ),
    ...act('unwrap', 'Remove the bracket', 'u', letter('u'), () => passages.unwrap(bracket), !isBlock),
    ...act(
      'split',
      'Split at the caret',
      's',
      letter('s'),
      () => passages.split(bracket),
      isPassage || form === 'items' || form === 'rows',
    ),
    ...act('join', 'Join with the next', 'j', letter('j'), () => passages.join(bracket), !isBlock),
    ...act('out', 'Move out', 'o', letter('o'), () => passages.moveOut(bracket), isPassage && bracket.level > 0),
    ...act('in', 'Move in', 'i', letter('i'), () => passages.moveIn(bracket), isPassage),
    ...act(
      'end-down',
      'End further down',
      'Shift ↓',
      end('ArrowDown', false),
      () => passages.moveEnd(bracket, 'end', 1),
      !isBlock,
    ),
    ...act(
      'end-up',
      'End further up',
      'Shift ↑',
      end('ArrowUp', false),
      () => passages.moveEnd(bracket, 'end', -1),
      !isBlock,
    ),
    ...act(
      'start-up',
      'Begin further up',
      `${command} Shift ↑`,
      end('ArrowUp', true),
      () => passages.moveEnd(bracket, 'start', 1),
      !isBlock,
    ),
    ...act(
      'start-down',
      'Begin further down',
      `${command} Shift ↓`,
      end('ArrowDown', true),
      () => passages.moveEnd(bracket, 'start', -1),
      !isBlock,
    ),
    ...act('fold', 'Fold', 'f', letter('f'), () => passages.fold(bracket), isPassage),
    ...act('take-out', 'Remove with its words', 'x', letter('x'), () => passages.takeOut(bracket)),
  ];
}

/** Those that are done most, in the order in which a short row shows them. */
const OFTEN = ['edit', 'see', 'leave', 'add', 'unwrap', 'take-out', 'split'];
/** So many stand in a short row. */
const IN_ROW = 3;

/** The acts of a short row, and those that stand in the menu behind it. */
export function shortRow(acts: readonly BracketAct[]): { readonly row: BracketAct[]; readonly menu: BracketAct[] } {
  const often = OFTEN.flatMap((id) => acts.filter((act) => act.id === id)).slice(0, IN_ROW);
  // Taking the bracket off is always among them, where it can be done.
  const unwrap = acts.find(({ id }) => id === 'unwrap');
  const row = unwrap && !often.includes(unwrap) ? [...often.slice(0, IN_ROW - 1), unwrap] : often;
  return { row, menu: acts.filter((act) => !row.includes(act)) };
}
