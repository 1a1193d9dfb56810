<script setup lang="ts">
/** Where paragraphs, headings and buttons stand across the page. */
import { MAX_INDENT, type Align } from '@vocabula/core';
import { computed } from 'vue';
import ActMenu from '../../ui/controls/ActMenu.vue';
import type { MenuAct } from '../../ui/controls/menuActs';
import type { Desk } from '../desk/useDesk';

const props = defineProps<{ desk: Pick<Desk, 'fields' | 'manuscript'> }>();
const { manuscript, fields } = props.desk;
const { editor } = manuscript;
const ALIGNS: readonly (readonly [Align, string])[] = [
  [null, 'Default'],
  ['center', 'Centred'],
  ['right', 'Right'],
];
const current = computed(() => {
  void fields.beat.value;
  const { attrs } = editor.state.selection.$from.parent;
  return { align: (attrs.align as Align | undefined) ?? null, indent: Number(attrs.indent ?? 0) };
});
/** Changes the layout of every line in the selection. */
function set(change: (attrs: Record<string, unknown>) => Record<string, unknown>): void {
  const { tr, selection, doc } = editor.state;
  doc.nodesBetween(selection.from, selection.to, (node, pos) => {
    if (node.isTextblock && 'align' in node.attrs && !/^table/.test(doc.resolve(pos).parent.type.name))
      tr.setNodeMarkup(pos, undefined, { ...node.attrs, ...change(node.attrs) });
  });
  editor.view.dispatch(tr);
  editor.commands.focus();
}
const indent = (by: number): void =>
  set((attrs) => ('indent' in attrs ? { indent: Math.max(0, Math.min(MAX_INDENT, Number(attrs.indent) + by)) } : {}));
const items = computed((): MenuAct[] => [
  {
    label: 'Alignment',
    items: ALIGNS.map(([align, label]) => ({
      label,
      checked: current.value.align === align,
      command: () => set(() => ({ align })),
    })),
  },
  {
    label: 'Indent',
    items: [
      { label: 'Increase', disabled: current.value.indent >= MAX_INDENT, command: () => indent(1) },
      { label: 'Decrease', disabled: current.value.indent === 0, command: () => indent(-1) },
    ],
  },
]);
</script>

<template>
  <ActMenu label="Layout" :items="items" :aria-pressed="current.align !== null || current.indent > 0" @mousedown.prevent
    ><slot
  /></ActMenu>
</template>
