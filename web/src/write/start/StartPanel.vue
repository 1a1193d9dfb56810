<script setup lang="ts">
/** Write with nothing open: start a text from whatever there is, or go on with one. */
import RadioButton from 'primevue/radiobutton';
import PickOne from '../../ui/controls/PickOne.vue';
import InputText from 'primevue/inputtext';
import PushButton from '../../ui/controls/PushButton.vue';
import type { Kind } from '@vocabula/core';
import { storeToRefs } from 'pinia';
import { onMounted, ref, useTemplateRef } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { useHouse } from '../../ui/house';
import { useNotice } from '../../ui/notice';
import { useFolders, useTexts } from '../../ui/stores/lists';
import { whenInWords } from '../../ui/today';
import StartPreview from './StartPreview.vue';
import StartSource from './StartSource.vue';
import { useStart, type StartFrom } from './useStart';

const route = useRoute();
const router = useRouter();
const notice = useNotice();
const start = useStart();
const house = useHouse();
const { from, kind, suggestion, document, ready, busy } = start;
const title = ref('');
const [textStore, folderStore] = [useTexts(), useFolders()];
const { standing: texts } = storeToRefs(textStore);
const { writable: folders } = storeToRefs(folderStore);
/** Where it is put: the folder one came from, else the first that one may write in. */
const folder = ref(String(route.query.in ?? ''));
const input = useTemplateRef<{ $el: HTMLInputElement }>('input');
const KINDS: readonly [Kind, string][] = [
  ['message', 'Template'],
  ['block', 'Block'],
  ['signature', 'Signature'],
  ['series', 'Series'],
];
const SOURCES: readonly [StartFrom, string][] = [
  ['nothing', 'Nothing'],
  ['paste', 'A paste'],
  ['file', 'A file'],
  ['starter', 'A starter'],
  ['copy', 'A copy'],
];

onMounted(async () => {
  input.value?.$el.focus();
  void house.load().catch(() => undefined);
  await Promise.all([textStore.load().catch(() => []), folderStore.load().catch(() => [])]);
  if (!folders.value.some(({ id }) => id === folder.value)) folder.value = folders.value[0]?.id ?? '';
  const copied = route.query.copy;
  if (typeof copied === 'string') {
    start.choose('copy');
    await start.copy(copied);
  }
});
async function go(): Promise<void> {
  if (title.value.trim() === '' || !ready.value) return;
  try {
    await router.push({
      name: 'write',
      params: { name: await start.start(title.value.trim(), folder.value || undefined) },
    });
  } catch (problem) {
    notice.fail(problem);
  }
}
</script>

<template>
  <main class="start">
    <form class="sheet" @submit.prevent="go">
      <h2>Start a text</h2>
      <div class="kinds" role="radiogroup" aria-label="Kind">
        <label v-for="[key, words] in KINDS" :key="key"
          ><RadioButton v-model="kind" name="kind" :value="key" /> {{ words }}</label
        >
      </div>
      <label class="field"
        ><span>Title, for finding it. The subject is written separately.</span
        ><InputText ref="input" v-model="title" required maxlength="200" placeholder="Volunteer rota for the week"
      /></label>
      <p v-if="suggestion && title !== suggestion" class="small">
        Found as a title:
        <PushButton kind="plain" size="small" class="take" @click="title = suggestion"
          >“{{ suggestion }}”, take it</PushButton
        >
      </p>
      <fieldset class="from">
        <legend class="quiet small">From</legend>
        <div class="sources">
          <label v-for="[key, words] in SOURCES" :key="key"
            ><RadioButton name="from" :value="true" :model-value="from === key" @change="start.choose(key)" />
            {{ words }}</label
          >
          <RouterLink :to="{ name: 'from-mails', query: folder ? { in: folder } : {} }">Past mails…</RouterLink>
        </div>
        <StartSource v-if="from !== 'nothing'" :key="from" :start="start" :texts="texts" />
      </fieldset>
      <label v-if="folders.length > 1" class="field where"
        ><span>In the folder</span
        ><PickOne v-model="folder">
          <option v-for="each in folders" :key="each.id" :value="each.id">{{ each.title }}</option>
        </PickOne></label
      >
      <PushButton kind="main" type="submit" :disabled="!title.trim() || !ready || busy">Start</PushButton>
    </form>
    <StartPreview v-if="document" :document="document" :kind="kind" />
    <section v-else>
      <h2>Last changed</h2>
      <ul class="rows">
        <li
          v-for="text in texts.toSorted((a, b) => (a.updatedAt < b.updatedAt ? 1 : -1)).slice(0, 10)"
          :key="text.name"
        >
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
  grid-template-columns: minmax(0, 520px) minmax(0, 560px);
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
form .field,
.from {
  width: 100%;
}
.kinds,
.sources {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
}
.from {
  border: 0;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 8px;
  min-width: 0;
}
.take {
  height: 22px;
  text-decoration: underline;
}
.row {
  display: flex;
  justify-content: space-between;
  gap: 12px;
}
@media (max-width: 1099px) {
  .start {
    grid-template-columns: minmax(0, 1fr);
    padding: 16px;
  }
}
</style>
