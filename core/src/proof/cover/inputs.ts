/** What a message is made to vary by: the answers that conditions ask, with values that make them come out differently. */
import type { Program, Read, Slot } from '../../compile/program.js';
import type { Filling } from '../filling.js';
import type { Met } from './meetings.js';
import { isMissing, specimenOf, valueType, type ValueContext } from '../../values/index.js';
import { cellFor } from '../samples/made-up.js';

/** An answer that may be given, or a field of the recipient that conditions read, with the values that are tried. */
export interface Input {
  /** A variable's key, or `recipient.x`, `sender.x`. */
  readonly name: string;
  readonly slot: Slot | undefined;
  /** Values as answers; undefined is none. The first is as usual. */
  readonly values: readonly unknown[];
}

export type { Filling } from '../filling.js';

/** What is usual of a recipient, by column key. */
export type Usual = Readonly<Record<string, string>>;

/**
 * The inputs of a message: all that is asked on the way, and the fields that conditions read.
 * @param usual a recipient whose cells are taken where nothing depends on the value
 */
export function inputsOf(
  program: Program,
  meetings: ReadonlyMap<Slot, Met>,
  context: Omit<ValueContext, 'locale'>,
  usual: Usual = {},
): Input[] {
  const slots = [...meetings.keys()].filter(({ variable }) => variable.value === undefined);
  const fields = new Set([...meetings.keys()].flatMap(({ expression }) => expression?.fields ?? []));
  return [
    ...slots.map((slot) => ({
      name: slot.key,
      slot,
      values: valuesFor(program, slot, { ...context, locale: slot.locale }, usual),
    })),
    ...[...fields].map((name) => ({ name, slot: undefined, values: valuesOfField(program, name) })),
  ];
}

/** The fields of a recipient that an input takes the place of. */
export function fieldsTaken(inputs: readonly Input[]): ReadonlySet<string> {
  return new Set(
    inputs.flatMap(({ name, slot }) => {
      const from = slot ? slot.variable.from : name;
      return [
        ...(slot ? [slot.key] : []),
        ...(from?.startsWith('recipient.') ? [from.slice('recipient.'.length)] : []),
      ];
    }),
  );
}

/** The filling that a choice of a value for each input makes. */
export function fillingOf(inputs: readonly Input[], choice: readonly number[]): Filling {
  const filling = { recipient: {}, sender: {}, answers: {} } as Record<keyof Filling, Record<string, unknown>>;
  inputs.forEach(({ name, slot, values }, at) => {
    const value = values[choice[at] ?? 0];
    if (value === undefined) return;
    const [source = '', field = ''] = name.split('.');
    if (slot) filling.answers[name] = value;
    else filling[source as 'recipient' | 'sender'][field] = value;
  });
  return filling;
}

const NUMBER = /(?<![\w."'])-?\d+(?:\.\d+)?(?![\w"'])/g;
const WORDS = /"((?:[^"\\]|\\.)*)"|'((?:[^'\\]|\\.)*)'/g;
const DAY = /\b\d{4}-\d{2}-\d{2}\b/g;

/** The constants that a slot's value is compared with, in the expressions that read it. */
function constantsFor(program: Program, name: string): string[] {
  const sources = program.slots.flatMap(({ variable, inputs, expression }) =>
    variable.value !== undefined &&
    (inputs.some((input) => readName(input) === name) || expression?.fields.includes(name))
      ? [variable.value]
      : [],
  );
  return sources.flatMap((source) => [
    ...(source.match(NUMBER) ?? []),
    ...[...source.matchAll(WORDS)].map((match) => match[1] ?? match[2] ?? ''),
  ]);
}
const readName = (read: Read): string => (read.from === 'slot' ? read.key : `${read.from}.${read.key}`);

/** The values that are tried for a slot: what its type has, and one step either side of what it is compared with. */
function valuesFor(program: Program, slot: Slot, context: ValueContext, usual: Usual): unknown[] {
  const { variable } = slot;
  const specimen = usualOf(slot, context, usual);
  const none = variable.required ? [] : [undefined];
  const constants = constantsFor(program, slot.key);
  const isCompared = program.slots.some(
    (each) => each.variable.value !== undefined && each.inputs.some((input) => readName(input) === slot.key),
  );
  const numbers = constants.map(Number).filter(Number.isFinite);
  switch (variable.type) {
    case 'yes-no':
      return [true, false];
    case 'choice':
      return [...(variable.options ?? []).map(({ key }) => key), ...none];
    case 'choices': {
      const keys = (variable.options ?? []).map(({ key }) => key);
      return accepted(slot, context, [
        ...keys.map((key) => [key]),
        keys,
        keys.slice(0, 2),
        ...(variable.required ? [] : [[]]),
      ]);
    }
    case 'list': {
      const row = Array.isArray(specimen) && specimen.length > 0 ? (specimen as unknown[])[0] : rowOf(slot, context);
      const counts = new Set([0, 1, 2, ...numbers.flatMap((each) => [each - 1, each, each + 1])]);
      return [...counts]
        .filter((count) => Number.isInteger(count) && count >= 0 && count <= 60)
        .map((count) => Array.from({ length: count }, () => row));
    }
    case 'number':
    case 'money': {
      if (!isCompared) return accepted(slot, context, [specimen, ...none]);
      const step = variable.step ?? 1;
      const around = numbers.flatMap((each) => [each - step, each, each + step]);
      const ends = [variable.min, variable.max].filter((each) => each !== undefined);
      return accepted(slot, context, [specimen, ...around, ...ends, 0, 1, ...none]);
    }
    case 'date':
    case 'datetime': {
      if (!isCompared) return accepted(slot, context, [specimen, ...none]);
      const days = (variable.value ?? '').match(DAY) ?? [];
      const written = constants.flatMap((each) => each.match(DAY) ?? []);
      const near = [
        -400,
        -30,
        -7,
        -1,
        0,
        1,
        2,
        3,
        4,
        5,
        6,
        7,
        30,
        400,
        ...numbers.flatMap((each) => [each - 1, each, each + 1]),
      ];
      const relative = near.map((by) => shift(context.today, by));
      const around = [...days, ...written].flatMap((day) => [shift(day, -1), day, shift(day, 1)]);
      const clock =
        variable.type === 'datetime' ? (day: string): string => `${day}T10:00` : (day: string): string => day;
      return accepted(slot, context, [specimen, ...[...around, ...relative].map(clock), ...none]);
    }
    default:
      return accepted(slot, context, [specimen, ...constants, ...none]);
  }
}

/** The value that is usual for a slot: the recipient's cell, one that is made up, or the type's specimen. */
function usualOf(slot: Slot, context: ValueContext, usual: Usual): unknown {
  const { variable, key } = slot;
  const field = variable.from?.startsWith('recipient.') ? variable.from.slice('recipient.'.length) : key;
  const takes = (given: unknown): boolean =>
    !isMissing(given) && 'value' in valueType(variable.type).parse(given, variable, context);
  if (takes(usual[field])) return usual[field];
  const plain = variable.type === 'text' || variable.type === 'email' || variable.type === 'phone';
  const made =
    plain && variable.example === undefined && variable.default === undefined
      ? cellFor({ column: field, label: key, type: variable.type, required: true, slot, as: 'field' }, 0, context.today)
      : undefined;
  return takes(made) ? made : specimenOf(variable, context);
}

/** A row of the list's columns, each with a specimen. */
function rowOf({ variable }: Slot, context: ValueContext): Record<string, unknown> {
  return Object.fromEntries(
    (variable.columns ?? [])
      .filter((column) => column.value === undefined)
      .map((column) => [column.key, specimenOf(column, context)]),
  );
}

/** Those that the slot takes, each once. */
function accepted(slot: Slot, context: ValueContext, given: readonly unknown[]): unknown[] {
  const seen = new Set<string>();
  return given.filter((each) => {
    const key = JSON.stringify(each) ?? 'none';
    if (seen.has(key)) return false;
    seen.add(key);
    if (each === undefined || isMissing(each)) return !slot.variable.required;
    return 'value' in valueType(slot.variable.type).parse(each, slot.variable, context);
  });
}

/** The values that are tried for a field of the recipient or sender: what it is compared with, something else, nothing. */
function valuesOfField(program: Program, name: string): unknown[] {
  return [...new Set(constantsFor(program, name)), 'Larkmoor', undefined];
}

const shift = (day: string, by: number): string =>
  new Date(Date.parse(`${day}T00:00:00Z`) + by * 86_400_000).toISOString().slice(0, 10);
