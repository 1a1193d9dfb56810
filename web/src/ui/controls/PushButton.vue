<script setup lang="ts">
/** A button: the one act of a place, a usual one, or a plain one. */
import Button from 'primevue/button';
import { computed } from 'vue';

const { kind = 'usual' } = defineProps<{ kind?: 'main' | 'usual' | 'plain'; size?: 'small' | 'large' }>();
const look = computed(() =>
  kind === 'main' ? {} : { severity: 'secondary', variant: kind === 'plain' ? 'text' : 'outlined' },
);
</script>

<template>
  <Button v-bind="look" :class="{ main: kind === 'main' }" :size="size"><slot /></Button>
</template>
