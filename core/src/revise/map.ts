/** Changes that go through a whole text: lines, conditions, targets, expressions, wherever they stand. */
import type { Condition } from '../template/condition.js';
import type { Block, Cell, Inline, ListItem, Mark, Part, Row, TextDocument } from '../template/document.js';
import { normalise } from '../template/normalise.js';
import type { Variable } from '../template/variable.js';
import { NO_SHADOWS, shadowsInside, type Shadows } from '../template/walk.js';

/** What is changed; what is left out stays. `shadows` are the keys that stand for columns there. */
export interface Changes {
  /** Puts nodes in place of an inline node; its marks have been changed before. */
  readonly inline?: (node: Inline, shadows: Shadows) => readonly Inline[];
  /** A condition's new form: none takes its bracket off, `'out'` takes out what it governs too. */
  readonly condition?: (condition: Condition, shadows: Shadows) => Condition | undefined | 'out';
  /** A link's or button's target. */
  readonly target?: (href: string, shadows: Shadows) => string;
  readonly variables?: (variables: readonly Variable[]) => readonly Variable[];
}

/** The text with the changes, in its normal form. */
export function mapDocument(document: TextDocument, changes: Changes): TextDocument {
  const { variables } = document.attrs;
  const mapper = new Mapper(changes, variables);
  const changed = variables.map((variable) =>
    variable.options
      ? {
          ...variable,
          options: variable.options.map((option) =>
            option.wording ? { ...option, wording: mapper.line(option.wording, NO_SHADOWS) } : option,
          ),
        }
      : variable,
  );
  return normalise({
    type: 'template',
    attrs: { ...document.attrs, variables: changes.variables?.(changed) ?? changed },
    content: document.content.map((part) => mapper.part(part)),
  });
}

class Mapper {
  constructor(
    private readonly changes: Changes,
    private readonly variables: readonly Variable[],
  ) {}

  part(part: Part): Part {
    switch (part.type) {
      case 'body':
        return { ...part, content: this.some(this.blocks(part.content, NO_SHADOWS)) };
      case 'to':
      case 'cc':
      case 'bcc':
      case 'reply_to':
        return { ...part, content: part.content.map((address) => this.content(address, NO_SHADOWS)) };
      case 'attachments':
        return part.content ? { ...part, content: part.content.map((file) => this.content(file, NO_SHADOWS)) } : part;
      default:
        return this.content(part, NO_SHADOWS);
    }
  }

  /** A node with its line changed. */
  private content<N extends { readonly content?: readonly Inline[] }>(node: N, shadows: Shadows): N {
    return node.content ? { ...node, content: this.line(node.content, shadows) } : node;
  }

  line(nodes: readonly Inline[], shadows: Shadows): readonly Inline[] {
    return nodes.flatMap((node) => {
      const marked = this.marks(node, shadows);
      if (!marked) return [];
      const whole =
        marked.type === 'image'
          ? { ...marked, attrs: { ...marked.attrs, alt: this.line(marked.attrs.alt, shadows) } }
          : marked;
      return this.changes.inline?.(whole, shadows) ?? [whole];
    });
  }

  /** The node with its marks changed; undefined where a condition goes with its words. */
  private marks(node: Inline, shadows: Shadows): Inline | undefined {
    if (!node.marks) return node;
    const marks: Mark[] = [];
    for (const mark of node.marks) {
      if (mark.type === 'phrase') {
        const condition = this.condition(mark.attrs, shadows);
        if (condition === 'out') return undefined;
        if (condition) marks.push({ type: 'phrase', attrs: condition });
      } else if (mark.type === 'link')
        marks.push({ type: 'link', attrs: { href: this.target(mark.attrs.href, shadows) } });
      else marks.push(mark);
    }
    return { ...node, marks };
  }

  private condition(condition: Condition, shadows: Shadows): Condition | undefined | 'out' {
    return this.changes.condition ? this.changes.condition(condition, shadows) : condition;
  }

  private target(href: string, shadows: Shadows): string {
    return this.changes.target?.(href, shadows) ?? href;
  }

  private blocks(blocks: readonly Block[], shadows: Shadows): readonly Block[] {
    return blocks.flatMap((block) => this.block(block, shadows));
  }

  /** Containers are never left with nothing in them. */
  private some(blocks: readonly Block[]): readonly Block[] {
    return blocks.length > 0 ? blocks : [{ type: 'paragraph' }];
  }

  private block(block: Block, shadows: Shadows): readonly Block[] {
    switch (block.type) {
      case 'paragraph':
      case 'heading':
        return [this.content(block, shadows)];
      case 'button': {
        const href = this.target(block.attrs.href, shadows);
        return [this.content({ ...block, attrs: { ...block.attrs, href } }, shadows)];
      }
      case 'blockquote':
      case 'panel':
        return [{ ...block, content: this.some(this.blocks(block.content, shadows)) }];
      case 'bulletList':
      case 'orderedList': {
        const items = this.governed(block.content, shadows, (item: ListItem, inner) => ({
          ...item,
          content: this.some(this.blocks(item.content, inner)),
        }));
        return items.length > 0 ? [{ ...block, content: items }] : [];
      }
      case 'table': {
        const rows = this.governed(block.content, shadows, (row: Row, inner) => ({
          ...row,
          content: row.content.map((cell): Cell => ({ ...cell, content: [this.content(cell.content[0], inner)] })),
        }));
        return rows.length > 0 ? [{ ...block, content: rows }] : [];
      }
      case 'passage': {
        const condition = this.condition(block.attrs, shadows);
        if (condition === 'out') return [];
        const inner = shadowsInside(shadows, [block.attrs], this.variables);
        const content = this.blocks(block.content, inner);
        return condition ? [{ type: 'passage', attrs: condition, content: this.some(content) }] : content;
      }
      default:
        return [block];
    }
  }

  /** Items or rows with the conditions they carry. */
  private governed<C extends ListItem | Row>(
    children: readonly C[],
    shadows: Shadows,
    make: (child: C, inner: Shadows) => C,
  ): readonly C[] {
    return children.flatMap((child) => {
      const when = child.attrs.when.map((condition) => this.condition(condition, shadows));
      if (when.includes('out')) return [];
      const kept = when.filter((condition): condition is Condition => typeof condition === 'object');
      const inner = shadowsInside(shadows, child.attrs.when, this.variables);
      return [{ ...make(child, inner), attrs: { when: kept } }];
    });
  }
}
