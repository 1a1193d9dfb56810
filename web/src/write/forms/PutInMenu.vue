<script setup lang="ts">
/** The menu of what can be put in: images, tables, buttons, panels, rules, files. */
import type { Node as PmNode } from '@tiptap/pm/model';
import { computed } from 'vue';
import { tint } from '@vocabula/core';
import ActMenu from '../../ui/controls/ActMenu.vue';
import { useFileChoice } from '../../ui/controls/fileChoice';
import type { MenuAct } from '../../ui/controls/menuActs';
import { useHouse } from '../../ui/house';
import type { Desk } from '../desk/useDesk';
import { placeBlock } from '../editor/operations/insert';

const props = defineProps<{ desk: Pick<Desk, 'assets' | 'insertable' | 'manuscript' | 'tab'> }>();
const emit = defineEmits<{ markers: [] }>();
const house = useHouse();
const { manuscript, assets, tab, insertable } = props.desk;
const { editor } = manuscript;
const chooseImages = useFileChoice(
  async (files) => {
    if (await assets.putImages(files)) tab.value = 'chosen';
  },
  { accept: 'image/png,image/jpeg,image/gif,image/webp', multiple: true },
);
const chooseFiles = useFileChoice((files) => void assets.attach(files), { multiple: true });

function block(name: string, attrs: Record<string, unknown>, content?: PmNode): void {
  const node = editor.schema.nodes[name]?.create(attrs, content);
  if (node) placeBlock(editor, [node]);
  editor.commands.focus();
}
function button(): void {
  block('button', { href: 'https://', align: null }, editor.schema.text('Press here'));
  tab.value = 'chosen';
}
/** Puts the blocks with the selection on the tint of a colour, or takes them off it. */
function panel(colour: string): void {
  if (editor.schema.nodes.panel) editor.chain().focus().toggleWrap('panel', { colour }).run();
}
const inBody = computed((): MenuAct[] => [
  { label: 'Image…', command: chooseImages },
  {
    label: 'Table',
    command: () => editor.chain().focus().insertTable({ rows: 3, cols: 2, withHeaderRow: true }).run(),
  },
  { label: 'Button', command: button },
  { label: 'Rule', command: () => editor.chain().focus().setHorizontalRule().run() },
]);
const panels = computed((): MenuAct[] =>
  Object.entries(house.house.style.colours).map(([label, { light }]) => ({
    label,
    swatch: tint(light),
    command: () => panel(label),
  })),
);
const items = computed((): MenuAct[] => [
  ...(insertable.value.inBody ? inBody.value : []),
  ...(manuscript.front.value.kind === 'message' ? [{ label: 'Attachment…', command: chooseFiles }] : []),
  { label: 'Find markers', command: () => emit('markers') },
  ...(insertable.value.inBody && panels.value.length ? [{ label: 'Panel with the tint', items: panels.value }] : []),
]);
</script>

<template>
  <ActMenu label="Put in" :items="items" @mousedown.prevent><slot /></ActMenu>
</template>
