<script setup lang="ts">
/** The moments of a history; two of them are compared: a press chooses the newer, its mark the older. */
import PushButton from '../ui/controls/PushButton.vue';
import type { Version } from '@vocabula/contract';
import { showMoment } from '../ui/dates/reader';

export interface Moment {
  readonly state: string;
  readonly title: string;
  readonly words: string;
  readonly by?: string;
  /** When; of the working copy something later than everything. */
  readonly at: string;
  readonly version?: Version;
  /** Whether colleagues use it. */
  readonly used?: boolean;
}
const { moments, before, after } = defineProps<{ moments: readonly Moment[]; before: string; after: string }>();
const emit = defineEmits<{ compare: [change: { before?: string; after?: string }] }>();

function onKey(event: KeyboardEvent): void {
  const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
  const at = moments.findIndex(({ state }) => state === after);
  const next = moments[at + step];
  if (step === 0 || !next) return;
  event.preventDefault();
  emit('compare', { after: next.state });
}
</script>

<template>
  <ul class="rows" aria-label="History" @keydown="onKey">
    <li v-for="moment in moments" :key="moment.state" class="moment" :class="{ selected: moment.state === after }">
      <button class="row" :aria-current="moment.state === after" @click="emit('compare', { after: moment.state })">
        <span
          ><strong>{{ moment.title }}</strong
          ><span v-if="moment.used" class="small used"> colleagues use it</span
          ><span v-if="moment.version?.withdrawn" class="small warning"> withdrawn</span></span
        >
        <span class="words small">{{ moment.words }}</span>
        <span v-if="moment.by" class="quiet small words"
          >{{ moment.by }} · {{ showMoment(moment.at, 'figures')
          }}<template v-if="moment.version?.sent"> · {{ moment.version.sent }} sent</template></span
        >
      </button>
      <PushButton
        kind="plain"
        size="small"
        class="beside"
        :aria-pressed="moment.state === before"
        @click="emit('compare', { before: moment.state })"
      >
        {{ moment.state === before ? 'compared' : 'compare' }}<span class="unseen"> with {{ moment.title }}</span>
      </PushButton>
    </li>
  </ul>
</template>

<style scoped>
.moment {
  position: relative;
}
.row {
  display: grid;
  padding: 8px 92px 8px 16px;
}
.row strong {
  font-weight: 500;
}
.words {
  overflow-wrap: anywhere;
}
.used {
  color: var(--action);
}
.beside {
  position: absolute;
  right: 8px;
  top: 6px;
  height: 24px;
}
.beside[aria-pressed='true'] {
  font-weight: 600;
  text-decoration: underline;
}
</style>
