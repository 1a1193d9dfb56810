/** Where a text uses its variables. */
import { namesIn } from '../expression/names.js';
import { tagsIn } from '../formats/markdown/tags.js';
import type { Condition } from '../template/condition.js';
import type { Inline, Node, TextDocument } from '../template/document.js';
import { isReserved } from '../template/keys.js';
import { sameMark } from '../template/normalise.js';
import type { Variable } from '../template/variable.js';
import { NO_SHADOWS, shadowsInside, walk, type Shadows } from '../template/walk.js';

/**
 * How a text uses a variable: as a `placeholder`, to govern a `passage` (around blocks, on an item or row, or inside a
 * line), in the `target` of a link or button, in an `expression`.
 */
export type UseKind = 'placeholder' | 'passage' | 'target' | 'expression';

/**
 * One use. `path` leads to the node in the document (for an image's alternative text, to the image); uses in a wording
 * or an expression name the variable and option they stand in instead.
 */
export interface Use {
  readonly key: string;
  readonly kind: UseKind;
  readonly path?: readonly number[];
  readonly variable?: string;
  readonly option?: string;
}

type Where = Pick<Use, 'path' | 'variable' | 'option'>;

/**
 * All uses in reading order: envelope, body, then wordings and expressions, a variable at a time. A condition on several items counts for
 * each of them; names that stand for the columns of a repeated list are no uses of a variable.
 */
export function usesOf(document: TextDocument): Use[] {
  const { variables } = document.attrs;
  const uses: Use[] = [];
  const add = (key: string, kind: UseKind, where: Where, shadows: Shadows): void => {
    if (!shadows.has(key)) uses.push({ key, kind, ...where });
  };
  const conditions = (list: readonly Condition[], where: Where, shadows: Shadows): void =>
    list.forEach(({ of }) => add(of, 'passage', where, shadows));
  const target = (href: string, where: Where, shadows: Shadows): void => {
    for (const { tag } of tagsIn(href)) {
      if (tag.kind === 'placeholder') add(tag.name, 'target', where, shadows);
      if (tag.kind === 'open') conditions([tag.condition], where, shadows);
    }
  };
  /** `before` is the node in front: a mark that goes on from it has been counted. */
  const inline = (node: Inline, where: Where, shadows: Shadows, before?: Node): void => {
    for (const mark of node.marks ?? []) {
      if (before && 'marks' in before && before.marks?.some((each) => sameMark(each, mark))) continue;
      if (mark.type === 'phrase') conditions([mark.attrs], where, shadows);
      if (mark.type === 'link') target(mark.attrs.href, where, shadows);
    }
    if (node.type === 'placeholder') add(node.attrs.name, 'placeholder', where, shadows);
    if (node.type === 'image') node.attrs.alt.forEach((each, at, all) => inline(each, where, shadows, all[at - 1]));
  };
  walk(document, ({ node, path, outer, own, before }) => {
    const shadows = shadowsInside(NO_SHADOWS, outer, variables);
    if (isInline(node)) return inline(node, { path }, shadows, before);
    if (node.type === 'button') target(node.attrs.href, { path }, shadows);
    conditions(own, { path }, shadows);
  });
  for (const variable of variables) {
    for (const { key: option, wording = [] } of variable.options ?? [])
      wording.forEach((node, at) => inline(node, { variable: variable.key, option }, NO_SHADOWS, wording[at - 1]));
    expressions(variable, (key) => add(key, 'expression', { variable: variable.key }, NO_SHADOWS));
  }
  return uses;
}

/** How many uses each key has. */
export function countUses(uses: readonly Use[]): Map<string, number> {
  const counts = new Map<string, number>();
  for (const { key } of uses) counts.set(key, (counts.get(key) ?? 0) + 1);
  return counts;
}

const INLINE = new Set(['text', 'placeholder', 'hardBreak', 'image', 'inlineInclusion', 'inlineComment']);
const isInline = (node: Node): node is Inline => INLINE.has(node.type);

/** The names in the expressions of a declaration and of its columns, which may also name each other. */
function expressions({ value, columns = [] }: Variable, visit: (key: string) => void): void {
  const own = new Set(columns.map(({ key }) => key));
  for (const { name } of value === undefined ? [] : namesIn(value)) if (!isReserved(name)) visit(name);
  for (const column of columns)
    for (const { name } of column.value === undefined ? [] : namesIn(column.value))
      if (!isReserved(name) && !own.has(name)) visit(name);
}
