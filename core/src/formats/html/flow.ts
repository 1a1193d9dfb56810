/** Gathers inline content into paragraphs as HTML lays it out: white space collapsed, breaks and empty lines read. */
import { withoutAtEnd } from '../../words/ends.js';
import type { Block, Inline, Layout, Mark } from '../../template/document.js';
import { normaliseInline } from '../../template/normalise.js';

/** What a container holds, before lines are told from paragraphs. */
type Piece =
  | { readonly kind: 'paragraph' | 'line'; readonly content: readonly Inline[]; readonly layout: Layout }
  | { readonly kind: 'gap' }
  | { readonly kind: 'block'; readonly block: Block };

/** Collects what is read of HTML: inline nodes into lines, lines and blocks into a sequence of blocks. */
export class Flow {
  private readonly pieces: Piece[] = [];
  private line: Inline[] = [];

  /** Text as it stands in the source; its white space is read when its line is complete. */
  text(text: string, marks: readonly Mark[]): void {
    if (text !== '') this.line.push({ type: 'text', text, ...(marks.length > 0 ? { marks } : {}) });
  }

  push(node: Inline, marks: readonly Mark[] = []): void {
    this.line.push(marks.length > 0 ? { ...node, marks } : node);
  }

  block(block: Block): void {
    this.end('line', {});
    this.pieces.push({ kind: 'block', block });
  }

  /** Ends the line under way, which stands in an element that sets lines (`div`) or paragraphs (`p`). */
  end(kind: 'paragraph' | 'line', layout: Layout): void {
    const given = this.line;
    this.line = [];
    if (given.length === 0) return;
    const parts = splitAtGaps(collapse(given));
    parts.forEach((content, index) => {
      if (index > 0) this.gap();
      if (content.length === 0) this.gap();
      else this.pieces.push({ kind, content, layout });
    });
  }

  /** An empty line. */
  gap(): void {
    this.pieces.push({ kind: 'gap' });
  }

  /** The inline content that stands in one line, whatever blocks it came from. */
  inline(): Inline[] {
    this.end('line', {});
    const lines = this.pieces.flatMap((piece): (readonly Inline[])[] =>
      piece.kind === 'gap' || piece.kind === 'block' ? [] : [piece.content],
    );
    return normaliseInline(lines.flatMap((line, index) => (index > 0 ? [{ type: 'text', text: ' ' }, ...line] : line)));
  }

  /**
   * The blocks. Where empty lines part the lines of a container, as mail programs write, the lines between them are
   * one paragraph; where there are none, each line is a paragraph of its own.
   */
  blocks(): Block[] {
    this.end('line', {});
    const hasGaps = this.pieces.some(
      ({ kind }, at) => kind === 'gap' && this.pieces[at - 1]?.kind === 'line' && this.pieces.length > at + 1,
    );
    const blocks: Block[] = [];
    let lines: Inline[] = [];
    const endLines = (): void => {
      if (lines.length > 0) blocks.push({ type: 'paragraph', content: lines });
      lines = [];
    };
    for (const piece of this.pieces) {
      if (piece.kind === 'line' && hasGaps && Object.keys(piece.layout).length === 0) {
        if (lines.length > 0) lines.push({ type: 'hardBreak' });
        lines.push(...piece.content);
        continue;
      }
      endLines();
      if (piece.kind === 'block') blocks.push(piece.block);
      else if (piece.kind !== 'gap')
        blocks.push({
          type: 'paragraph',
          ...(Object.keys(piece.layout).length > 0 ? { attrs: piece.layout } : {}),
          content: piece.content,
        });
    }
    endLines();
    return blocks;
  }
}

/** Runs of white space as one space, across nodes; none at the ends of the line and around breaks. */
function collapse(nodes: readonly Inline[]): Inline[] {
  const out: Inline[] = [];
  let space = true;
  for (const node of nodes) {
    if (node.type !== 'text') {
      if (node.type === 'hardBreak') trimEnd(out);
      out.push(node);
      space = node.type === 'hardBreak';
      continue;
    }
    if (node.marks?.some((mark) => mark.type === 'code')) {
      out.push(node);
      space = false;
      continue;
    }
    // A no-break space beside a space is how editors write two spaces; alone it is meant.
    let text = node.text.replace(/[ \t\n\r\f\u00A0]+/g, (run) => (run === '\u00A0' ? run : ' '));
    // And so is one beside an element.
    text = text.replace(/[\u200B\uFEFF\u00AD]/g, '').replace(/^\u00A0|\u00A0$/g, ' ');
    if (space) text = text.replace(/^[ \u00A0]+/, '');
    if (text === '') continue;
    space = text.endsWith(' ');
    out.push({ ...node, text });
  }
  trimEnd(out);
  return normaliseInline(out);
}

function trimEnd(nodes: Inline[]): void {
  for (let last = nodes.at(-1); last?.type === 'text'; last = nodes.at(-1)) {
    if (last.marks?.some((mark) => mark.type === 'code')) return;
    const text = withoutAtEnd(last.text, ' \u00A0');
    if (text === last.text) return;
    nodes.pop();
    if (text !== '') {
      nodes.push({ ...last, text });
      return;
    }
  }
}

/** Content between two breaks or more is a paragraph of its own; breaks at the ends are none. */
function splitAtGaps(nodes: readonly Inline[]): Inline[][] {
  const parts: Inline[][] = [[]];
  let breaks: Inline[] = [];
  for (const node of nodes) {
    const part = parts.at(-1) as Inline[];
    if (node.type === 'hardBreak') {
      breaks.push(node);
      continue;
    }
    if (breaks.length >= 2 && part.length > 0) parts.push([node]);
    else part.push(...(part.length > 0 ? breaks : []), node);
    breaks = [];
  }
  return parts;
}
