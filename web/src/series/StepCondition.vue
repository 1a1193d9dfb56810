<script setup lang="ts">
/** When a step goes at all: one of the usual conditions, or an expression of one's own. */
import InputText from 'primevue/inputtext';
import { computed, ref, watch } from 'vue';
import FieldRow from '../ui/controls/FieldRow.vue';
import PickOne from '../ui/controls/PickOne.vue';

const { when, problem } = defineProps<{ when: string | undefined; problem: string }>();
const emit = defineEmits<{ change: [when: string | undefined] }>();
const ALWAYS = 'always';
const OWN = 'own';
const USUAL: readonly (readonly [when: string, words: string])[] = [
  [ALWAYS, 'always'],
  ['followed', 'if a link was followed'],
  ['!followed', 'if no link was followed'],
  ['opened', 'if a message was opened'],
  ['!opened', 'if no message was opened'],
  ['answered', 'if a message was answered'],
  ['!answered', 'if no message was answered'],
];
const OPTIONS = [
  ...USUAL.map(([value, words]) => ({ value, words })),
  { value: OWN, words: 'on a condition of its own' },
];
/** An expression stays open while it is written, also where it says what one of the list does. */
const isWriting = ref(false);
const typed = ref(when ?? '');
watch(
  () => when,
  (now = '') => {
    // Another step stands here now, or somebody else has changed it.
    if (now !== typed.value.trim()) isWriting.value = false;
    typed.value = now;
  },
);
const chosen = computed(() => {
  const value = when ?? ALWAYS;
  return isWriting.value || !USUAL.some(([usual]) => usual === value) ? OWN : value;
});
function choose(value: string): void {
  isWriting.value = value === OWN;
  if (value !== OWN) emit('change', value === ALWAYS ? undefined : value);
}
</script>

<template>
  <div class="when">
    <PickOne
      label="Condition"
      class="condition"
      :model-value="chosen"
      :options="OPTIONS"
      @update:model-value="choose"
    />
    <slot />
  </div>
  <FieldRow
    v-if="chosen === OWN"
    v-slot="{ id, describedBy, invalid }"
    label="It goes if"
    :problem="problem"
    help="Over the values of the series, and answered, followed, opened: party > 10 && !answered"
  >
    <InputText
      :id="id"
      v-model="typed"
      class="own"
      :invalid="invalid"
      :aria-describedby="describedBy"
      spellcheck="false"
      @change="emit('change', typed.trim() || undefined)"
    />
  </FieldRow>
</template>

<style scoped>
.when {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  align-items: center;
}
.when > :deep(.p-select) {
  width: auto;
  min-width: 220px;
}
.own {
  width: 100%;
  font-family: monospace;
}
</style>
