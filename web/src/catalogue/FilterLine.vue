<script setup lang="ts">
/** A line that filters texts as one types, and below it how it was understood. */
import InputText from 'primevue/inputtext';
import PushButton from '../ui/controls/PushButton.vue';

const typed = defineModel<string>({ required: true });
defineProps<{
  label: string;
  placeholder: string;
  /** The parts of the line that were understood as conditions. */
  understood: readonly string[];
}>();
defineEmits<{ down: [] }>();
</script>

<template>
  <div class="line">
    <InputText
      v-model="typed"
      type="search"
      class="filter"
      :placeholder="placeholder"
      :aria-label="label"
      @keydown.down.prevent="$emit('down')"
    />
    <slot />
  </div>
  <p v-if="understood.length" class="understood small">
    <span v-for="part in understood" :key="part">{{ part }}</span>
    <PushButton kind="plain" size="small" @click="typed = ''">Clear</PushButton>
  </p>
</template>

<style scoped>
.line {
  display: flex;
  flex: none;
  border-bottom: 1px solid var(--hair);
}
.filter {
  flex: 1;
  height: 40px !important;
  padding: 0 16px !important;
  border: 0 !important;
  border-radius: 0;
  background: transparent !important;
  text-overflow: ellipsis;
}
.filter:focus-visible {
  outline-offset: -2px;
}
.understood {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  padding: 2px 8px 2px 16px;
  border-bottom: 1px solid var(--hair);
}
.understood span {
  text-decoration: underline;
  text-decoration-style: dotted;
  text-underline-offset: 3px;
}
.understood button {
  height: 20px;
  margin-left: auto;
}
</style>
