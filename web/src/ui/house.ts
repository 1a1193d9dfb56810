/** The house: how messages look, and the facts that texts may name. */
import { PLAIN_HOUSE, type House } from '@vocabula/core';
import type { StoredHouse } from '@vocabula/contract';
import { defineStore } from 'pinia';
import { computed, shallowRef } from 'vue';
import { api } from '../api/client';

export const useHouse = defineStore('house', () => {
  const stored = shallowRef<StoredHouse>();
  let loading: Promise<void> | undefined;
  /** Fetches the house, once; `again` fetches it anew. */
  const load = (again = false): Promise<void> => {
    if (again) loading = undefined;
    return (loading ??= api.house().then((found) => {
      stored.value = found;
    }));
  };
  const save = async (house: House): Promise<void> => {
    stored.value = await api.saveHouse({ house, revision: stored.value?.revision ?? 0 });
  };
  return { stored, house: computed(() => stored.value?.house ?? PLAIN_HOUSE), load, save };
});
