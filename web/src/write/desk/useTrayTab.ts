/** Which part of the tray is shown. What is chosen in the text shows itself there; `Esc` brings back what was shown before. */
import { nextTick, ref, watch } from 'vue';
import type { Tab } from './tabs';

export function useTrayTab() {
  const tab = ref<Tab>('variables');
  /** Whether the tray is a row of names only. */
  const shut = ref(false);
  let before: { readonly tab: Tab; readonly shut: boolean } | undefined;
  watch(tab, (now) => {
    // Somebody went on to another part: there is nothing to go back to.
    if (now !== 'chosen') before = undefined;
  });

  /** Something was chosen in the text. */
  function showChosen(): void {
    if (tab.value === 'chosen' && !shut.value) return;
    before = { tab: tab.value, shut: shut.value };
    tab.value = 'chosen';
    shut.value = false;
  }
  /** @returns whether there was something to go back to */
  function goBack(): boolean {
    if (!before) return false;
    const { tab: was, shut: wasShut } = before;
    before = undefined;
    tab.value = was;
    // Going to a part opens the tray; it is shut again where it was.
    void nextTick(() => (shut.value = wasShut));
    return true;
  }
  return { tab, shut, showChosen, goBack };
}
