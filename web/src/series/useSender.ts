/** Who a series goes from: their calendar, and a series compiled with their signature. */
import { compileBundle, type NamedDocument, type SeriesProgram } from '@vocabula/core';
import type { Calendar } from '@vocabula/core/series';
import { computed } from 'vue';
import { useHouse } from '../ui/house';
import { useMe } from '../ui/me';
import { today, zone } from '../ui/today';

export function useSender() {
  const me = useMe();
  const house = useHouse();
  const calendar = computed((): Calendar => {
    const { from, to, days } = me.ways;
    return { zone: zone(), from, to, days, holidays: new Set(house.house.holidays) };
  });
  const compiled = (text: NamedDocument, texts: readonly NamedDocument[]) =>
    compileBundle({ text, texts, house: house.house, signature: me.profile.signature || undefined, today: today() });
  const compiledSeries = (text: NamedDocument, texts: readonly NamedDocument[]): SeriesProgram | undefined =>
    compiled(text, texts).series;
  return { me, house, calendar, compiled, compiledSeries };
}
