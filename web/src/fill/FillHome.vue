<script setup lang="ts">
/** Fill with nothing open: the call line, unfinished messages, recent ones. */
import PushButton from '../ui/controls/PushButton.vue';
import type { FillSummary, Hit, ReadOriginal } from '@vocabula/contract';
import { computed, nextTick, onMounted, ref, useTemplateRef } from 'vue';
import { useRouter } from 'vue-router';
import { api } from '../api/client';
import { fillAddress } from '../ui/fillAddress';
import HitList from '../ui/HitList.vue';
import NoticeLine from '../ui/NoticeLine.vue';
import { useNotice } from '../ui/notice';
import { whenInWords } from '../ui/today';
import AnswerPanel from './AnswerPanel.vue';
import AtHandRow from './AtHandRow.vue';

const router = useRouter();
const notice = useNotice();
const query = ref('');
const fills = ref<FillSummary[]>([]);
const line = useTemplateRef('line');
const groups = computed(() => [
  {
    title: 'Unfinished',
    none: 'No unfinished messages.',
    list: fills.value.filter((fill) => fill.state === 'unfinished'),
  },
  {
    title: 'Handed over and sent',
    none: 'No messages yet. What you copy or open as a draft is listed here.',
    list: fills.value.filter((fill) => fill.state !== 'unfinished').slice(0, 12),
  },
]);

async function load(): Promise<void> {
  try {
    fills.value = await api.fills();
  } catch (problem) {
    notice.fail(problem);
  }
}
/** A mail that was pasted or dropped: what is chosen answers it. */
const answered = ref<ReadOriginal>();
const answering = ref(false);
async function choose({ name, kind }: Pick<Hit, 'name'> & Partial<Pick<Hit, 'kind'>>): Promise<void> {
  if (!answered.value || kind === 'series') return void router.push(fillAddress({ name, kind: kind ?? 'message' }));
  const { original, recipient } = answered.value;
  try {
    const fill = await api.startFill({ text: name, original, recipient: { ...recipient } });
    await router.push({ name: 'filling', params: { id: fill.id } });
  } catch (problem) {
    notice.fail(problem);
  }
}
async function take(read: ReadOriginal | undefined): Promise<void> {
  answered.value = read;
  answering.value = false;
  await nextTick();
  if (read && read.likely.length > 0) document.querySelector<HTMLElement>('.likely button')?.focus();
  else line.value?.focus();
}
async function bin(fill: FillSummary): Promise<void> {
  try {
    await api.binFill(fill.id);
    await load();
    notice.say(`“${fill.title}” is in the bin.`, async () => {
      await api.restoreFill(fill.id);
      await load();
    });
  } catch (problem) {
    notice.fail(problem);
  }
}
onMounted(() => {
  line.value?.focus();
  void load();
});
</script>

<template>
  <div class="home">
    <header class="head">
      <h1>Fill</h1>
      <span class="quiet small">choose a template and answer its questions</span>
      <PushButton kind="plain" class="right" :aria-pressed="answering" @click="answering = !answering"
        >Answer a mail…</PushButton
      >
      <RouterLink class="plain" :to="{ name: 'running' }">Series</RouterLink>
      <RouterLink class="plain" :to="{ name: 'recipients' }">Recipients</RouterLink>
    </header>
    <main>
      <div>
        <AnswerPanel v-if="answering" :original="answered?.original" @take="take" @close="answering = false" />
        <section v-if="answered" class="sheet likely" aria-label="Answers">
          <p>
            Answering <b>{{ answered.original.from || 'unknown sender' }}</b>
            <span v-if="answered.original.subject" class="quiet">“{{ answered.original.subject }}”</span>
            <PushButton kind="plain" size="small" class="right" @click="answered = undefined">Not this</PushButton>
          </p>
          <button v-for="each in answered.likely" :key="each.name" class="row plain" @click="choose(each)">
            {{ each.title }} <span class="quiet small">{{ each.why }}</span>
          </button>
          <p v-if="answered.likely.length === 0" class="quiet small">Choose the template that answers it.</p>
        </section>
        <AtHandRow @choose="(name) => choose({ name })" />
        <section class="sheet find">
          <HitList
            ref="line"
            v-model="query"
            label="Find a template"
            :one-message="answered !== undefined"
            @choose="choose"
          />
        </section>
      </div>
      <section class="messages" aria-label="Messages">
        <template v-for="group in groups" :key="group.title">
          <h2>{{ group.title }}</h2>
          <ul v-if="group.list.length" class="rows">
            <li v-for="fill in group.list" :key="fill.id">
              <RouterLink class="row" :to="{ name: 'filling', params: { id: fill.id } }"
                ><span>{{ fill.title }}</span
                ><span class="quiet small"
                  >{{ fill.recipient || 'no recipient yet' }} · {{ fill.state === 'sent' ? 'sent ' : ''
                  }}{{ whenInWords(fill.updatedAt)
                  }}<span v-if="fill.state === 'unfinished' && fill.standing === 'withdrawn'" class="warning">
                    ‸ its wording was withdrawn</span
                  ></span
                ></RouterLink
              >
              <PushButton kind="plain" size="small" :aria-label="`Move “${fill.title}” to the bin`" @click="bin(fill)">
                Bin
              </PushButton>
            </li>
          </ul>
          <p v-else class="quiet small none">{{ group.none }}</p>
        </template>
      </section>
    </main>
    <footer class="foot"><NoticeLine /></footer>
  </div>
</template>

<style scoped>
.home {
  display: flex;
  flex-direction: column;
}
main {
  flex: 1;
  overflow: auto;
  display: grid;
  grid-template-columns: minmax(0, 640px) minmax(240px, 360px);
  gap: 32px;
  padding: 24px 28px;
  align-content: start;
}
h2 {
  margin: 0 0 4px;
  padding: 0 16px;
}
.messages h2:not(:first-child) {
  margin-top: 24px;
}
.messages li {
  display: flex;
  align-items: center;
}
.messages .row {
  display: grid;
  flex: 1;
  min-width: 0;
}
.likely {
  padding: 12px 16px;
  margin-bottom: 16px;
}
.likely p {
  display: flex;
  gap: 8px;
  align-items: center;
}
.none {
  padding: 4px 16px;
}
@media (max-width: 899px) {
  main {
    grid-template-columns: minmax(0, 1fr);
    padding: 16px;
  }
}
</style>
