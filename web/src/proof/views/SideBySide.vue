<script setup lang="ts">
/** Two messages level with each other, paragraph by paragraph, and the words in which they differ. */
import PickOne from '../../ui/controls/PickOne.vue';
import type { ComparedParagraph } from '@vocabula/core/proof';
import { computed, onMounted, ref, shallowRef, useTemplateRef, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { useNotice } from '../../ui/notice';
import { useTexts } from '../../ui/stores/lists';
import type { Which } from '../table/protocol';
import { useProofing } from '../table/useProofing';

const route = useRoute();
const router = useRouter();
const notice = useNotice();
const proofing = useProofing();
const texts = useTexts();
const paragraphs = shallowRef<readonly ComparedParagraph[]>([]);
const room = useTemplateRef<HTMLElement>('room');
const at = ref(0);

onMounted(() => texts.load().catch(() => []));
interface Side {
  readonly text: string;
  readonly at: number;
}
const side = (name: 'left' | 'right'): Side => {
  const [number = '', text = ''] = String(route.query[name] ?? '').split(' ');
  const last = Math.max(0, proofing.recipients.cases.length - 1);
  const fallback = name === 'left' ? 0 : Math.min(1, last);
  return { text: text || proofing.name, at: Math.min(last, number === '' ? fallback : Number(number) || 0) };
};
const sides = computed(() => ({ left: side('left'), right: side('right') }));
function put(name: 'left' | 'right', change: Partial<Side>): void {
  const next = { ...sides.value[name], ...change };
  void router.replace({
    query: { ...route.query, [name]: `${next.at} ${next.text === proofing.name ? '' : next.text}`.trim() },
  });
}
const which = async ({ text, at: number }: Side): Promise<Which> => {
  if (text === proofing.name) return { series: 'recipients', at: number };
  await proofing.other(text);
  return { series: 'recipients', at: number, other: text };
};
watch(
  [sides, () => proofing.texts, () => proofing.set, () => proofing.recipients.sheets.length],
  async () => {
    const now = sides.value;
    try {
      const [left, right] = await Promise.all([which(now.left), which(now.right)]);
      const found = await proofing.compare(left, right);
      if (sides.value === now) paragraphs.value = found;
    } catch (problem) {
      notice.fail(problem);
    }
  },
  { immediate: true },
);
const changes = computed(() => paragraphs.value.reduce((sum, each) => sum + each.changes.length, 0));
function stepFinding(by: number): void {
  if (changes.value === 0) return;
  at.value = ((at.value - 1 + by + changes.value) % changes.value) + 1;
  room.value?.querySelector(`[data-change="${at.value}"]`)?.scrollIntoView({ block: 'center' });
}
function step(by: number): void {
  const { length } = proofing.recipients.cases;
  if (length > 0) put('right', { at: (sides.value.right.at + by + length) % length });
}
defineExpose({ step, stepFinding });
</script>

<template>
  <div class="beside">
    <div class="tools">
      <fieldset v-for="name in ['left', 'right'] as const" :key="name">
        <legend class="unseen">{{ name }}</legend>
        <PickOne
          :model-value="sides[name].text"
          :aria-label="`Text on the ${name}`"
          @update:model-value="put(name, { text: $event })"
        >
          <option v-for="text in texts.messages" :key="text.name" :value="text.name">{{ text.title }}</option>
        </PickOne>
        <PickOne
          :model-value="sides[name].at"
          :aria-label="`Recipient on the ${name}`"
          @update:model-value="put(name, { at: $event })"
        >
          <option v-for="(each, index) in proofing.recipients.cases.slice(0, 500)" :key="index" :value="index">
            {{ each.label }}
          </option>
        </PickOne>
      </fieldset>
    </div>
    <p class="quiet small count" role="status">
      {{ changes === 0 ? 'They read the same.' : `${changes} ${changes === 1 ? 'difference' : 'differences'}` }}
    </p>
    <div ref="room" class="room" tabindex="0" aria-label="Both messages">
      <div class="sheet sheets">
        <template v-for="(each, index) in paragraphs" :key="index">
          <p class="left" :class="{ first: index === 0 }">
            <template v-for="(run, n) in each.runs" :key="n"
              ><del v-if="run.in === 'left'">{{ run.text }}</del
              ><template v-else-if="run.in === 'both'">{{ run.text }}</template></template
            >
          </p>
          <span class="numbers"
            ><b v-for="number in each.changes" :key="number" :data-change="number" :class="{ now: number === at }">{{
              number
            }}</b></span
          >
          <p class="right-side" :class="{ first: index === 0 }">
            <template v-for="(run, n) in each.runs" :key="n"
              ><ins v-if="run.in === 'right'">{{ run.text }}</ins
              ><template v-else-if="run.in === 'both'">{{ run.text }}</template></template
            >
          </p>
        </template>
      </div>
    </div>
  </div>
</template>

<style scoped>
.beside {
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
}
.tools {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 32px;
  padding: 8px 24px;
  border-bottom: 1px solid var(--hair);
}
fieldset {
  border: 0;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
  min-width: 0;
}
.count {
  text-align: center;
  padding: 6px;
}
.room {
  flex: 1;
  min-height: 0;
  overflow: auto;
  padding: 0 16px 16px;
}
.sheets {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 56px minmax(0, 1fr);
  gap: 12px 0;
  padding: 22px 30px;
  max-width: 1184px;
  margin: 0 auto;
  align-items: start;
}
p {
  overflow-wrap: anywhere;
}
.first {
  font-weight: 600;
}
ins {
  text-decoration: underline 2px;
  text-underline-offset: 3px;
  font-weight: 600;
}
del {
  font-weight: 600;
  text-decoration: line-through 1.5px;
}
.numbers {
  display: flex;
  flex-wrap: wrap;
  justify-content: center;
  gap: 2px;
}
.numbers b {
  font: 400 0.6875rem/1rem var(--sans);
  min-width: 16px;
  text-align: center;
  border: 1px solid var(--edge);
  border-radius: 3px;
  color: var(--quiet);
}
.numbers .now {
  background: var(--selected);
  border-color: var(--action);
  color: var(--ink);
}
@media (max-width: 699px) {
  .tools {
    grid-template-columns: 1fr;
    gap: 8px;
  }
  .sheets {
    padding: 16px 12px;
    grid-template-columns: minmax(0, 1fr) 26px minmax(0, 1fr);
  }
}
</style>
