/** The values of one message: answers, prefilled fields, defaults and what is worked out from them. */
import type { Program, Read, Slot, Test } from '../compile/program.js';
import { error, type Finding } from '../findings/finding.js';
import { isMissing, valueType, type RowValue, type Value } from '../values/index.js';

/** Fields of a recipient or sender by column key; the empty string is missing. */
export type Fields = Readonly<Record<string, unknown>>;

export interface RenderInput {
  readonly recipient?: Fields;
  readonly sender?: Fields;
  /** Answers by key, in the form the format notes give. */
  readonly answers?: Readonly<Record<string, unknown>>;
  /** The asker's day, ISO. */
  readonly today: string;
}

/** Where a value came from. */
export type Source = 'answer' | 'recipient' | 'sender' | 'default' | 'computed' | 'none';

interface Settled {
  readonly value: Value | undefined;
  readonly source: Source;
  readonly problem?: string;
}

const NOTHING: Settled = { value: undefined, source: 'none' };

export class Frame {
  private readonly settled: (Settled | undefined)[];
  private readonly rows: RowValue[] = [];
  private readonly recipient: Fields;
  private readonly sender: Fields;
  private readonly answers: Readonly<Record<string, unknown>>;
  private contextFields: Record<string, unknown> | undefined;

  constructor(
    readonly program: Program,
    readonly input: RenderInput,
    private readonly findings: Finding[],
  ) {
    this.settled = new Array<Settled | undefined>(program.slots.length);
    this.recipient = input.recipient ?? {};
    this.sender = input.sender ?? {};
    this.answers = input.answers ?? {};
    program.runtime.today = input.today;
    program.runtime.locale = program.locale;
  }

  /** The value a name has here, or undefined when it is missing or cannot be told. */
  read(read: Read): Value | undefined {
    switch (read.from) {
      case 'slot':
        return this.settle(read.slot).value;
      case 'column':
        return this.rows[read.depth]?.[read.key];
      case 'fact':
        return read.value;
      default:
        return this.field(read.from, read.key);
    }
  }

  /** A recipient or sender field as one line of text. */
  field(source: 'recipient' | 'sender', key: string): string | undefined {
    const fields = source === 'recipient' ? this.recipient : this.sender;
    const raw: unknown = Object.hasOwn(fields, key) ? fields[key] : undefined;
    if (raw === undefined || raw === null || typeof raw === 'object') return undefined;

    const text = String(raw)
      .replace(/\s*[\r\n]+\s*/g, ' ')
      .replace(/[\u0000-\u0008\u000B\u000C\u000E-\u001F\u007F]/g, '\uFFFD');
    return text === '' ? undefined : text;
  }

  /** True or false as the condition says; what cannot be told counts as no before `not` turns it round. */
  holds(test: Test): boolean {
    const value = this.read(test.read);
    const { is, not } = test.condition;
    const yes =
      test.kind === 'yes-no'
        ? value === true
        : test.kind === 'list'
          ? Array.isArray(value) && value.length > 0
          : Array.isArray(value)
            ? (value as readonly string[]).some((key) => is.includes(key))
            : typeof value === 'string' && is.includes(value);
    return yes !== not;
  }

  /** The rows a repeat goes through. */
  rowsOf(test: Test): readonly RowValue[] {
    const value = this.read(test.read);
    return Array.isArray(value) ? (value as readonly RowValue[]) : [];
  }

  enterRow(test: Test, row: RowValue): void {
    this.rows[test.depth] = row;
    for (const slot of test.rowSlots) this.settled[slot.index] = undefined;
  }

  leaveRow(test: Test): void {
    this.rows.length = test.depth;
    for (const slot of test.rowSlots) this.settled[slot.index] = undefined;
  }

  /** A slot's value with its source; worked out once for each message (or row). */
  settle(slot: Slot): Settled {
    return (this.settled[slot.index] ??= this.work(slot));
  }

  private work(slot: Slot): Settled {
    // What waits for itself is undecided; the compiler has reported the loop.
    this.settled[slot.index] = NOTHING;
    if (slot.variable.value !== undefined) {
      const raw = slot.expression?.evaluate(this.context(slot.inputs, {}));
      return raw === undefined ? { value: undefined, source: 'computed' } : this.accept(slot, raw, 'computed');
    }
    const { from, default: fallback } = slot.variable;
    const answer = Object.hasOwn(this.answers, slot.key) ? this.answers[slot.key] : undefined;
    if (!isMissing(answer)) return this.accept(slot, answer, 'answer');
    const [source, key] = from?.split('.') ?? [];
    if (key !== undefined && (source === 'recipient' || source === 'sender')) {
      const fields = source === 'recipient' ? this.recipient : this.sender;
      const cell = Object.hasOwn(fields, key) ? fields[key] : undefined;
      if (!isMissing(cell)) return this.accept(slot, cell, source);
    }
    return isMissing(fallback) ? NOTHING : this.accept(slot, fallback, 'default');
  }

  /** Parses a value by every declaration; the first words against it make it missing. */
  private accept(slot: Slot, raw: unknown, source: Source): Settled {
    let value: Value | undefined;
    for (const { variable, locale } of slot.declarations) {
      const parsed = valueType(variable.type).parse(raw, variable, { today: this.input.today, locale });
      if ('problem' in parsed) {
        this.findings.push(
          error('bad-value', `${slot.label}: ${parsed.problem}`, {
            variable: slot.key,
            ...(source === 'default' ? { attribute: 'default' } : {}),
          }),
        );
        return { value: undefined, source, problem: parsed.problem };
      }
      value ??= parsed.value;
    }
    if (value !== undefined && slot.columns.length > 0)
      value = (value as readonly RowValue[]).map((row) => this.completeRow(slot, row));
    return isMissing(value) && slot.variable.type !== 'list' ? { value: undefined, source } : { value, source };
  }

  private completeRow(slot: Slot, row: RowValue): RowValue {
    const full: Record<string, Value | undefined> = { ...row };
    for (const { variable, expression, inputs } of slot.columns) {
      const raw = expression.evaluate(this.context(inputs, full));
      if (raw === undefined) continue;
      const parsed = valueType(variable.type).parse(raw, variable, { today: this.input.today, locale: slot.locale });
      if ('value' in parsed) full[variable.key] = parsed.value;
      else
        this.findings.push(
          error('bad-value', `${slot.label}: ${parsed.problem}`, {
            variable: slot.key,
            attribute: `columns.${variable.key}`,
          }),
        );
    }
    return full;
  }

  /** The names an expression may read, missing ones left out, so that what needs them is undecided. */
  private context(inputs: readonly Read[], own: Readonly<Record<string, Value | undefined>>): Record<string, unknown> {
    const context: Record<string, unknown> = { ...this.fields() };
    for (const input of inputs) {
      const value = this.read(input);
      if (value !== undefined) context[input.key] = value;
    }
    for (const [key, value] of Object.entries(own)) if (value !== undefined) context[key] = value;
    this.program.runtime.isFilled = (key) => Object.hasOwn(context, key);
    return context;
  }

  private fields(): Record<string, unknown> {
    if (!this.contextFields) {
      const present = (source: 'recipient' | 'sender', fields: Fields): Record<string, string> =>
        Object.fromEntries(
          Object.keys(fields).flatMap((key) => {
            const text = this.field(source, key);
            return text === undefined ? [] : [[key, text]];
          }),
        );
      const facts = Object.entries(this.program.house.facts).map(
        ([key, fact]) => [`house__${key}`, fact.value] as const,
      );
      this.contextFields = {
        recipient: present('recipient', this.recipient),
        sender: present('sender', this.sender),
        ...Object.fromEntries(facts),
      };
    }
    return this.contextFields;
  }

  /** The required inputs that a missing computed value waits for, in the order in which it reads them. */
  waitsFor(slot: Slot, seen: ReadonlySet<Slot> = new Set()): Slot[] {
    if (seen.has(slot)) return [];
    const within = new Set([...seen, slot]);
    return slot.inputs.flatMap((input) => {
      if (input.from !== 'slot' || this.read(input) !== undefined) return [];
      if (input.slot.variable.value !== undefined) return this.waitsFor(input.slot, within);
      return input.slot.variable.required ? [input.slot] : [];
    });
  }
}
