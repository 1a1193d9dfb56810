<script setup lang="ts">
/** No longer offered, kept for history, with a pointer to what takes its place. */
import PickOne from '../ui/controls/PickOne.vue';
import PushButton from '../ui/controls/PushButton.vue';
import type { TextSummary } from '@vocabula/contract';
import { computed, ref } from 'vue';
import { api } from '../api/client';
import type { Catalogue } from './useCatalogue';

const { catalogue, text } = defineProps<{ catalogue: Catalogue; text: TextSummary }>();
const emit = defineEmits<{ close: [] }>();
const replacedBy = ref('');
const others = computed(() => catalogue.texts.value.filter((each) => each.offered && each.name !== text.name));
async function retire(): Promise<void> {
  emit('close');
  await catalogue.act(
    `“${text.title}” is retired and no longer offered.`,
    () => api.retire(text.name, replacedBy.value || undefined),
    () => api.offerAgain(text.name),
  );
}
</script>

<template>
  <form class="retire" @submit.prevent="retire" @keydown.esc="emit('close')">
    <label class="field"
      ><span>Replacement for “{{ text.title }}”</span
      ><PickOne v-model="replacedBy" autofocus>
        <option value="">nothing</option>
        <option v-for="each in others" :key="each.name" :value="each.name">{{ each.title }}</option>
      </PickOne></label
    >
    <div class="acts">
      <PushButton kind="main" type="submit">Retire it</PushButton
      ><PushButton kind="plain" @click="emit('close')">Cancel</PushButton>
    </div>
  </form>
</template>

<style scoped>
.retire {
  display: grid;
  gap: 8px;
  border-left: 3px solid var(--warning);
  padding-left: 12px;
}
.acts {
  display: flex;
  gap: 8px;
}
</style>
