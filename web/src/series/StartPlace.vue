<script setup lang="ts">
/** A series started: asked once what its messages need, for one or for many, and shown as it will go. */
import type { StartSeries, TableSummary } from '@vocabula/contract';
import Textarea from 'primevue/textarea';
import { computed, onMounted, ref, shallowRef } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api } from '../api/client';
import QuestionField from '../fill/QuestionField.vue';
import RecipientField from '../fill/RecipientField.vue';
import FieldRow from '../ui/controls/FieldRow.vue';
import PickOne from '../ui/controls/PickOne.vue';
import PushButton from '../ui/controls/PushButton.vue';
import TickBox from '../ui/controls/TickBox.vue';
import NoticeLine from '../ui/NoticeLine.vue';
import { useNotice } from '../ui/notice';
import { zone } from '../ui/today';
import MessageOfStep from './MessageOfStep.vue';
import SeriesTimeline from './SeriesTimeline.vue';
import StepList from './StepList.vue';
import { useStart } from './useStart';

const route = useRoute();
const router = useRouter();
const notice = useNotice();
const name = String(route.params.name);
const starting = useStart(name);
const { own, series, calendar, start, recipient, answers, asked, open, steps, messageOf, answer } = starting;
const problem = ref('');
const busy = ref(false);
const shown = ref(0);
const message = computed(() => messageOf(shown.value));

const many = ref(false);
const lists = ref<readonly TableSummary[]>([]);
const list = ref('');
const pasted = ref('');
const refused = ref<readonly string[]>([]);
onMounted(async () => {
  try {
    await starting.load();
    lists.value = await api.lists();
  } catch (failure) {
    problem.value = failure instanceof Error ? failure.message : 'This could not be read.';
  }
});
const hasSomebody = computed(() =>
  many.value ? list.value !== '' || pasted.value.trim() !== '' : (recipient.value.email ?? '') !== '',
);
/** Of a list, what a row does not say waits for its day; of one, everything is answered now. */
const whyNot = computed(() => {
  if (!hasSomebody.value) return many.value ? 'Choose a list, or paste people.' : 'Say who it is for.';
  const [first] = open.value;
  if (many.value || !first) return '';
  return open.value.length === 1 ? `Still blank: ${first.label}.` : `${open.value.length} still blank: ${first.label}…`;
});
const to = (): StartSeries['to'] => {
  if (!many.value) return { people: [{ ...recipient.value }] };
  return list.value ? { list: list.value, search: '' } : { paste: pasted.value };
};
/** Who was typed is looked for when the start is asked for by key; what is missing is told once it is known. */
const recipientTaken = shallowRef<Promise<void>>();
async function go(): Promise<void> {
  if (busy.value) return;
  busy.value = true;
  try {
    await recipientTaken.value;
    if (whyNot.value !== '') return;
    const { started, refused: left } = await api.startSeries({
      text: name,
      timezone: zone(),
      answers: answers.value as StartSeries['answers'],
      to: to(),
    });
    refused.value = left;
    const [first] = started;
    if (!first) return notice.fail(new Error(left[0] ?? 'It was started for nobody.'));
    notice.say(started.length === 1 ? 'Started.' : `Started for ${started.length} people.`);
    if (left.length === 0) await router.push({ name: 'running', params: started.length === 1 ? { id: first } : {} });
  } catch (failure) {
    notice.fail(failure);
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <div class="start">
    <header class="head">
      <RouterLink class="small" :to="{ name: 'running' }">‹ Series</RouterLink>
      <h1>{{ own?.document.attrs.front.title ?? 'Series' }}</h1>
      <span v-if="own" class="quiet small about">{{ own.document.attrs.front.description }}</span>
      <PushButton kind="main" class="right" :disabled="whyNot !== '' || busy || !series" @click="go">{{
        many ? 'Start for all of them' : 'Start the series'
      }}</PushButton>
    </header>
    <main v-if="problem" class="empty">
      <p class="error">⚠ {{ problem }}</p>
    </main>
    <main v-else-if="series" class="two">
      <form
        class="left"
        aria-label="Questions"
        @submit.prevent="go"
        @keydown.ctrl.enter.prevent="go"
        @keydown.meta.enter.prevent="go"
      >
        <RecipientField v-if="!many" v-model="recipient" @taking="recipientTaken = $event" />
        <template v-else>
          <FieldRow v-if="lists.length" v-slot="{ id, labelledBy }" label="From a recipient list">
            <PickOne v-model="list" :input-id="id" :labelled-by="labelledBy">
              <option value="">none</option>
              <option v-for="each in lists" :key="each.id" :value="each.id">{{ each.title }} ({{ each.rows }})</option>
            </PickOne>
          </FieldRow>
          <FieldRow
            v-if="!list"
            v-slot="{ id, describedBy }"
            label="Paste people: addresses, or a table with a head"
            help="A column that is called as a question answers it for its row."
          >
            <Textarea :id="id" v-model="pasted" rows="4" class="wide" :aria-describedby="describedBy" />
          </FieldRow>
        </template>
        <label class="tick"><TickBox :checked="many" @change="many = $event" /> for several people</label>
        <QuestionField
          v-for="question in asked"
          :key="question.id"
          :question="question"
          :given="answers[question.id]"
          adds=""
          @answer="answer(question.id, $event)"
        />
        <p v-if="asked.length === 0" class="quiet">Nothing is asked.</p>
        <ul v-if="refused.length" class="refused small" aria-label="Not started for">
          <li v-for="each in refused" :key="each" class="warning">‸ {{ each }}</li>
        </ul>
      </form>
      <section class="right-half" aria-label="What will go">
        <SeriesTimeline
          :steps="steps"
          :start="start"
          :now="start"
          :calendar="calendar"
          :chosen="shown"
          @choose="shown = $event"
        />
        <StepList :steps="steps" :chosen="shown" @choose="shown = $event" />
        <MessageOfStep v-if="message" v-bind="message" />
      </section>
    </main>
    <main v-else class="empty"><p class="quiet">Opening…</p></main>
    <footer class="foot">
      <NoticeLine />
      <span class="right small quiet">{{ whyNot }}</span>
    </footer>
  </div>
</template>

<style scoped>
.start {
  display: flex;
  flex-direction: column;
  min-height: 0;
}
main {
  flex: 1;
}
.two {
  min-height: 0;
  display: grid;
  grid-template-columns: minmax(0, 2fr) minmax(0, 3fr);
}
.left,
.right-half {
  overflow: auto;
  padding: 20px 24px;
}
.left {
  border-right: 1px solid var(--hair);
}
.right-half {
  display: grid;
  gap: 12px;
  align-content: start;
  grid-template-columns: minmax(0, 1fr);
}
.wide {
  width: 100%;
}
.tick {
  display: flex;
  gap: 8px;
  align-items: center;
  margin: 4px 0 16px;
}
.about {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
@media (max-width: 899px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
    overflow: auto;
  }
  .left,
  .right-half {
    overflow: visible;
    border: 0;
    padding: 16px 12px;
  }
  .about {
    display: none;
  }
}
</style>
