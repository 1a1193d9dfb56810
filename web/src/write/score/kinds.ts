/** The kinds of bracket, as they are drawn and named. */
import type { Variable } from '@vocabula/core';
import type { Bracket } from '../editor/brackets';

export type BracketKind = 'optional' | 'alternative' | 'conditional' | 'repeated' | 'block';

/** Plain for optional, forked for alternatives, notched for conditions, looped for repeats, doubled for blocks. */
export function kindOf({ condition }: Bracket, variable: Variable | undefined): BracketKind {
  if (!condition) return 'block';
  if (variable?.type === 'list' && !condition.not) return 'repeated';
  if (condition.is.length > 0) return 'alternative';
  return variable?.value === undefined ? 'optional' : 'conditional';
}

/** A bracket's line, `height` long, that stands at `left` and opens to the right. */
export function bracketPath(kind: BracketKind, left: number, height: number): string {
  const right = left + 8;
  const middle = height / 2;
  switch (kind) {
    case 'alternative':
      return `M${right} 1 Q${left} 1 ${left} 9 V${height - 9} Q${left} ${height - 1} ${right} ${height - 1}`;
    case 'conditional':
      return `M${right} 1 H${left} V${middle - 5} L${left - 4} ${middle} L${left} ${middle + 5} V${height - 1} H${right}`;
    case 'repeated':
      return `M${right} 1 H${left} V${height - 1} H${right} M${left - 3} ${middle + 2} a4 4 0 1 1 5 2 m-5 -2 l-1 -4 m1 4 l4 -1`;
    case 'block':
      return `M${right} 1 H${left} V${height - 1} H${right} M${left + 3} 1 V${height - 1}`;
    default:
      return `M${right} 1 H${left} V${height - 1} H${right}`;
  }
}

/** What stands for a label where there is no room for its words. */
export const MARKS: Readonly<Record<BracketKind, string>> = {
  optional: 'M10 3H6v10h4',
  alternative: 'M12 3Q6 3 6 8T12 13',
  conditional: 'M8 3l5 5-5 5-5-5z',
  repeated: 'M5 6a4 4 0 1 1-1 4M5 2v4h4',
  block: 'M10 3H5v10h5M8 3v10',
};
