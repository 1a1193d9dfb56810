<script setup lang="ts">
/** The folders, and what waits for somebody. Texts are dropped on folders; every act is also in a folder's menu. */
import type { Folder } from '@vocabula/contract';
import type { TreeNode } from 'primevue/treenode';
import InputText from 'primevue/inputtext';
import Tree from 'primevue/tree';
import { computed, nextTick, ref, watch } from 'vue';
import { api } from '../api/client';
import FolderMenu from './FolderMenu.vue';
import type { Catalogue, View } from './useCatalogue';

const { catalogue } = defineProps<{ catalogue: Catalogue }>();
const { folders, folder, view, texts, requests, overdue, me, act, go } = catalogue;
const naming = ref<{ readonly of?: Folder; readonly below?: Folder }>();
const name = ref('');
const over = ref<string>();

/** Closed folders are remembered, so that new ones are open. */
const closed = ref<ReadonlySet<string>>(new Set());
const open = computed({
  get: () => Object.fromEntries(folders.value.filter(({ id }) => !closed.value.has(id)).map(({ id }) => [id, true])),
  set: (keys: Record<string, boolean>) =>
    (closed.value = new Set(folders.value.map(({ id }) => id).filter((id) => !keys[id]))),
});
const nodes = computed((): TreeNode[] => {
  const below = (parent: string | undefined): TreeNode[] => [
    ...folders.value
      .filter((each) => each.parent === parent)
      .map((each) => ({
        key: each.id,
        label: each.title,
        data: each,
        draggable: each.right === 'manage' && each.parent !== undefined,
        children: below(each.id),
      })),
    ...(parent !== undefined && naming.value?.below?.id === parent
      ? [{ key: 'new', label: 'A new folder', type: 'new', selectable: false, draggable: false }]
      : []),
  ];
  return below(undefined);
});
const selected = computed(() => (folder.value && !view.value ? { [folder.value]: true } : {}));
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

function begin(what: { of?: Folder; below?: Folder }): void {
  naming.value = what;
  name.value = what.of?.title ?? '';
}
async function named(): Promise<void> {
  const { of, below } = naming.value ?? {};
  const title = name.value.trim();
  naming.value = undefined;
  if (title === '') return;
  if (of)
    await act(
      `Now called “${title}”.`,
      () => api.changeFolder(of.id, { title }),
      () => api.changeFolder(of.id, { title: of.title }),
    );
  else if (below) await act(`“${title}” is in ${below.title}.`, () => api.makeFolder({ parent: below.id, title }));
}
/** A folder was dropped in, before or behind another one. */
function moved({
  dragNode,
  dropNode,
  dropPosition,
}: {
  dragNode: TreeNode;
  dropNode: TreeNode;
  dropPosition: number;
}): void {
  const from = dragNode.data as Folder;
  const near = dropNode.data as Folder;
  const to = dropPosition === 0 ? near : folders.value.find(({ id }) => id === near.parent);
  if (!to) return;
  const siblings = folders.value.filter(({ parent, id }) => parent === to.id && id !== from.id);
  const at = siblings.findIndex(({ id }) => id === near.id);
  const position = dropPosition === 0 ? undefined : at + (dropPosition > 0 ? 1 : 0);
  void act(
    `“${from.title}” is in ${to.title}.`,
    () => api.changeFolder(from.id, { parent: to.id, ...(position === undefined ? {} : { position }) }),
    () => api.changeFolder(from.id, { parent: from.parent ?? to.id }),
  );
}
/** Texts come from the list beside it; the tree itself only knows its own nodes. */
const bringsTexts = (event: DragEvent): boolean => event.dataTransfer?.types.includes('text/x-texts') ?? false;
function hover(event: DragEvent, id: string): void {
  if (!bringsTexts(event)) return;
  event.preventDefault();
  event.stopPropagation();
  over.value = id;
}
function dropped(event: DragEvent, to: Folder): void {
  over.value = undefined;
  if (!bringsTexts(event)) return;
  event.preventDefault();
  event.stopPropagation();
  const names = new Set((event.dataTransfer?.getData('text/x-texts') ?? '').split(','));
  const list = texts.value.filter((text) => names.has(text.name));
  if (list.length > 0) void catalogue.move(list, to);
}
const field = ref<{ $el: HTMLInputElement }>();
watch(naming, () => nextTick(() => field.value?.$el.select()));
</script>

<template>
  <nav class="folders" aria-label="Folders">
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
    <Tree
      v-model:expanded-keys="open"
      :value="nodes"
      selection-mode="single"
      :selection-keys="selected"
      draggable-nodes
      droppable-nodes
      validate-drop
      aria-label="Folders"
      :pt="{
        node: ({ context }: any) => ({
          'aria-label': undefined,
          'aria-labelledby': `folder-${context.node.key}`,
          'aria-selected': context.selected,
          'aria-checked': undefined,
          'aria-setsize': undefined,
          'aria-posinset': undefined,
          'aria-expanded': context.leaf ? undefined : context.expanded,
        }),
        nodeToggleButton: { 'aria-hidden': true },
      }"
      @node-select="(node: TreeNode) => go({ in: node.key })"
      @node-drop="moved"
    >
      <template #nodeicon><i hidden /></template>
      <template #new>
        <form class="naming" @submit.prevent="named" @keydown.esc="naming = undefined" @click.stop>
          <InputText
            ref="field"
            v-model="name"
            size="small"
            aria-label="Name of the new folder"
            maxlength="80"
            autofocus
            @blur="named"
          />
        </form>
      </template>
      <template #default="{ node }">
        <form
          v-if="naming?.of?.id === node.key"
          class="naming"
          @submit.prevent="named"
          @keydown.esc="naming = undefined"
          @click.stop
        >
          <InputText
            ref="field"
            v-model="name"
            size="small"
            aria-label="Name of the folder"
            maxlength="80"
            autofocus
            @blur="named"
          />
        </form>
        <span
          v-else
          class="line"
          :class="{ over: over === node.key }"
          @dragover="hover($event, node.key)"
          @dragleave="over = undefined"
          @drop="dropped($event, node.data)"
        >
          <span :id="`folder-${node.key}`" class="title">{{ node.label }}</span>
          <span class="quiet small right">{{ count(node.key) || '' }}</span>
          <span v-if="node.data.right === 'manage' && me.isAuthor" class="menu" @click.stop
            ><FolderMenu :catalogue="catalogue" :folder="node.data" @name="begin"
          /></span>
        </span>
      </template>
    </Tree>
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
.folders :deep(.p-tree-node-label) {
  flex: 1;
  min-width: 0;
}
.folders :deep(.p-tree-node-selected) {
  font-weight: 600;
}
.line {
  display: flex;
  position: relative;
  min-height: 32px;
  align-items: center;
  gap: 8px;
}
.line.over {
  background: var(--selected);
  outline: 2px solid var(--action);
  outline-offset: -2px;
}
.menu {
  position: absolute;
  right: 0;
  top: 2px;
  opacity: 0;
}
.line:hover .menu,
.line:focus-within .menu,
.folders :deep(.p-tree-node:focus-visible > .p-tree-node-content) .menu {
  opacity: 1;
}
.line:hover > .right,
.line:focus-within > .right {
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
.naming {
  padding: 2px 8px;
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
