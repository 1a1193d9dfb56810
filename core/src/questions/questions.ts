/** What to ask, in the order in which a reader meets it (engine notes, section 7). */
import type {
  BlockUnit,
  Governed,
  ItemUnit,
  Leaf,
  Line,
  Program,
  Read,
  RowUnit,
  Slot,
  Test,
} from '../compile/program.js';
import { Frame, type RenderInput, type Source } from '../render/frame.js';
import type { TypeName, Variable } from '../template/variable.js';
import type { Value } from '../values/index.js';

export interface Question {
  readonly key: string;
  readonly type: TypeName;
  readonly label: string;
  readonly required: boolean;
  readonly variable: Variable;
  readonly locale: string;
  /** The value it has now, and what gave it: nothing, an answer, a field or a default. */
  readonly value: Value | undefined;
  readonly source: Source;
  readonly problem?: string;
  /** The passages around the place where it first matters, outermost first, in words. */
  readonly within: readonly string[];
  /** The block it first matters in, if not the template itself. */
  readonly block?: string;
}

/** The questions that can still matter for these answers; those that are answered or prefilled are among them. */
export function questions(program: Program, input: RenderInput): Question[] {
  return new Asking(program, input).all();
}

class Asking {
  private readonly asked = new Map<Slot, Question>();
  private readonly frame: Frame;
  private within: readonly string[] = [];

  constructor(
    private readonly program: Program,
    input: RenderInput,
  ) {
    this.frame = new Frame(program, input, []);
  }

  all(): Question[] {
    const { program } = this;
    this.line(program.subject);
    this.blocks(program.body);
    for (const lines of [program.to, program.cc, program.bcc, program.replyTo])
      for (const line of lines) this.line(line);
    for (const { name } of program.attachments) this.line(name);
    for (const line of [program.start, program.length, program.place]) this.line(line);
    return [...this.asked.values()];
  }

  private ask(read: Read, block?: string): void {
    if (read.from === 'column') return this.ask({ from: 'slot', key: read.list.key, slot: read.list }, block);
    if (read.from !== 'slot' || this.asked.has(read.slot)) return;
    const { slot } = read;
    if (slot.variable.value !== undefined) return this.askInputs(slot, block, new Set());
    for (const input of slot.inputs) this.ask(input, block);
    const settled = this.frame.settle(slot);
    this.asked.set(slot, {
      key: slot.key,
      type: slot.variable.type,
      label: slot.label,
      required: slot.variable.required ?? false,
      variable: slot.variable,
      locale: slot.locale,
      value: settled.value,
      source: settled.source,
      within: this.within,
      ...(settled.problem === undefined ? {} : { problem: settled.problem }),
      ...(block === undefined || block === this.program.name ? {} : { block }),
    });
  }

  /** A computed value asks its inputs; those that a short circuit has made idle are not asked. */
  private askInputs(slot: Slot, block: string | undefined, seen: ReadonlySet<Slot>): void {
    if (seen.has(slot)) return;
    const decided = this.frame.settle(slot).value !== undefined;
    for (const input of slot.inputs) {
      if (decided && this.frame.read(input) === undefined) continue;
      if (input.from === 'slot' && input.slot.variable.value !== undefined)
        this.askInputs(input.slot, block, new Set([...seen, slot]));
      else this.ask(input, block);
    }
  }

  private line(line: Line): void {
    for (const leaf of line.leaves) this.leaf(leaf);
  }

  private leaf(leaf: Leaf): void {
    const outer = this.within;
    for (const test of leaf.tests) {
      this.ask(test.read, leaf.origin.text);
      if (!this.frame.holds(test)) {
        this.within = outer;
        return;
      }
      if (!this.within.includes(test.label)) this.within = [...this.within, test.label];
    }
    for (const mark of leaf.marks) if (mark.href) this.line(mark.href);
    if (leaf.kind === 'value') {
      this.ask(leaf.read, leaf.origin.text);
      const value = leaf.wordings ? this.frame.read(leaf.read) : undefined;
      for (const key of Array.isArray(value)
        ? (value as readonly string[])
        : typeof value === 'string'
          ? [value]
          : []) {
        const wording = leaf.wordings?.get(key);
        if (wording) this.line(wording);
      }
    } else if (leaf.kind === 'splice') this.line(leaf.line);
    else if (leaf.kind === 'image') this.line(leaf.alt);
    this.within = outer;
  }

  private governed<N>(nodes: readonly Governed<N>[], visit: (node: N) => void): void {
    for (const each of nodes) {
      if ('node' in each) visit(each.node);
      else this.under(each.test, () => this.governed(each.children, visit));
    }
  }

  private under(test: Test, inside: () => void): void {
    this.ask(test.read);
    const outer = this.within;
    this.within = outer.includes(test.label) ? outer : [...outer, test.label];
    if (test.kind === 'list' && !test.condition.not) {
      for (const [at, row] of this.frame.rowsOf(test).entries()) {
        this.frame.enterRow(test, row, at);
        inside();
      }
      this.frame.leaveRow(test);
    } else if (this.frame.holds(test)) inside();
    this.within = outer;
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
