<script setup lang="ts">
/** What answers a letter: likely templates first, any other by the typed line. */
import PushButton from '../ui/controls/PushButton.vue';
import type { Hit, ReadOriginal } from '@vocabula/contract';
import { foundValues } from '@vocabula/core/filling';
import { computed, onMounted, ref } from 'vue';
import { useRouter } from 'vue-router';
import { api } from '../api/client';
import HitList from '../ui/HitList.vue';
import { today } from '../ui/today';

const props = defineProps<{ letter: string }>();
const emit = defineEmits<{ done: [] }>();
const router = useRouter();
const read = ref<ReadOriginal>();
const query = ref('');
onMounted(async () => {
  read.value = await api.readLetter(props.letter).catch(() => undefined);
});
const found = computed(() =>
  read.value
    ? foundValues(`${read.value.original.subject}\n${read.value.original.text}`, today(), 'en-GB').slice(0, 5)
    : [],
);
const answer = ({ name, standing }: Pick<Hit, 'name'> & { readonly standing?: string | undefined }): void =>
  void router.push({
    name: 'filling',
    params: { id: 'new' },
    query: { template: name, letter: props.letter, ...(standing ? { standing } : {}) },
  });
</script>

<template>
  <aside aria-label="Answer with">
    <h2>Answer with</h2>
    <PushButton v-for="each in read?.likely ?? []" :key="each.name" class="likely" @click="answer(each)">
      <span>{{ each.title }}</span><span class="quiet small">{{ each.why }}</span>
    </PushButton>
    <div class="sheet find"><HitList v-model="query" label="Find a template" quiet one-message @choose="answer" /></div>
    <p v-if="found.length" class="quiet small">
      Found in it: {{ found.map(({ words }) => words).join(' · ') }}. These are offered where they fit.
    </p>
    <PushButton kind="plain" @click="emit('done')">No answer needed</PushButton>
  </aside>
</template>

<style scoped>
h2 {
  margin-bottom: 8px;
}
.likely {
  display: grid;
  justify-content: start;
  width: 100%;
  height: auto;
  padding: 6px 12px;
  margin-bottom: 8px;
  text-align: left;
  white-space: normal;
  gap: 0;
  background: var(--sheet);
}
.find {
  margin: 8px 0 12px;
}
</style>
