/** Goes through governed nodes: what is kept once, what repeats for every row, what is left out not at all. */
import type { Governed, Test } from '../compile/program.js';
import type { Frame } from './frame.js';
import { noteCondition, type Collected } from './writer.js';

/**
 * Calls `visit` for every node that is kept, in order and in the scope of its row.
 * `leftOut` hears of what is not, where somebody wants to show it.
 */
export function walk<N>(
  nodes: readonly Governed<N>[],
  frame: Frame,
  collected: Collected,
  visit: (node: N) => void,
  leftOut?: (test: Test, children: readonly Governed<N>[], path: readonly number[]) => void,
): void {
  for (const each of nodes) {
    if (!frame.budget.spend(1)) return;
    if ('node' in each) {
      visit(each.node);
      continue;
    }
    const { test, children } = each;
    if (frame.read(test.read) === undefined) noteCondition(frame, test, collected);
    if (test.kind === 'list' && !test.condition.not) {
      const rows = frame.rowsOf(test);
      for (const [at, row] of rows.entries()) {
        if (frame.budget.isExceeded) break;
        frame.enterRow(test, row, at);
        walk(children, frame, collected, visit, leftOut);
      }
      if (rows.length > 0) frame.leaveRow(test);
      else leftOut?.(test, children, each.path);
    } else if (frame.holds(test)) walk(children, frame, collected, visit, leftOut);
    else leftOut?.(test, children, each.path);
  }
}
