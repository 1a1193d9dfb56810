/** What is chosen between two texts, part by part, and what comes of it. */
import type { TextDocument } from '@vocabula/core';
import { bringTogether, type Difference, type Taken } from '@vocabula/core/together';
import { computed, ref, type ComputedRef, type Ref } from 'vue';
import { PART_WORDS } from '../editor/schema/envelope';
import type { Clash, Settled } from '../useWorkingCopy';

const FRONT_WORDS: Readonly<Record<string, string>> = {
  title: 'Title',
  call: 'Call word',
  locale: 'Language',
  purpose: 'Kind of mail',
  signature: 'Signature',
};

/** Where a difference is, in words. */
export function whereInWords({ in: place, name }: Difference): string {
  if (place === 'body') return 'Text';
  if (place === 'variable') return `Variable ${name}`;
  return (place === 'part' ? PART_WORDS[name] : FRONT_WORDS[name]) ?? name[0]?.toUpperCase() + name.slice(1);
}

/** The choice for each difference; those that one side alone changed are decided until somebody says otherwise. */
export function useSettling(clash: Ref<Clash>): {
  readonly differences: ComputedRef<readonly Difference[]>;
  readonly taken: Ref<(Taken | undefined)[]>;
  readonly choose: (index: number, side: Taken) => void;
  readonly chooseAll: (side: 'yours' | 'theirs') => void;
  /** How many wait for a choice. */
  readonly open: ComputedRef<number>;
  readonly settled: ComputedRef<Settled>;
} {
  const together = computed(() => bringTogether(clash.value.yours, clash.value.theirs.document, clash.value.base));
  const differences = computed(() => together.value.differences);
  const chosen = ref<(Taken | undefined)[]>([]);
  const taken = computed(() => differences.value.map(({ decided }, index) => chosen.value[index] ?? decided));
  const lost = (side: 'yours' | 'theirs'): boolean =>
    differences.value.some(({ decided }, index) => taken.value[index] === side && decided !== side);
  return {
    differences,
    taken: taken as Ref<(Taken | undefined)[]>,
    choose(index, side) {
      chosen.value[index] = side;
    },
    chooseAll(side) {
      chosen.value = differences.value.map(() => side);
    },
    open: computed(() => taken.value.filter((side) => side === undefined).length),
    settled: computed(() => ({
      document: together.value.merge(taken.value) satisfies TextDocument,
      losesMine: lost('theirs'),
      losesTheirs: lost('yours'),
    })),
  };
}
