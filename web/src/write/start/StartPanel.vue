<script setup lang="ts">
/** Write with nothing open: start a text, or go on with one. */
import type { Kind } from '@vocabula/core';
import type { TextSummary } from '@vocabula/contract';
import { onMounted, ref, useTemplateRef } from 'vue';
import { useRouter } from 'vue-router';
import { api } from '../../api/client';
import { useNotice } from '../../ui/notice';
import { whenInWords } from '../../ui/today';

const router = useRouter();
const notice = useNotice();
const title = ref('');
const kind = ref<Kind>('message');
const recent = ref<TextSummary[]>([]);
const input = useTemplateRef('input');
const KINDS: readonly [Kind, string][] = [
  ['message', 'Template'],
  ['block', 'Block'],
  ['signature', 'Signature'],
];

onMounted(async () => {
  input.value?.focus();
  recent.value = (await api.texts().catch(() => []))
    .filter((text) => !text.binned)
    .sort((a, b) => (a.updatedAt < b.updatedAt ? 1 : -1))
    .slice(0, 10);
});
async function start(): Promise<void> {
  try {
    const made = await api.createText({ kind: kind.value, title: title.value });
    await router.push({ name: 'write', params: { name: made.name } });
  } catch (problem) {
    notice.fail(problem);
  }
}
</script>

<template>
  <main class="start">
    <form class="sheet" @submit.prevent="start">
      <h2>Start a text</h2>
      <div class="kinds" role="radiogroup" aria-label="Kind">
        <label v-for="[key, words] in KINDS" :key="key"
          ><input v-model="kind" type="radio" name="kind" :value="key" /> {{ words }}</label
        >
      </div>
      <label class="field"
        ><span>Title, for finding it. The subject is written separately.</span
        ><input ref="input" v-model="title" required maxlength="200" placeholder="Volunteer rota for the week"
      /></label>
      <button class="main" :disabled="!title.trim()">Start</button>
    </form>
    <section>
      <h2>Last changed</h2>
      <ul class="rows">
        <li v-for="text in recent" :key="text.name">
          <RouterLink class="row" :to="{ name: 'write', params: { name: text.name } }"
            >{{ text.title }} <span class="quiet small">{{ whenInWords(text.updatedAt) }}</span></RouterLink
          >
        </li>
      </ul>
    </section>
  </main>
</template>

<style scoped>
.start {
  flex: 1;
  overflow: auto;
  display: grid;
  grid-template-columns: minmax(0, 480px) minmax(0, 360px);
  gap: 32px;
  padding: 24px 28px;
  align-content: start;
  align-items: start;
}
form {
  padding: 20px 24px;
  display: grid;
  gap: 12px;
  justify-items: start;
}
form .field {
  width: 100%;
}
.kinds {
  display: flex;
  gap: 16px;
}
.row {
  display: flex;
  justify-content: space-between;
  gap: 12px;
}
@media (max-width: 899px) {
  .start {
    grid-template-columns: minmax(0, 1fr);
    padding: 16px;
  }
}
</style>
