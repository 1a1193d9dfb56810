<script setup lang="ts">
/** Makes a link of the selected words, or changes where the one with the caret leads. */
import PushButton from '../../ui/controls/PushButton.vue';
import { computed, ref, useTemplateRef } from 'vue';
import PopForm from '../../ui/controls/PopForm.vue';
import type { Desk } from '../desk/useDesk';
import TargetField from './TargetField.vue';

const props = defineProps<{ desk: Pick<Desk, 'fields' | 'insertable'> }>();
const { fields, insertable } = props.desk;
const editor = computed(() => fields.active.value);
const target = ref('');
const field = useTemplateRef('field');
const on = computed(() => fields.beat.value >= 0 && editor.value.isActive('link'));
const allowed = computed(
  () =>
    fields.beat.value >= 0 && 'link' in editor.value.schema.marks && (on.value || !editor.value.state.selection.empty),
);
function begin(): void {
  target.value = String(editor.value.getAttributes('link').href ?? '');
}
function set(close: () => void): void {
  const href = field.value?.value();
  if (href === undefined) return;
  const chain = editor.value.chain().focus().extendMarkRange('link');
  if (href === '') chain.unsetMark('link').run();
  else chain.setMark('link', { href }).run();
  close();
}
</script>

<template>
  <PopForm label="Link" :width="420" :aria-pressed="on" @open="begin">
    <template #button><slot /></template>
    <template #default="{ close }">
      <form class="link" @submit.prevent="set(close)">
        <p v-if="!allowed" class="quiet">Select the words to link first.</p>
        <template v-else>
          <TargetField
            ref="field"
            v-model="target"
            :names="insertable"
            label="Address; leave empty to remove the link"
          />
          <PushButton kind="main" type="submit">Set</PushButton>
        </template>
      </form>
    </template>
  </PopForm>
</template>

<style scoped>
.link {
  padding: 12px;
  display: grid;
  gap: 8px;
  justify-items: start;
  color: var(--ink);
}
</style>
