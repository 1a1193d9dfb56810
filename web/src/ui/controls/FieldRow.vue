<script setup lang="ts">
/** A label over its control, with help or a problem below; gives the control the ids that tie them together. */
import { computed, useId } from 'vue';

const { problem = '', help = '' } = defineProps<{ label: string; problem?: string | undefined; help?: string }>();
const id = useId();
const describedBy = computed(() => (problem || help ? `${id}-says` : undefined));
</script>

<template>
  <div class="field-row">
    <label :id="`${id}-label`" :for="id"
      ><slot name="label">{{ label }}</slot></label
    >
    <slot :id="id" :labelled-by="`${id}-label`" :described-by="describedBy" :invalid="!!problem" />
    <p v-if="problem" :id="`${id}-says`" class="error small">⚠ {{ problem }}</p>
    <p v-else-if="help" :id="`${id}-says`" class="quiet small">{{ help }}</p>
  </div>
</template>

<style scoped>
label {
  display: block;
  font-size: 0.8125rem;
  line-height: 1.25rem;
  margin-bottom: 2px;
  color: var(--quiet);
}
</style>
