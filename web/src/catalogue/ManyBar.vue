<script setup lang="ts">
/** What is done with several texts at once; with none chosen, with the one that is read. */
import { ref } from 'vue';
import { exportLibrary } from './exportLibrary';
import type { Catalogue } from './useCatalogue';

const { catalogue } = defineProps<{ catalogue: Catalogue }>();
const emit = defineEmits<{ purge: [] }>();
const asking = defineModel<'move' | 'tag' | 'retire' | undefined>('asking');
const { subjects, chosen, folders, view, move, bin, restore, tag } = catalogue;
const to = ref('');
const tags = ref('');

async function moveThem(): Promise<void> {
  const folder = folders.value.find(({ id }) => id === to.value);
  if (!folder) return;
  asking.value = undefined;
  await move(subjects.value, folder);
}
async function tagThem(off: boolean): Promise<void> {
  const words = tags.value.split(/[\s,]+/).filter(Boolean);
  if (words.length === 0) return;
  asking.value = undefined;
  tags.value = '';
  await tag(subjects.value, words, off);
}
</script>

<template>
  <section class="many" aria-label="The chosen texts" @keydown.esc="asking = undefined">
    <form v-if="asking === 'move'" @submit.prevent="moveThem">
      <label class="field grow"
        ><span>Move {{ subjects.length === 1 ? `“${subjects[0]?.title}”` : `${subjects.length} texts` }} into</span
        ><select v-model="to" autofocus>
          <option value="">choose…</option>
          <option v-for="folder in folders.filter(({ right }) => right !== 'fill')" :key="folder.id" :value="folder.id">
            {{ folder.title }}
          </option>
        </select></label
      ><button class="main" :disabled="!to">Move</button
      ><button type="button" class="plain" @click="asking = undefined">Leave them</button>
    </form>
    <form v-else-if="asking === 'tag'" @submit.prevent="tagThem(false)">
      <label class="field grow"
        ><span>Tags, with spaces between</span><input v-model="tags" maxlength="200" autofocus /></label
      ><button class="main">Tag</button><button type="button" @click="tagThem(true)">Take off</button
      ><button type="button" class="plain" @click="asking = undefined">Leave</button>
    </form>
    <template v-else>
      <span class="small"
        >{{ chosen.size }} chosen <span class="quiet">· <kbd>Esc</kbd> none</span></span
      >
      <template v-if="view === 'bin'">
        <button class="right" @click="restore(subjects)">Restore</button>
        <button @click="emit('purge')">Purge…</button>
      </template>
      <template v-else>
        <button class="right" @click="asking = 'move'">Move…</button>
        <button @click="asking = 'tag'">Tag…</button>
        <button @click="exportLibrary({ names: [...chosen] })">Export</button>
        <button @click="bin(subjects)">Bin</button>
      </template>
    </template>
  </section>
</template>

<style scoped>
.many,
form {
  display: flex;
  gap: 8px;
  align-items: center;
}
.many {
  border-top: 1px solid var(--edge);
  background: var(--sheet);
  padding: 8px 12px 8px 16px;
  flex: none;
}
form {
  flex: 1;
  align-items: end;
}
.grow {
  flex: 1;
}
.button {
  display: inline-flex;
  align-items: center;
  height: 32px;
  padding: 0 12px;
  border: 1px solid var(--edge);
  border-radius: 3px;
  color: inherit;
  text-decoration: none;
}
.button:hover {
  background: var(--hover);
}
</style>
