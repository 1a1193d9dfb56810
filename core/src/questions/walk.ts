/**
 * Goes through a program in the order in which a reader meets it. What is gone into, and what is done with each name
 * on the way, says whoever walks.
 */
import type {
  BlockUnit,
  Governed,
  ItemUnit,
  Leaf,
  Line,
  Program,
  Read,
  RowUnit,
  Test,
  ValueLeaf,
} from '../compile/program.js';

/** Walks through a program as far as its conditions can be told, in reading order. */
export abstract class Walk {
  constructor(protected readonly program: Program) {}

  /** Something is read here: by a placeholder, or by a condition. `block` is the text it stands in. */
  protected abstract read(read: Read, block?: string): void;
  /** Goes inside what a condition governs, or does not. */
  protected abstract under(test: Test, inside: () => void): void;
  /** The wordings of a choice that are gone into. */
  protected abstract wordings(leaf: ValueLeaf): Iterable<readonly [option: string, wording: Line]>;
  /** Goes into the wording of an option. */
  protected wording(_leaf: ValueLeaf, _option: string, wording: Line): void {
    this.line(wording);
  }

  protected all(): void {
    const { program } = this;
    this.line(program.subject);
    this.blocks(program.body);
    for (const lines of [program.to, program.cc, program.bcc, program.replyTo])
      for (const line of lines) this.line(line);
    for (const { name } of program.attachments) this.line(name);
    for (const line of [program.start, program.length, program.place]) this.line(line);
  }

  protected line(line: Line): void {
    for (const leaf of line.leaves) this.leaf(leaf, leaf.tests);
  }

  private leaf(leaf: Leaf, tests: readonly Test[]): void {
    const [test, ...more] = tests;
    if (test) {
      this.read(test.read, leaf.origin.text);
      return this.under(test, () => this.leaf(leaf, more));
    }
    for (const mark of leaf.marks) if (mark.href) this.line(mark.href);
    if (leaf.kind === 'value') {
      this.read(leaf.read, leaf.origin.text);
      if (leaf.wordings) for (const [option, wording] of this.wordings(leaf)) this.wording(leaf, option, wording);
    } else if (leaf.kind === 'splice') this.line(leaf.line);
    else if (leaf.kind === 'image') this.line(leaf.alt);
  }

  private governed<N>(nodes: readonly Governed<N>[], visit: (node: N) => void): void {
    for (const each of nodes) {
      if ('node' in each) visit(each.node);
      else {
        this.read(each.test.read);
        this.under(each.test, () => this.governed(each.children, visit));
      }
    }
  }

  private blocks(nodes: readonly Governed<BlockUnit>[]): void {
    this.governed(nodes, (unit) => {
      if (unit.kind === 'line') this.line(unit.line);
      else if (unit.kind === 'button') [unit.line, unit.href].forEach((line) => this.line(line));
      else if (unit.kind === 'quote' || unit.kind === 'panel' || unit.kind === 'include') this.blocks(unit.children);
      else if (unit.kind === 'list') this.governed(unit.items, (item: ItemUnit) => this.blocks(item.children));
      else if (unit.kind === 'table') {
        const row = ({ cells }: RowUnit): void => cells.forEach((cell) => this.line(cell.line));
        if (unit.head) row(unit.head);
        this.governed(unit.rows, row);
      }
    });
  }
}
