import { useResizeObserver } from '@vueuse/core';
import { onMounted, onUnmounted, ref, shallowRef, watch } from 'vue';
import { bracketsAtCaret } from '../caret';
import type { Manuscript } from '../useManuscript';
import { DEEP, drawnBrackets, looksSame, type Drawn } from './measure';

/** The brackets with their places beside the sheet, measured after each change of the text or of the sheet's size. */
export function useDrawnBrackets(
  { editor, brackets, variables, rest }: Pick<Manuscript, 'editor' | 'brackets' | 'variables' | 'rest'>,
  sheet: () => HTMLElement | null,
) {
  const drawn = shallowRef<readonly Drawn[]>([]);
  /** Whether brackets are nested so deeply that their tracks become narrow. */
  const deep = ref(false);

  function measure(): void {
    const element = sheet();
    if (!element || editor.isDestroyed) return;
    const around = bracketsAtCaret(editor, brackets.value);
    const found = drawnBrackets(editor, element, brackets.value, around, variables.value);
    // A typed letter moves later brackets in the text, but rarely on the sheet: then nothing is drawn again.
    const { value: old } = drawn;
    if (old.length === found.drawn.length && old.every((each, index) => looksSame(each, found.drawn[index])))
      found.drawn.forEach((each, index) => Object.assign(old[index] as Drawn, each));
    else drawn.value = found.drawn;
    deep.value = found.deepest >= DEEP;
  }
  let frame = 0;
  const measureSoon = (): void => {
    cancelAnimationFrame(frame);
    frame = requestAnimationFrame(measure);
  };
  useResizeObserver(sheet, measureSoon);
  watch([rest, sheet], measureSoon);
  onMounted(measureSoon);
  onUnmounted(() => cancelAnimationFrame(frame));
  return { drawn, deep };
}
