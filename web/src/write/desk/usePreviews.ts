/** What placeholders and blocks would read as for the current recipient, shown while one chooses. */
import { compile, render, specimenOf, valueType, type House, type Value, type Variable } from '@vocabula/core';
import { reactive, watch, type Ref } from 'vue';
import { ensureText, knownText } from '../../ui/library';
import { today, zone } from '../../ui/today';

export interface PreviewNeeds {
  /** The language of the text. */
  readonly locale: () => string;
  /** A variable's value for the current recipient, as an answer would give it. */
  readonly valueOf: (key: string) => Value | undefined;
  readonly words: (name: string) => string | undefined;
  readonly input: () => {
    readonly recipient: Readonly<Record<string, string>>;
    readonly sender: Readonly<Record<string, string>>;
    readonly answers: Readonly<Record<string, unknown>>;
  };
  readonly house: () => House;
  /** Changes with the recipient. */
  readonly recipient: Ref<unknown>;
}

/** How much of a block is shown. */
const MOST = 400;

export function usePreviews(needs: PreviewNeeds) {
  const blocks = reactive(new Map<string, string>());
  watch(needs.recipient, () => blocks.clear());
  const context = () => ({ today: today(), locale: needs.locale(), zone: zone() });

  /** A value to show a variable by: the current recipient's, else one that is likely. */
  function valueOf(variable: Variable): Value {
    const given = variable.type === 'list' ? undefined : needs.valueOf(variable.key);
    const parsed = given === undefined ? undefined : valueType(variable.type).parse(given, variable, context());
    return parsed && 'value' in parsed ? parsed.value : specimenOf(variable, context());
  }

  /** A variable in a view, in the text's language. */
  function shown(variable: Variable, view: string): string {
    const formatter = valueType(variable.type).formatter(variable, view, needs.locale());
    try {
      return formatter?.(valueOf(variable)) ?? '';
    } catch {
      return '';
    }
  }

  /** A block as it reads for the current recipient; empty until it is known. */
  function block(name: string): string {
    const known = blocks.get(name);
    if (known === undefined) {
      blocks.set(name, '');
      void ensureText(name).then(() => {
        const document = knownText(name);
        if (document) blocks.set(name, read(name));
      });
    }
    return known ?? '';
  }
  function read(name: string): string {
    const document = knownText(name);
    if (!document) return '';
    const program = compile({ name, document }, { library: { get: knownText }, house: needs.house(), today: today() });
    return render(program, { ...needs.input(), today: today(), zone: zone() })
      .text.trim()
      .slice(0, MOST);
  }
  return { shown, block };
}

export type Previews = ReturnType<typeof usePreviews>;
