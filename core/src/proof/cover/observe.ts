/** What a filling shows: which way each question and condition went, as far as it was met at all. */
import type { Program, Slot } from '../../compile/program.js';
import { slotsRead } from '../../questions/questions.js';
import { Frame } from '../../render/frame.js';
import { labelOf } from '../../values/choice.js';
import { valueType, type Value } from '../../values/index.js';
import type { Filling } from './inputs.js';
import type { Met } from './meetings.js';

/** Something that can go one way or another: a question, one option of several, or a condition that is worked out. */
export interface Factor {
  readonly slot: Slot;
  /** A key, or `key.option` for one option of a pick-several. */
  readonly name: string;
  readonly label: string;
  readonly levels: readonly { readonly key: string; readonly label: string }[];
  /** The level that a value is; -1 for one that is none of them. */
  levelOf(value: Value | undefined): number;
}

const FILLED = [
  { key: 'filled', label: 'given' },
  { key: 'empty', label: 'left empty' },
];
/** The factors of a message, in the order in which a reader meets them. */
export function factorsOf(meetings: ReadonlyMap<Slot, Met>): Factor[] {
  return [...meetings].flatMap(([slot, { governs, shown }]) => (governs || shown ? factors(slot, governs) : []));
}

function factors(slot: Slot, governs: boolean): Factor[] {
  const { variable, key: name, label } = slot;
  const worked = variable.value !== undefined;
  // What is worked out and only shown is as its inputs are.
  if (worked && !governs) return [];
  const outcomes = valueType(variable.type).outcomes?.(variable);
  if (outcomes)
    return outcomes
      .filter(({ levels }) => levels.length > 1)
      .map(({ option, ...outcome }) => ({
        slot,
        name: option ? `${name}.${option.key}` : name,
        label: option ? `${label}: ${labelOf(option)}` : label,
        ...outcome,
      }));
  return variable.required || variable.default !== undefined || worked
    ? []
    : [{ slot, name, label, levels: FILLED, levelOf: (value) => (value === undefined ? 1 : 0) }];
}

/** The level of each factor that a filling leads to; -1 where the message does not meet it. */
export function observe(
  program: Program,
  factors: readonly Factor[],
  { recipient, sender, answers }: Filling,
  today: string,
): Int8Array {
  const frame = new Frame(program, { recipient, sender, answers, today, zone: 'UTC' }, []);
  const met = slotsRead(program, frame);
  return Int8Array.from(factors, ({ slot, levelOf }) => (met.has(slot) ? levelOf(frame.settle(slot).value) : -1));
}
