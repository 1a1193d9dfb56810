<script setup lang="ts">
/** The rules in the order in which they are asked. */
import type { StandingReply } from '@vocabula/contract';
import PushButton from '../ui/controls/PushButton.vue';
import { stateWords } from './standingWords';

const { replies, chosen } = defineProps<{ replies: readonly StandingReply[]; chosen: string }>();
const emit = defineEmits<{ move: [id: string, by: 'up' | 'down'] }>();
</script>

<template>
  <nav aria-label="Standing replies">
    <ul class="rows">
      <li v-for="(each, at) in replies" :key="each.id" class="line">
        <RouterLink
          class="row which"
          :to="{ name: 'standing', params: { id: each.id } }"
          :aria-current="each.id === chosen ? 'true' : undefined"
          replace
        >
          <span class="title">{{ each.rule.title }}</span>
          <span class="small state" :class="each.why ? 'warning' : 'quiet'"
            >{{ each.why ? '‸ ' : '' }}{{ stateWords(each) }}</span
          >
        </RouterLink>
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
  height: auto;
  padding: 6px 20px;
  gap: 0;
}
.title {
  font-weight: 500;
}
</style>
