<script setup lang="ts">
/** The mailroom: the stand-in for a mail service. What came, what is to go, what went. */
import { Square, SquareCheck } from '@lucide/vue';
import PushButton from '../ui/controls/PushButton.vue';
import { computed, nextTick, onMounted, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api } from '../api/client';
import NoticeLine from '../ui/NoticeLine.vue';
import { useNotice } from '../ui/notice';
import { whenInWords } from '../ui/today';
import AnswerWith from './AnswerWith.vue';
import ClockStrip from './ClockStrip.vue';
import LetterSheet from './LetterSheet.vue';
import OutgoingActs from './OutgoingActs.vue';
import { useChosenSent } from './useChosenSent';
import { STACKS, TITLES, useMailroom, type Item, type Stack } from './useMailroom';

const route = useRoute();
const router = useRouter();
const notice = useNotice();
const { items, outgoing, clock, load, loaded } = useMailroom();
const over = ref(false);
const picking = useChosenSent();
const { chosen: picked, mayChoose, enough } = picking;
const stack = computed((): Stack =>
  (STACKS as readonly string[]).includes(String(route.params.stack)) ? (route.params.stack as Stack) : 'answer',
);
const id = computed(() => String(route.params.id ?? ''));
const all = computed(() => STACKS.flatMap((each) => items.value[each]));
const chosen = computed(() => all.value.find((item) => item.id === id.value && item.stack === stack.value));
const going = computed(() => outgoing.value.find((each) => each.id === id.value));
const shownStacks = ref<Record<Stack, boolean>>({ answer: true, drafts: true, waiting: true, gone: true });

onMounted(async () => {
  notice.clear();
  await load();
  const standing = await api.standingReplies().catch(() => []);
  const off = standing.filter(({ why }) => why !== '');
  if (off.length > 0) switchedOff.value = `“${off.map(({ rule }) => rule.title).join('”, “')}” is off`;
});
/** Which standing replies were switched off by themselves. */
const switchedOff = ref('');
const isPicked = (item: Item): boolean | undefined => (item.stack === 'gone' ? picked.value?.has(item.id) : undefined);
const press = (item: Item): void => (isPicked(item) === undefined ? show(item) : picking.toggle(item.id));
const show = (item: Item): void =>
  void router.replace({ name: 'mailroom', params: { stack: item.stack, id: item.id } });
/** Begins with the newest, from which the arrows go on. */
function beginPicking(): void {
  const [first] = items.value.gone;
  if (first) show(first);
  picking.begin();
}
watch([loaded, () => id.value], async () => {
  const first = (route.params.stack ? items.value[stack.value][0] : undefined) ?? all.value[0];
  if (!loaded.value || id.value !== '' || !first) return;
  show(first);
  await nextTick();
  document.querySelector('.stacks [aria-current="true"]')?.scrollIntoView?.({ block: 'nearest' });
});
/** Arrows go through the stacks as they stand below each other. */
function onKey(event: KeyboardEvent): void {
  const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
  if (step === 0) return;
  event.preventDefault();
  const list = STACKS.flatMap((each) => (shownStacks.value[each] ? items.value[each] : []));
  const next = list[list.findIndex((item) => item.id === id.value && item.stack === stack.value) + step];
  if (!next) return;
  show(next);
  requestAnimationFrame(() => document.querySelector<HTMLElement>('.stacks [aria-current="true"]')?.focus());
}
async function drop(event: DragEvent): Promise<void> {
  over.value = false;
  const files = [...(event.dataTransfer?.files ?? [])];
  try {
    for (const file of files) {
      const { taken, problems } = await api.dropMail(file);
      notice.say(
        `${taken === 1 ? 'One mail' : `${taken} mails`} taken in.${problems.length > 0 ? ` ${problems.join(' ')}` : ''}`,
      );
    }
    await load();
  } catch (problem) {
    notice.fail(problem);
  }
}
async function done(letter: string): Promise<void> {
  try {
    await api.letterDone(letter, true);
    await router.replace({ name: 'mailroom' });
    await load();
    notice.say('Put away: nothing to answer.', async () => {
      await api.letterDone(letter, false);
      await load();
    });
  } catch (problem) {
    notice.fail(problem);
  }
}
</script>

<template>
  <div class="mailroom" @dragover.prevent="over = true" @dragleave.self="over = false" @drop.prevent="drop">
    <header class="head">
      <h1>Mailroom</h1>
      <RouterLink class="small" :to="{ name: 'standing' }"
        >Standing replies<span v-if="switchedOff" class="warning">: {{ switchedOff }}</span></RouterLink
      >
      <ClockStrip v-if="clock" :clock="clock" @changed="load" />
    </header>
    <main class="three" :class="{ over }">
      <nav class="stacks" aria-label="Stacks" @keydown="onKey">
        <section v-for="each in STACKS" :key="each">
          <h2>
            <PushButton
              kind="plain"
              class="title"
              :aria-expanded="shownStacks[each]"
              @click="shownStacks[each] = !shownStacks[each]"
            >
              {{ shownStacks[each] ? '▾' : '▸' }} {{ TITLES[each] }}
              <span class="quiet small">{{ items[each].length || 'nothing' }}</span>
            </PushButton>
          </h2>
          <template v-if="shownStacks[each]">
            <p v-if="each === 'gone' && mayChoose && items.gone.length > 1" class="picking small">
              <PushButton v-if="!picked" kind="plain" size="small" @click="beginPicking"
                >Make a template of some…</PushButton
              >
              <template v-else>
                <span role="status">{{ picked.size || 'None' }} chosen</span>
                <PushButton size="small" :disabled="!enough" @click="picking.compare">Compare them</PushButton>
                <PushButton kind="plain" size="small" @click="picking.end">Cancel</PushButton>
              </template>
            </p>
            <PushButton
              kind="plain"
              v-for="item in items[each]"
              :key="item.id"
              class="item"
              :aria-current="item.id === id && item.stack === stack"
              :aria-pressed="isPicked(item)"
              @click="press(item)"
            >
              <span class="who"
                ><component
                  :is="isPicked(item) ? SquareCheck : Square"
                  v-if="isPicked(item) !== undefined"
                  :size="14"
                  aria-hidden="true"
                />
                {{ item.title }}</span
              ><span class="quiet small right">{{ whenInWords(item.at) }}</span>
              <span class="small words" :class="{ quiet: !item.problem, error: item.problem }"
                >{{ item.problem ? '⚠ ' : '' }}{{ item.words
                }}<template v-if="item.state"> · {{ item.state }}</template></span
              >
            </PushButton>
          </template>
        </section>
      </nav>
      <template v-if="chosen">
        <LetterSheet :key="chosen.id" class="letter" :item="chosen" />
        <AnswerWith
          v-if="chosen.stack === 'answer'"
          :key="`a${chosen.id}`"
          class="side"
          :letter="chosen.id"
          @done="done(chosen.id)"
        />
        <OutgoingActs v-else-if="going" :key="`o${chosen.id}`" class="side" :outgoing="going" @changed="load" />
      </template>
      <p v-else class="quiet empty">
        {{ loaded && all.length === 0 ? 'No mail yet. Mails (.eml, mbox) can be dropped here.' : 'Choose a letter.' }}
      </p>
    </main>
    <footer class="foot">
      <NoticeLine v-if="notice.current" /><span v-else>Mails (.eml, mbox) can be dropped here.</span>
    </footer>
  </div>
</template>

<style scoped>
.mailroom {
  display: flex;
  flex-direction: column;
}
.three {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: 360px minmax(0, 1fr) auto;
}
.over {
  outline: 2px dashed var(--action);
  outline-offset: -4px;
}
.stacks {
  overflow: auto;
  border-right: 1px solid var(--hair);
  padding: 8px 0;
}
.title {
  width: 100%;
  font: inherit;
  font-weight: 600;
  justify-content: flex-start;
}
.picking {
  display: flex;
  gap: 8px;
  align-items: center;
  margin: 0;
  padding: 0 16px 4px 28px;
  white-space: nowrap;
}
.who svg {
  vertical-align: -2px;
}
.item {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  width: 100%;
  height: 48px;
  padding: 4px 16px 4px 28px;
  text-align: left;
  gap: 0 8px;
  align-items: baseline;
  border-radius: 0;
}
.item[aria-current='true'] {
  background: var(--selected);
  box-shadow: inset 3px 0 var(--action);
}
.item:focus-visible,
.title:focus-visible {
  outline-offset: -2px;
}
.who,
.words {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.words {
  grid-column: 1 / -1;
}
.letter {
  min-width: 0;
  overflow: hidden;
}
.side {
  width: 296px;
  border-left: 1px solid var(--hair);
  padding: 16px;
  overflow: auto;
}
@media (max-width: 1099px) {
  .three {
    grid-template-columns: 280px minmax(0, 1fr) auto;
  }
  .side {
    width: 240px;
  }
}
@media (max-width: 899px) {
  .three {
    grid-template-columns: minmax(0, 1fr);
    grid-auto-rows: max-content;
    overflow: auto;
  }
  .stacks {
    max-height: 40vh;
    border-right: 0;
    border-bottom: 1px solid var(--hair);
  }
  .letter {
    height: 60vh;
  }
  .side {
    width: auto;
    border-left: 0;
    border-top: 1px solid var(--hair);
  }
}
</style>
