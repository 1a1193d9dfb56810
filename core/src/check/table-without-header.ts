import { advice, type Finding } from '../findings/finding.js';
import { plainWords, type Inline } from '../template/document.js';
import { childrenOf, visit } from '../template/walk.js';
import type { Check } from './check.js';

/** A table of several columns and rows whose first row is no head. One that only sets out labels beside values has none. */
export const tableWithoutHeader: Check = {
  run({ document }) {
    const findings: Finding[] = [];
    visit(document, (node, path) => {
      if (node.type !== 'table') return;
      const rows = node.content;
      const cells = childrenOf(rows[0] ?? node);
      const head = cells.some((cell) => 'attrs' in cell && (cell.type as string) === 'tableHeader');
      const columns = cells.length;
      // Two columns whose first says what the second holds read without a head.
      const labelled =
        columns === 2 &&
        rows.every((row) => {
          const first = childrenOf(row)[0];
          return (
            first !== undefined &&
            plainWords(childrenOf(first).flatMap((each) => childrenOf(each)) as Inline[]).trim() !== ''
          );
        });
      if (!head && columns > 1 && rows.length > 2 && !labelled)
        findings.push(advice({ code: 'table-without-header' }, { path }, 'note'));
    });
    return findings;
  },
};
