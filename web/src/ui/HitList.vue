<script setup lang="ts">
/** A typed line with the templates it finds, and the first lines of the chosen one. */
import type { Hit } from '@vocabula/contract';
import { useId, useTemplateRef, watch } from 'vue';
import { api } from '../api/client';
import { useFound } from './useFound';

defineProps<{ label: string }>();
const emit = defineEmits<{ choose: [hit: Hit] }>();
const query = defineModel<string>({ required: true });
const input = useTemplateRef('input');
const { hits, at, current, problem, find, chosen, step } = useFound<Hit>(api.search);
const id = useId();
watch(query, (words) => void find(words), { immediate: true });

async function onKey(event: KeyboardEvent): Promise<void> {
  if (step(event) || event.key !== 'Enter' || event.ctrlKey || event.metaKey) return;
  event.preventDefault();
  const hit = await chosen();
  if (hit) emit('choose', hit);
}
defineExpose({ focus: () => input.value?.focus() });
</script>

<template>
  <div>
    <input
      ref="input"
      v-model="query"
      class="line"
      role="combobox"
      aria-expanded="true"
      :aria-label="label"
      :placeholder="`${label}: call word, title or any words`"
      :aria-controls="id"
      :aria-activedescendant="hits.length ? `${id}-${at}` : undefined"
      autocomplete="off"
      spellcheck="false"
      @keydown="onKey"
    />
    <p v-if="problem" class="error say">{{ problem }}</p>
    <p v-else-if="hits.length === 0" class="quiet say">No template has all these words.</p>
    <ul :id="id" class="rows" role="listbox" :aria-label="label">
      <li
        v-for="(hit, index) in hits"
        :id="`${id}-${index}`"
        :key="hit.name"
        class="row hit"
        role="option"
        :aria-selected="index === at"
        @mousemove="at = index"
        @click="emit('choose', hit)"
      >
        <span>{{ hit.title }}</span><span v-if="hit.call" class="quiet small right">{{ hit.call }}</span>
        <span class="quiet small subject">{{ hit.subject || 'keeps the subject it answers' }}</span>
      </li>
    </ul>
    <p v-if="current" class="opening quiet small">{{ current.opening }}</p>
  </div>
</template>

<style scoped>
.line {
  height: 44px !important;
  border: 0 !important;
  border-bottom: 1px solid var(--hair) !important;
  border-radius: 0;
  padding: 0 16px !important;
  font-size: 1rem;
}
.line:focus-visible {
  outline-offset: -2px;
}
.rows {
  max-height: 308px;
  overflow: auto;
}
.hit {
  display: grid;
  grid-template-columns: 1fr auto;
  height: 44px;
  padding: 4px 16px;
  cursor: pointer;
}
.subject {
  grid-column: 1 / -1;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.say {
  padding: 12px 16px;
}
.opening {
  padding: 12px 16px;
  border-top: 1px solid var(--hair);
  display: -webkit-box;
  -webkit-line-clamp: 3;
  -webkit-box-orient: vertical;
  overflow: hidden;
}
</style>
