<script setup lang="ts">
/** The small mark of a variable's type: one family, drawn here. */
import type { TypeName } from '@vocabula/core';

defineProps<{ type: TypeName | 'field' | 'fact' }>();
const PATHS: Partial<Record<TypeName | 'field' | 'fact', string>> = {
  text: 'M2 12 5.5 4 9 12M3.200 9.300h4.600M10.500 9.800a2 2 0 1 0 4 0 2 2 0 1 0-4 0M14.500 7.500V12',
  paragraphs: 'M3 4h10M3 8h10M3 12h6',
  number: 'M3 5l2-1v8M8.500 5.500a2 2 0 1 1 3.400 1.400L8.500 12H13',
  money: 'M13 4.500A5 5 0 1 0 13 11.500M2.500 7H10M2.500 9.300H9',
  date: 'M2.500 4h11v9.500h-11zM2.500 7h11M5.500 2.500v3M10.500 2.500v3',
  'yes-no': 'M2.500 8.500l3 3 4-7M11 5l3 6M14 5l-3 6',
  choice: 'M8 14 3 4.500M8 14V3M8 14l5-9.500',
  choices: 'M8 14 2.500 6M8 14 6 3.500M8 14l2-10.500M8 14l5.500-8',
  email:
    'M8 8m-2.500 0a2.500 2.500 0 1 0 5 0 2.500 2.500 0 1 0-5 0M10.500 5.500v3.200a1.700 1.700 0 0 0 3.300 0A6 6 0 1 0 11.500 13',
  phone:
    'M4 2.500h3l1 3.500-2 1.500a8 8 0 0 0 3 3l1.500-2 3 1V13a1.500 1.500 0 0 1-2 .5C7 12.500 3.500 9 3 4.500A1.500 1.500 0 0 1 4 2.500z',
  link: 'M7 9l3-3M6.500 6 8.500 4a2.500 2.500 0 0 1 3.500 3.500l-2 2M9.500 10l-2 2A2.500 2.500 0 0 1 4 8.500l2-2',
  list: 'M2.500 3.500h11v9h-11zM2.500 6.500h11M6.500 3.500v9M2.500 9.500h11',
  field: 'M8 7.500a2.500 2.500 0 1 0 0-5 2.500 2.500 0 0 0 0 5zM3 14c.500-3 2.500-4.500 5-4.500s4.500 1.500 5 4.500',
  fact: 'M3 13.500V6l5-3.500L13 6v7.500zM6.500 13.500V9.500h3v4',
};
</script>

<template>
  <svg class="type-mark" viewBox="0 0 16 16" aria-hidden="true"><path :d="PATHS[type] ?? PATHS.text" /></svg>
</template>

<style scoped>
.type-mark {
  width: 16px;
  height: 16px;
  flex: none;
  fill: none;
  stroke: var(--quiet);
  stroke-width: 1.5;
  stroke-linecap: round;
  stroke-linejoin: round;
}
</style>
