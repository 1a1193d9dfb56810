import { computed } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { useNotice } from '../../ui/notice';
import { stretchesWhere } from '../parts/usePointing';
import { useShown } from '../parts/useShown';
import type { Which } from '../table/protocol';
import { casesOf, useProofing } from '../table/useProofing';

/** Hard cases or pairings: the current one (kept in the address), which were looked at, and moving between them. */
export function useCases(series: 'hard' | 'pairing') {
  const [route, router] = [useRoute(), useRouter()];
  const notice = useNotice();
  const proofing = useProofing();
  const all = computed(() => casesOf(proofing, series));
  const at = computed(() =>
    Math.min(Math.max(0, all.value.cases.length - 1), Math.max(0, Number(route.query.at ?? 0) || 0)),
  );
  const which = computed((): Which => ({ series, at: at.value }));
  const chosen = computed(() => all.value.cases[at.value]);
  const sheet = computed(() => all.value.sheets[at.value]);
  const message = useShown(proofing, which, sheet);
  const state = (index: number): 'yes' | 'changed' | 'no' => {
    const each = all.value.cases[index];
    return each ? proofing.looked(each, all.value.sheets[index]) : 'no';
  };
  const lookedAt = computed(() => all.value.cases.filter((_, index) => state(index) === 'yes').length);
  const changed = computed(() => all.value.cases.filter((_, index) => state(index) === 'changed').length);

  /** The words that a case shows for the first time. */
  const fresh = computed(() => {
    const shown = message.value;
    const labels = new Set(chosen.value?.levels.filter((level) => level.fresh).map(({ label }) => label.split(':')[0]));
    if (!shown || labels.size === 0) return new Set<string>();
    const keys = new Set(proofing.values.filter(({ label }) => labels.has(label)).map(({ key }) => key));
    return stretchesWhere(
      shown,
      ({ tags, variable, wordingOf }) =>
        keys.has(variable ?? '') ||
        keys.has(wordingOf ?? '') ||
        tags.some((tag) => keys.has(/[#^]([a-z0-9_]+)/.exec(tag)?.[1] ?? '')),
    );
  });
  /** What the case is filled with, where it has no levels to say so. */
  const filled = computed(() => {
    const { levels } = chosen.value ?? { levels: [] };
    if (levels.length > 0) return levels;
    const values = sheet.value?.values ?? [];
    const own = proofing.values.flatMap(({ label }, index) =>
      values[index] ? [{ label, words: values[index], fresh: false }] : [],
    );
    return own;
  });

  function go(to: number): void {
    void router.replace({ query: { at: String(to) } });
  }
  function step(by: number): void {
    const { length } = all.value.cases;
    if (length > 0) go((at.value + by + length) % length);
  }
  function stepFinding(by: number): void {
    const { sheets } = all.value;
    for (let tried = 1; tried <= sheets.length; tried += 1) {
      const to = (at.value + by * tried + sheets.length * tried) % sheets.length;
      if ((sheets[to]?.findings.length ?? 0) > 0) return go(to);
    }
  }
  /** Ticks the case and goes on to the next that nobody has looked at as it is. */
  async function lookedNext(): Promise<void> {
    const [each, now] = [chosen.value, sheet.value];
    if (!each || !now) return;
    try {
      if (state(at.value) !== 'yes') await proofing.lookAt(each, now);
      const { length } = all.value.cases;
      for (let tried = 1; tried < length; tried += 1) {
        const to = (at.value + tried) % length;
        if (state(to) !== 'yes') return go(to);
      }
    } catch (problem) {
      notice.fail(problem);
    }
  }
  async function tick(index: number): Promise<void> {
    const [each, now] = [all.value.cases[index], all.value.sheets[index]];
    if (!each || !now) return;
    try {
      await (state(index) === 'yes' ? proofing.unlook(now) : proofing.lookAt(each, now));
    } catch (problem) {
      notice.fail(problem);
    }
  }

  return {
    ...{ all, at, chosen, sheet, message, state, lookedAt, changed, fresh, filled },
    ...{ go, step, stepFinding, lookedNext, tick },
  };
}
