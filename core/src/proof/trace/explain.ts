/** Why words stand in a message: the variable and what gave it, the blocks, and the conditions with what they asked. */
import type { Origin, Program, Read, Slot } from '../../compile/program.js';
import { conditionInWords } from '../../compile/wording.js';
import { readConditions } from '../../expression/conditions.js';
import { sayConditions } from '../../expression/say.js';
import { Frame, type RenderInput, type Source } from '../../render/frame.js';
import { labelFromKey } from '../../template/keys.js';
import type { Variable } from '../../template/variable.js';
import { valueType, type Value } from '../../values/index.js';

/** Why some words stand in a message: where they are written, and which conditions keep them. */
export interface Explanation {
  /** The text they are written in. */
  readonly text: string;
  readonly path: readonly number[];
  /** Names of the blocks that were included to get here, outermost first. */
  readonly blocks: readonly string[];
  /** What a placeholder shows, if it is one. */
  readonly variable: Given | undefined;
  /** The choice whose option's wording they are in. */
  readonly wordingOf: Given | undefined;
  /** The conditions that keep them, outermost first. */
  readonly conditions: readonly { readonly label: string; readonly because: readonly Given[] }[];
}

/** A value, and what gave it. */
export interface Given {
  readonly name: string;
  readonly label: string;
  readonly words: string;
  /** In words: `answered`, `the recipient’s first_name`, `calculated`, `default`, `empty`. */
  readonly source: string;
  /** Of what is worked out: its expression, and the values it was worked out from. */
  readonly expression?: string;
  /** The expression in words, where it is a condition that can be built. */
  readonly inWords?: string;
  readonly inputs?: readonly Given[];
}

/** Explains one origin of one message. */
export function explain(program: Program, input: RenderInput, origin: Origin): Explanation {
  const frame = new Frame(program, input, []);
  const slot = (key: string): Slot | undefined => program.slots.find((each) => each.key === key);
  const given = (name: string): Given => {
    const known = slot(name);
    return known ? ofSlot(frame, known) : ofField(frame, name);
  };
  return {
    text: origin.text,
    path: origin.path,
    blocks: origin.blocks,
    variable: origin.variable === undefined ? undefined : given(origin.variable),
    wordingOf: origin.wordingOf === undefined ? undefined : given(origin.wordingOf),
    conditions: origin.conditions.map((condition) => ({
      label: conditionInWords(condition, slot(condition.of)?.variable),
      because: [given(condition.of)],
    })),
  };
}

const SOURCES: Readonly<Record<Source, (slot: Slot) => string>> = {
  answer: () => 'answered',
  recipient: ({ variable }) => `the recipient’s ${variable.from?.split('.')[1] ?? ''}`,
  sender: ({ variable }) => `the sender’s ${variable.from?.split('.')[1] ?? ''}`,
  last: () => 'the last message to this recipient',
  memory: () => 'an earlier message',
  clipboard: () => 'the clipboard',
  default: () => 'default',
  computed: () => 'calculated',
  none: () => 'empty',
};

function ofSlot(frame: Frame, slot: Slot, seen: ReadonlySet<Slot> = new Set()): Given {
  const { value, source } = frame.settle(slot);
  const within = new Set([...seen, slot]);
  const { value: expression } = slot.variable;
  const inputs = (read: Read): Given[] => {
    if (read.from === 'slot') return within.has(read.slot) ? [] : [ofSlot(frame, read.slot, within)];
    return read.from === 'column'
      ? []
      : [ofField(frame, read.from === 'fact' ? `house.${read.key}` : `${read.from}.${read.key}`)];
  };
  return {
    name: slot.key,
    label: slot.label,
    words: value === undefined ? '' : wordsOf(slot, value),
    source: SOURCES[value === undefined && source === 'computed' ? 'computed' : source](slot),
    ...(expression === undefined
      ? {}
      : {
          expression,
          ...conditionSaid(frame, slot, expression),
          inputs: [
            ...slot.inputs.flatMap(inputs),
            ...(slot.expression?.fields ?? []).map((name) => ofField(frame, name)),
          ],
        }),
  };
}

/** A condition as its builder says it. */
function conditionSaid(frame: Frame, { variable, locale }: Slot, expression: string): { readonly inWords?: string } {
  if (variable.type !== 'yes-no') return {};
  const variableOf = (key: string): Variable | undefined =>
    frame.program.slots.find((slot) => slot.key === key)?.variable;
  const tree = readConditions(
    expression,
    (name) => variableOf(name)?.type ?? (name.includes('.') ? 'text' : undefined),
  );
  return tree ? { inWords: sayConditions(tree, { variableOf, locale }) } : {};
}

function wordsOf({ variable, locale }: Slot, value: Value): string {
  const view = { list: 'count', choice: 'label', choices: 'labels' }[variable.type as string] ?? '';
  return valueType(variable.type).formatter(variable, view, locale)?.(value) ?? '';
}

function ofField(frame: Frame, name: string): Given {
  const [source = '', key = ''] = name.split('.');
  const isField = source === 'recipient' || source === 'sender';
  const words = isField ? (frame.field(source, key) ?? '') : '';
  return {
    name,
    label: labelFromKey(key || name),
    words,
    source: isField ? `the ${source}’s ${key}` : source === 'house' ? 'a fact of the house' : 'this row of the list',
  };
}
