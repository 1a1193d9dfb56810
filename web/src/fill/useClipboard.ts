/** What is on the clipboard, where the browser lets it be read without asking: values in it are offered, or prefilled. */
import { useEventListener } from '@vueuse/core';
import { fitting, foundValues } from '@vocabula/core/filling';
import { ref, watch } from 'vue';
import { today } from '../ui/today';
import type { Filling } from './useFill';

/** More than this is no value but a text. */
const LONGEST = 4000;

export function useClipboard({ asked, answers, offered, program }: Filling) {
  const words = ref('');

  async function look(): Promise<void> {
    try {
      const permission = await navigator.permissions.query({ name: 'clipboard-read' as PermissionName });
      // Never asked for: whoever wants it can paste.
      if (permission.state !== 'granted' || !document.hasFocus()) return;
      const read = await navigator.clipboard.readText();
      words.value = read.length <= LONGEST ? read.trim() : '';
    } catch {
      words.value = '';
    }
  }
  void look();
  useEventListener('focus', look);

  /** Variables that say so are prefilled from it, to be confirmed. */
  watch([words, () => asked.value.map(({ key }) => key).join()], () => {
    if (words.value === '') return;
    const locale = program.value?.locale ?? 'en-GB';
    const found = foundValues(words.value, today(), locale);
    for (const { key, variable, type } of asked.value) {
      if (variable.from !== 'clipboard' || answers.value[key] !== undefined || offered.value[key]) continue;
      const [fit] = fitting(found, type);
      const value = fit?.value ?? (type === 'text' && !words.value.includes('\n') ? words.value : undefined);
      if (value === undefined) continue;
      const from = (fit?.words ?? words.value).slice(0, 60);
      offered.value = { ...offered.value, [key]: { value, source: 'clipboard', from } };
    }
  });
  return { words, look };
}
