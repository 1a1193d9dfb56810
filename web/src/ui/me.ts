/** The person who asks. */
import { EMPTY_PROFILE, senderFields, type Profile } from '@vocabula/contract';
import { defineStore } from 'pinia';
import { ref } from 'vue';
import { api } from '../api/client';
import { ensureText } from './library';

export const useMe = defineStore('me', () => {
  const profile = ref<Profile>(EMPTY_PROFILE);
  let loading: Promise<void> | undefined;
  const load = (): Promise<void> =>
    (loading ??= api.me().then((mine) => {
      profile.value = mine;
      for (const name of [mine.signature, mine.reply_signature]) if (name) void ensureText(name);
    }));
  const save = async (changed: Profile): Promise<void> => {
    profile.value = await api.saveMe(changed);
  };
  /** The sender fields that messages use. */
  const fields = (): Record<string, string> => senderFields(profile.value);
  return { profile, load, save, fields };
});
