<script setup lang="ts">
/** Somebody else saved in the meantime: what differs, part by part, and a choice that loses neither side. */
import RadioButton from 'primevue/radiobutton';
import PushButton from '../../ui/controls/PushButton.vue';
import type { Taken } from '@vocabula/core/together';
import { computed, toRef } from 'vue';
import ModalDialog from '../../ui/controls/ModalDialog.vue';
import ComparedWords from '../../ui/ComparedWords.vue';
import { command, keyOf } from '../../ui/keys';
import type { Clash, Settled } from '../useWorkingCopy';
import { useSettling, whereInWords } from './settle';

const props = defineProps<{ clash: Clash }>();
const emit = defineEmits<{ settle: [settled: Settled] }>();
const { differences, taken, choose, chooseAll, open, settled } = useSettling(toRef(props, 'clash'));

const SIDES: readonly [Taken, string][] = [
  ['yours', 'Yours'],
  ['theirs', 'Theirs'],
  ['both', 'Both, yours first'],
];
const sidesOf = (place: string): readonly [Taken, string][] => (place === 'body' ? SIDES : SIDES.slice(0, 2));
const copies = computed(() => {
  if (open.value > 0) return 'What is not chosen is kept as a copy.';
  const { losesMine, losesTheirs } = settled.value;
  if (losesMine && losesTheirs) return 'Both texts as they are now are kept as copies.';
  if (losesMine) return 'Yours as it is now is kept as a copy.';
  return losesTheirs ? 'Theirs as it is now is kept as a copy.' : 'Nothing is lost: every change of both is in it.';
});
function onKey(event: KeyboardEvent): void {
  if (keyOf(event)?.id !== 'hand-over') return;
  event.preventDefault();
  event.stopPropagation();
  if (open.value === 0) emit('settle', settled.value);
}
/** So long after it was shown, and after a key that was typed on, a key is meant for it, in milliseconds. */
const PAUSE = 600;
let quietSince = Infinity;
/** Whoever is typing when it comes goes on for a moment: what they type chooses nothing. */
function withoutTyping(event: KeyboardEvent): void {
  const now = performance.now();
  // A chord is nothing that one types on with.
  if (now - quietSince >= PAUSE || ((event.ctrlKey || event.metaKey) && quietSince < Infinity)) return;
  quietSince = now;
  event.preventDefault();
  event.stopPropagation();
}
/** The first choice to be made, or the button where none is. */
function focusFirst(): void {
  quietSince = performance.now();
  document.querySelector<HTMLElement>('.clash .undecided input, .clash-foot .main')?.focus();
}
</script>

<template>
  <ModalDialog
    header="This text was saved from somewhere else"
    width="960px"
    :closable="false"
    @keydown.capture="withoutTyping"
    @keydown="onKey"
    @shown="focusFirst"
  >
    <div class="clash">
      <p>
        {{ differences.length }} {{ differences.length === 1 ? 'part differs' : 'parts differ' }}.
        <template v-if="open"
          ><strong>{{ open }}</strong> {{ open === 1 ? 'was' : 'were' }} changed on both sides; choose.</template
        >
      </p>
      <div class="all">
        <PushButton size="small" @click="chooseAll('yours')">Yours everywhere</PushButton>
        <PushButton size="small" @click="chooseAll('theirs')">Theirs everywhere</PushButton>
      </div>
      <section
        v-for="(difference, index) in differences"
        :key="index"
        class="difference"
        :class="{ undecided: taken[index] === undefined }"
        :aria-label="whereInWords(difference)"
      >
        <h2>
          {{ whereInWords(difference) }}
          <span v-if="difference.decided" class="quiet small"
            >· only {{ difference.decided === 'yours' ? 'you' : 'they' }} changed this</span
          >
        </h2>
        <div
          v-for="side in ['yours', 'theirs'] as const"
          :key="side"
          class="side"
          :data-side="side === 'yours' ? 'Yours' : 'Theirs'"
          :class="{ passed: taken[index] !== undefined && taken[index] !== side && taken[index] !== 'both' }"
        >
          <ComparedWords
            :left="difference.yours"
            :right="difference.theirs"
            :side="side === 'yours' ? 'left' : 'right'"
          />
          <p v-if="difference[side].length === 0" class="quiet small">nothing here</p>
        </div>
        <div class="choice" role="radiogroup" :aria-label="`${whereInWords(difference)}: which to take`">
          <label v-for="[side, words] in sidesOf(difference.in)" :key="side"
            ><RadioButton
              :name="`difference-${index}`"
              :value="true"
              :model-value="taken[index] === side"
              @change="choose(index, side)"
            />
            {{ words }}</label
          >
        </div>
      </section>
    </div>
    <template #footer>
      <div class="clash-foot">
        <p class="small quiet">{{ copies }}</p>
        <PushButton kind="main" :disabled="open > 0" @click="emit('settle', settled)">
          Go on with this text <kbd>{{ command }} Enter</kbd>
        </PushButton>
      </div>
    </template>
  </ModalDialog>
</template>

<style scoped>
.clash {
  max-height: 58vh;
  overflow: auto;
  padding-right: 8px;
}
.all {
  display: flex;
  gap: 8px;
  margin: 8px 0 4px;
}
.difference {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 4px 24px;
  padding: 12px 0 12px 12px;
  border-top: 1px solid var(--hair);
  border-left: 3px solid transparent;
}
.difference.undecided {
  border-left-color: var(--warning);
}
.difference h2,
.choice {
  grid-column: 1 / -1;
}
.side::before {
  content: attr(data-side);
  display: block;
  color: var(--quiet);
  font-size: 0.75rem;
}
.side.passed {
  color: var(--quiet);
}
.choice {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 20px;
}
.clash-foot {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 16px;
  width: 100%;
}
</style>
