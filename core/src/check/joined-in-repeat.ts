import { advice } from '../findings/finding.js';
import type { Variable } from '../template/variable.js';
import { walk } from '../template/walk.js';
import type { Check } from './check.js';

/**
 * A column written through its list (`{{items.what}}`) where that list is repeated: there it joins what all rows say, in
 * every row.
 */
export const joinedInRepeat: Check = {
  run({ document }) {
    const lists = new Map(
      document.attrs.variables.filter(({ columns }) => columns).map((variable) => [variable.key, variable]),
    );
    if (lists.size === 0) return [];
    const found: ReturnType<Check['run']>[number][] = [];
    walk(document, ({ node, path, outer, own }) => {
      if (node.type !== 'placeholder') return;
      // A column of a list is a view of it.
      const { name: of, view: column } = node.attrs;
      const list = lists.get(of);
      if (!list?.columns?.some(({ key }) => key === column)) return;
      const repeated = [...outer, ...own].flatMap((each) => (each.not ? [] : (lists.get(each.of) ?? [])));
      if (!repeated.includes(list)) return;
      const label = `Write {{${column}}}`;
      const repair = meansColumn(repeated, column, list)
        ? ({ label, path, how: 'attributes', attrs: { ...node.attrs, name: column, view: '' } } as const)
        : undefined;
      found.push(advice({ code: 'joined-in-repeat', of, column }, { path }, 'warning', repair));
    });
    return found;
  },
};

/** Whether a bare key means the column of a list: the innermost repeated list that has one says so. */
const meansColumn = (repeated: readonly Variable[], column: string, list: Variable): boolean =>
  repeated.findLast(({ columns = [] }) => columns.some(({ key }) => key === column)) === list;
