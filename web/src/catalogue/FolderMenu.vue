<script setup lang="ts">
/** What can be done with a folder. */
import type { Folder } from '@vocabula/contract';
import { api } from '../api/client';
import { exportLibrary } from './exportLibrary';
import { computed } from 'vue';
import ActMenu from '../ui/controls/ActMenu.vue';
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
const remove = (): Promise<void> => act(`“${folder.title}” is deleted.`, () => api.removeFolder(folder.id));
const items = computed(() => [
  { label: 'New folder in it…', command: () => emit('name', { below: folder }) },
  ...(fixed()
    ? []
    : [
        { label: 'Rename…', command: () => emit('name', { of: folder }) },
        { label: 'Move up', command: () => step(-1) },
        { label: 'Move down', command: () => step(1) },
      ]),
  ...(folder.own ? [] : [{ label: 'Rights…', command: () => go({ in: folder.id, view: 'rights' }) }]),
  { label: 'Export it', command: () => exportLibrary({ folder: folder.id }) },
  ...(fixed() ? [] : [{ label: 'Delete', command: remove }]),
  ...(fixed()
    ? []
    : [
        {
          label: 'Move into',
          items: folders.value
            .filter(({ id, right }) => right === 'manage' && id !== folder.id)
            .map(({ id, title }) => ({ label: title, command: () => into(id) })),
        },
      ]),
]);
</script>

<template>
  <ActMenu :label="`Actions for ${folder.title}`" :items="items" size="small">⋯</ActMenu>
</template>
