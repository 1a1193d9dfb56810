/** The lists that several places show, each fetched where it is needed and shared between them. */
import { defineStore } from 'pinia';
import { computed } from 'vue';
import { api } from '../../api/client';
import { fetchedList } from './fetched';

/** Every text that one may see, with those in the bin. */
export const useTexts = defineStore('texts', () => {
  const fetched = fetchedList(() => api.texts());
  /** Those that are not in the bin. */
  const standing = computed(() => fetched.list.value.filter(({ binned }) => !binned));
  return {
    ...fetched,
    standing,
    messages: computed(() => standing.value.filter(({ kind }) => kind === 'message')),
    blocks: computed(() => standing.value.filter(({ kind }) => kind === 'block')),
    signatures: computed(() => standing.value.filter(({ kind }) => kind === 'signature')),
  };
});
/** The folders, parents before what is in them. */
export const useFolders = defineStore('folders', () => {
  const fetched = fetchedList(() => api.folders());
  /** Those that one may write in. */
  const writable = computed(() => fetched.list.value.filter(({ right }) => right !== 'fill'));
  return { ...fetched, writable };
});
/** Who belongs to the house, with those who were ended. */
export const usePeople = defineStore('people', () => {
  const fetched = fetchedList(() => api.people());
  const names = computed(() => new Map(fetched.list.value.map(({ id, name }) => [id, name])));
  return { ...fetched, names };
});
/** The groups of people that are given rights together. */
export const useGroups = defineStore('groups', () => fetchedList(() => api.groups()));
/** What colleagues asked for and nobody has settled yet. */
export const useRequests = defineStore('requests', () => fetchedList(() => api.requests()));
