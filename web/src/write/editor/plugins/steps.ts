/**
 * What is undone at once. The history joins what follows within half a second, as typed letters do; an act on the
 * structure (a bracket put on or taken off, a list made, a whole text changed) is always a step of its own.
 */
import { Extension } from '@tiptap/core';
import { closeHistory } from '@tiptap/pm/history';
import type { Transaction } from '@tiptap/pm/state';
import { ReplaceAroundStep } from '@tiptap/pm/transform';
import { TAKES_BRACKETS } from '../bracketRemoval';

const isAct = (tr: Transaction): boolean =>
  tr.docChanged &&
  !tr.getMeta('history$') &&
  tr.getMeta('addToHistory') !== false &&
  tr.getMeta('appendedTransaction') === undefined &&
  (tr.getMeta(TAKES_BRACKETS) === true || tr.steps.some((step) => step instanceof ReplaceAroundStep));

export const Steps = Extension.create({
  name: 'steps',
  dispatchTransaction({ transaction, next }) {
    next(isAct(transaction) ? closeHistory(transaction) : transaction);
  },
});
