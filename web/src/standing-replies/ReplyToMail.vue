<script setup lang="ts">
/** A mail of the past, and how it would have been answered. */
import type { ShownMessage } from '@vocabula/contract';
import { ref } from 'vue';
import LetterSheet from '../mailroom/LetterSheet.vue';
import PushButton from '../ui/controls/PushButton.vue';
import { WHOLE_LOOK } from '../ui/look';
import MessagePaper from '../ui/MessagePaper.vue';
import { pageBody } from '../ui/pageBody';

defineProps<{ letter: string; message: ShownMessage | undefined }>();
const shown = ref<'reply' | 'mail'>('reply');
const SIDES = [
  ['reply', 'The reply'],
  ['mail', 'The mail'],
] as const;
</script>

<template>
  <section aria-label="The reply">
    <template v-if="letter">
      <p class="sides" role="group" aria-label="What is shown">
        <PushButton
          v-for="[side, words] in SIDES"
          :key="side"
          :kind="shown === side ? 'usual' : 'plain'"
          size="small"
          :aria-pressed="shown === side"
          @click="shown = side"
          >{{ words }}</PushButton
        >
      </p>
      <LetterSheet v-if="shown === 'mail'" :key="letter" class="letter" :item="{ id: letter, stack: 'answer' }" />
      <MessagePaper
        v-else-if="message"
        class="paper"
        :subject="message.subject"
        :blanks="message.blanks"
        :fragment="pageBody(message.html)"
        :look="WHOLE_LOOK"
      />
    </template>
    <p v-else class="quiet">What it would have answered is shown here.</p>
  </section>
</template>

<style scoped>
section {
  padding: 12px 20px 20px;
  display: flex;
  flex-direction: column;
  gap: 8px;
}
.sides {
  display: flex;
  align-items: center;
  gap: 4px;
  margin: 0;
}
.letter,
.paper {
  flex: 1;
}
.letter {
  padding: 0;
}
</style>
