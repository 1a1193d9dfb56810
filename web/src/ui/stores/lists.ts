/** Stores for the lists that several places share. A place loads those it needs. */
import { defineStore } from 'pinia';
import { computed } from 'vue';
import { api } from '../../api/client';
import { fetchedList } from './fetched';

/** All texts that the user may see, including those in the bin. */
export const useTexts = defineStore('texts', () => {
  const fetched = fetchedList(() => api.texts());
  /** Texts that are not in the bin. */
  const standing = computed(() => fetched.list.value.filter(({ binned }) => !binned));
  /** The name of a text's version in a language, where there is one. */
  const versionOf = (name: string, locale: string | undefined): string | undefined =>
    standing.value.find((text) => text.translationOf === name && text.locale === locale)?.name;
  return {
    ...fetched,
    standing,
    versionOf,
    messages: computed(() => standing.value.filter(({ kind }) => kind === 'message')),
    blocks: computed(() => standing.value.filter(({ kind }) => kind === 'block')),
    signatures: computed(() => standing.value.filter(({ kind }) => kind === 'signature')),
  };
});
/** The folders, parents first. */
export const useFolders = defineStore('folders', () => {
  const fetched = fetchedList(() => api.folders());
  /** Folders that the user may write in. */
  const writable = computed(() => fetched.list.value.filter(({ right }) => right !== 'fill'));
  return { ...fetched, writable };
});
/** All people, including those whose access has ended. */
export const usePeople = defineStore('people', () => {
  const fetched = fetchedList(() => api.people());
  const names = computed(() => new Map(fetched.list.value.map(({ id, name }) => [id, name])));
  return { ...fetched, names };
});
/** Groups of people, which are given rights together. */
export const useGroups = defineStore('groups', () => fetchedList(() => api.groups()));
/** Requests to publish. */
export const useRequests = defineStore('requests', () => fetchedList(() => api.requests()));
