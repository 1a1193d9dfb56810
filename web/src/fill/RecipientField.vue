<script setup lang="ts">
/** The first question: who it is for. Typed, or found in a recipient list, which fills in the rest. */
import type { RecipientHit } from '@vocabula/contract';
import { computed, ref, useId, watch } from 'vue';
import { api } from '../api/client';
import { useFound } from '../ui/useFound';
import { recipientFromWords } from '@vocabula/core/filling';

/** Who is meant is being looked for. */
const emit = defineEmits<{ taking: [taken: Promise<void>] }>();
const fields = defineModel<Record<string, string>>({ required: true });
const id = useId();
const text = ref('');
const open = ref(false);
const { hits, at, find, chosen, step } = useFound<RecipientHit>(api.recipients);
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

async function onInput(): Promise<void> {
  untaken = true;
  await find(text.value);
  open.value = untaken;
}
function choose(hit: RecipientHit): void {
  settle();
  fields.value = { ...hit.fields, email: hit.email || (hit.fields.email ?? '') };
  text.value = hit.name && hit.email ? `${hit.name} <${hit.email}>` : hit.name || hit.email;
}
function settle(): void {
  open.value = false;
  untaken = false;
}
/** Words that are nobody in a list are taken as typed: `Ann Lee <ann@x.example>`, an address, or a name. */
function takeTyped(): void {
  settle();
  fields.value = recipientFromWords(text.value);
}
function onBlur(): void {
  open.value = false;
  if (untaken && text.value.trim() !== shown.value) takeTyped();
}
function onKey(event: KeyboardEvent): void {
  if (event.key === 'Escape' && open.value) {
    event.stopPropagation();
    open.value = false;
  }
  if (open.value && step(event)) return;
  if (event.key !== 'Enter' || !untaken) return;
  // The focus, or the message, goes on at once; who was meant is known when the search for these words is answered.
  untaken = false;
  emit('taking', takeMeant());
}
async function takeMeant(): Promise<void> {
  const hit = text.value.trim() === '' ? undefined : await chosen();
  if (hit) choose(hit);
  else takeTyped();
}
</script>

<template>
  <div class="recipient question" data-question="recipient">
    <label :for="id" class="quiet">Recipient</label>
    <input
      :id="id"
      v-model="text"
      class="control"
      role="combobox"
      :aria-expanded="open"
      :aria-controls="`${id}-list`"
      :aria-activedescendant="open && hits.length ? `${id}-${at}` : undefined"
      autocomplete="off"
      placeholder="a name, or an address"
      @input="onInput"
      @blur="onBlur"
      @keydown="onKey"
    />
    <ul
      v-if="open && hits.length"
      :id="`${id}-list`"
      class="rows sheet"
      role="listbox"
      aria-label="People of the recipient lists"
    >
      <li
        v-for="(hit, index) in hits"
        :id="`${id}-${index}`"
        :key="hit.table + hit.email + index"
        class="row"
        role="option"
        :aria-selected="index === at"
        @mousedown.prevent="choose(hit)"
      >
        <span>{{ hit.name || hit.email }}</span>
        <span class="quiet small">{{ hit.email }} · {{ hit.fields.organisation || hit.list }}</span>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.recipient {
  position: relative;
  margin-bottom: 16px;
}
label {
  display: block;
  font-size: 0.8125rem;
  line-height: 1.25rem;
}
input {
  height: 36px !important;
}
.rows {
  position: absolute;
  z-index: 5;
  width: 100%;
  max-height: 300px;
  overflow: auto;
}
</style>
