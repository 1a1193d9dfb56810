<script setup lang="ts">
/** A selection goes over the edge of a passage: the new bracket stops there, or takes that passage in whole. */
import RadioButton from 'primevue/radiobutton';
import type { Editor } from '@tiptap/core';
import { ref, watch } from 'vue';
import type { Range } from '../editor/operations/places';
import { upToEdge } from '../editor/operations/wrap';

const props = defineProps<{ editor: Editor }>();
const range = defineModel<Range>({ required: true });
const { anchor, head, from, to } = props.editor.state.selection;
const edge = upToEdge(props.editor.state.doc, anchor, head);
const how = ref<'edge' | 'whole'>('whole');
watch(how, () => {
  range.value = how.value === 'edge' ? edge : { from, to };
});
</script>

<template>
  <fieldset class="far">
    <legend class="quiet small">The selection goes over the edge of a passage</legend>
    <label><RadioButton v-model="how" name="how-far" value="whole" /> whole passage</label>
    <label><RadioButton v-model="how" name="how-far" value="edge" /> up to the edge</label>
  </fieldset>
</template>

<style scoped>
.far {
  border: 0;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 4px;
}
</style>
