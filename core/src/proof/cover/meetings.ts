/** Where a message meets each question and condition: under which others, and what for. */
import type { Line, Program, Read, Slot, Test, ValueLeaf } from '../../compile/program.js';
import { Walk } from '../../questions/walk.js';

/** What a slot is read under: the slots and fields that decide whether it is met at all. */
export interface Met {
  readonly guards: ReadonlySet<Read>;
  /** Governs something: its value is a condition somewhere. */
  readonly governs: boolean;
  /** Its absence can be seen: a placeholder without it leaves a seam or shows a fallback. */
  readonly shown: boolean;
}

/** Every slot that can be met, with what it is met under. */
export function meetings(program: Program): ReadonlyMap<Slot, Met> {
  return new Meeting(program).found();
}

class Meeting extends Walk {
  private readonly guards: Read[] = [];
  private readonly met = new Map<Slot, { guards: Set<Read>; governs: boolean; shown: boolean }>();

  found(): ReadonlyMap<Slot, Met> {
    this.all();
    return this.met;
  }
  private of(slot: Slot): { guards: Set<Read>; governs: boolean; shown: boolean } {
    const known = this.met.get(slot);
    if (known) return known;
    const fresh = { guards: new Set<Read>(), governs: false, shown: false };
    this.met.set(slot, fresh);
    return fresh;
  }
  private meet(read: Read, seen: ReadonlySet<Slot> = new Set()): void {
    if (read.from === 'column') return this.meet({ from: 'slot', key: read.list.key, slot: read.list }, seen);
    if (read.from !== 'slot' || seen.has(read.slot)) return;
    for (const guard of this.guards) this.of(read.slot).guards.add(guard);
    this.of(read.slot);
    for (const input of read.slot.inputs) this.meet(input, new Set([...seen, read.slot]));
  }
  protected read(read: Read): void {
    this.meet(read);
    if (read.from === 'slot') this.of(read.slot).shown = true;
  }
  protected under(test: Test, inside: () => void): void {
    if (test.read.from === 'slot') this.of(test.read.slot).governs = true;
    this.guards.push(test.read);
    inside();
    this.guards.pop();
  }
  protected *wordings(leaf: ValueLeaf): Iterable<readonly [string, Line]> {
    if (leaf.wordings) yield* leaf.wordings;
  }
  protected override wording(leaf: ValueLeaf, _option: string, wording: Line): void {
    this.guards.push(leaf.read);
    this.line(wording);
    this.guards.pop();
  }
}
