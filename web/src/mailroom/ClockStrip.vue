<script setup lang="ts">
/** The stand-in's own clock: set forward, it lets its made-up recipients get on. */
import PushButton from '../ui/controls/PushButton.vue';
import type { StandInClock } from '@vocabula/contract';
import { computed, ref } from 'vue';
import { api } from '../api/client';
import { useMe } from '../ui/me';
import { showMoment } from '../ui/dates/reader';
import { useNotice } from '../ui/notice';
import ServiceLine from '../ui/ServiceLine.vue';

const props = defineProps<{ clock: StandInClock }>();
const emit = defineEmits<{ changed: [] }>();
const notice = useNotice();
const me = useMe();
const busy = ref(false);
const STEPS = [
  ['an hour', 1],
  ['a day', 24],
  ['a week', 24 * 7],
] as const;
const now = computed(() => showMoment(props.clock.now, 'clock'));
const DID: Readonly<Record<string, string>> = {
  open: 'opened',
  follow: 'followed a link',
  answer: 'answered',
  bounce: 'bounced',
};
async function forward(hours: number): Promise<void> {
  busy.value = true;
  try {
    const { happened } = await api.forwardClock(hours);
    const words = Object.entries(happened).map(([what, number]) => `${number} ${DID[what] ?? what}`);
    notice.say(words.length > 0 ? `Meanwhile ${words.join(', ')}.` : 'Nothing happened in that time.');
    emit('changed');
  } catch (problem) {
    notice.fail(problem);
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <p v-if="clock.standIn" class="strip small" role="group" aria-label="The stand-in’s clock">
    <b>Test mail service: nothing leaves this machine.</b>
    <span class="right"
      >Its clock: {{ now }}, {{ clock.waiting }} things to come.<template v-if="me.isAuthor">
        Move the clock forward by</template
      ></span
    >
    <template v-if="me.isAuthor"
      ><PushButton size="small" v-for="[words, hours] in STEPS" :key="words" :disabled="busy" @click="forward(hours)">
        {{ words }}
      </PushButton></template
    >
  </p>
  <ServiceLine v-else />
</template>

<style scoped>
.strip {
  flex: 1;
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 4px 12px;
  border: 1px dashed var(--edge);
  min-width: 0;
}
button {
  height: 24px;
  padding: 0 8px;
}
@media (max-width: 1099px) {
  .strip b {
    display: none;
  }
}
@media (max-width: 899px) {
  .strip {
    flex-wrap: wrap;
  }
}
</style>
