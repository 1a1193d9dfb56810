/** Where mail goes, and whether sending is paused: asked for while a page of sending is open. */
import type { SendingService } from '@vocabula/contract';
import { onBeforeUnmount, onMounted, shallowRef } from 'vue';
import { api } from '../api/client';

/** How often it is asked for again, in milliseconds. */
const LOOK_AGAIN = 5000;

export function useService() {
  const service = shallowRef<SendingService>();
  async function load(): Promise<void> {
    // What cannot be asked just now is asked again; the page itself says that the server is away.
    service.value = await api.sendingService().catch(() => service.value);
  }
  let timer: ReturnType<typeof setInterval> | undefined;
  onMounted(() => {
    void load();
    timer = setInterval(() => document.hidden || void load(), LOOK_AGAIN);
  });
  onBeforeUnmount(() => clearInterval(timer));
  return { service, load };
}
