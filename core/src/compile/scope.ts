/** Which name means what, at one place of one text: columns of enclosing repeats shadow variables. */
import type { Variable } from '../template/variable.js';
import type { Read, Slot } from './program.js';

/** A repeat that something stands in: its list, and the repeat around it. */
export interface Scope {
  readonly parent: Scope | undefined;
  readonly list: Slot;
  /** Rows are counted from the outermost repeat, 0. */
  readonly depth: number;
  /** Computed variables of blocks that read this repeat's columns, so that each row has its own. */
  readonly rowSlots: Map<string, Slot>;
}

/** The repeat's column of that name, innermost first. */
export function column(scope: Scope | undefined, key: string): Read | undefined {
  for (let at = scope; at; at = at.parent) {
    const row = at.rowSlots.get(key);
    if (row) return { from: 'slot', key, slot: row };
    const columns = at.list.variable.columns ?? [];
    const place = columns.findIndex((candidate) => candidate.key === key);
    const variable = columns[place];
    if (variable) return { from: 'column', key, depth: at.depth, variable, at: place, list: at.list };
  }
  return undefined;
}

/** The declaration a read gives values of. */
export function declarationOf(read: Read): Variable | undefined {
  if (read.from === 'slot') return read.slot.variable;
  return read.from === 'column' || read.from === 'fact' ? read.variable : undefined;
}
