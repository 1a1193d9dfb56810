/** A series about to be started: what it asks, for whom, and when each of its messages will go. */
import type { WorkingCopy } from '@vocabula/contract';
import { labelFromKey, type RenderInput } from '@vocabula/core';
import { answersOf, foresee, seriesQuestions } from '@vocabula/core/series';
import { computed, ref, shallowRef } from 'vue';
import { api } from '../api/client';
import { today, zone } from '../ui/today';
import { foreseenWords } from './seriesWords';
import type { ShownStep } from './shownSteps';
import { useSender } from './useSender';

const KINDS = { goes: 'ahead', perhaps: 'perhaps', 'left out': 'out', passed: 'out', unknown: 'out' } as const;

export function useStart(name: string) {
  const { me, house, calendar, compiledSeries } = useSender();
  const texts = shallowRef<readonly WorkingCopy[]>([]);
  const recipient = ref<Record<string, string>>({});
  const answers = ref<Record<string, unknown>>({});
  const start = Date.now();

  async function load(): Promise<void> {
    const [{ texts: all }] = await Promise.all([api.closure(name, 'fill'), house.load(), me.load()]);
    texts.value = all;
  }
  const own = computed(() => texts.value[0]);
  const series = computed(() => {
    const [text] = texts.value;
    return text && compiledSeries(text, texts.value);
  });
  const input = computed((): RenderInput => ({
    recipient: recipient.value,
    sender: me.fields(),
    answers: answers.value,
    today: today(),
    zone: zone(),
  }));
  const asked = computed(() => (series.value ? seriesQuestions(series.value, input.value) : []));
  const open = computed(() => asked.value.filter(({ required, value }) => required && value === undefined));
  const labelOf = (key: string): string => asked.value.find((each) => each.key === key)?.label ?? labelFromKey(key);
  const titleOf = (text: string): string =>
    texts.value.find((each) => each.name === text)?.document.attrs.front.title ?? text;
  const steps = computed((): ShownStep[] => {
    const compiled = series.value;
    if (!compiled) return [];
    return foresee(compiled, input.value, calendar.value, start).map((each, at) => {
      const step = compiled.steps[at]?.step;
      const look =
        step?.look && (each.what === 'goes' || each.what === 'perhaps') ? ' · after you have looked at it' : '';
      return {
        at,
        title: titleOf(step?.text ?? ''),
        kind: KINDS[each.what],
        words: `${foreseenWords(each, labelOf)}${look}`,
        ...(each.at === undefined ? {} : { moment: each.at }),
      };
    });
  });
  /** A step's message as it will read, on its day. */
  const messageOf = (at: number) => {
    const program = series.value?.steps[at]?.program;
    if (!program || !series.value) return undefined;
    const moment = steps.value[at]?.moment ?? start;
    return {
      program,
      input: {
        ...input.value,
        answers: answersOf(series.value, at, answers.value),
        today: new Date(moment).toISOString().slice(0, 10),
      },
    };
  };
  const answer = (id: string, value: unknown): void => void (answers.value = { ...answers.value, [id]: value });
  return { load, own, series, calendar, start, recipient, answers, asked, open, steps, messageOf, answer };
}
