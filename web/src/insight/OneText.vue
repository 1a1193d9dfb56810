<script setup lang="ts">
/** One text with its changes in the margin. A chosen sentence shows what was written instead. */
import type { Period, SentenceInsight, TextInsight } from '@vocabula/contract';
import { computed, ref, shallowRef, watch } from 'vue';
import { useRouter } from 'vue-router';
import { api } from '../api/client';
import { useMe } from '../ui/me';
import { useNotice } from '../ui/notice';
import { zone } from '../ui/today';
import OutcomesTable from './OutcomesTable.vue';
import { proposalsOf, type Proposal } from '@vocabula/core/insight';
import ProposedChanges from './ProposedChanges.vue';
import { putInWrite } from './putInWrite';
import QuestionsTable from './QuestionsTable.vue';
import SentencePanel from './SentencePanel.vue';

const { name, period } = defineProps<{ name: string; period: Period }>();
const router = useRouter();
const notice = useNotice();
const me = useMe();
const found = shallowRef<TextInsight>();
const problem = ref('');
const chosen = ref<number>();
const busy = ref(false);

watch(
  () => period,
  async (wanted) => {
    try {
      found.value = await api.lookBack(name, wanted, zone());
      problem.value = '';
      // Starts with the sentence that is changed most.
      const changes = found.value.sentences.map(({ reworded, takenOut }) => reworded + takenOut);
      const most = Math.max(0, ...changes);
      chosen.value = most > 0 ? changes.indexOf(most) : undefined;
    } catch (failure) {
      problem.value = failure instanceof Error ? failure.message : 'This report cannot be shown.';
    }
  },
  { immediate: true },
);
const sentence = computed(() => (chosen.value === undefined ? undefined : found.value?.sentences[chosen.value]));
/** Sentences by the line they stand in. */
const lines = computed(() => {
  const out: {
    readonly key: string;
    readonly text: string;
    readonly sentences: { at: number; said: SentenceInsight }[];
  }[] = [];
  for (const [at, said] of (found.value?.sentences ?? []).entries()) {
    const key = `${said.text} ${said.path.join('.')}`;
    if (out.at(-1)?.key !== key) out.push({ key, text: said.text, sentences: [] });
    out.at(-1)?.sentences.push({ at, said });
  }
  return out;
});
/** Words with the labels of questions in place of keys. */
const named = (words: string): string =>
  words.replace(/\[([^\]]*)\]/g, (whole, key: string) => {
    const label = found.value?.questions.find((question) => question.key === key)?.label;
    return label ? `[${label}]` : whole.replaceAll('_', ' ');
  });
const changesOf = ({ reworded, takenOut }: SentenceInsight): number => reworded + takenOut;
const margin = ({ sentences }: { readonly sentences: readonly { readonly said: SentenceInsight }[] }): string => {
  const shown = Math.max(0, ...sentences.map(({ said }) => said.shown));
  const changed = sentences.reduce((sum, { said }) => sum + changesOf(said), 0);
  const kept = shown === found.value?.uses ? '' : `in ${shown} of ${found.value?.uses ?? 0}`;
  return [kept, changed > 0 ? `changed ${changed} ×` : ''].filter(Boolean).join(' · ');
};
/** What people changed by hand, as far as it is worth a change of the template. */
const proposals = computed(() => proposalsOf(found.value?.sentences ?? [], found.value?.added ?? []));
/** What is worth a look beside that. */
const suggestions = computed(() =>
  (found.value?.suggestions ?? []).filter(({ about }) => !proposals.value.some(({ words }) => words === about)),
);
const saidInstead = ({ text, path, at, words, reworded, shown }: SentenceInsight, instead: string): Proposal => ({
  ...{ text, path, at, words, instead, kind: 'replace', count: reworded, of: shown, saves: 0 },
});
async function put(proposed: readonly Proposal[]): Promise<void> {
  const [first] = proposed;
  if (!first) return;
  busy.value = true;
  try {
    const left = await putInWrite(proposed);
    const many = proposed.length - left.length;
    const lost = left.length > 0 ? ` ${left.length} had no place there any more.` : '';
    const what =
      proposed.length === 1 && first.instead
        ? `“${first.instead}” is`
        : many === 1
          ? 'One change is'
          : `${many} changes are`;
    notice.sayThere(`${what} in the working copy. Publish it to use it.${lost}`);
    await router.push({ name: 'write', params: { name: first.text } });
  } catch (failure) {
    notice.fail(failure);
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <main v-if="problem" class="empty">
    <p class="error">⚠ {{ problem }}</p>
    <RouterLink :to="{ name: 'looking-back', query: $route.query }">All texts</RouterLink>
  </main>
  <p v-else-if="!found" class="quiet empty">Reading the messages…</p>
  <main v-else class="one">
    <section class="manuscript" aria-label="The text">
      <p class="small way">
        <RouterLink :to="{ name: 'looking-back', query: $route.query }">All texts</RouterLink>
      </p>
      <h2>{{ found.title }}</h2>
      <p v-if="me.isAuthor" class="small way">
        <RouterLink :to="{ name: 'versions', params: { name } }">Versions</RouterLink> ·
        <RouterLink :to="{ name: 'trial', params: { name } }">Trial</RouterLink>
      </p>
      <p class="quiet small">
        {{ found.uses }} {{ found.uses === 1 ? 'message' : 'messages' }} read. Choose a sentence to see what was written
        instead.
      </p>
      <div v-for="line in lines" :key="line.key" class="line">
        <p>
          <template v-for="{ at, said } in line.sentences" :key="at"
            ><a
              href="#"
              role="button"
              class="sentence"
              :class="{ changed: changesOf(said) > 0 }"
              :aria-pressed="chosen === at"
              @click.prevent="chosen = at"
              @keydown.space.prevent="chosen = at"
              >{{ named(said.words) }}</a
            >{{ ' ' }}
          </template>
        </p>
        <span class="quiet small margin">{{ margin(line) }}</span>
      </div>
      <section v-if="found.added.length" aria-label="Added sentences">
        <h3>Added sentences</h3>
        <ul>
          <li v-for="each in found.added" :key="each.words">
            “{{ named(each.words) }}” <span class="quiet small">{{ each.count }} ×</span>
          </li>
        </ul>
      </section>
    </section>
    <aside aria-label="What it says">
      <ProposedChanges
        v-if="me.isAuthor && proposals.length"
        :proposals="proposals"
        :named="named"
        :busy="busy"
        @put="put"
      />
      <section v-if="suggestions.length" aria-label="Suggestions">
        <h3>Worth a look</h3>
        <ul>
          <li v-for="each in suggestions" :key="each.words">
            {{ each.words }} <br /><span class="quiet small">{{ each.evidence }}</span>
          </li>
        </ul>
      </section>
      <SentencePanel
        v-if="sentence"
        :sentence="sentence"
        :named="named"
        :busy="busy"
        @put="put([saidInstead(sentence, $event)])"
      />
      <QuestionsTable :questions="found.questions" />
      <OutcomesTable :outcomes="found.outcomes" />
    </aside>
  </main>
</template>

<style scoped>
.one {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
}
.manuscript {
  overflow: auto;
  padding: 12px 24px 24px;
  border-right: 1px solid var(--hair);
}
aside {
  overflow: auto;
  padding: 16px 24px;
  display: grid;
  align-content: start;
  gap: 20px;
}
.way {
  margin: 0;
}
.line {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 128px;
  gap: 16px;
  align-items: baseline;
}
.line p {
  margin: 6px 0;
  font-family: var(--serif);
  font-size: 1rem;
  line-height: 1.5rem;
}
.sentence {
  color: inherit;
  text-decoration: none;
}
.sentence:hover {
  background: var(--hover);
}
.sentence.changed {
  text-decoration: underline dotted var(--warning);
  text-underline-offset: 4px;
}
.sentence[aria-pressed='true'] {
  background: var(--selected);
}
.margin {
  border-left: 1px solid var(--hair);
  padding-left: 12px;
  min-height: 1.25rem;
}
h2 {
  font: 500 1.25rem/1.75rem var(--serif);
}
h3 {
  font: inherit;
  font-weight: 600;
  margin: 0 0 4px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  border-top: 1px solid var(--hair);
  padding: 6px 0;
}
@media (max-width: 899px) {
  .one {
    grid-template-columns: minmax(0, 1fr);
    overflow: auto;
  }
  .manuscript,
  aside {
    overflow: visible;
    border-right: 0;
    padding: 12px;
  }
  .line {
    grid-template-columns: minmax(0, 1fr) 96px;
  }
}
</style>
