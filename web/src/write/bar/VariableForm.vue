<script setup lang="ts">
/** Selected words become a variable: its name, its type, and every other place where the words stand. */
import PickOne from '../../ui/controls/PickOne.vue';
import InputText from 'primevue/inputtext';
import Textarea from 'primevue/textarea';
import PushButton from '../../ui/controls/PushButton.vue';
import { MOST_OPTIONS, TYPE_NAMES, tooManyOptions, type Match, type TypeName, type Variable } from '@vocabula/core';
import { computed, ref, watch } from 'vue';
import { today } from '../../ui/today';
import { otherPlaces, type Making } from '../desk/making';
import type { Desk } from '../desk/useDesk';
import { newVariable, optionsFrom } from '../editor/operations/variables';
import { guessFromWords } from './guess';
import OtherPlaces from './OtherPlaces.vue';

const props = defineProps<{ desk: Pick<Desk, 'fields' | 'inserting' | 'manuscript'>; pickOne: boolean }>();
const emit = defineEmits<{ make: [making: Making] }>();
const { inserting, fields, manuscript } = props.desk;
const locale = manuscript.front.value.locale ?? 'en-GB';
const words = inserting.words.value.trim();
const guess = guessFromWords(words, { today: today(), locale });
const type = ref<TypeName>(props.pickOne ? 'choice' : guess.type);
const label = ref(props.pickOne ? '' : guess.label);
const lines = ref(`${words}\n`);
const others = otherPlaces(inserting.spot(), locale);
const taken = ref<readonly Match[]>(others);
const TYPES = TYPE_NAMES.filter((name) => name !== 'list' && name !== 'image');
const hasOptions = computed(() => type.value === 'choice' || type.value === 'choices');
const options = computed(() => lines.value.split('\n').filter((line) => line.trim() !== ''));
const tooMany = computed(() => hasOptions.value && options.value.length > MOST_OPTIONS);
const ready = computed(
  () => label.value.trim() !== '' && !tooMany.value && (!hasOptions.value || options.value.length > 0),
);
watch(hasOptions, (now) => {
  if (now && options.value.length === 0) lines.value = `${words}\n`;
});

function done(): void {
  if (!ready.value) return;
  const name = label.value.trim();
  const { doc } = fields.main.state;
  const known = manuscript.variables.value.find(
    (each) => each.type === type.value && each.label?.toLowerCase() === name.toLowerCase(),
  );
  const more: Partial<Variable> = {
    required: true,
    ...(hasOptions.value ? { options: optionsFrom(options.value) } : {}),
    ...(type.value === 'money' ? { currency: guess.currency ?? 'EUR' } : {}),
  };
  const variable = known && !hasOptions.value ? known : newVariable(doc, name, type.value, more);
  emit('make', { what: 'variable', variable, others: taken.value });
}
</script>

<template>
  <form @submit.prevent="done">
    <label class="field"
      ><span>{{ pickOne ? 'Label of the question' : 'Name of the variable' }}</span
      ><InputText v-model="label" maxlength="80"
    /></label>
    <label v-if="!pickOne" class="field"
      ><span>Type</span
      ><PickOne v-model="type">
        <option v-for="each in TYPES" :key="each">{{ each }}</option>
      </PickOne></label
    >
    <label v-if="hasOptions" class="field"
      ><span>Options, one a line; “North: the north gate” gives a label and its wording</span
      ><Textarea v-model="lines" rows="4" />
    </label>
    <p v-if="tooMany" class="error small" role="alert">{{ tooManyOptions(options.length) }}</p>
    <OtherPlaces v-if="others.length > 0" v-model="taken" :places="others" />
    <PushButton kind="main" type="submit" :disabled="!ready">
      {{ others.length > 0 ? `Make it, in ${1 + taken.length} ${taken.length === 0 ? 'place' : 'places'}` : 'Make it' }}
    </PushButton>
  </form>
</template>
