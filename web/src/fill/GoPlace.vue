<script setup lang="ts">
/** An address that fills: `/go/<call word>?to=…&key=value`, for a bookmark or a word of the browser’s own. */
import { onMounted, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api } from '../api/client';

const route = useRoute();
const router = useRouter();
const problem = ref('');

/** What an address says of an answer: a list where a key stands several times, yes and no as what they are. */
function answerOf(given: unknown): string | boolean | string[] {
  if (Array.isArray(given)) return given.map(String);
  const words = String(given ?? '');
  if (/^(?:yes|true)$/i.test(words)) return true;
  return /^(?:no|false)$/i.test(words) ? false : words;
}
onMounted(async () => {
  const { to, ...rest } = route.query;
  try {
    const fill = await api.startFill({
      call: String(route.params.call),
      ...(to ? { to: String(to) } : {}),
      answers: Object.fromEntries(Object.entries(rest).map(([key, given]) => [key, answerOf(given)])),
    });
    await router.replace({
      name: 'filling',
      params: { id: fill.id },
      query: { noted: fill.notes.join(' ') || undefined },
    });
  } catch (error) {
    problem.value = error instanceof Error ? error.message : 'This cannot be filled.';
  }
});
</script>

<template>
  <main class="empty">
    <template v-if="problem">
      <p class="error">⚠ {{ problem }}</p>
      <RouterLink to="/fill">Find a template</RouterLink>
    </template>
    <p v-else class="quiet">Opening…</p>
  </main>
</template>
