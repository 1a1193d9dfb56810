<script setup lang="ts">
/** The rules in the order in which they are asked. */
import type { StandingReply } from '@vocabula/contract';
import PushButton from '../ui/controls/PushButton.vue';
import { stateWords } from './standingWords';

const { replies, chosen } = defineProps<{ replies: readonly StandingReply[]; chosen: string }>();
const emit = defineEmits<{ choose: [id: string]; move: [id: string, by: 'up' | 'down'] }>();
</script>

<template>
  <nav aria-label="Standing replies">
    <ul class="rows">
      <li v-for="(each, at) in replies" :key="each.id" class="line">
        <PushButton
          kind="plain"
          class="row which"
          :aria-current="each.id === chosen ? 'true' : undefined"
          @click="emit('choose', each.id)"
        >
          <span class="title">{{ each.rule.title }}</span>
          <span class="small state" :class="each.why ? 'warning' : 'quiet'"
            >{{ each.why ? '‸ ' : '' }}{{ stateWords(each) }}</span
          >
        </PushButton>
        <PushButton
          v-if="at > 0"
          kind="plain"
          size="small"
          :aria-label="`Ask ${each.rule.title} before the one above`"
          @click="emit('move', each.id, 'up')"
          >↑</PushButton
        >
      </li>
    </ul>
  </nav>
</template>

<style scoped>
nav {
  padding-top: 8px;
}
.line {
  display: flex;
  align-items: center;
}
.which {
  flex: 1;
  min-width: 0;
  display: grid;
  justify-content: start;
  justify-items: start;
  height: auto;
  padding: 6px 20px;
  border-radius: 0;
  gap: 0;
  text-align: left;
  white-space: normal;
}
.which[aria-current='true'] {
  background: var(--selected);
  box-shadow: inset 3px 0 var(--action);
}
.title {
  font-weight: 500;
}
</style>
