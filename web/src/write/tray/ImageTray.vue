<script setup lang="ts">
/** A chosen image: what it says to those who do not see it, and how wide it is. */
import InputText from 'primevue/inputtext';
import type { Node as PmNode } from '@tiptap/pm/model';
import { plainWords, type Inline } from '@vocabula/core';
import { computed } from 'vue';
import type { Desk } from '../desk/useDesk';
import { positionOf } from '../editor/operations/places';
import LineEditor from '../line/LineEditor.vue';

const props = defineProps<{ desk: Pick<Desk, 'manuscript'>; node: PmNode; pos: number }>();
const alt = computed(() => props.node.attrs.alt as readonly Inline[]);
/** Where the image stands, as a path of child indexes. */
const path = computed(() => {
  const $pos = props.desk.manuscript.editor.state.doc.resolve(props.pos);
  return Array.from({ length: $pos.depth + 1 }, (_, depth) => $pos.index(depth));
});
function set(attrs: Record<string, unknown>): void {
  const { editor } = props.desk.manuscript;
  const pos = positionOf(editor.state.doc, path.value) ?? props.pos;
  const { tr } = editor.state;
  tr.setNodeMarkup(pos, undefined, { ...props.node.attrs, ...attrs });
  editor.view.dispatch(tr);
  if (editor.state.doc.nodeAt(pos)) editor.commands.setNodeSelection(pos);
}
function width(event: Event): void {
  const value = Math.round(Number((event.target as HTMLInputElement).value));
  set({ width: value > 0 ? Math.min(4000, value) : null });
}
</script>

<template>
  <div class="chosen">
    <div>
      <span class="quiet small">Alternative text, for people who cannot see the image</span>
      <LineEditor
        :key="path.join()"
        :line="alt"
        :of="{ kind: 'alt', path }"
        label="Alternative text"
        form="plain"
        placeholder="The north gate, with the ramp on its left"
        @change="set({ alt: $event })"
      />
      <p v-if="plainWords(alt).trim() === ''" class="warning small">
        ‸ Add alternative text: people who cannot see the image need it.
      </p>
    </div>
    <label class="field width"
      ><span>Width in pixels; empty for its own</span
      ><InputText inputmode="numeric" :model-value="node.attrs.width ?? ''" @change="width"
    /></label>
    <p class="quiet small">{{ node.attrs.src }}</p>
  </div>
</template>

<style scoped>
.width {
  width: 200px;
}
</style>
