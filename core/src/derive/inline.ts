/** Content of derived lines, put together from parts whose conditions may be decided later. */
import type { Condition } from '../template/condition.js';
import type { Inline, Mark } from '../template/document.js';
import { normaliseInline } from '../template/normalise.js';
import type { Token } from './tokens.js';

/** A part of a line. `inline` and `when` are filled in as decisions are made. */
export interface LinePart {
  inline: readonly Inline[];
  readonly parts?: readonly LinePart[];
  when?: Condition;
}
/** The border between two cells of a row, as long as the row is one line. Control characters never occur in mails. */
export const CELL_BORDER = '\u001f';

/** A part that is known already. */
export const fixedPart = (tokens: readonly Token[]): LinePart => ({ inline: inlineOfTokens(tokens) });

/** The content of parts, in canonical form. Call it only after all decisions have been made. */
export const contentOf = (parts: readonly LinePart[]): readonly Inline[] =>
  normaliseInline(parts.flatMap(inlineOfPart));
function inlineOfPart({ inline, parts, when }: LinePart): readonly Inline[] {
  const content = parts ? parts.flatMap(inlineOfPart) : inline;
  return when ? content.map((node) => withCondition(node, when)) : content;
}

/** Tokens as content of a line. */
export const inlineOfTokens = (tokens: readonly Token[]): Inline[] =>
  tokens.map(({ text, kind, marks }): Inline => {
    if (kind === 'break') return { type: 'hardBreak' };
    if (kind === 'cell') return { type: 'text', text: CELL_BORDER };
    return { type: 'text', text, ...(marks.length > 0 ? { marks } : {}) };
  });
/** A placeholder. */
export const placeholder = (name: string, view = ''): Inline => ({ type: 'placeholder', attrs: { name, view } });
/** A node that is only there under a condition. */
export const withCondition = (node: Inline, when: Condition): Inline =>
  withMarksBefore(node, [{ type: 'phrase', attrs: when }]);
/** A node with more marks. */
export const withMarks = (node: Inline, marks: readonly Mark[]): Inline =>
  node.type === 'hardBreak' ? node : withMarksBefore(node, marks);
const withMarksBefore = (node: Inline, marks: readonly Mark[]): Inline =>
  marks.length > 0 ? { ...node, marks: [...marks, ...(node.marks ?? [])] } : node;

/** The marks that all visible tokens have; none if they differ. */
export function commonMarks(tokens: readonly Token[]): readonly Mark[] {
  const [first, ...rest] = tokens
    .filter(({ kind }) => kind !== 'space' && kind !== 'break')
    .map(({ marks }) => ({ marks, key: JSON.stringify(marks) }));
  return first && rest.every(({ key }) => key === first.key) ? first.marks : [];
}

const isEdge = ({ kind }: Token): boolean => kind === 'space' || kind === 'break' || kind === 'cell';
/** How many white space tokens all wordings share at the start and at the end, without using up any of them. */
export function sharedEdges(wordings: readonly (readonly Token[])[]): { readonly start: number; readonly end: number } {
  const count = (most: number, tokenAt: (tokens: readonly Token[], at: number) => Token | undefined): number => {
    for (let at = 0; at < most; at += 1) {
      const [first, ...rest] = wordings.map((tokens) => tokenAt(tokens, at));
      if (!first || !isEdge(first) || rest.some((each) => each?.key !== first.key)) return at;
    }
    return most;
  };
  const shortest = Math.min(...wordings.map(({ length }) => length));
  const start = count(shortest - 1, (tokens, at) => tokens[at]);
  return { start, end: count(shortest - 1 - start, (tokens, at) => tokens[tokens.length - 1 - at]) };
}
