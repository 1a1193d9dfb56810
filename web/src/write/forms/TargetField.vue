<script setup lang="ts">
/** Where a link or button leads: an address, which may hold placeholders. */
import PickOne from '../../ui/controls/PickOne.vue';
import InputText from 'primevue/inputtext';
import { labelFromKey, safeUrl } from '@vocabula/core';
import { computed, ref, useTemplateRef } from 'vue';
import type { Insertable } from '../bar/insertions';

const props = defineProps<{ label: string; names: Insertable }>();
const target = defineModel<string>({ required: true });
const input = useTemplateRef<{ $el: HTMLInputElement }>('input');
const typed = ref(target.value);
/** True for what a message may lead to, tags apart. */
const good = (href: string): boolean => {
  const plain = href.replace(/\{\{[^{}]*\}\}/g, 'x');
  return href === '' || /^\{\{[^{}]*\}\}/.test(href) || safeUrl(plain) !== undefined;
};
const problem = computed(() =>
  good(typed.value.trim())
    ? ''
    : 'It must begin with https://, http://, mailto: or tel:, or be a placeholder of a link.',
);
const offered = computed(() => [
  ...props.names.columns.map(({ key, label }) => ({ name: key, label: label ?? labelFromKey(key) })),
  ...props.names.variables
    .filter(({ type }) => type !== 'list')
    .map(({ key, label }) => ({ name: key, label: label ?? labelFromKey(key) })),
  ...props.names.fields.map((name) => ({ name, label: name })),
  ...props.names.facts.map(({ key, label }) => ({ name: key, label: label ?? key })),
]);
function give(): void {
  if (problem.value === '') target.value = typed.value.trim();
}
function putIn(name: string): void {
  const at = input.value?.$el.selectionStart ?? typed.value.length;
  typed.value = `${typed.value.slice(0, at)}{{${name}}}${typed.value.slice(at)}`;
  give();
  input.value?.$el.focus();
}
defineExpose({
  focus: () => input.value?.$el.focus(),
  value: () => (problem.value === '' ? typed.value.trim() : undefined),
});
</script>

<template>
  <div class="target">
    <label class="field"
      ><span>{{ label }}</span
      ><InputText
        ref="input"
        v-model="typed"
        placeholder="https://larkmoor.example/visit"
        :aria-invalid="problem !== ''"
        @change="give"
    /></label>
    <PickOne aria-label="Insert a placeholder" value="" @update:model-value="putIn(String($event))">
      <option value="">+ placeholder</option>
      <option v-for="each in offered" :key="each.name" :value="each.name">{{ each.label }}</option>
    </PickOne>
    <p v-if="problem" class="error small">{{ problem }}</p>
  </div>
</template>

<style scoped>
.target {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 120px;
  gap: 8px;
  align-items: end;
  width: 100%;
}
p {
  grid-column: 1 / -1;
}
</style>
