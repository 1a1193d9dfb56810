<script setup lang="ts">
/** Remarks on this text: open ones first, each with what was said to it. */
import InputText from 'primevue/inputtext';
import PushButton from '../../ui/controls/PushButton.vue';
import type { Remark } from '@vocabula/contract';
import { computed, ref } from 'vue';
import { whenInWords } from '../../ui/today';
import type { Desk } from '../desk/useDesk';

const props = defineProps<{ desk: Pick<Desk, 'remarks'> }>();
const { remarks } = props.desk;
const replying = ref<string>();
const words = ref('');
const sorted = computed(() =>
  [...remarks.all.value].sort(
    (a, b) => Number(Boolean(a.settled)) - Number(Boolean(b.settled)) || (a.at < b.at ? 1 : -1),
  ),
);
async function reply(remark: Remark): Promise<void> {
  if (words.value.trim() === '') return;
  await remarks.change(remark, { reply: words.value.trim() });
  replying.value = undefined;
  words.value = '';
}
</script>

<template>
  <p v-if="sorted.length === 0" class="quiet none">
    No remarks. Select words and press <kbd>Alt Enter</kbd>, then <kbd>m</kbd>, to leave one for your co-authors.
  </p>
  <ul class="rows">
    <li v-for="remark in sorted" :key="remark.id" class="remark" :class="{ settled: remark.settled }">
      <button class="row quote small" @click="remarks.show(remark)">
        “{{ remark.quote.exact.slice(0, 80).replace(/\uFFFC/g, '…') }}”<span
          v-if="!remarks.rangeOf(remark)"
          class="quiet"
        >
          · no longer in the text</span
        >
      </button>
      <p>{{ remark.body }}</p>
      <p class="quiet small">{{ remark.who }} · {{ whenInWords(remark.at) }}</p>
      <div v-for="(answer, index) in remark.answers" :key="index" class="answer">
        <p>{{ answer.body }}</p>
        <p class="quiet small">{{ answer.who }} · {{ whenInWords(answer.at) }}</p>
      </div>
      <form
        v-if="replying === remark.id"
        class="reply"
        @submit.prevent="reply(remark)"
        @keydown.esc.stop="replying = undefined"
      >
        <InputText v-model="words" aria-label="Answer" maxlength="4000" autofocus /><PushButton type="submit"
          >Answer</PushButton
        >
      </form>
      <div class="acts">
        <PushButton kind="plain" size="small" @click="remarks.change(remark, { settled: !remark.settled })">
          {{ remark.settled ? 'Open again' : 'Settle' }}
        </PushButton>
        <PushButton kind="plain" size="small" v-if="replying !== remark.id" @click="replying = remark.id"
          >Answer</PushButton
        >
      </div>
    </li>
  </ul>
</template>

<style scoped>
.none {
  padding: 12px 14px;
}
.remark {
  padding: 4px 14px 6px;
  font-size: 0.8125rem;
}
.remark.settled > p,
.remark.settled .quote {
  color: var(--quiet);
}
.quote {
  padding: 4px 0;
  font-family: var(--serif);
}
.answer {
  border-left: 1px solid var(--edge);
  margin: 4px 0 0 4px;
  padding-left: 10px;
}
.reply {
  display: flex;
  gap: 8px;
  margin-top: 4px;
}
.acts {
  margin-left: -8px;
}
.acts button {
  height: 24px;
}
</style>
