<script setup lang="ts">
/** The head of one part of Settings, with the button that keeps it; of the house also where it stands. */
import { HOUSE_NAME } from '@vocabula/contract/constants';
import { useHouse } from '../ui/house';
import PushButton from '../ui/controls/PushButton.vue';

withDefaults(
  defineProps<{
    title: string;
    about: string;
    /** Whether there is something to keep; left out where each act is kept by itself. */
    changed?: boolean | undefined;
    house?: boolean;
  }>(),
  { changed: undefined },
);
const stored = useHouse();
const emit = defineEmits<{ save: [] }>();
</script>

<template>
  <header class="part-head">
    <h2>{{ title }}</h2>
    <span class="quiet small">{{ about }} <slot name="about" /></span>
    <slot />
    <PushButton v-if="changed !== undefined" kind="main" class="right" :disabled="!changed" @click="emit('save')"
      >Save</PushButton
    >
    <template v-if="house && (stored.stored?.revision ?? 0) > 0">
      <RouterLink class="small" :to="{ name: 'versions', params: { name: HOUSE_NAME } }">{{
        stored.stored?.version ? `version ${stored.stored.version} is in use` : 'not published yet'
      }}</RouterLink>
      <RouterLink v-slot="{ navigate }" :to="{ name: 'publish', params: { name: HOUSE_NAME } }" custom
        ><PushButton :disabled="changed" @click="navigate()">Publish…</PushButton></RouterLink
      >
    </template>
  </header>
</template>

<style scoped>
.part-head {
  display: flex;
  align-items: center;
  gap: 12px;
  margin-bottom: 16px;
}
h2 {
  font: 500 1.125rem/1.5rem var(--serif);
}
</style>
