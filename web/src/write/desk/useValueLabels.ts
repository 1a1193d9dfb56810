import type { Variable } from '@vocabula/core';
import { watch, type Ref } from 'vue';
import { libraryVersion } from '../../ui/library';
import { labels } from '../editor/views/labels';
import type { Proof } from '../proof/useProof';
import type { Manuscript } from '../useManuscript';

/** Keeps what placeholders in the manuscript show up to date: their labels, or the values of the proof. */
export function useValueLabels(
  { variables }: Pick<Manuscript, 'variables'>,
  { values, slots }: Pick<Proof, 'values' | 'slots'>,
  facts: Readonly<Ref<readonly Variable[]>>,
  showingValues: Readonly<Ref<boolean>>,
): void {
  watch(
    [variables, values, showingValues, slots, facts],
    () => {
      const own = new Set(variables.value.map(({ key }) => key));
      const fromBlocks = slots.value.map(({ variable }) => variable).filter(({ key }) => !own.has(key));
      const wordsOf = (name: string): string | undefined => values.value.get(name)?.words;
      labels.set([...variables.value, ...fromBlocks, ...facts.value], showingValues.value ? wordsOf : undefined);
    },
    { immediate: true },
  );
  watch(libraryVersion, () => labels.refresh());
}
