<script setup lang="ts">
/** Shown beside the list while no text is chosen: what to do next. */
import type { TextSummary } from '@vocabula/contract';
import { computed } from 'vue';
import { useAtHand } from '../ui/atHand';
import { showMoment } from '../ui/dates/reader';
import { whenInWords } from '../ui/today';
import type { Catalogue } from './useCatalogue';

const { catalogue } = defineProps<{ catalogue: Catalogue }>();
const { me, texts, overdue, requests } = catalogue;
/** At most this many texts in a group. */
const GROUP_SIZE = 6;
const atHand = useAtHand();
void atHand.load();

const latest = (list: readonly TextSummary[], by: (text: TextSummary) => string): TextSummary[] =>
  list.toSorted((a, b) => by(b).localeCompare(by(a))).slice(0, GROUP_SIZE);
const changed = computed(() =>
  latest(
    texts.value.filter(({ binned, mayWrite }) => !binned && mayWrite),
    ({ updatedAt }) => updatedAt,
  ),
);
const used = computed(() =>
  latest(
    texts.value.filter(({ binned, offered, lastUsed }) => !binned && offered && lastUsed !== undefined),
    ({ lastUsed }) => lastUsed ?? '',
  ),
);
const waiting = computed(() => requests.value.filter(({ mine, state }) => !mine && state === 'open'));
const near = computed(() => texts.value.filter(({ name, binned }) => !binned && atHand.has(name)));
interface Group {
  readonly title: string;
  readonly texts: readonly TextSummary[];
  readonly says: (text: TextSummary) => string;
}
const groups = computed((): Group[] =>
  [
    {
      title: 'Review due',
      texts: overdue.value,
      says: ({ reviewBy }: TextSummary) => `by ${reviewBy ? showMoment(`${reviewBy}T12:00`, 'day') : ''}`,
    },
    { title: 'Recently changed', texts: changed.value, says: ({ updatedAt }: TextSummary) => whenInWords(updatedAt) },
    { title: 'At hand', texts: near.value, says: ({ call }: TextSummary) => call ?? '' },
    {
      title: 'Recently used',
      texts: me.isAuthor ? [] : used.value,
      says: ({ lastUsed }: TextSummary) => whenInWords(lastUsed ?? ''),
    },
  ].filter((group) => group.texts.length > 0),
);
</script>

<template>
  <div class="next">
    <p class="quiet small">
      Choose a text to read it here. <kbd>Enter</kbd> {{ me.isAuthor ? 'opens it in Write' : 'fills it' }};
      <kbd>Space</kbd> chooses several.
    </p>
    <section v-if="waiting.length > 0" aria-label="Requests for you">
      <h2>Requests for you</h2>
      <RouterLink class="each" :to="{ name: 'catalogue', query: { view: 'asked' } }"
        >{{ waiting.length }} {{ waiting.length === 1 ? 'request' : 'requests' }} to publish</RouterLink
      >
    </section>
    <section v-for="group in groups" :key="group.title" :aria-label="group.title">
      <h2>{{ group.title }}</h2>
      <ul>
        <li v-for="text in group.texts.slice(0, GROUP_SIZE)" :key="text.name">
          <RouterLink class="each" :to="{ name: 'catalogue', params: { name: text.name }, query: $route.query }">{{
            text.title
          }}</RouterLink><span class="quiet small">{{ group.says(text) }}</span>
        </li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
.next {
  display: grid;
  gap: 20px;
}
h2 {
  font: inherit;
  font-weight: 600;
  padding-bottom: 4px;
  border-bottom: 1px solid var(--hair);
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  align-items: baseline;
  border-bottom: 1px solid var(--hair);
}
.each {
  color: inherit;
  text-decoration: none;
  padding: 6px 0;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.each:hover {
  text-decoration: underline;
}
li span {
  flex: none;
}
</style>
