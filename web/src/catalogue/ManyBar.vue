<script setup lang="ts">
/** What is done with several texts at once; with none chosen, with the one that is read. */
import PickOne from '../ui/controls/PickOne.vue';
import PushButton from '../ui/controls/PushButton.vue';
import InputText from 'primevue/inputtext';
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
        ><PickOne v-model="to" autofocus>
          <option value="">choose…</option>
          <option v-for="folder in folders.filter(({ right }) => right !== 'fill')" :key="folder.id" :value="folder.id">
            {{ folder.title }}
          </option>
        </PickOne></label
      ><PushButton kind="main" type="submit" :disabled="!to">Move</PushButton
      ><PushButton kind="plain" @click="asking = undefined">Cancel</PushButton>
    </form>
    <form v-else-if="asking === 'tag'" @submit.prevent="tagThem(false)">
      <label class="field grow"
        ><span>Tags, with spaces between</span><InputText v-model="tags" maxlength="200" autofocus /></label
      ><PushButton kind="main" type="submit">Tag</PushButton><PushButton @click="tagThem(true)">Take off</PushButton
      ><PushButton kind="plain" @click="asking = undefined">Cancel</PushButton>
    </form>
    <template v-else>
      <span class="small"
        >{{ chosen.size }} chosen <span class="quiet">· <kbd>Esc</kbd> none</span></span
      >
      <template v-if="view === 'bin'">
        <PushButton class="right" @click="restore(subjects)">Restore</PushButton>
        <PushButton @click="emit('purge')">Purge…</PushButton>
      </template>
      <template v-else>
        <PushButton class="right" @click="asking = 'move'">Move…</PushButton>
        <PushButton @click="asking = 'tag'">Tag…</PushButton>
        <PushButton @click="exportLibrary({ names: [...chosen] })">Export</PushButton>
        <PushButton @click="bin(subjects)">Bin</PushButton>
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
