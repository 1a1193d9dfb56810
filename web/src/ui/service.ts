/** Where mail goes, and whether sending is paused: asked for while a page of sending is open. */
import { useIntervalFn } from '@vueuse/core';
import type { SendingService } from '@vocabula/contract';
import { onMounted, shallowRef } from 'vue';
import { api } from '../api/client';

/** How often it is asked for again, in milliseconds. */
const LOOK_AGAIN = 5000;

export function useService() {
  const service = shallowRef<SendingService>();
  async function load(): Promise<void> {
    // What cannot be asked just now is asked again; the page itself says that the server is away.
    service.value = await api.sendingService().catch(() => service.value);
  }
  onMounted(load);
  useIntervalFn(() => document.hidden || void load(), LOOK_AGAIN);
  return { service, load };
}
