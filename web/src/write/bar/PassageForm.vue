<script setup lang="ts">
/** Selected words become an optional passage, or the first of several alternatives. */
import InputText from 'primevue/inputtext';
import Textarea from 'primevue/textarea';
import PushButton from '../../ui/controls/PushButton.vue';
import { computed, ref } from 'vue';
import type { Making } from '../desk/making';
import type { Desk } from '../desk/useDesk';
import type { Range } from '../editor/operations/places';
import { guessFromWords } from './guess';
import HowFar from './HowFar.vue';

const props = defineProps<{
  desk: Pick<Desk, 'fields' | 'inserting'>;
  what: 'optional' | 'alternative';
  crossings: readonly Range[];
}>();
const emit = defineEmits<{ make: [making: Making] }>();
const { inserting, fields } = props.desk;
const label = ref(
  props.what === 'optional' ? guessFromWords(inserting.words.value, { today: '2000-01-01', locale: 'en' }).label : '',
);
const lines = ref('First\nSecond');
const range = ref<Range>(fields.active.value.state.selection);
const options = computed(() => lines.value.split('\n').filter((line) => line.trim() !== ''));
const ready = computed(() => label.value.trim() !== '' && (props.what === 'optional' || options.value.length > 0));
function done(): void {
  if (!ready.value) return;
  const name = label.value.trim();
  const { from, to } = range.value;
  if (props.what === 'optional') emit('make', { what: 'optional', label: name, range: { from, to } });
  else emit('make', { what: 'alternative', label: name, options: options.value, range: { from, to } });
}
</script>

<template>
  <form @submit.prevent="done">
    <label class="field"
      ><span>{{ what === 'optional' ? 'Label of the checkbox' : 'Label of the question' }}</span
      ><InputText v-model="label" maxlength="80"
    /></label>
    <label v-if="what === 'alternative'" class="field"
      ><span>Alternatives, one a line; these words become the first</span><Textarea v-model="lines" rows="4" />
    </label>
    <HowFar v-if="crossings.length > 0" v-model="range" :editor="fields.main" />
    <PushButton kind="main" type="submit" :disabled="!ready">Make it</PushButton>
  </form>
</template>
