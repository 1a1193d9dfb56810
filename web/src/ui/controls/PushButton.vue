<script setup lang="ts">
/** A button: the one act of a place, a usual one, or a plain one. What may not be pressed says why on focus. */
import Button from 'primevue/button';
import { computed } from 'vue';

const { kind = 'usual', why = '' } = defineProps<{
  kind?: 'main' | 'usual' | 'plain';
  size?: 'small' | 'large';
  why?: string;
}>();
const look = computed(() =>
  kind === 'main' ? {} : { severity: 'secondary', variant: kind === 'plain' ? 'text' : 'outlined' },
);
</script>

<template>
  <Button
    v-bind="look"
    :class="{ main: kind === 'main' }"
    :size="size"
    :aria-disabled="why ? true : undefined"
    :title="why || undefined"
    ><slot
  /></Button>
</template>
