/** The person who is signed in. */
import type { HandOverWays, Me, Profile } from '@vocabula/contract';
import { EMPTY_PROFILE, senderFields, USUAL_WAYS } from '@vocabula/contract/profile';
import { defineStore } from 'pinia';
import { computed, ref } from 'vue';
import { api } from '../api/client';
import { ensureText } from './library';

export const useMe = defineStore('me', () => {
  const who = ref<Omit<Me, 'profile' | 'ways'>>();
  const ways = ref<HandOverWays>(USUAL_WAYS);
  const profile = ref<Profile>(EMPTY_PROFILE);
  let loading: Promise<void> | undefined;
  /** Fetched once; a failure is tried again the next time. */
  const load = (): Promise<void> =>
    (loading ??= api.me().then(
      ({ profile: mine, ways: own, ...rest }) => {
        who.value = rest;
        ways.value = own;
        profile.value = mine;
        for (const name of [mine.signature, mine.reply_signature]) if (name) void ensureText(name);
      },
      (problem: unknown) => {
        loading = undefined;
        throw problem;
      },
    ));
  const save = async (changed: Profile): Promise<void> => {
    profile.value = await api.saveMe(changed);
  };
  /** Asks for a further address, or takes one off. */
  const askAddress = async (address: string): Promise<void> => {
    const addresses = await api.askAddress(address);
    if (who.value) who.value = { ...who.value, addresses };
  };
  const dropAddress = async (address: string): Promise<void> => {
    await api.dropAddress(address);
    if (who.value)
      who.value = { ...who.value, addresses: who.value.addresses.filter((each) => each.address !== address) };
  };
  const saveWays = async (changed: HandOverWays): Promise<void> => {
    ways.value = await api.saveWays(changed);
  };
  /** The sender fields that messages use. */
  const fields = (): Record<string, string> => senderFields(profile.value);
  const isAuthor = computed(() => who.value?.role === 'author' || who.value?.role === 'administrator');
  const isAdministrator = computed(() => who.value?.role === 'administrator');
  return { who, profile, ways, isAuthor, isAdministrator, load, save, saveWays, askAddress, dropAddress, fields };
});
