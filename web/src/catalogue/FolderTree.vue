<script setup lang="ts">
/** The folders, and what waits for somebody. Texts are dropped on folders; every act is also in a folder's menu. */
import type { Folder } from '@vocabula/contract';
import { computed, defineAsyncComponent, ref } from 'vue';
import { api } from '../api/client';
import FolderMenu from './FolderMenu.vue';
import type { Catalogue, View } from './useCatalogue';

/** Naming brings the forms' library with it, which the Catalogue does without until then. */
const FolderName = defineAsyncComponent(() => import('./FolderName.vue'));
const { catalogue } = defineProps<{ catalogue: Catalogue }>();
const { folders, folder, view, texts, requests, overdue, me, act, go } = catalogue;
const naming = ref<{ readonly of?: Folder; readonly below?: Folder }>();
const over = ref<string>();
const dragged = ref<string>();

const depth = computed(() => {
  const found = new Map<string, number>();
  for (const { id, parent } of folders.value) found.set(id, parent === undefined ? 0 : (found.get(parent) ?? 0) + 1);
  return found;
});
const count = (id: string): number => texts.value.filter((text) => text.folder === id && !text.binned).length;
const answerable = computed(() => requests.value.filter(({ mine, state }) => !mine && state === 'open').length);
const returned = computed(() => requests.value.filter(({ mine }) => mine).length);
const waiting = computed((): readonly { view: View; words: string; count: number }[] =>
  [
    { view: 'asked' as const, words: 'Requests', count: answerable.value + returned.value },
    { view: 'review' as const, words: 'To review', count: overdue.value.length },
  ].filter((each) => each.count > 0),
);
const others = computed((): readonly { view: View; words: string; count?: number }[] =>
  me.isAuthor
    ? [
        { view: 'alike', words: 'Nearly the same' },
        { view: 'bin', words: 'Bin', count: texts.value.filter(({ binned }) => binned).length },
      ]
    : [],
);

async function named(title: string): Promise<void> {
  const { of, below } = naming.value ?? {};
  naming.value = undefined;
  if (of?.title === title) return;
  if (of)
    await act(
      `Now called “${title}”.`,
      () => api.changeFolder(of.id, { title }),
      () => api.changeFolder(of.id, { title: of.title }),
    );
  else if (below) await act(`“${title}” is in ${below.title}.`, () => api.makeFolder({ parent: below.id, title }));
}
function dropped(event: DragEvent, to: Folder): void {
  over.value = undefined;
  const from = folders.value.find(({ id }) => id === dragged.value);
  dragged.value = undefined;
  if (from) {
    if (from.id !== to.id)
      void act(
        `“${from.title}” is in ${to.title}.`,
        () => api.changeFolder(from.id, { parent: to.id }),
        () => api.changeFolder(from.id, { parent: from.parent ?? to.id }),
      );
    return;
  }
  const names = new Set((event.dataTransfer?.getData('text/x-texts') ?? '').split(','));
  const list = texts.value.filter((text) => names.has(text.name));
  if (list.length > 0) void catalogue.move(list, to);
}
function onKey(event: KeyboardEvent): void {
  const by = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
  if (by === 0 || (event.target as HTMLElement).tagName === 'INPUT') return;
  const buttons = [...(event.currentTarget as HTMLElement).querySelectorAll<HTMLElement>('.row')];
  const next = buttons[buttons.indexOf(document.activeElement as HTMLElement) + by];
  if (!next) return;
  event.preventDefault();
  next.focus();
}
</script>

<template>
  <nav class="folders" aria-label="Folders" @keydown="onKey">
    <div v-if="waiting.length" class="waiting">
      <button
        v-for="each in waiting"
        :key="each.view"
        class="row"
        :aria-current="view === each.view"
        @click="go({ view: each.view })"
      >
        {{ each.words }} <strong class="small right">{{ each.count }}</strong>
      </button>
    </div>
    <button class="row" :aria-current="!folder && !view" @click="go({ in: undefined })">
      Everything <span class="quiet small right">{{ texts.filter(({ binned }) => !binned).length }}</span>
    </button>
    <template v-for="each in folders" :key="each.id">
      <FolderName
        v-if="naming?.of?.id === each.id"
        label="Name of the folder"
        :initial="{ parent: each.parent ?? each.id, title: each.title }"
        :style="{ paddingLeft: `${16 + (depth.get(each.id) ?? 0) * 14}px` }"
        @named="named"
        @close="naming = undefined"
      />
      <div v-else class="line" :class="{ over: over === each.id }">
        <button
          class="row"
          :style="{ paddingLeft: `${16 + (depth.get(each.id) ?? 0) * 14}px` }"
          :aria-current="folder === each.id && !view"
          :draggable="each.right === 'manage' && each.parent !== undefined"
          @click="go({ in: each.id })"
          @dragstart="dragged = each.id"
          @dragend="dragged = undefined"
          @dragover.prevent="over = each.id"
          @dragleave="over = undefined"
          @drop.prevent="dropped($event, each)"
        >
          <span class="title">{{ each.title }}</span>
          <span class="quiet small right">{{ count(each.id) || '' }}</span>
        </button>
        <FolderMenu
          v-if="each.right === 'manage' && me.isAuthor"
          class="menu"
          :catalogue="catalogue"
          :folder="each"
          @name="naming = $event"
        />
      </div>
      <FolderName
        v-if="naming?.below?.id === each.id"
        label="Name of the new folder"
        :initial="{ parent: each.id, title: '' }"
        :style="{ paddingLeft: `${30 + (depth.get(each.id) ?? 0) * 14}px` }"
        @named="named"
        @close="naming = undefined"
      />
    </template>
    <div v-if="others.length" class="others">
      <button
        v-for="each in others"
        :key="each.view"
        class="row"
        :aria-current="view === each.view"
        @click="go({ view: each.view })"
      >
        {{ each.words }} <span class="quiet small right">{{ each.count || '' }}</span>
      </button>
    </div>
  </nav>
</template>

<style scoped>
.folders {
  border-right: 1px solid var(--hair);
  padding: 8px 0;
  overflow: auto;
}
.row {
  display: flex;
  min-height: 32px;
  align-items: center;
  gap: 8px;
}
.row[aria-current='true'] {
  font-weight: 600;
}
.title {
  overflow: hidden;
  text-overflow: ellipsis;
}
.line {
  display: flex;
  position: relative;
}
.line.over {
  background: var(--selected);
  outline: 2px solid var(--action);
  outline-offset: -2px;
}
.line .row {
  flex: 1;
  min-width: 0;
}
.menu {
  position: absolute;
  right: 2px;
  top: 2px;
  opacity: 0;
}
.line:hover .menu,
.line:focus-within .menu {
  opacity: 1;
}
.line:hover .row > .right,
.line:focus-within .row > .right {
  visibility: hidden;
}
.waiting,
.others {
  padding-bottom: 8px;
  margin-bottom: 8px;
  border-bottom: 1px solid var(--hair);
}
.others {
  border: 0;
  border-top: 1px solid var(--hair);
  margin: 8px 0 0;
  padding: 8px 0 0;
}
@media (max-width: 899px) {
  .folders {
    display: flex;
    border: 0;
    overflow-x: auto;
    flex: none;
    padding: 0;
  }
  .folders .row {
    width: auto;
    padding: 0 10px !important;
    white-space: nowrap;
  }
  .waiting,
  .others {
    display: flex;
    border: 0;
    margin: 0;
    padding: 0;
  }
}
</style>
