/** What to ask, in the order in which a reader meets it (engine notes, section 7). */
import type { Line, Program, Read, Slot, Test, ValueLeaf } from '../compile/program.js';
import { Frame, type RenderInput, type Source } from '../render/frame.js';
import type { TypeName, Variable } from '../template/variable.js';
import type { Value } from '../values/index.js';
import { Walk } from './walk.js';

/** Something that is asked of who fills a message. */
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
  return new Asking(program, input).questions();
}

/** The slots that are read on the way through a message, whether they are asked or worked out. */
export function slotsRead(program: Program, frame: Frame): ReadonlySet<Slot> {
  const asking = new Asking(program, frame.input, frame);
  asking.questions();
  return asking.met;
}

class Asking extends Walk {
  private readonly asked = new Map<Slot, Question>();
  readonly met = new Set<Slot>();
  private within: readonly string[] = [];

  constructor(
    program: Program,
    input: RenderInput,
    private readonly frame: Frame = new Frame(program, input, []),
  ) {
    super(program);
  }

  questions(): Question[] {
    this.all();
    return [...this.asked.values()];
  }

  protected read(read: Read, block?: string): void {
    if (read.from === 'slot') this.met.add(read.slot);
    this.ask(read, block);
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

  protected under(test: Test, inside: () => void): void {
    const outer = this.within;
    const into = (): void => {
      this.within = outer.includes(test.label) ? outer : [...outer, test.label];
      inside();
      this.within = outer;
    };
    if (test.kind === 'list' && !test.condition.not) {
      for (const [at, row] of this.frame.rowsOf(test).entries()) {
        if (!this.frame.budget.spend(10)) break;
        this.frame.enterRow(test, row, at);
        into();
      }
      this.frame.leaveRow(test);
    } else if (this.frame.holds(test)) into();
  }

  protected *wordings(leaf: ValueLeaf): Iterable<readonly [string, Line]> {
    const value = this.frame.read(leaf.read);
    const keys = Array.isArray(value) ? (value as readonly string[]) : typeof value === 'string' ? [value] : [];
    for (const key of keys) {
      const wording = leaf.wordings?.get(key);
      if (wording) yield [key, wording];
    }
  }
}
