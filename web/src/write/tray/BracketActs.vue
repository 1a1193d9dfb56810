<script setup lang="ts">
/** What can be done with a bracket: the three acts done most, and the others in a menu, with their keys in the outline. */
import { vTip } from '../../ui/controls/tip';
import ActMenu from '../../ui/controls/ActMenu.vue';
import PushButton from '../../ui/controls/PushButton.vue';
import { computed } from 'vue';
import type { Desk } from '../desk/useDesk';
import type { Bracket } from '../editor/brackets';
import { actsOf, shortRow } from '../score/acts';

const props = defineProps<{ desk: Pick<Desk, 'passages'>; bracket: Bracket }>();
const acts = computed(() => shortRow(actsOf(props.desk.passages, props.bracket)));
const menu = computed(() => acts.value.menu.map(({ words, keys, run }) => ({ label: words, keys, command: run })));
</script>

<template>
  <div class="acts" role="group" aria-label="The bracket">
    <PushButton
      size="small"
      v-for="act in acts.row"
      :key="act.id"
      v-tip="`${act.words}: ${act.keys} in the outline`"
      @click="act.run()"
    >
      {{ act.words }}
    </PushButton>
    <ActMenu v-if="menu.length > 0" kind="plain" size="small" label="More" :items="menu" />
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
