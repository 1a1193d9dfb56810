<script setup lang="ts">
/** A typed line with the templates it finds, and the first lines of the chosen one. Digits recall what is at hand. */
import type { Hit } from '@vocabula/contract';
import { computed, useId, useTemplateRef, watch } from 'vue';
import { api } from '../api/client';
import { useFound } from './useFound';
import { useWritingTo } from './writingTo';

const props = defineProps<{
  label: string;
  /** `stitch`: blocks and signatures are meant too. */
  purpose?: 'fill' | 'stitch';
  /** Nothing that begins a series: what is chosen is one message. */
  oneMessage?: boolean;
  /** Shows nothing before something is typed. */
  quiet?: boolean;
}>();
const emit = defineEmits<{ choose: [hit: Hit] }>();
const query = defineModel<string>({ required: true });
const input = useTemplateRef('input');
const writingTo = useWritingTo();
const { hits, at, current, problem, find, chosen, step } = useFound<Hit>(async (words) => {
  const to = writingTo.address || undefined;
  // Blocks and signatures can be stitched too: they are looked for among all texts.
  const blocks = props.purpose === 'stitch' && words !== '';
  const found = await (blocks ? api.search(words, 'write') : api.search(words, 'fill', to));
  const fits = ({ kind, offered }: Hit): boolean =>
    !(kind === 'series' && (props.oneMessage || props.purpose === 'stitch')) &&
    !(blocks && kind === 'message' && !offered);
  return found.filter(fits);
});
const id = useId();
const listed = computed(() => !props.quiet || query.value !== '');
watch([query, () => props.oneMessage], ([words]) => void find(words), { immediate: true });

async function onKey(event: KeyboardEvent): Promise<void> {
  const digit = /^[1-9]$/.test(event.key) && !event.ctrlKey && !event.metaKey && !event.altKey;
  if (digit && query.value === '') {
    const near = hits.value.find(({ why }) => why === `at hand ${event.key}`) ?? (await recalled(event));
    if (near) {
      event.preventDefault();
      return emit('choose', near);
    }
  }
  if (step(event) || event.key !== 'Enter' || event.ctrlKey || event.metaKey) return;
  event.preventDefault();
  const hit = await chosen();
  if (hit) emit('choose', hit);
}
/** A digit typed before the first hits have come. */
async function recalled(event: KeyboardEvent): Promise<Hit | undefined> {
  if (hits.value.length > 0) return undefined;
  event.preventDefault();
  await chosen();
  const hit = hits.value.find(({ why }) => why === `at hand ${event.key}`);
  if (!hit) query.value = event.key;
  return hit;
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
      :aria-expanded="listed"
      :aria-label="label"
      :placeholder="quiet ? label : `${label}: call word, title or any words`"
      :aria-controls="listed ? id : undefined"
      :aria-activedescendant="listed && hits.length ? `${id}-${at}` : undefined"
      autocomplete="off"
      spellcheck="false"
      @keydown="onKey"
    />
    <p v-if="problem" class="error say">{{ problem }}</p>
    <template v-else-if="!listed" />
    <p v-else-if="hits.length === 0" class="quiet say">No template matches these words.</p>
    <ul v-if="listed" :id="id" class="rows" role="listbox" :aria-label="label">
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
        <span class="title">{{ hit.title }}</span><span class="quiet small right"
          ><i v-if="hit.why">{{ hit.why }}</i
          >{{ hit.why && hit.call ? ' · ' : '' }}{{ hit.call }}</span
        >
        <span class="quiet small subject">{{ hit.subject || 'uses the subject of the mail it answers' }}</span>
      </li>
    </ul>
    <p v-if="current && listed" class="opening quiet small">{{ current.opening }}</p>
  </div>
</template>

<style scoped>
.line {
  height: 44px !important;
  border: 0 !important;
  border-bottom: 1px solid var(--hair) !important;
  border-radius: 0;
  padding: 0 16px !important;
  text-overflow: ellipsis;
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
  grid-template-columns: minmax(0, 1fr) auto;
  height: 44px;
  padding: 4px 16px;
  cursor: pointer;
}
i {
  font-style: normal;
}
.title {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
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
