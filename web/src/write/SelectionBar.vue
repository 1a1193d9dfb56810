<script setup lang="ts">
/** The selection's own small bar: single letters make the words a variable, a choice or a passage. */
import { labelFromKey, type TypeName, type Variable } from '@vocabula/core';
import { computed, nextTick, onMounted, ref, useTemplateRef } from 'vue';
import ConditionForm from './ConditionForm.vue';

export type Making =
  | { readonly what: 'variable'; readonly label: string; readonly type: TypeName; readonly everywhere: boolean }
  | { readonly what: 'pick-one'; readonly label: string; readonly options: readonly string[] }
  | { readonly what: 'optional'; readonly label: string }
  | { readonly what: 'alternative'; readonly label: string; readonly options: readonly string[] }
  | { readonly what: 'condition'; readonly label: string; readonly expression: string };

const props = defineProps<{
  words: string;
  places: number;
  inBody: boolean;
  oneLine: boolean;
  variables: readonly Variable[];
  at: { left: number; top: number };
  focus: boolean;
}>();
const emit = defineEmits<{ make: [making: Making]; close: [] }>();
const ACTS = [
  ['v', 'variable', 'Variable'],
  ['p', 'pick-one', 'Pick one'],
  ['o', 'optional', 'Optional'],
  ['a', 'alternative', 'Alternatives'],
  ['c', 'condition', 'Condition'],
] as const;
type What = (typeof ACTS)[number][1];
const offered = computed(() =>
  ACTS.filter(([, what]) =>
    what === 'variable' || what === 'pick-one' ? props.oneLine : what === 'optional' || props.inBody,
  ),
);
const bar = useTemplateRef('bar');
const form = useTemplateRef('form');
const what = ref<What>();
const short = computed(() =>
  props.words
    .trim()
    .replace(/\s+/g, ' ')
    .replace(/^[\s,;:.([<{_]+|[\s,;:.)\]>}_]+$/g, '')
    .slice(0, 40),
);
const label = ref('');
const type = ref<TypeName>('text');
const everywhere = ref(true);
const options = ref('');
const TYPES: readonly TypeName[] = ['text', 'paragraphs', 'number', 'money', 'date', 'email', 'phone', 'link'];

onMounted(() => {
  if (props.focus) bar.value?.querySelector('button')?.focus();
});
async function begin(next: What): Promise<void> {
  what.value = next;
  label.value = next === 'variable' || next === 'optional' ? labelFromKey(short.value.toLowerCase()) : '';
  options.value = next === 'pick-one' ? `${short.value}\n` : next === 'alternative' ? 'First\nSecond' : '';
  await nextTick();
  const input = form.value?.querySelector<HTMLInputElement>('input, select');
  input?.focus();
  if (input instanceof HTMLInputElement) input.select();
}
const lines = computed(() =>
  options.value
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean),
);
const ready = computed(
  () =>
    label.value.trim() !== '' &&
    (!(what.value === 'pick-one' || what.value === 'alternative') || lines.value.length > 0),
);
function done(): void {
  if (!ready.value) return;
  const name = label.value.trim();
  if (what.value === 'variable')
    emit('make', { what: 'variable', label: name, type: type.value, everywhere: everywhere.value });
  else if (what.value === 'pick-one' || what.value === 'alternative')
    emit('make', { what: what.value, label: name, options: lines.value });
  else emit('make', { what: 'optional', label: name });
}
function onKey(event: KeyboardEvent): void {
  // A list of choices does not send its form by itself.
  if (event.key === 'Enter' && event.target instanceof HTMLSelectElement) {
    event.preventDefault();
    return event.target.form?.requestSubmit();
  }
  if (event.key === 'Escape') {
    event.preventDefault();
    event.stopPropagation();
    return emit('close');
  }
  if (what.value) return;
  const act = offered.value.find(([key]) => key === event.key.toLowerCase());
  if (!act || event.ctrlKey || event.metaKey || event.altKey) return;
  event.preventDefault();
  void begin(act[1]);
}
</script>

<template>
  <section
    ref="bar"
    class="bar sheet"
    role="dialog"
    aria-label="Make of these words"
    :style="{ left: `${at.left}px`, top: `${at.top}px` }"
    @keydown="onKey"
  >
    <div v-if="!what" class="acts">
      <button v-for="[key, name, title] in offered" :key="name" class="plain" @mousedown.prevent @click="begin(name)">
        <kbd>{{ key }}</kbd>{{ title }}
      </button>
    </div>
    <ConditionForm
      v-else-if="what === 'condition'"
      :variables="variables"
      @done="(made) => emit('make', { what: 'condition', ...made })"
    />
    <form v-else ref="form" @submit.prevent="done">
      <label class="field"
        ><span>{{
          what === 'variable'
            ? 'Name of the variable'
            : what === 'optional'
              ? 'The tick asks for'
              : 'The question asks for'
        }}</span
        ><input v-model="label" maxlength="80"
      /></label>
      <label v-if="what === 'variable'" class="field"
        ><span>Type</span
        ><select v-model="type">
          <option v-for="each in TYPES" :key="each">{{ each }}</option>
        </select></label
      >
      <label v-if="what === 'variable' && places > 1" class="tick"
        ><input v-model="everywhere" type="checkbox" /> in all {{ places }} places</label
      >
      <label v-if="what === 'pick-one' || what === 'alternative'" class="field"
        ><span>{{
          what === 'pick-one'
            ? 'Options, one a line; “North: the north gate” gives a label and its wording'
            : 'Alternatives, one a line; these words become the first'
        }}</span
        ><textarea v-model="options" rows="4" />
      </label>
      <button class="main" :disabled="!ready">Make it</button>
    </form>
  </section>
</template>

<style scoped>
.bar {
  position: fixed;
  z-index: 12;
  padding: 4px;
}
.acts {
  display: flex;
}
.acts button {
  font-size: 0.8125rem;
  height: 28px;
  gap: 6px;
}
form {
  padding: 8px;
  width: 340px;
  display: grid;
  gap: 8px;
  justify-items: start;
}
form .field {
  width: 100%;
}
</style>
