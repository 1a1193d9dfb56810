/** Pointing at words of a message: what is explained, and what is lit. */
import type { Explanation } from '@vocabula/core/proof';
import { computed, ref, shallowRef, watch, type Ref } from 'vue';
import type { ShownMessage, ShownStretch, Which } from '../table/protocol';
import type { ProofingStore } from '../table/useProofing';
import type { Part } from './looks';

interface Pointed {
  readonly part: Part;
  readonly stretch: number;
}

/** Stretches of a message that answer to a test, as `part number`. */
export function stretchesWhere(message: ShownMessage, test: (stretch: ShownStretch) => boolean): Set<string> {
  const found = new Set<string>();
  message.subjectStretches.forEach((each, at) => void (test(each) && found.add(`subject ${at}`)));
  message.stretches.forEach((each, at) => void (test(each) && found.add(`body ${at}`)));
  return found;
}

export function usePointing(
  proofing: ProofingStore,
  which: Ref<Which>,
  message: Ref<ShownMessage | undefined>,
  /** Stretches that are lit while nothing is pointed at. */
  also: (message: ShownMessage) => ReadonlySet<string>,
) {
  const pointed = ref<Pointed>();
  const explanation = shallowRef<Explanation>();
  watch([which, message], () => {
    pointed.value = undefined;
  });
  watch(pointed, async (now) => {
    if (!now) return void (explanation.value = undefined);
    const found = await proofing.explain(which.value, now.part, now.stretch);
    if (pointed.value === now) explanation.value = found;
  });
  const words = computed(() => {
    const now = pointed.value;
    const shown = message.value;
    if (!now || !shown) return '';
    if (now.part === 'subject') return shown.subjectPieces[now.stretch] ?? '';
    const html = new RegExp(`<span data-s="${now.stretch}">(.*?)</span>`, 's').exec(shown.fragment)?.[1] ?? '';
    const template = document.createElement('template');
    template.innerHTML = html;
    return template.content.textContent ?? '';
  });
  const lit = computed(() => {
    const found = new Set<string>(message.value ? also(message.value) : []);
    const now = pointed.value;
    if (now) found.add(`${now.part} ${now.stretch}`);
    return found;
  });
  /** What was pointed at last stays explained, so that one can go and read it. */
  function point(part: Part, stretch: number | undefined): void {
    if (stretch !== undefined) pointed.value = { part, stretch };
  }
  /** The stretch before or after the one that is explained, in reading order. */
  function step(by: number): void {
    const shown = message.value;
    if (!shown) return;
    const all: Pointed[] = [
      ...shown.subjectStretches.map((_, stretch): Pointed => ({ part: 'subject', stretch })),
      ...shown.stretches.map((_, stretch): Pointed => ({ part: 'body', stretch })),
    ];
    const now = all.findIndex(({ part, stretch }) => part === pointed.value?.part && stretch === pointed.value.stretch);
    pointed.value = all[now < 0 ? (by > 0 ? 0 : all.length - 1) : (now + by + all.length) % all.length];
  }
  /** The place of the manuscript that a stretch comes from. */
  function placeOf(
    part: Part,
    stretch: number,
  ): { readonly text: string; readonly path: readonly number[] } | undefined {
    return (part === 'subject' ? message.value?.subjectStretches : message.value?.stretches)?.[stretch];
  }
  return { explanation, words, lit, point, step, placeOf };
}
