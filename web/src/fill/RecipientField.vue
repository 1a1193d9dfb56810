<script setup lang="ts">
/** The first question: who it is for. Typed, or found in a recipient list, which fills in the rest. */
import type { RecipientHit } from '@vocabula/contract';
import AutoComplete from 'primevue/autocomplete';
import { computed, ref, useId, useTemplateRef, watch } from 'vue';
import { api } from '../api/client';
import { useFound } from '../ui/useFound';
import { recipientFromWords } from '@vocabula/core/filling';

const fields = defineModel<Record<string, string>>({ required: true });
const id = useId();
const text = ref('');
/** What the library keeps to itself, and we have to steer. */
const line = useTemplateRef<{ overlayVisible: boolean; focusedOptionIndex: number; hide(): void }>('line');
const { hits, at, find, chosen } = useFound<RecipientHit>(api.recipients);
/** Typed words that nobody has taken yet; a choice or leaving the field takes them, once. */
let untaken = false;

const name = computed(
  () => [fields.value.first_name, fields.value.last_name].filter(Boolean).join(' ') || fields.value.name || '',
);
const shown = computed(() =>
  name.value && fields.value.email ? `${name.value} <${fields.value.email}>` : name.value || fields.value.email || '',
);
watch(
  shown,
  (words) => {
    if (!untaken) text.value = words;
  },
  { immediate: true },
);

function onInput(value: unknown): void {
  // A chosen person comes through `option-select`.
  if (typeof value !== 'string') return;
  text.value = value;
  untaken = true;
  // At once, not when the library asks: Enter may come first, and waits for this search.
  if (value !== '') void find(value);
}
function choose(hit: RecipientHit): void {
  settle();
  fields.value = { ...hit.fields, email: hit.email || (hit.fields.email ?? '') };
  text.value = hit.name && hit.email ? `${hit.name} <${hit.email}>` : hit.name || hit.email;
}
function settle(): void {
  untaken = false;
}
/** Words that are nobody in a list are taken as typed: `Ann Lee <ann@x.example>`, an address, or a name. */
function takeTyped(): void {
  settle();
  fields.value = recipientFromWords(text.value);
}
function onBlur(): void {
  if (untaken && text.value.trim() !== shown.value) takeTyped();
}
/** Before the library: it would choose on Tab, and pull the focus back after Enter. */
async function onKey(event: KeyboardEvent): Promise<void> {
  const list = line.value;
  if (event.key === 'Escape' && list?.overlayVisible) return void (event.stopPropagation(), list.hide());
  if (event.key === 'Tab' && list) list.focusedOptionIndex = -1;
  if (event.key !== 'Enter' || event.ctrlKey || event.metaKey || !untaken) return;
  untaken = false;
  if (list && list.focusedOptionIndex >= 0) at.value = list.focusedOptionIndex;
  if (list) list.focusedOptionIndex = -1;
  // The focus goes on at once; who was meant is known when the search for these words is answered.
  const hit = text.value.trim() === '' ? undefined : await chosen();
  if (hit) choose(hit);
  else takeTyped();
}
</script>

<template>
  <div class="recipient question" data-question="recipient">
    <label :for="id" class="quiet">Recipient</label>
    <AutoComplete
      ref="line"
      :input-id="id"
      input-class="control"
      size="large"
      auto-option-focus
      :delay="0"
      :model-value="text"
      :suggestions="hits as RecipientHit[]"
      :option-label="(hit: RecipientHit | string) => (typeof hit === 'string' ? hit : hit.name || hit.email)"
      :show-empty-message="false"
      placeholder="a name, or an address"
      :pt="{
        overlay: { onMousedown: (event: Event) => event.preventDefault() },
        list: { 'aria-label': 'People of the recipient lists' },
        option: { 'aria-label': undefined },
      }"
      @keydown.capture="onKey"
      @update:model-value="onInput"
      @option-select="choose($event.value)"
      @blur="onBlur"
    >
      <template #option="{ option: hit }: { option: RecipientHit }">
        <span>{{ hit.name || hit.email }}</span>
        <span class="quiet small">{{ hit.email }} · {{ hit.fields.organisation || hit.list }}</span>
      </template>
    </AutoComplete>
  </div>
</template>

<style scoped>
.recipient {
  margin-bottom: 16px;
}
label {
  display: block;
  font-size: 0.8125rem;
  line-height: 1.25rem;
}
</style>
