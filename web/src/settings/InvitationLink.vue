<script setup lang="ts">
/** The link of an invitation, shown once, to be copied. */
import PushButton from '../ui/controls/PushButton.vue';
import { showMoment } from '../ui/dates/reader';
import { useNotice } from '../ui/notice';

const { address } = defineProps<{ name: string; address: string; endsAt: string }>();
defineEmits<{ close: [] }>();
const notice = useNotice();
async function copy(): Promise<void> {
  await navigator.clipboard.writeText(address).then(
    () => notice.say('Link copied.'),
    () => notice.fail(new Error('The link could not be copied. Select it and copy it by hand.')),
  );
}
</script>

<template>
  <section class="sheet link" aria-label="The link">
    <p>
      Give this link to {{ name }}. It is shown only here, works once, and expires on
      {{ showMoment(endsAt, 'figures') }}.
    </p>
    <code>{{ address }}</code>
    <div class="acts">
      <PushButton kind="main" @click="copy">Copy the link</PushButton
      ><PushButton kind="plain" @click="$emit('close')">Done</PushButton>
    </div>
  </section>
</template>

<style scoped>
.link {
  padding: 16px 20px;
  display: grid;
  gap: 8px;
  margin-bottom: 20px;
  max-width: 720px;
}
code {
  overflow-wrap: anywhere;
  user-select: all;
}
.acts {
  display: flex;
  gap: 8px;
}
</style>
