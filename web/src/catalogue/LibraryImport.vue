<script setup lang="ts">
/** A library that comes in: everything in it is listed, with what would come of it, before anything is taken. */
import PickOne from '../ui/controls/PickOne.vue';
import PushButton from '../ui/controls/PushButton.vue';
import type { LibraryChoice, LibraryItem, LibraryLook } from '@vocabula/contract';
import { computed, ref, shallowRef, watch } from 'vue';
import { api } from '../api/client';
import { useNotice } from '../ui/notice';
import type { Catalogue } from './useCatalogue';

const { catalogue, file } = defineProps<{ catalogue: Catalogue; file: File | undefined }>();
const { folders, folder, act, go } = catalogue;
const notice = useNotice();
const look = shallowRef<LibraryLook>();
const choices = ref<Record<string, LibraryChoice>>({});
const into = ref(folder.value ?? folders.value.find(({ right }) => right !== 'fill')?.id ?? 'root');
const busy = ref(false);
const ORDER = { changed: 0, new: 1, same: 2 } as const;

watch(
  () => file,
  async (given) => {
    look.value = undefined;
    if (!given) return;
    try {
      const found = await api.lookAtLibrary(given);
      choices.value = Object.fromEntries(found.items.map((item) => [item.path, usual(item)]));
      look.value = found;
    } catch (problem) {
      notice.fail(problem);
      go({ in: folder.value });
    }
  },
  { immediate: true },
);
const usual = ({ outcome, refused }: LibraryItem): LibraryChoice =>
  outcome === 'new' && refused === undefined ? 'take' : 'skip';
const items = computed(() =>
  [...(look.value?.items ?? [])].sort((a, b) => ORDER[a.outcome] - ORDER[b.outcome] || (a.path < b.path ? -1 : 1)),
);
const count = (outcome: LibraryItem['outcome']): number =>
  items.value.filter((each) => each.outcome === outcome).length;
const taking = computed(
  () => items.value.filter(({ path, outcome }) => outcome !== 'same' && choices.value[path] !== 'skip').length,
);
const offered = ({ what, refused }: LibraryItem): LibraryChoice[] => [
  ...(refused === undefined ? (['take'] as const) : []),
  ...(what === 'house' ? [] : (['keep both'] as const)),
  'skip',
];
const all = (choice: LibraryChoice): void => {
  for (const item of items.value)
    if (item.outcome === 'changed' && offered(item).includes(choice)) choices.value[item.path] = choice;
};
async function take(): Promise<void> {
  if (!file || busy.value) return;
  busy.value = true;
  let words = '';
  await act('', async () => {
    const { taken, kept, skipped } = await api.takeLibrary(file, { choices: choices.value, into: into.value });
    words = `Taken: ${taken}${kept ? `, ${kept} kept beside` : ''}; ${skipped} left out. Nothing is published by it.`;
  });
  busy.value = false;
  if (words === '') return;
  notice.say(words);
  go({ in: into.value });
}
</script>

<template>
  <div class="import">
    <p v-if="!file" class="empty">Choose a library first: <em>In and out</em>, then <em>Import a library</em>.</p>
    <p v-else-if="!look" class="empty quiet">Reading {{ file.name }}…</p>
    <template v-else>
      <header>
        <p>
          <strong>{{ file.name }}</strong>: {{ count('new') }} new, {{ count('changed') }} changed,
          {{ count('same') }} the same.
        </p>
        <div v-if="count('changed')" class="acts small">
          All that changed:
          <PushButton size="small" @click="all('take')">take</PushButton
          ><PushButton size="small" @click="all('keep both')">keep both</PushButton
          ><PushButton size="small" @click="all('skip')">skip</PushButton>
        </div>
      </header>
      <ul class="rows items">
        <li v-for="item in items" :key="item.path" class="item">
          <span class="title">{{ item.title }}</span>
          <span class="small quiet">{{ item.outcome }}</span>
          <PickOne
            v-if="item.outcome !== 'same'"
            v-model="choices[item.path]"
            :aria-label="`Actions for ${item.title}`"
          >
            <option v-for="choice in offered(item)" :key="choice" :value="choice">{{ choice }}</option>
          </PickOne>
          <span v-else class="small quiet">nothing to do</span>
          <span class="small quiet path">{{ item.path }}</span>
          <span v-if="item.refused" class="small error path">⚠ {{ item.refused }}</span>
          <span v-else-if="item.findings.length" class="small warning path">‸ {{ item.findings[0]?.message }}</span>
        </li>
      </ul>
      <footer class="bar">
        <label class="field"
          ><span>Into</span
          ><PickOne v-model="into">
            <option v-for="each in folders.filter(({ right }) => right !== 'fill')" :key="each.id" :value="each.id">
              {{ each.title }}
            </option>
          </PickOne></label
        >
        <PushButton kind="main" :disabled="busy || taking === 0" @click="take">Take {{ taking }}</PushButton>
        <PushButton kind="plain" @click="go({ in: folder })">Cancel</PushButton>
      </footer>
    </template>
  </div>
</template>

<style scoped>
.import {
  display: flex;
  flex-direction: column;
  min-height: 0;
  flex: 1;
}
header {
  padding: 12px 16px;
  border-bottom: 1px solid var(--hair);
  display: grid;
  gap: 6px;
}
.acts {
  display: flex;
  gap: 6px;
  align-items: center;
}
.acts button {
  height: 24px;
}
.items {
  overflow: auto;
  flex: 1;
}
.item {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 72px 112px;
  gap: 0 12px;
  align-items: center;
  padding: 6px 16px;
}
.path {
  grid-column: 1 / -1;
  overflow-wrap: anywhere;
}
.bar {
  display: flex;
  gap: 8px;
  align-items: end;
  border-top: 1px solid var(--edge);
  background: var(--sheet);
  padding: 8px 16px 10px;
}
.bar .field {
  width: 220px;
}
</style>
