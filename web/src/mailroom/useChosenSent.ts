/** Messages that went, chosen one by one, to make a template of. */
import { computed, nextTick, ref } from 'vue';
import { useRouter } from 'vue-router';
import { useMe } from '../ui/me';

/** A template is derived from so many messages at least. */
const FEWEST = 2;

export function useChosenSent() {
  const me = useMe();
  const router = useRouter();
  /** Ids of what is chosen; undefined while nothing is being chosen. */
  const chosen = ref<ReadonlySet<string>>();
  function toggle(id: string): void {
    const next = new Set(chosen.value);
    if (!next.delete(id)) next.add(id);
    chosen.value = next;
  }
  const mayChoose = computed(() => me.isAuthor);
  const enough = computed(() => (chosen.value?.size ?? 0) >= FEWEST);
  /** What was pressed goes, and the focus with it: it stands where one goes on. */
  async function focusOn(selector: string): Promise<void> {
    await nextTick();
    document.querySelector<HTMLElement>(selector)?.focus();
  }
  const begin = (): void => {
    chosen.value = new Set();
    void focusOn('.stacks .item[aria-pressed]');
  };
  const end = (): void => {
    chosen.value = undefined;
    void focusOn('.stacks .picking button');
  };
  const compare = (): unknown => router.push({ name: 'from-mails', query: { sent: [...(chosen.value ?? [])].join() } });
  return { chosen, mayChoose, enough, begin, end, toggle, compare };
}
