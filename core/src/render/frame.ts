/** The values of one message: answers, prefilled fields, defaults and what is worked out from them. */
import { Budget } from './budget.js';
import type { ExpressionRun } from '../expression/expression.js';
import { factName } from '../expression/rewrite.js';
import { valueOn } from '../house/facts.js';
import type { Program, Read, Slot, Test } from '../compile/program.js';
import { error, type Finding } from '../findings/finding.js';
import {
  inOneLine,
  isMissing,
  textOf,
  valueType,
  type GivenHtml,
  type RowValue,
  type Value,
  type ValueContext,
} from '../values/index.js';

/** Fields of a recipient or sender by column key; the empty string is missing. */
export type Fields = Readonly<Record<string, unknown>>;

/** What a message is filled with. */
export interface RenderInput {
  readonly recipient?: Fields;
  readonly sender?: Fields;
  /** Answers by key, in the form the format notes give. */
  readonly answers?: Readonly<Record<string, unknown>>;
  /** Values for what nobody has answered and no field gives, by key; one that does not fit is passed over. */
  readonly offered?: Readonly<Record<string, Offered>>;
  /** The user's day, ISO. */
  readonly today: string;
  /** The user's zone, for moments whose variable and file name none. */
  readonly zone?: string;
}

/** A value taken over from an earlier message to the same recipient, to anybody, or from the clipboard. */
export interface Offered {
  readonly value: unknown;
  readonly source: 'last' | 'memory' | 'clipboard';
}

/** Where a value came from. */
export type Source = 'answer' | 'recipient' | 'sender' | Offered['source'] | 'default' | 'computed' | 'none';

interface Settled {
  readonly value: Value | undefined;
  readonly source: Source;
  readonly problem?: string;
  /** Of a value that was taken as given. */
  readonly html?: GivenHtml;
}

const NOTHING: Settled = { value: undefined, source: 'none' };

/** The values of one rendering: each slot is settled when it is first read. */
export class Frame {
  private readonly settled: (Settled | undefined)[];
  /** The rows that are gone through, outermost first, with the HTML of their cells where they were taken as given. */
  private readonly rows: { readonly row: RowValue; readonly html: readonly (string | undefined)[] | undefined }[] = [];
  private readonly recipient: Fields;
  private readonly sender: Fields;
  private readonly answers: Readonly<Record<string, unknown>>;
  /** The steps that are left for this message. */
  readonly budget = new Budget();
  /** What expressions are evaluated for. */
  private get run(): ExpressionRun {
    return { today: this.input.today, locale: this.program.locale, budget: this.budget };
  }
  private valueContext: ValueContext | undefined;
  private contextFields: Record<string, unknown> | undefined;

  constructor(
    readonly program: Program,
    readonly input: RenderInput,
    private readonly findings: Finding[],
    /** Whether the HTML is all that is made: then most values are read once, and need not be kept. */
    private readonly htmlAlone = false,
  ) {
    this.settled = new Array<Settled | undefined>(program.slots.length);
    this.recipient = input.recipient ?? {};
    this.sender = input.sender ?? {};
    this.answers = input.answers ?? {};
  }

  /** The value a name has here, or undefined when it is missing or cannot be told. */
  read(read: Read): Value | undefined {
    switch (read.from) {
      case 'slot':
        return this.settle(read.slot).value;
      case 'column':
        return this.rows[read.depth]?.row[read.key];
      case 'fact':
        return valueOn(read.values, this.input.today);
      default:
        return this.field(read.from, read.key);
    }
  }

  /** The HTML of a text as it is, where it was taken as given. */
  html(read: Read): string | undefined {
    if (read.from === 'column') return this.rows[read.depth]?.html?.[read.at];
    return read.from === 'slot' ? this.givenHtml(read.slot) : undefined;
  }

  /** The same of a slot. An answer that stands as it is need not be settled, which spares most values an object. */
  private givenHtml(slot: Slot): string | undefined {
    const settled = this.settled[slot.index] ?? (this.htmlAlone ? undefined : this.settle(slot));
    const html = settled === undefined ? slot.asGiven?.(own(this.answers, slot.key)) : settled.html;
    return typeof html === 'string' ? html : undefined;
  }

  /** The value of what a condition asks; as `read`, without settling an answer that stands as it is. */
  readTest({ read }: Test): Value | undefined {
    if (read.from !== 'slot' || !this.htmlAlone) return this.read(read);
    const { slot } = read;
    const settled = this.settled[slot.index];
    if (settled !== undefined) return settled.value;
    const answer = own(this.answers, slot.key);
    return typeof answer === 'boolean' && slot.asGiven?.(answer) !== undefined ? answer : this.settle(slot).value;
  }

  /** A recipient or sender field as one line of text. */
  field(source: 'recipient' | 'sender', key: string): string | undefined {
    const raw = own(source === 'recipient' ? this.recipient : this.sender, key);
    if (raw === undefined || raw === null || typeof raw === 'object') return undefined;
    const text = inOneLine(textOf(String(raw)) ?? '');
    return text === '' ? undefined : text;
  }

  /** True or false as the condition says; what cannot be told counts as no before `not` turns it round. */
  holds(test: Test): boolean {
    return meets(test, this.read(test.read));
  }

  /** The rows a repeat goes through. */
  rowsOf(test: Test): readonly RowValue[] {
    const value = this.read(test.read);
    return Array.isArray(value) ? (value as readonly RowValue[]) : [];
  }

  /** The HTML of all cells, row by row, of a list that was taken as given. */
  cellsOf({ read }: Test): readonly (readonly (string | undefined)[])[] | undefined {
    const html = read.from === 'slot' ? this.settle(read.slot).html : undefined;
    return typeof html === 'object' ? html : undefined;
  }

  /** Goes into the row of that number. */
  enterRow(test: Test, row: RowValue, at: number): void {
    this.rows[test.depth] = { row, html: this.cellsOf(test)?.[at] };
    for (const slot of test.rowSlots) this.settled[slot.index] = undefined;
  }

  leaveRow(test: Test): void {
    while (this.rows.length > test.depth) this.rows.pop();
    for (const slot of test.rowSlots) this.settled[slot.index] = undefined;
  }

  /** A slot's value with its source; worked out once for each message (or row). */
  settle(slot: Slot): Settled {
    return (this.settled[slot.index] ??= this.work(slot));
  }

  private work(slot: Slot): Settled {
    const answer = own(this.answers, slot.key);
    const html = slot.asGiven?.(answer);
    if (html !== undefined) return { value: answer as Value, source: 'answer', html };
    if (slot.variable.value !== undefined) {
      // What waits for itself is undecided; the compiler has reported the loop.
      this.settled[slot.index] = NOTHING;
      const raw = slot.expression?.evaluate(this.context(slot.inputs, {}), this.run);
      return raw === undefined ? { value: undefined, source: 'computed' } : this.accept(slot, raw, 'computed');
    }
    const { from, default: fallback } = slot.variable;
    if (!isMissing(answer)) return this.accept(slot, answer, 'answer');
    if (from !== undefined) {
      const [source, key] = from.split('.');
      if (key !== undefined && (source === 'recipient' || source === 'sender')) {
        const cell = own(source === 'recipient' ? this.recipient : this.sender, key);
        if (!isMissing(cell)) return this.accept(slot, cell, source);
      }
    }
    return this.offered(slot) ?? (isMissing(fallback) ? NOTHING : this.accept(slot, fallback, 'default'));
  }

  /** What is offered for a slot, if it fits: nobody has said it of this message, so it is no finding if it does not. */
  private offered(slot: Slot): Settled | undefined {
    const { offered } = this.input;
    const given = offered && Object.hasOwn(offered, slot.key) ? offered[slot.key] : undefined;
    if (!given || isMissing(given.value)) return undefined;
    const fits = slot.declarations.every(
      ({ variable, locale, type }) => !('problem' in type.parse(given.value, variable, this.contextFor(locale))),
    );
    return fits ? this.accept(slot, given.value, given.source) : undefined;
  }

  /** Parses a value by every declaration; the first words against it make it missing. */
  private accept(slot: Slot, raw: unknown, source: Source): Settled {
    let value: Value | undefined;
    for (const { variable, locale, type } of slot.declarations) {
      const parsed = type.parse(raw, variable, this.contextFor(locale));
      if ('problem' in parsed) {
        this.findings.push(
          error(
            { code: 'bad-value', why: 'answer', label: slot.label, says: parsed.problem },
            {
              variable: slot.key,
              ...(source === 'default' ? { attribute: 'default' } : {}),
            },
          ),
        );
        return { value: undefined, source, problem: parsed.problem };
      }
      value ??= parsed.value;
    }
    if (value !== undefined && slot.columns.length > 0)
      value = (value as readonly RowValue[]).map((row) => this.completeRow(slot, row));
    return isMissing(value) && slot.variable.type !== 'list' ? { value: undefined, source } : { value, source };
  }

  private contextFor(locale: string): ValueContext {
    if (this.valueContext?.locale !== locale) {
      const { today, zone } = this.input;
      this.valueContext = { today, locale, zone };
    }
    return this.valueContext;
  }

  private completeRow(slot: Slot, row: RowValue): RowValue {
    const full: Record<string, Value | undefined> = { ...row };
    for (const { variable, expression, inputs } of slot.columns) {
      const raw = expression.evaluate(this.context(inputs, full), this.run);
      if (raw === undefined) continue;
      const parsed = valueType(variable.type).parse(raw, variable, this.contextFor(slot.locale));
      if ('value' in parsed) full[variable.key] = parsed.value;
      else
        this.findings.push(
          error(
            { code: 'bad-value', why: 'answer', label: slot.label, says: parsed.problem },
            {
              variable: slot.key,
              attribute: `columns.${variable.key}`,
            },
          ),
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
      const facts = [...this.program.facts].flatMap(([key, values]) => {
        const value = valueOn(values, this.input.today);
        return value === undefined ? [] : [[factName(key), value] as const];
      });
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

/**
 * What an object holds under a key. Keys begin with a small letter, and all that such a name could inherit are
 * functions, which no value is; asking for the type is measurably quicker than asking whose the key is.
 */
function own(fields: Readonly<Record<string, unknown>>, key: string): unknown {
  const value = fields[key];
  return typeof value === 'function' ? undefined : value;
}

/** True if the value is what the condition asks, or, turned round, is not. */
export const meets = (test: Pick<Test, 'kind' | 'condition'>, value: Value | undefined): boolean =>
  isMet(test, value) !== test.condition.not;

function isMet({ kind, condition: { is } }: Pick<Test, 'kind' | 'condition'>, value: Value | undefined): boolean {
  if (kind === 'yes-no') return value === true;
  if (kind === 'list') return Array.isArray(value) && value.length > 0;
  if (Array.isArray(value)) return (value as readonly string[]).some((key) => is.includes(key));
  return typeof value === 'string' && is.includes(value);
}
