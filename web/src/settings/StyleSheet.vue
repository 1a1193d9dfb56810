<script setup lang="ts">
/** A made-up message in the style that is being changed, on a light page and on a dark one. */
import PushButton from '../ui/controls/PushButton.vue';
import { compile, render, type House } from '@vocabula/core';
import { readText } from '@vocabula/core/markdown';
import { computed, ref } from 'vue';
import { lookOf } from '../ui/look';
import ProofFrame from '../ui/ProofFrame.vue';
import { today, zone } from '../ui/today';
import { sampleSource } from './sample';

const props = defineProps<{ house: House }>();
const dark = ref(false);
const shown = computed(() => {
  const { document } = readText(sampleSource(Object.keys(props.house.style.colours)));
  const program = compile({ name: 'sample', document }, { library: { get: () => undefined }, house: props.house });
  return {
    fragment: render(program, { today: today(), zone: zone() }, { proof: true }).fragment,
    look: lookOf(program),
  };
});
</script>

<template>
  <section class="sample" aria-label="How a message looks">
    <div class="acts">
      <PushButton
        kind="plain"
        size="small"
        v-for="each in [false, true]"
        :key="String(each)"
        :aria-pressed="dark === each"
        @click="dark = each"
      >
        {{ each ? 'dark' : 'light' }}
      </PushButton>
    </div>
    <div class="sheet page" :class="{ dark }">
      <ProofFrame :fragment="shown.fragment" v-bind="shown.look" :dark="dark" title="How a message looks" />
    </div>
  </section>
</template>

<style scoped>
.sample {
  position: sticky;
  top: 0;
}
.page {
  height: 560px;
  padding: 20px 24px;
}
.page.dark {
  background: #1b1d21;
}
.acts [aria-pressed='true'] {
  font-weight: 600;
  box-shadow: inset 0 -2px var(--action);
}
</style>
