/** A series compiled as its pages show it: with its templates as they stand here, and the calendar of who looks at it. */
import { compileBundle, type Program, type TextDocument } from '@vocabula/core';
import type { Calendar } from '@vocabula/core/series';
import { computed, watch, type Ref } from 'vue';
import { useHouse } from '../ui/house';
import { ensureText, knownTexts, libraryVersion } from '../ui/library';
import { useMe } from '../ui/me';
import { today, zone } from '../ui/today';

export function useCompiledSeries(name: Ref<string>, document: Ref<TextDocument | undefined>) {
  const me = useMe();
  const house = useHouse();
  void house.load().catch(() => undefined);
  watch(
    () => document.value?.attrs.steps?.map(({ text }) => text) ?? [],
    (texts) => texts.forEach((text) => void ensureText(text)),
    { immediate: true },
  );
  const program = computed((): Program | undefined => {
    // What is fetched meanwhile is compiled in.
    void libraryVersion.value;
    const own = document.value;
    if (!own) return undefined;
    const texts = knownTexts().map(([each, found]) => ({ name: each, document: found }));
    const signature = me.profile.signature || undefined;
    return compileBundle({
      text: { name: name.value, document: own },
      texts,
      house: house.house,
      signature,
      today: today(),
    });
  });
  const series = computed(() => program.value?.series);
  const calendar = computed((): Calendar => {
    const { from, to, days } = me.ways;
    return { zone: zone(), from, to, days, holidays: new Set(house.house.holidays) };
  });
  return { program, series, calendar, me };
}
export type CompiledSeries = ReturnType<typeof useCompiledSeries>;
