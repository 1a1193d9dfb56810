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
  const type = valueType(variable.type);
  const given = (values: readonly unknown[]): unknown[] => accepted(slot, context, values);
  return (
    type.tried?.(variable, { ...context, specimen, constants, isCompared, none, accepted: given }) ??
    given([specimen, ...constants, ...none])
  ).slice();
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
