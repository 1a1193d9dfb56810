<script setup lang="ts">
/** The colours that authors pick by name. */
import PushButton from '../ui/controls/PushButton.vue';
import InputText from 'primevue/inputtext';
import { keyFromLabel, type NamedColour } from '@vocabula/core';
import { ref } from 'vue';
import { useNotice } from '../ui/notice';
import ColourPair from './ColourPair.vue';

const props = defineProps<{ colours: Readonly<Record<string, NamedColour>>; used: readonly string[] }>();
const emit = defineEmits<{ change: [colours: Record<string, NamedColour>] }>();
const notice = useNotice();
const fresh = ref('');
function add(): void {
  const name = keyFromLabel(fresh.value, new Set(Object.keys(props.colours)));
  if (fresh.value.trim() === '') return;
  emit('change', { ...props.colours, [name]: { light: '#3B4A5A', dark: '#B6C3D1' } });
  fresh.value = '';
}
function remove(name: string): void {
  if (props.used.includes(name))
    return notice.fail(new Error(`Buttons or tables are ${name}: give them another colour first.`));
  const { [name]: _gone, ...others } = props.colours;
  emit('change', others);
}
</script>

<template>
  <fieldset>
    <legend>Named colours: on light pages, on dark ones, and how well they are read there</legend>
    <div v-for="(colour, name) in colours" :key="name" class="one">
      <ColourPair :name="String(name)" :colour="colour" @change="emit('change', { ...colours, [name]: $event })" />
      <PushButton kind="plain" :aria-label="`Remove ${name}`" @click="remove(String(name))">−</PushButton>
    </div>
    <div class="new">
      <InputText v-model="fresh" aria-label="Name of a new colour" placeholder="lichen" @keydown.enter.prevent="add" />
      <PushButton :disabled="fresh.trim() === ''" @click="add">Add a colour</PushButton>
    </div>
  </fieldset>
</template>

<style scoped>
fieldset {
  border: 0;
  margin: 8px 0;
  padding: 0;
  display: grid;
  gap: 6px;
}
legend {
  font-size: 0.8125rem;
  color: var(--quiet);
  padding: 0 0 4px;
}
.one {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 32px;
}
.new {
  display: flex;
  gap: 8px;
}
</style>
