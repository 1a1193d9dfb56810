<script setup lang="ts">
/** Where paragraphs, headings and buttons stand across the page. */
import { MAX_INDENT, type Align } from '@vocabula/core';
import { computed } from 'vue';
import PopMenu from '../../ui/PopMenu.vue';
import type { Desk } from '../desk/useDesk';

const props = defineProps<{ desk: Desk }>();
const { manuscript, fields } = props.desk;
const { editor } = manuscript;
const ALIGNS: readonly (readonly [Align, string])[] = [
  [null, 'as usual'],
  ['center', 'in the middle'],
  ['right', 'at the right'],
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
</script>

<template>
  <PopMenu label="Layout" :width="190" :pressed="current.align !== null || current.indent > 0">
    <template #default="{ close }">
      <button
        v-for="[align, words] in ALIGNS"
        :key="words"
        type="button"
        class="row"
        role="menuitemradio"
        :aria-checked="current.align === align"
        :class="{ selected: current.align === align }"
        @click="
          set(() => ({ align }));
          close(false);
        "
      >
        {{ words }}
      </button>
      <button type="button" class="row" role="menuitem" :disabled="current.indent >= MAX_INDENT" @click="indent(1)">
        further in
      </button>
      <button type="button" class="row" role="menuitem" :disabled="current.indent === 0" @click="indent(-1)">
        further out
      </button>
    </template>
  </PopMenu>
</template>
