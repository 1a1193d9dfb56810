<script setup lang="ts">
/** A person's own row of templates: recalled by digit, arranged by dragging or with Shift and the arrows. */
import { vTip } from '../ui/controls/tip';
import PushButton from '../ui/controls/PushButton.vue';
import { useReorder } from '../ui/controls/reorder';
import { nextTick, onMounted, useTemplateRef } from 'vue';
import { useAtHand } from '../ui/atHand';
import { useNotice } from '../ui/notice';

const emit = defineEmits<{ choose: [name: string] }>();
const atHand = useAtHand();
const notice = useNotice();
const list = useTemplateRef('list');
onMounted(() => void atHand.load());

async function move(from: number, to: number): Promise<void> {
  try {
    await atHand.move(from, to);
    await nextTick();
    list.value?.querySelectorAll<HTMLElement>('button')[to]?.focus();
  } catch (problem) {
    notice.fail(problem);
  }
}
async function remove(at: number): Promise<void> {
  const before = atHand.row.map(({ name }) => name);
  const { title } = atHand.row[at] ?? {};
  try {
    await atHand.save(before.filter((_, index) => index !== at));
    notice.say(`“${title}” is no longer at hand.`, () => atHand.save(before));
  } catch (problem) {
    notice.fail(problem);
  }
}
function onKey(event: KeyboardEvent, at: number): void {
  const step = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
  if (step !== 0) {
    event.preventDefault();
    if (event.shiftKey) return void (at + step >= 0 && at + step < atHand.row.length && move(at, at + step));
    return list.value?.querySelectorAll<HTMLElement>('button')[at + step]?.focus();
  }
  if (event.key === 'Delete' || event.key === 'Backspace') {
    event.preventDefault();
    void remove(at);
  }
}
useReorder(list, move);
</script>

<template>
  <section v-if="atHand.row.length" class="near" aria-label="At hand">
    <h2>
      At hand
      <span class="quiet small">Press 1–9 in the empty search line; Shift and arrows reorder, Delete removes</span>
    </h2>
    <ol ref="list">
      <li v-for="(each, at) in atHand.row" :key="each.name">
        <PushButton v-tip="each.subject" @click="emit('choose', each.name)" @keydown="onKey($event, at)">
          <kbd>{{ at + 1 }}</kbd> {{ each.title }}
        </PushButton>
      </li>
    </ol>
  </section>
</template>

<style scoped>
.near {
  padding: 0 0 16px;
}
h2 .quiet {
  font-weight: 400;
  margin-left: 8px;
}
ol {
  list-style: none;
  margin: 8px 0 0;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
button {
  background: var(--sheet);
  max-width: 260px;
  overflow: hidden;
}
.dragged {
  opacity: 0.5;
}
</style>
