<script setup lang="ts">
/** What can be done with a variable as a whole: step through its places, merge it, take it out. */
import RadioButton from 'primevue/radiobutton';
import PickOne from '../../ui/controls/PickOne.vue';
import PushButton from '../../ui/controls/PushButton.vue';
import { labelFromKey, type Variable } from '@vocabula/core';
import { computed, ref } from 'vue';
import type { Desk } from '../desk/useDesk';

const props = defineProps<{
  desk: Pick<Desk, 'checkpoint' | 'going' | 'manuscript' | 'proof' | 'tray'>;
  variable: Variable;
}>();
const { tray, manuscript, going, proof } = props.desk;
const doing = ref<'merge' | 'remove'>();
const into = ref('');
const left = ref<'name' | 'value' | 'nothing'>('name');
const passages = ref<'unwrap' | 'out'>('unwrap');
const label = computed(() => props.variable.label ?? labelFromKey(props.variable.key));
const places = computed(() => manuscript.places.value.get(props.variable.key) ?? 0);
const governs = computed(() =>
  manuscript.uses.value.some(({ key, kind }) => key === props.variable.key && kind === 'passage'),
);
const others = computed(() =>
  manuscript.variables.value.filter(({ key, type }) => key !== props.variable.key && type === props.variable.type),
);
const merging = computed(() => (into.value ? tray.merged(props.variable.key, into.value) : undefined));
const value = computed(() => proof.values.value.get(props.variable.key)?.words ?? '');
async function merge(): Promise<void> {
  await props.desk.checkpoint('merge');
  merging.value?.apply();
}
function remove(): void {
  const words = { name: label.value, value: value.value, nothing: '' }[left.value];
  tray.remove(props.variable, { words, passages: passages.value });
}
</script>

<template>
  <div class="wide acts">
    <PushButton :disabled="places === 0" @click="going.stepTo(variable.key, true)">‹</PushButton>
    <PushButton :disabled="places === 0" @click="going.stepTo(variable.key)">Next place ›</PushButton>
    <PushButton
      kind="plain"
      v-if="others.length > 0"
      :aria-expanded="doing === 'merge'"
      @click="doing = doing === 'merge' ? undefined : 'merge'"
    >
      Merge
    </PushButton>
    <PushButton
      kind="plain"
      class="right"
      :aria-expanded="doing === 'remove'"
      @click="doing = doing === 'remove' ? undefined : 'remove'"
    >
      Remove
    </PushButton>
  </div>
  <div v-if="doing === 'merge'" class="wide panel">
    <label class="field"
      ><span>becomes one with</span
      ><PickOne v-model="into">
        <option value="" disabled>choose…</option>
        <option v-for="other in others" :key="other.key" :value="other.key">
          {{ other.label ?? labelFromKey(other.key) }}
        </option>
      </PickOne></label
    >
    <p v-if="merging && merging.lost.length > 0" class="small">
      The settings of the other variable stay: the {{ merging.lost.join(', ') }} of “{{ label }}” is lost.
    </p>
    <PushButton kind="main" :disabled="!merging" @click="merge">Merge them</PushButton>
  </div>
  <div v-if="doing === 'remove'" class="wide panel">
    <fieldset v-if="places > 0">
      <legend class="quiet small">In its {{ places }} {{ places === 1 ? 'place' : 'places' }} is left</legend>
      <label><RadioButton v-model="left" name="left" value="name" /> its name, “{{ label }}”</label>
      <label v-if="value"
        ><RadioButton v-model="left" name="left" value="value" /> this recipient’s value, “{{ value }}”</label
      >
      <label><RadioButton v-model="left" name="left" value="nothing" /> nothing</label>
    </fieldset>
    <fieldset v-if="governs">
      <legend class="quiet small">Passages that it governs</legend>
      <label
        ><RadioButton v-model="passages" name="passages" value="unwrap" /> lose their bracket; their words stay</label
      >
      <label><RadioButton v-model="passages" name="passages" value="out" /> go, with their words</label>
    </fieldset>
    <PushButton kind="main" @click="remove">Remove it</PushButton>
  </div>
</template>

<style scoped>
.acts {
  display: flex;
  gap: 8px;
  align-items: center;
}
.panel {
  display: grid;
  gap: 8px;
  justify-items: start;
  font-size: 0.8125rem;
}
fieldset {
  border: 0;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 2px;
}
.field {
  width: 240px;
}
</style>
