<script setup lang="ts">
/** What the text would begin as. */
import { compile, render, type Kind, type TextDocument } from '@vocabula/core';
import { computed } from 'vue';
import { useHouse } from '../../ui/house';
import { lookOf } from '../../ui/look';
import ProofFrame from '../../ui/ProofFrame.vue';
import { today, zone } from '../../ui/today';

const props = defineProps<{ document: TextDocument; kind: Kind }>();
/** Who it goes to is not known yet: fields are shown by what they are. */
const SOMEBODY = { first_name: '[First name]', last_name: '[Last name]', name: '[Name]' };
const house = useHouse();
const shown = computed(() => {
  const program = compile(
    { name: 'start', document: props.document },
    { library: { get: () => undefined }, house: house.house },
  );
  return {
    message: render(program, { recipient: SOMEBODY, today: today(), zone: zone() }, { proof: true }),
    look: lookOf(program),
  };
});
</script>

<template>
  <section class="sheet page" aria-label="Preview of the new text">
    <p v-if="kind === 'message'" class="subject">{{ shown.message.subject || 'no subject yet' }}</p>
    <p v-if="kind === 'message' && shown.message.attachments.length > 0" class="quiet small">
      {{ shown.message.attachments.map((file) => file.name).join(', ') }}
    </p>
    <ProofFrame class="words" :fragment="shown.message.fragment" v-bind="shown.look" title="Preview of the new text" />
  </section>
</template>

<style scoped>
.page {
  padding: 20px 24px;
  display: flex;
  flex-direction: column;
  gap: 8px;
  height: 560px;
}
.subject {
  font-weight: 600;
}
.words {
  flex: 1;
}
</style>
