/**
 * Which messages an edit touches: a passage that a message leaves out can change without the message changing, so that
 * re-proofing after a small change renders only what the change is read by.
 */
import { openingTag, type Condition } from '../../template/condition.js';
import type { Program } from '../../compile/program.js';
import { bodyOf, type Node, type TextDocument } from '../../template/document.js';
import { childrenOf, conditionsOf, visit } from '../../template/walk.js';
import { passagesOf } from './passages.js';

/** True if a message may read otherwise after an edit, told from the conditions that hold in it (`Sheet.held`). */
export type Touches = (held: Uint8Array) => boolean;

/** A text and what it was compiled to. */
export interface Compiled {
  readonly document: TextDocument;
  readonly program: Program;
}

const EVERY: Touches = () => true;
const NONE: Touches = () => false;

/** Compares a text before and after an edit; everything else that the two were compiled from must be the same. */
export function touches(before: Compiled, after: Compiled): Touches {
  const [a, b] = [before.document, after.document];
  if (a === b) return NONE;
  const rest = ({ attrs, content }: TextDocument): string => JSON.stringify([attrs, content.slice(0, -1)]);
  const passages = passagesOf(before.program);
  const tags = (program: Program): string => JSON.stringify(passagesOf(program).map(({ tag }) => tag));
  const colours = ({ program }: Compiled): string => [...program.colours].sort().join();
  if (
    rest(a) !== rest(b) ||
    tags(before.program) !== tags(after.program) ||
    colours(before) !== colours(after) ||
    before.program.texts.join() !== after.program.texts.join()
  )
    return EVERY;
  const numbers = new Map(passages.map(({ tag }, at) => [tag, at]));
  const { changes, blocks } = changesOf(bodyOf(a), bodyOf(b), []);
  // Where a block comes or goes, so may the sender's signature.
  if (blocks) return EVERY;
  const governed = changes.map((conditions) => conditions.flatMap((each) => numbers.get(openingTag(each)) ?? []));
  // A change that nothing governs is read by everybody.
  if (governed.some((each) => each.length === 0)) return EVERY;
  return (held) => governed.some((each) => each.every((at) => held[at] === 1));
}

/** For every node that is not the same on both sides, the conditions it stands under. */
function changesOf(
  before: readonly Node[],
  after: readonly Node[],
  outer: readonly Condition[],
): { readonly changes: Condition[][]; readonly blocks: boolean } {
  const same = (a: Node | undefined, b: Node | undefined): boolean => JSON.stringify(a) === JSON.stringify(b);
  let start = 0;
  while (start < before.length && start < after.length && same(before[start], after[start])) start += 1;
  let end = 0;
  while (
    end < before.length - start &&
    end < after.length - start &&
    same(before[before.length - 1 - end], after[after.length - 1 - end])
  )
    end += 1;
  const [a, b] = [before.slice(start, before.length - end), after.slice(start, after.length - end)];
  // One node that is still the same kind of node is gone into.
  const [one, other] = [a[0], b[0]];
  if (a.length === 1 && b.length === 1 && one && other && shell(one) === shell(other) && childrenOf(one).length > 0)
    return changesOf(childrenOf(one), childrenOf(other), [...outer, ...conditionsOf(one)]);
  return {
    changes: [...a, ...b].map((node) => [...outer, ...conditionsOf(node)]),
    blocks: [...a, ...b].some(holdsBlocks),
  };
}

function holdsBlocks(node: Node): boolean {
  let found = false;
  visit(node, ({ type }) => {
    found ||= type === 'inclusion' || type === 'inlineInclusion';
  });
  return found;
}

const shell = (node: Node): string => JSON.stringify({ ...node, content: undefined });
