<script setup lang="ts">
/** A chosen placeholder: its view, each as it would read, and the way to its variable. */
import PushButton from '../../ui/controls/PushButton.vue';
import type { Node as PmNode } from '@tiptap/pm/model';
import type { Variable } from '@vocabula/core';
import { computed } from 'vue';
import type { Desk } from '../desk/useDesk';
import { labels } from '../editor/views/labels';
import ViewList from './ViewList.vue';

const props = defineProps<{
  desk: Pick<Desk, 'going' | 'insertable' | 'manuscript' | 'previews' | 'tab' | 'tray'>;
  node: PmNode;
  pos: number;
}>();
const { manuscript, previews, going, tray, tab, insertable } = props.desk;
const name = computed(() => String(props.node.attrs.name));
const variable = computed<Variable | undefined>(() => {
  const { variables, columns, facts } = insertable.value;
  const own = [...columns, ...variables, ...facts].find(({ key }) => key === name.value);
  return own ?? (name.value.includes('.') ? { key: name.value, type: 'text' } : undefined);
});
const declared = computed(() => manuscript.variables.value.some(({ key }) => key === name.value));
function choose(view: string): void {
  const { editor } = manuscript;
  editor.view.dispatch(editor.state.tr.setNodeMarkup(props.pos, undefined, { name: name.value, view }));
}
function open(): void {
  tab.value = 'variables';
  tray.open.value = name.value;
}
</script>

<template>
  <div class="chosen">
    <p>
      <b>{{ labels.of(name).label }}</b> <span class="quiet">{{ labels.of(name).type }}</span>
    </p>
    <ViewList
      v-if="variable"
      :variable="variable"
      :previews="previews"
      :current="String(node.attrs.view)"
      @choose="choose"
    />
    <p v-else class="error">There is no variable “{{ name }}”.</p>
    <p class="acts">
      <PushButton v-if="declared" @click="open">Open the variable</PushButton>
      <PushButton @click="going.stepTo(name)">Next place ›</PushButton>
    </p>
  </div>
</template>
