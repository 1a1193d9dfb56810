import { ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api } from '../api/client';
import { useMe } from '../ui/me';
import type { Filling } from './useFill';

/** Opens the message that the address names, or starts a new one from a template, for a mail or a recipient. */
export function useOpening({ fill, take, settled }: Pick<Filling, 'fill' | 'take' | 'settled'>) {
  const [route, router] = [useRoute(), useRouter()];
  const me = useMe();
  /** Why it could not be opened; empty if it could. */
  const problem = ref('');
  async function open(): Promise<void> {
    try {
      await me.load();
      const id = String(route.params.id);
      // What was typed last is saved before the message is read again.
      await settled(id).catch(() => undefined);
      if (id !== 'new') return take(await api.fill(id));
      const { template, letter, to, standing } = route.query;
      take(
        await api.startFill({
          text: String(template ?? ''),
          ...(letter ? { letter: String(letter) } : {}),
          ...(to ? { to: String(to) } : {}),
          ...(standing ? { standing: String(standing) } : {}),
        }),
      );
      await router.replace({ name: 'filling', params: { id: fill.value?.id } });
    } catch (error) {
      problem.value = error instanceof Error ? error.message : 'This message cannot be opened.';
    }
  }
  return { problem, open };
}
