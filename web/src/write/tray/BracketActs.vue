<script setup lang="ts">
/** What can be done with a bracket, as buttons with the keys that do it in the outline. */
import { vTip } from '../../ui/controls/tip';
import PushButton from '../../ui/controls/PushButton.vue';
import { computed } from 'vue';
import type { Desk } from '../desk/useDesk';
import type { Bracket } from '../editor/brackets';
import { actsOf } from '../score/acts';

const props = defineProps<{ desk: Pick<Desk, 'passages'>; bracket: Bracket }>();
const acts = computed(() => actsOf(props.desk.passages, props.bracket));
</script>

<template>
  <div class="acts" role="group" aria-label="The bracket">
    <PushButton
      size="small"
      v-for="act in acts"
      :key="act.id"
      v-tip="`${act.words}: ${act.keys} in the outline`"
      @click="act.run()"
    >
      {{ act.words }}
    </PushButton>
  </div>
</template>

<style scoped>
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
}
button {
  height: 28px;
  padding: 0 8px;
}
</style>
