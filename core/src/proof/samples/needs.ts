/** Which columns a template needs of a sample set, and what a row of one gives it. */
import type { Line, Program, Read, Slot, Test, ValueLeaf } from '../../compile/program.js';
import { Walk } from '../../questions/walk.js';
import { labelFromKey } from '../../template/keys.js';
import type { TypeName } from '../../template/variable.js';
import { valueType } from '../../values/index.js';
import type { Filling } from '../filling.js';

/** Something that a template takes from whom it is written to. */
export interface Need {
  /** The key of the column that gives it. */
  readonly column: string;
  readonly label: string;
  readonly type: TypeName;
  readonly required: boolean;
  /** The variable that it fills; none for a field that is shown as it is. */
  readonly slot: Slot | undefined;
  /** A field of the recipient, or an answer that a column of the variable's own key gives. */
  readonly as: 'field' | 'answer';
}

/** What a template needs, in reading order; each column once. */
export function needs(program: Program): Need[] {
  return new Needing(program).found();
}

class Needing extends Walk {
  private readonly needs = new Map<string, Need>();
  private readonly seen = new Set<Slot>();

  found(): Need[] {
    this.all();
    return [...this.needs.values()];
  }
  private add(need: Need): void {
    const known = this.needs.get(need.column);
    // A field that fills a variable is of its type, wherever else it is shown.
    if (!known || (!known.slot && need.slot)) this.needs.set(need.column, need);
  }
  private field(key: string): void {
    this.add({ column: key, label: labelFromKey(key), type: 'text', required: false, slot: undefined, as: 'field' });
  }
  private slot(slot: Slot): void {
    if (this.seen.has(slot)) return;
    this.seen.add(slot);
    const { variable, label } = slot;
    for (const input of slot.inputs) this.read(input);
    for (const name of slot.expression?.fields ?? [])
      if (name.startsWith('recipient.')) this.field(name.slice('recipient.'.length));
    if (variable.value !== undefined) return;
    const [source, key] = variable.from?.split('.') ?? [];
    const rest = { label, type: variable.type, required: variable.required ?? false, slot };
    if (source === 'recipient' && key) this.add({ column: key, as: 'field', ...rest });
    else if (source !== 'sender' && source !== 'house') this.add({ column: slot.key, as: 'answer', ...rest });
  }
  protected read(read: Read): void {
    if (read.from === 'slot') this.slot(read.slot);
    else if (read.from === 'column') this.slot(read.list);
    else if (read.from === 'recipient') this.field(read.key);
  }
  protected under(_test: Test, inside: () => void): void {
    inside();
  }
  protected *wordings(leaf: ValueLeaf): Iterable<readonly [string, Line]> {
    if (leaf.wordings) yield* leaf.wordings;
  }
}

/** A row of a sample set: text by column key. */
export type SampleRow = Readonly<Record<string, string>>;

/**
 * What a row gives: its cells are the recipient's fields, and a cell in a column of a variable's own key answers it,
 * unless the variable takes its value from a field that the row has.
 */
export function fillingOfRow(program: Program, row: SampleRow, sender: Filling['sender'] = {}): Filling {
  const answers: Record<string, unknown> = {};
  for (const { key, variable } of program.slots) {
    const cell = row[key];
    if (!cell || variable.value !== undefined) continue;
    const [source, field] = variable.from?.split('.') ?? [];
    if (source === 'recipient' && field && row[field]) continue;
    const { fromCell } = valueType(variable.type);
    const answer = fromCell ? fromCell(cell, variable) : cell;
    if (answer !== undefined) answers[key] = answer;
  }
  return { recipient: row, sender, answers };
}
