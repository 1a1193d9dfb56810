<script setup lang="ts">
/** One message each to many: who, what is asked once, what differs, each by itself, then one first and the rest. */
import PushButton from '../ui/controls/PushButton.vue';
import { computed, onMounted, ref } from 'vue';
import { useRoute } from 'vue-router';
import MessageSheet from '../fill/MessageSheet.vue';
import QuestionField from '../fill/QuestionField.vue';
import NoticeLine from '../ui/NoticeLine.vue';
import { useNotice } from '../ui/notice';
import ServiceLine from '../ui/ServiceLine.vue';
import UncertainStrip from './UncertainStrip.vue';
import PeopleAdder from './PeopleAdder.vue';
import RowsTable from './RowsTable.vue';
import ProgressLine from '../ui/controls/ProgressLine.vue';
import SendDialog from './SendDialog.vue';
import { useMailing } from './useMailing';

const route = useRoute();
const notice = useNotice();
const many = useMailing(String(route.params.id));
const {
  mailing,
  progress,
  rows,
  row,
  chosen,
  worked,
  asked,
  differing,
  count,
  isOpen,
  load,
  answerAll,
  differ,
  drive,
} = many;
const sending = ref(false);
const showBroken = ref(false);
onMounted(() => {
  notice.clear();
  void load();
});
const shared = computed(() => asked.value.filter(({ key }) => !differing.value.has(key)));
const columns = computed(() => asked.value.filter(({ key }) => differing.value.has(key)));
const apart = computed(() => count('apart', 'refused', 'uncertain', 'taken back'));
const total = computed(() => rows.value.length);
const WORDS: Readonly<Record<string, string>> = {
  preparing: 'nothing sent yet',
  first: 'one is sent: check it, then send the rest',
  going: 'going',
  paused: 'paused',
  stopped: 'stopped',
  done: 'done',
};
async function act(body: Parameters<typeof drive>[0]): Promise<void> {
  try {
    await drive(body);
    sending.value = false;
    if (body.act === 'first')
      chosen.value =
        rows.value.find(({ state }) => state === 'gone' || state === 'waiting' || state === 'sending')?.id ??
        chosen.value;
  } catch (problem) {
    notice.fail(problem);
  }
}
</script>

<template>
  <div v-if="mailing && progress" class="many">
    <header class="head">
      <h1>To many: {{ mailing.title }}</h1>
      <span class="quiet small">{{ WORDS[mailing.state] }}</span>
      <ServiceLine />
      <span v-if="mailing.version" class="quiet small right">version {{ mailing.version }}</span>
    </header>
    <main class="work">
      <section class="left" aria-label="Who and what">
        <PeopleAdder v-if="isOpen" :add="many.add" :empty="rows.length === 0" />
        <form v-if="rows.length && isOpen && shared.length" aria-label="Asked once" @submit.prevent>
          <h2>Asked once, for all</h2>
          <div v-for="question in shared" :key="question.key" class="once">
            <QuestionField
              :question="question"
              :given="mailing.answers[question.key]"
              adds=""
              @answer="answerAll(question.key, $event)"
            />
            <PushButton kind="plain" size="small" @click="differ(question.key, true)">differs for each</PushButton>
          </div>
        </form>
        <UncertainStrip
          v-if="count('uncertain') > 0"
          :count="count('uncertain')"
          @settle="(how) => act({ act: how, count: count('uncertain') })"
        />
        <section v-if="progress.apart.length || progress.broken.length" aria-label="Set apart">
          <h2>Set apart</h2>
          <ul class="small">
            <li v-for="each in progress.apart" :key="each.why">{{ each.count }} × {{ each.why }}</li>
            <li v-if="progress.broken.length">
              {{ progress.broken.length }} × without an address, or already listed
              <PushButton kind="plain" size="small" :aria-expanded="showBroken" @click="showBroken = !showBroken">
                {{ showBroken ? 'Fold' : 'Show' }}
              </PushButton>
              <ol v-if="showBroken">
                <li v-for="line in progress.broken.slice(0, 200)" :key="line">{{ line }}</li>
              </ol>
            </li>
          </ul>
        </section>
      </section>
      <RowsTable
        v-if="rows.length"
        v-model:chosen="chosen"
        :rows="rows"
        :columns="columns"
        :shared="mailing.answers"
        :open="isOpen"
        @answer="(rowId, answers) => many.changeRow(rowId, { answers: answers as never })"
        @out="(rowId, out) => many.changeRow(rowId, { out })"
        @once="differ($event, false)"
      />
      <p v-else class="quiet empty">No recipients yet. Add people from a recipient list, or paste them.</p>
      <MessageSheet v-if="row" :key="row.id" :filling="worked" @key="() => undefined" />
    </main>
    <footer class="bar">
      <b>{{ count('ready') }} ready</b>
      <span v-if="apart">{{ apart }} set apart</span>
      <ProgressLine v-if="!isOpen" :done="count('gone')" :total="total" label="Sent" />
      <span v-if="!isOpen">{{ count('gone') }} of {{ total }} sent</span>
      <NoticeLine />
      <span class="right acts">
        <PushButton v-if="mailing.state === 'going' || mailing.state === 'first'" @click="act({ act: 'pause' })">
          Pause
        </PushButton>
        <PushButton v-if="['going', 'paused', 'first'].includes(mailing.state)" @click="act({ act: 'stop' })"
          >Stop</PushButton
        >
        <PushButton kind="main" v-if="mailing.state === 'paused'" @click="act({ act: 'go on' })">Go on</PushButton>
        <PushButton
          kind="main"
          v-if="mailing.state === 'first'"
          :disabled="count('gone') === 0"
          @click="act({ act: 'rest' })"
        >
          Send the rest
        </PushButton>
        <PushButton kind="main" v-if="isOpen" :disabled="count('ready') < 2" @click="sending = true">Send…</PushButton>
      </span>
    </footer>
    <SendDialog
      v-if="sending"
      :title="mailing.title"
      :ready="count('ready')"
      :apart="apart"
      :broken="progress.broken.length"
      @send="(typed) => act({ act: 'first', count: typed })"
      @close="sending = false"
    />
  </div>
  <div v-else class="many">
    <p class="quiet empty">Opening…</p>
    <NoticeLine />
  </div>
</template>

<style scoped>
.many {
  display: flex;
  flex-direction: column;
}
.work {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: 320px minmax(280px, 1fr) minmax(0, 1.2fr);
}
.left {
  overflow: auto;
  padding: 16px 20px;
  border-right: 1px solid var(--hair);
}
h2 {
  margin: 16px 0 8px;
}
.once {
  position: relative;
}
.once button {
  position: absolute;
  right: 0;
  top: -2px;
  height: 24px;
  color: var(--action);
}
ul,
ol {
  margin: 0;
  padding-left: 16px;
}
.bar {
  min-height: 56px;
  border-top: 1px solid var(--edge);
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 0 20px;
  flex: none;
}
.acts {
  display: flex;
  gap: 8px;
}
@media (max-width: 1099px) {
  .work {
    grid-template-columns: 280px minmax(0, 1fr);
    overflow: auto;
  }
}
@media (max-width: 899px) {
  .work {
    grid-template-columns: minmax(0, 1fr);
  }
  .bar {
    flex-wrap: wrap;
    padding: 8px 12px;
  }
}
</style>
