<script setup lang="ts">
/** One line about the mail service where it matters: none is set up, a stand-in takes the mail, or sending is paused. */
import { computed } from 'vue';
import { showMoment } from './dates/reader';
import { useService } from './service';

const { service } = useService();
const line = computed((): { readonly words: string; readonly problem: boolean } | undefined => {
  const { value: now } = service;
  if (!now) return undefined;
  if (now.kind === 'none')
    return { words: 'No mail service is set up. Messages can be copied, but not sent from here.', problem: true };
  if (now.pause) {
    const { why, until, everybody } = now.pause;
    const whose = everybody ? 'Sending is paused' : 'Sending from your address is paused';
    return { words: `${whose}. ${why} It is tried again at ${showMoment(until, 'seconds')}.`, problem: true };
  }
  if (now.mailbox?.reading === false) return { words: now.mailbox.why, problem: true };
  return now.kind === 'stand-in'
    ? { words: 'Test mail service: nothing leaves this machine.', problem: false }
    : undefined;
});
</script>

<template>
  <p v-if="line" class="service small" :class="{ warning: line.problem, quiet: !line.problem }" role="status">
    {{ line.problem ? '‸ ' : '' }}{{ line.words }}
  </p>
</template>

<style scoped>
.service {
  margin: 0;
  min-width: 0;
}
</style>
