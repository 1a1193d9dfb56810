/** The period of a report, kept in the address. */
import type { Period } from '@vocabula/contract';
import { computed } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { today } from '../ui/today';

export const PERIODS = [
  { value: '28', words: 'last 4 weeks' },
  { value: '91', words: 'last quarter' },
  { value: '182', words: 'last 6 months' },
  { value: '365', words: 'last year' },
  { value: 'all', words: 'all time' },
  { value: 'days', words: 'custom dates' },
] as const;
export type PeriodChoice = (typeof PERIODS)[number]['value'];
const DAY = 86_400_000;
const DEFAULT_CHOICE: PeriodChoice = '182';

export function usePeriod() {
  const [route, router] = [useRoute(), useRouter()];
  const query = (name: string): string => String(route.query[name] ?? '');
  const set = (change: Record<string, string | undefined>): void =>
    void router.replace({ query: { ...route.query, ...change } });
  const choice = computed({
    get: (): PeriodChoice => PERIODS.find(({ value }) => value === query('time'))?.value ?? DEFAULT_CHOICE,
    set: (time) => set({ time: time === DEFAULT_CHOICE ? undefined : time }),
  });
  const from = computed({ get: () => query('from'), set: (day) => set({ from: day || undefined }) });
  const until = computed({ get: () => query('until'), set: (day) => set({ until: day || undefined }) });
  const period = computed((): Period => {
    if (choice.value === 'all') return {};
    if (choice.value === 'days')
      return { ...(from.value ? { from: from.value } : {}), ...(until.value ? { until: until.value } : {}) };
    const begin = new Date(Date.parse(today()) - Number(choice.value) * DAY);
    return { from: begin.toISOString().slice(0, 10) };
  });
  return { choice, from, until, period };
}
