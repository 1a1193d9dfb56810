<script setup lang="ts">
/** What can be done with a folder. */
import type { Folder } from '@vocabula/contract';
import { api } from '../api/client';
import { exportLibrary } from './exportLibrary';
import PopMenu from '../ui/PopMenu.vue';
import type { Catalogue } from './useCatalogue';

const { catalogue, folder } = defineProps<{ catalogue: Catalogue; folder: Folder }>();
/** A folder is to be named: this one anew, or a new one in it. */
const emit = defineEmits<{ name: [what: { of?: Folder; below?: Folder }] }>();
const { folders, act, go } = catalogue;
const fixed = (): boolean => folder.parent === undefined;

const step = (by: -1 | 1): Promise<void> => {
  const neighbours = folders.value.filter(({ parent }) => parent === folder.parent);
  const at = neighbours.findIndex(({ id }) => id === folder.id);
  return act('Moved.', () => api.changeFolder(folder.id, { position: Math.max(0, at + by) }));
};
function into(id: string): void {
  const to = folders.value.find((each) => each.id === id);
  if (!to) return;
  const back = folder.parent ?? id;
  void act(
    `“${folder.title}” is in ${to.title}.`,
    () => api.changeFolder(folder.id, { parent: id }),
    () => api.changeFolder(folder.id, { parent: back }),
  );
}
const remove = (): Promise<void> => act(`“${folder.title}” is gone.`, () => api.removeFolder(folder.id));
</script>

<template>
  <PopMenu :label="`What to do with ${folder.title}`" :menu="false">
    <template #button>⋯</template>
    <template #default="{ close }">
      <button class="row" @click="(close(), emit('name', { below: folder }))">New folder in it…</button>
      <template v-if="!fixed()">
        <button class="row" @click="(close(), emit('name', { of: folder }))">Rename…</button>
        <button class="row" @click="(close(), step(-1))">Move up</button>
        <button class="row" @click="(close(), step(1))">Move down</button>
        <label class="row"
          >Move into
          <select @change="(close(), into(($event.target as HTMLSelectElement).value))">
            <option value="">…</option>
            <option
              v-for="other in folders.filter(({ id, right }) => right === 'manage' && id !== folder.id)"
              :key="other.id"
              :value="other.id"
            >
              {{ other.title }}
            </option>
          </select></label
        >
      </template>
      <button v-if="!folder.own" class="row" @click="(close(), go({ in: folder.id, view: 'rights' }))">
        Who may what…
      </button>
      <button class="row" @click="(close(), exportLibrary({ folder: folder.id }))">Export it</button>
      <button v-if="!fixed()" class="row" @click="(close(), remove())">Take away</button>
    </template>
  </PopMenu>
</template>
