<script setup lang="ts">
/** The button with the caret: where it leads. */
import type { Node as PmNode } from '@tiptap/pm/model';
import { computed } from 'vue';
import type { Desk } from '../desk/useDesk';
import TargetField from '../forms/TargetField.vue';

const props = defineProps<{ desk: Pick<Desk, 'insertable' | 'manuscript'>; node: PmNode; pos: number }>();
const href = computed(() => String(props.node.attrs.href));
function set(attrs: Record<string, unknown>): void {
  const { editor } = props.desk.manuscript;
  editor.view.dispatch(editor.state.tr.setNodeMarkup(props.pos, undefined, { ...props.node.attrs, ...attrs }));
}
</script>

<template>
  <div class="chosen">
    <TargetField
      :model-value="href"
      :names="desk.insertable.value"
      label="Address of the button"
      @update:model-value="set({ href: $event })"
    />
  </div>
</template>
