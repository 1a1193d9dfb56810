/** A person's own row of templates. */
import type { AtHand } from '@vocabula/contract';
import { defineStore } from 'pinia';
import { ref } from 'vue';
import { api } from '../api/client';

/** As many as there are digits to recall them. */
export const MOST_AT_HAND = 9;

export const useAtHand = defineStore('at-hand', () => {
  const row = ref<readonly AtHand[]>([]);
  let loading: Promise<void> | undefined;
  const load = (): Promise<void> =>
    (loading ??= api.atHand().then(
      (found) => void (row.value = found),
      () => void (loading = undefined),
    ));
  const has = (name: string): boolean => row.value.some((each) => each.name === name);
  async function save(names: readonly string[]): Promise<void> {
    row.value = await api.saveAtHand(names);
  }
  /** Puts a template into the row, or takes it out. @returns what was done, in words */
  async function toggle(name: string): Promise<string> {
    const names = row.value.map((each) => each.name);
    if (has(name)) {
      await save(names.filter((each) => each !== name));
      return 'No longer at hand.';
    }
    if (names.length >= MOST_AT_HAND) return `The row holds ${MOST_AT_HAND}, one for each digit. Take one out first.`;
    await save([...names, name]);
    return `At hand: ${row.value.length} in the empty search line opens it.`;
  }
  /** Moves one to another place, both counted from 0. */
  async function move(from: number, to: number): Promise<void> {
    const names = row.value.map((each) => each.name);
    const [moved] = names.splice(from, 1);
    if (moved === undefined || to < 0 || to > names.length) return;
    names.splice(to, 0, moved);
    await save(names);
  }
  return { row, load, has, toggle, move, save };
});
