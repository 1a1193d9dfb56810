<script setup lang="ts">
/** Title bar of Fill: the template, its recipient, its state and what can be added to the message. */
import { useMediaQuery } from '@vueuse/core';
import ActMenu from '../ui/controls/ActMenu.vue';
import PushButton from '../ui/controls/PushButton.vue';
import { computed } from 'vue';
import { useAtHand } from '../ui/atHand';
import { keepingWords } from '../ui/keeper';
import { languageName } from '../ui/languageName';
import { useNotice } from '../ui/notice';
import type { Filling } from './useFill';

const props = defineProps<{ filling: Filling }>();
const emit = defineEmits<{ panel: [which: 'stitch' | 'answer'] }>();
const { fill, recipient, keeping, program } = props.filling;
const atHand = useAtHand();
const notice = useNotice();
void atHand.load();

const who = computed(() => {
  const { first_name, last_name, organisation } = recipient.value;
  const name = [first_name, last_name].filter(Boolean).join(' ') || recipient.value.name;
  return [name, organisation].filter(Boolean).join(' · ');
});
const language = computed(() => {
  const locale = program.value?.locale;
  return locale ? languageName(locale) : '';
});
const kept = computed(() => keepingWords(keeping.value));
const isNear = computed(() => fill.value !== undefined && atHand.has(fill.value.text));
async function near(): Promise<void> {
  if (!fill.value) return;
  try {
    notice.say(await atHand.toggle(fill.value.text));
  } catch (problem) {
    notice.fail(problem);
  }
}
/** Actions on the message: a row of buttons, or one menu on narrow screens. */
const narrow = useMediaQuery('(max-width: 899px)');
const acts = computed(() => [
  { label: 'Answering…', command: () => emit('panel', 'answer') },
  { label: 'Stitch…', command: () => emit('panel', 'stitch') },
  { label: isNear.value ? 'At hand ✓' : 'Keep at hand', command: near, pressed: isNear.value },
]);
</script>

<template>
  <header class="head">
    <h1>{{ fill?.title ?? 'Fill' }}</h1>
    <span v-if="who" class="quiet small who">for {{ who }}</span>
    <template v-if="fill">
      <ActMenu v-if="narrow" class="right" label="More" :items="acts" />
      <PushButton
        v-for="(act, index) in narrow ? [] : acts"
        :key="index"
        kind="plain"
        :class="{ right: index === 0 }"
        :aria-pressed="act.pressed"
        @click="act.command"
        >{{ act.label }}</PushButton
      >
      <span class="quiet small version">{{ fill.version ? `version ${fill.version} · ` : '' }}{{ language }}</span>
      <span class="quiet small kept" role="status">{{ kept }}</span>
    </template>
  </header>
</template>

<style scoped>
.who {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.version,
.kept {
  white-space: nowrap;
}
.kept {
  min-width: 52px;
}
@media (max-width: 899px) {
  .head {
    padding: 4px 12px;
    gap: 8px;
  }
  h1 {
    min-width: 0;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
}
@media (max-width: 599px) {
  .version {
    display: none;
  }
}
</style>
