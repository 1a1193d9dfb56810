<script setup lang="ts">
/** A chosen note: its words. */
import Textarea from 'primevue/textarea';
import type { Node as PmNode } from '@tiptap/pm/model';
import type { Desk } from '../desk/useDesk';

const props = defineProps<{ desk: Pick<Desk, 'manuscript'>; node: PmNode; pos: number }>();
function write(event: Event): void {
  const { editor } = props.desk.manuscript;
  // A note stands on one line of a file.
  const text = (event.target as HTMLTextAreaElement).value
    .replace(/\s*\n\s*/g, ' ')
    .replace(/\}\}/g, '} }')
    .trim();
  editor.view.dispatch(editor.state.tr.setNodeMarkup(props.pos, undefined, { text }));
}
</script>

<template>
  <div class="chosen">
    <label class="field"
      ><span>A note to authors and colleagues, never sent</span
      ><Textarea rows="3" :model-value="String(node.attrs.text)" @change="write" />
    </label>
  </div>
</template>
