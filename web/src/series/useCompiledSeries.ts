/** A series that is being written, compiled with its templates as they stand here. */
import type { Program, TextDocument } from '@vocabula/core';
import { computed, watch, type Ref } from 'vue';
import { ensureText, knownTexts, libraryVersion } from '../ui/library';
import { useSender } from './useSender';

export function useCompiledSeries(name: Ref<string>, document: Ref<TextDocument>) {
  const { house, calendar, compiled } = useSender();
  void house.load().catch(() => undefined);
  watch(
    () => document.value.attrs.steps?.map(({ text }) => text) ?? [],
    (texts) => texts.forEach((text) => void ensureText(text)),
    { immediate: true },
  );
  const program = computed((): Program => {
    // What is fetched meanwhile is compiled in.
    void libraryVersion.value;
    const texts = knownTexts().map(([each, found]) => ({ name: each, document: found }));
    return compiled({ name: name.value, document: document.value }, texts);
  });
  return { program, series: computed(() => program.value.series), calendar };
}
