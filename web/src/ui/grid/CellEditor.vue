<script setup lang="ts">
/** Editor of one grid cell: a text field, or a list where the column has options. */
import { onMounted, useTemplateRef } from 'vue';
import PickOne, { type Choice } from '../controls/PickOne.vue';

const text = defineModel<string>({ required: true });
const { label, options, typed } = defineProps<{
  label: string;
  options?: readonly Choice[] | undefined;
  /** Whether editing began with a typed letter: the text is continued instead of replaced. */
  typed: boolean;
}>();
const emit = defineEmits<{
  /** The field was left. */
  leave: [];
  /** An option was picked. */
  pick: [value: string];
}>();
const field = useTemplateRef<HTMLInputElement>('field');
onMounted(() => {
  field.value?.focus();
  if (!typed) field.value?.select();
});
</script>

<template>
  <PickOne
    v-if="options"
    autofocus
    size="small"
    :label="label"
    :options="options"
    :model-value="text"
    @update:model-value="emit('pick', $event)"
  />
  <input v-else ref="field" v-model="text" :aria-label="label" @blur="emit('leave')" />
</template>

<style scoped>
input,
.p-select {
  width: 100%;
  height: 100%;
  padding: 0 8px;
}
</style>
