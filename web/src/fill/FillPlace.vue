<script setup lang="ts">
/** A message being filled: questions beside the message they change. */
import { computed, nextTick, onMounted, onUnmounted, ref, useTemplateRef, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api } from '../api/client';
import NoticeLine from '../ui/NoticeLine.vue';
import ProofFrame from '../ui/ProofFrame.vue';
import { command, keyOf } from '../ui/keys';
import { useMe } from '../ui/me';
import { useNotice } from '../ui/notice';
import { handOverCopy, handOverDraft } from './handOver';
import QuestionField from './QuestionField.vue';
import RecipientField from './RecipientField.vue';
import { useFill } from './useFill';
import { addedWords } from './addedWords';

const route = useRoute();
const router = useRouter();
const notice = useNotice();
const me = useMe();
const { fill, recipient, answers, keeping, program, asked, message, look, take, settled, answer } = useFill();
const form = useTemplateRef('form');
const focused = ref<string>();
const spoken = ref('');
const problem = ref('');
const side = ref<'questions' | 'message'>('questions');
const busy = ref(false);
/** Whether the word about a newer version was put away. */
const dismissed = ref(false);

async function open(): Promise<void> {
  try {
    await me.load();
    const id = String(route.params.id);
    const template = route.query.template;
    if (id !== 'new') return take(await api.fill(id));
    take(await api.startFill({ text: String(template ?? '') }));
    await router.replace({ name: 'filling', params: { id: fill.value?.id } });
  } catch (error) {
    problem.value = error instanceof Error ? error.message : 'This message cannot be opened.';
  }
}
onMounted(async () => {
  notice.clear();
  await open();
  await nextTick();
  form.value?.querySelector<HTMLElement>('.control')?.focus();
});
watch(
  () => route.params.id,
  (id, before) => {
    if (before !== 'new' && id !== fill.value?.id) void open();
  },
);

const groups = computed(() => {
  const out: { title: string; questions: typeof asked.value }[] = [];
  for (const question of asked.value) {
    const title = question.within.join(' · ');
    const last = out.at(-1);
    if (last?.title === title) last.questions.push(question);
    else out.push({ title, questions: [question] });
  }
  return out;
});
const blanks = computed(() => message.value?.blanks ?? []);
const labelOfKey = (key: string): string => asked.value.find((question) => question.key === key)?.label ?? key;
const errors = computed(() => (message.value?.findings ?? []).filter((finding) => finding.level === 'error'));
const state = computed(() =>
  blanks.value.length > 0 ? `${labelOfKey(blanks.value[0] ?? '')} is blank` : (errors.value[0]?.message ?? ''),
);
watch(
  () => blanks.value.length,
  (count, _old, onCleanup) => {
    // Spoken after a pause, so that typing is not talked over.
    const timer = setTimeout(
      () => (spoken.value = count === 0 ? 'nothing is blank' : `${count} ${count === 1 ? 'blank' : 'blanks'}`),
      1200,
    );
    onCleanup(() => clearTimeout(timer));
  },
);

function focusQuestion(key: string): void {
  side.value = 'questions';
  void nextTick(() => {
    const control =
      form.value?.querySelector<HTMLElement>(`[data-question="${CSS.escape(key)}"] .control`) ??
      form.value?.querySelector<HTMLElement>(`[data-question="${CSS.escape(key)}"] input`);
    control?.focus();
    control?.scrollIntoView({ block: 'nearest' });
  });
}
function nextBlank(back: boolean): void {
  const keys = blanks.value;
  if (keys.length === 0) return;
  const now = focused.value ? keys.indexOf(focused.value) : -1;
  const next = keys[(now + (back ? -1 : 1) + keys.length) % keys.length] ?? keys[0];
  if (next) focusQuestion(next);
}
function nextQuestion(): void {
  const controls = [...(form.value?.querySelectorAll<HTMLElement>('.control') ?? [])];
  const next = controls[controls.indexOf(document.activeElement as HTMLElement) + 1];
  if (next) next.focus();
  else document.querySelector<HTMLElement>('.hand-over')?.focus();
}
function onEnter(event: KeyboardEvent): void {
  const target = event.target as HTMLElement;
  if (event.ctrlKey || event.metaKey || event.altKey || target.tagName === 'BUTTON') return;
  if (target.tagName === 'TEXTAREA' && event.shiftKey) return;
  event.preventDefault();
  nextQuestion();
}
function onKey(event: KeyboardEvent): void {
  const key = keyOf(event);
  if (key?.id !== 'blank' && key?.id !== 'hand-over' && key?.id !== 'anyway') return;
  event.preventDefault();
  if (key.id === 'blank') nextBlank(key.back);
  else if (key.id === 'anyway') void handOver(lastWay, true);
  else void handOver('copy');
}
window.addEventListener('keydown', onKey);
onUnmounted(() => window.removeEventListener('keydown', onKey));

/** Begins the message again on the version in use, with the same recipient and answers. */
async function anew(): Promise<void> {
  if (!fill.value) return;
  try {
    await settled();
    const old = fill.value.id;
    const body = { text: fill.value.text, recipient: { ...recipient.value }, answers: { ...answers.value } };
    take(await api.startFill(body as Parameters<typeof api.startFill>[0]));
    await api.binFill(old);
    await router.replace({ name: 'filling', params: { id: fill.value?.id } });
    notice.say('Begun anew on the version in use.');
  } catch (error) {
    notice.fail(error);
  }
}

/** The way that was asked for last; `Ctrl/⌘ Shift Enter` goes on with it. */
let lastWay: 'copy' | 'draft' = 'copy';
async function handOver(way: 'copy' | 'draft', anyway = false): Promise<void> {
  if (!fill.value || busy.value) return;
  lastWay = way;
  if (blanks.value.length > 0 && !anyway) {
    notice.say(`${blanks.value.map(labelOfKey).join(', ')}: still blank. ${command} Shift Enter goes on all the same.`);
    return nextBlank(false);
  }
  busy.value = true;
  try {
    (document.activeElement as HTMLElement | null)?.blur?.();
    const { id } = fill.value;
    notice.say(
      way === 'copy'
        ? await handOverCopy(id, settled, anyway)
        : await handOverDraft(id, fill.value.text, settled, anyway),
    );
  } catch (error) {
    notice.fail(error);
  } finally {
    busy.value = false;
  }
}
const name = computed(() => [recipient.value.first_name, recipient.value.last_name].filter(Boolean).join(' '));
const who = computed(() => [name.value, recipient.value.organisation].filter(Boolean).join(' · '));
</script>

<template>
  <div class="fill">
    <header class="head">
      <h1>{{ fill?.title ?? 'Fill' }}</h1>
      <span v-if="who" class="quiet small">for {{ who }}</span>
      <span class="right quiet small" role="status">{{
        keeping === 'kept' ? 'kept' : keeping === 'keeping' ? 'keeping…' : keeping
      }}</span>
    </header>
    <main v-if="problem" class="empty">
      <p class="error">⚠ {{ problem }}</p>
      <RouterLink to="/fill">Find another template</RouterLink>
    </main>
    <p v-else-if="fill && fill.standing !== 'current' && !dismissed" class="standing" role="alert">
      <template v-if="fill.standing === 'withdrawn'"
        ><span class="error">⚠ This wording was withdrawn and must not be sent.</span> Begin anew with what is in use
        now; your answers come along.</template
      >
      <template v-else
        >‸ There is a newer version of this template. This message goes on with version {{ fill.version }}.</template
      >
      <button @click="anew">Begin anew</button>
      <button v-if="fill.standing === 'newer'" class="plain" @click="dismissed = true">Go on with this one</button>
    </p>
    <template v-if="!problem && program && message">
      <nav class="sides" aria-label="Parts">
        <button
          v-for="each in ['questions', 'message'] as const"
          :key="each"
          class="plain"
          :aria-pressed="side === each"
          @click="side = each"
        >
          {{ each === 'questions' ? 'Questions' : 'Message' }}
        </button>
      </nav>
      <main class="work" :class="`shows-${side}`">
        <form
          ref="form"
          class="questions"
          aria-label="Questions"
          @submit.prevent
          @keydown.enter="onEnter"
          @focusin="focused = ($event.target as HTMLElement).closest<HTMLElement>('[data-question]')?.dataset.question"
        >
          <RecipientField v-model="recipient" />
          <div v-for="group in groups" :key="group.title + group.questions[0]?.key" :class="{ group: group.title }">
            <p v-if="group.title" class="quiet small within">{{ group.title }}</p>
            <QuestionField
              v-for="question in group.questions"
              :key="question.key"
              :question="question"
              :given="answers[question.key]"
              :adds="addedWords(program, question)"
              @answer="answer(question.key, $event)"
            />
          </div>
          <p v-if="asked.length === 0" class="quiet">This template asks nothing more.</p>
        </form>
        <section class="message" aria-label="Message">
          <article class="sheet page">
            <h2 class="subject">{{ message.subject || 'keeps the subject it answers' }}</h2>
            <p class="quiet small">
              To {{ message.to.join(', ') || 'nobody yet'
              }}<template v-if="message.cc.length"> · Cc {{ message.cc.join(', ') }}</template
              ><template v-if="message.attachments.length">
                · {{ message.attachments.map((file) => file.name).join(', ') }}</template
              >
            </p>
            <ProofFrame
              v-if="look"
              class="words"
              :fragment="message.fragment"
              v-bind="look"
              title="The message"
              :focus-of="focused"
              @blank="focusQuestion"
              @key="onKey"
            />
          </article>
        </section>
      </main>
      <footer class="bar">
        <b>{{
          blanks.length === 0 ? 'nothing is blank' : `${blanks.length} ${blanks.length === 1 ? 'blank' : 'blanks'}`
        }}</b><kbd v-if="blanks.length">F2</kbd> <NoticeLine v-if="notice.current" /><span
          v-else
          class="quiet small state"
          >{{ state }}</span
        >
        <span class="unseen" role="status">{{ spoken }}</span>
        <button class="right" :disabled="busy" @click="handOver('draft')">Open as draft</button>
        <button class="main hand-over" :aria-disabled="busy" @click="handOver('copy')">
          Copy for my mail program <kbd>{{ command }} ⏎</kbd>
        </button>
      </footer>
    </template>
    <p v-else class="quiet empty">Opening…</p>
  </div>
</template>

<style scoped>
.standing {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  padding: 8px 28px;
  border-bottom: 1px solid var(--hair);
  background: var(--sheet);
}
.fill {
  display: flex;
  flex-direction: column;
}
.work {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: 448px minmax(0, 1fr);
}
.questions {
  overflow: auto;
  padding: 20px 28px;
  border-right: 1px solid var(--hair);
}
.group {
  position: relative;
  padding-left: 18px;
  margin-bottom: 16px;
}
.group::before {
  content: '';
  position: absolute;
  left: 0;
  top: 2px;
  bottom: 2px;
  width: 8px;
  border: 1.5px solid var(--quiet);
  border-right: 0;
}
.within {
  margin-bottom: 8px;
}
.message {
  overflow: hidden;
  padding: 24px;
  min-width: 0;
}
.page {
  max-width: 640px;
  height: 100%;
  margin: 0 auto;
  padding: 26px 40px;
  display: flex;
  flex-direction: column;
  gap: 4px;
}
.subject {
  font:
    600 0.9375rem/1.5rem Arial,
    sans-serif;
}
.words {
  flex: 1;
  margin-top: 12px;
}
.bar {
  height: 56px;
  border-top: 1px solid var(--edge);
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 0 20px;
  flex: none;
}
.bar button {
  height: 36px;
}
.state {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.sides {
  display: none;
}
@media (max-width: 1099px) {
  .work {
    grid-template-columns: 360px minmax(0, 1fr);
  }
  .page {
    padding: 20px 24px;
  }
}
@media (max-width: 899px) {
  .sides {
    display: flex;
    border-bottom: 1px solid var(--hair);
    padding: 0 8px;
  }
  .sides [aria-pressed='true'] {
    font-weight: 600;
    box-shadow: inset 0 -3px var(--action);
  }
  .work {
    grid-template-columns: minmax(0, 1fr);
  }
  .work.shows-questions .message,
  .work.shows-message .questions {
    display: none;
  }
  .questions {
    border: 0;
    padding: 16px;
  }
  .message {
    padding: 12px;
  }
  .bar {
    height: auto;
    min-height: 56px;
    flex-wrap: wrap;
    padding: 8px 12px;
  }
}
</style>
