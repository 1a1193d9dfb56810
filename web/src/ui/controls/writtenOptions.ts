/** Reads the options that a template writes as `<option>` and `<optgroup>` in the slot of a select. */
import { Comment, Fragment, Text, type VNode, type VNodeArrayChildren } from 'vue';

/** One option of a select. */
export interface WrittenOption {
  readonly value: unknown;
  readonly words: string;
  readonly disabled: boolean;
}
/** Options under a heading. */
export interface WrittenGroup {
  readonly words: string;
  readonly items: readonly WrittenOption[];
}
/** The options of a select: all in groups, or none. */
export interface WrittenOptions {
  readonly options: readonly WrittenOption[];
  readonly groups: readonly WrittenGroup[];
}

/** The options among some nodes, at any depth of loops and conditions; options outside groups come first. */
export function writtenOptions(nodes: VNodeArrayChildren): WrittenOptions {
  const options: WrittenOption[] = [];
  const groups: WrittenGroup[] = [];
  for (const node of elements(nodes)) {
    if (node.type === 'option') {
      const words = wordsOf(node.children).trim();
      const { value = words, disabled } = (node.props ?? {}) as { value?: unknown; disabled?: unknown };
      options.push({ value, words, disabled: disabled !== undefined && disabled !== false });
    } else if (node.type === 'optgroup')
      groups.push({
        words: String((node.props as { label?: unknown } | null)?.label ?? ''),
        items: writtenOptions(childrenOf(node.children)).options,
      });
  }
  return { options, groups };
}

const childrenOf = (children: VNode['children']): VNodeArrayChildren => (Array.isArray(children) ? children : []);

/** The elements among some nodes, those of fragments included. */
function elements(nodes: VNodeArrayChildren): VNode[] {
  return nodes.flatMap((node) => {
    if (Array.isArray(node)) return elements(node);
    if (typeof node !== 'object' || node === null || node.type === Comment || node.type === Text) return [];
    return node.type === Fragment ? elements(childrenOf(node.children)) : [node];
  });
}

function wordsOf(children: VNode['children']): string {
  if (typeof children === 'string') return children;
  return childrenOf(children)
    .map((node) =>
      typeof node === 'object' && node !== null && !Array.isArray(node) ? wordsOf(node.children) : String(node ?? ''),
    )
    .join('');
}
