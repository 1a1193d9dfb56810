/** The passages of a whole message, block and signature included, by what governs them. */
import type { Line, Origin, Program, Read, Slot, Test, ValueLeaf } from '../../compile/program.js';
import { Walk } from '../../questions/walk.js';
import { openingTag } from '../../template/condition.js';

/** A column of the proof table that says whether passages of one condition are kept. */
export interface PassageColumn {
  /** The opening tag, by which passages of one condition are known as one. */
  readonly tag: string;
  readonly label: string;
  /** How it is asked; none where each row of a repeat may answer otherwise. */
  readonly test: Test | undefined;
}

/** Every condition that governs something, in reading order. */
export function passagesOf(program: Program): PassageColumn[] {
  return new Passages(program).found();
}

class Passages extends Walk {
  private readonly passages = new Map<string, PassageColumn>();

  found(): PassageColumn[] {
    this.all();
    return [...this.passages.values()];
  }
  protected read(): void {
    // Only conditions count here.
  }
  protected under(test: Test, inside: () => void): void {
    const tag = openingTag(test.condition);
    if (!this.passages.has(tag))
      this.passages.set(tag, { tag, label: test.label, test: byRow(test.read) ? undefined : test });
    inside();
  }
  protected *wordings(leaf: ValueLeaf): Iterable<readonly [string, Line]> {
    if (leaf.wordings) yield* leaf.wordings;
  }
}

/** True if a value differs from row to row of a repeat. */
function byRow(read: Read, seen: ReadonlySet<Slot> = new Set()): boolean {
  if (read.from === 'column') return true;
  if (read.from !== 'slot' || seen.has(read.slot)) return false;
  return read.slot.inputs.some((input) => byRow(input, new Set([...seen, read.slot])));
}

/** Tells which passages were kept, from where the words of a message come. */
export class KeptPassages {
  private readonly numbers: ReadonlyMap<string, number>;
  private readonly known = new Map<Origin, readonly number[]>();

  constructor(columns: readonly PassageColumn[]) {
    this.numbers = new Map(columns.map(({ tag }, at) => [tag, at]));
  }

  /** 1 for each passage that has words in the message, 0 for the others. */
  of(...parts: (readonly { readonly origin: Origin }[] | undefined)[]): Uint8Array {
    const kept = new Uint8Array(this.numbers.size);
    for (const stretches of parts)
      for (const { origin } of stretches ?? []) for (const at of this.numbersOf(origin)) kept[at] = 1;
    return kept;
  }

  private numbersOf(origin: Origin): readonly number[] {
    let numbers = this.known.get(origin);
    if (!numbers) {
      numbers = origin.conditions.flatMap((each) => this.numbers.get(openingTag(each)) ?? []);
      this.known.set(origin, numbers);
    }
    return numbers;
  }
}
