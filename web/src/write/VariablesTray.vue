<script setup lang="ts">
/** Each variable: type, label, value for the current recipient, number of places. One can be opened and changed. */
import { labelFromKey, valueType, writeLine, type Variable } from '@vocabula/core';
import { computed, ref } from 'vue';
import TypeMark from '../ui/TypeMark.vue';
import { optionsFrom } from './editor/operations';
import type { ProofSlot } from './proof/protocol';

const props = defineProps<{
  variables: readonly Variable[];
  slots: readonly ProofSlot[];
  places: ReadonlyMap<string, number>;
  values: ReadonlyMap<string, string>;
}>();
const emit = defineEmits<{
  change: [key: string, change: (variable: Variable) => Variable];
  remove: [variable: Variable];
  add: [];
  step: [key: string];
}>();
const open = defineModel<string | undefined>('open');
const label = (variable: Variable): string => variable.label ?? labelFromKey(variable.key);
/** Questions that blocks bring along. */
const brought = computed(() =>
  props.slots.filter((slot) => !props.variables.some((variable) => variable.key === slot.key)),
);
const sources = ['', 'recipient.first_name', 'recipient.last_name', 'recipient.email', 'recipient.organisation'];
const removing = ref<string>();

function set(variable: Variable, name: keyof Variable, value: unknown): void {
  emit('change', variable.key, (old) => {
    const { [name]: _old, ...rest } = old;
    return (value === '' || value === undefined || value === false ? rest : { ...rest, [name]: value }) as Variable;
  });
}
function setNumber(variable: Variable, name: 'min' | 'max', text: string): void {
  const value = text.trim() === '' ? undefined : Number(text);
  if (value === undefined || Number.isFinite(value)) set(variable, name, value);
}
const optionText = (variable: Variable): string =>
  (variable.options ?? [])
    .map(
      (option) =>
        `${option.label ?? labelFromKey(option.key)}${option.wording ? `: ${writeLine(option.wording)}` : ''}`,
    )
    .join('\n');
function setOptions(variable: Variable, text: string): void {
  const made = optionsFrom(text.split('\n'));
  // Options keep their keys by place, so that passages on them hold.
  emit('change', variable.key, (old) => ({
    ...old,
    options: made.map((option, index) => {
      const before = old.options?.[index];
      const sameWords =
        before && option.wording && before.wording && writeLine(before.wording) === writeLine(option.wording);
      return before ? { ...option, key: before.key, ...(sameWords ? { wording: before.wording } : {}) } : option;
    }),
  }));
}
const hasPlain = (variable: Variable): boolean => valueType(variable.type).name !== 'list';
</script>

<template>
  <div class="variables">
    <p v-if="variables.length === 0 && brought.length === 0" class="quiet none">
      No variables yet. Select words and press <kbd>Alt ⏎</kbd>, or make one here.
    </p>
    <ul class="rows">
      <li v-for="variable in variables" :key="variable.key">
        <button
          class="row line"
          :class="{ selected: open === variable.key }"
          :aria-expanded="open === variable.key"
          @click="open = open === variable.key ? undefined : variable.key"
        >
          <TypeMark :type="variable.type" /><span class="name">{{ label(variable) }}</span>
          <span class="value" :class="{ blank: !values.has(variable.key) && variable.required }">{{
            values.get(variable.key) ?? (variable.required ? `[${label(variable)}]` : hasPlain(variable) ? '—' : '')
          }}</span>
          <span class="quiet small"
            >{{ places.get(variable.key) ?? 0 }} {{ places.get(variable.key) === 1 ? 'place' : 'places' }}</span
          >
        </button>
        <form v-if="open === variable.key" class="details" @submit.prevent>
          <label class="field"
            ><span>Label</span
            ><input
              :value="label(variable)"
              @change="set(variable, 'label', ($event.target as HTMLInputElement).value)"
          /></label>
          <label v-if="variable.value !== undefined" class="field wide"
            ><span>Worked out as</span
            ><input
              class="code"
              :value="variable.value"
              spellcheck="false"
              @change="set(variable, 'value', ($event.target as HTMLInputElement).value)"
          /></label>
          <template v-else>
            <label class="field"
              ><span>Filled from</span
              ><input
                :value="variable.from ?? ''"
                list="sources"
                placeholder="asked"
                @change="set(variable, 'from', ($event.target as HTMLInputElement).value.trim())"
            /></label>
            <label v-if="variable.type === 'yes-no'" class="field"
              ><span>As usual</span
              ><select
                :value="String(variable.default ?? '')"
                @change="set(variable, 'default', ($event.target as HTMLSelectElement).value)"
              >
                <option value="">not said</option>
                <option value="true">yes</option>
                <option value="false">no</option>
              </select></label
            >
            <label v-else-if="variable.type === 'choice'" class="field"
              ><span>As usual</span
              ><select
                :value="String(variable.default ?? '')"
                @change="set(variable, 'default', ($event.target as HTMLSelectElement).value)"
              >
                <option value="">none</option>
                <option v-for="option in variable.options" :key="option.key" :value="option.key">
                  {{ option.label ?? option.key }}
                </option>
              </select></label
            >
            <label v-else-if="variable.type === 'text'" class="field"
              ><span>If empty</span
              ><input
                :value="variable.fallback ?? ''"
                @change="set(variable, 'fallback', ($event.target as HTMLInputElement).value)"
            /></label>
            <template v-else-if="variable.type === 'number' || variable.type === 'money'"
              ><label class="field"
                ><span>From</span
                ><input
                  :value="variable.min ?? ''"
                  @change="setNumber(variable, 'min', ($event.target as HTMLInputElement).value)" /></label
              ><label class="field"
                ><span>To</span
                ><input
                  :value="variable.max ?? ''"
                  @change="setNumber(variable, 'max', ($event.target as HTMLInputElement).value)" /></label
            ></template>
            <label v-if="variable.type === 'money'" class="field"
              ><span>Currency</span
              ><input
                :value="variable.currency"
                maxlength="3"
                @change="set(variable, 'currency', ($event.target as HTMLInputElement).value.toUpperCase())"
            /></label>
            <label v-if="variable.options" class="field wide"
              ><span>Options, one a line: label: wording</span
              ><textarea
                rows="3"
                :value="optionText(variable)"
                @change="setOptions(variable, ($event.target as HTMLTextAreaElement).value)"
              />
            </label>
            <label class="tick"
              ><input
                type="checkbox"
                :checked="variable.required ?? false"
                @change="set(variable, 'required', ($event.target as HTMLInputElement).checked)"
              />
              required</label
            >
          </template>
          <p class="quiet small wide">{{ variable.key }} · {{ variable.type }}</p>
          <div class="acts wide">
            <button type="button" :disabled="!places.get(variable.key)" @click="emit('step', variable.key)">
              Next place
            </button>
            <template v-if="removing === variable.key"
              ><span class="small">{{ places.get(variable.key) ? 'Its name stays in the text as words.' : '' }}</span
              ><button type="button" @click="emit('remove', variable)">Yes, take it out</button></template
            >
            <button v-else type="button" class="plain right" @click="removing = variable.key">Take out</button>
          </div>
        </form>
      </li>
      <li v-for="slot in brought" :key="slot.key" class="line brought">
        <TypeMark :type="slot.type" /><span class="name">{{ slot.label }}</span
        ><span class="value">{{ values.get(slot.key) ?? '—' }}</span
        ><span class="quiet small">{{ slot.text }}</span>
      </li>
    </ul>
    <button class="plain add" @click="emit('add')">New variable</button>
    <datalist id="sources"><option v-for="source in sources" :key="source" :value="source" /></datalist>
  </div>
</template>

<style scoped>
.line {
  display: grid;
  grid-template-columns: 20px minmax(0, 150px) minmax(0, 1fr) auto;
  gap: 8px;
  padding: 4px 14px;
  min-height: 28px;
  font-size: 0.8125rem;
  line-height: 1.25rem;
  align-items: center;
}
.name,
.value {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  justify-self: start;
  max-width: 100%;
}
.brought {
  color: var(--quiet);
}
.none {
  padding: 12px 14px;
}
.details {
  padding: 8px 14px 12px 42px;
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px 12px;
  background: var(--hover);
  align-items: end;
}
.wide {
  grid-column: 1 / -1;
}
.acts {
  display: flex;
  gap: 8px;
  align-items: center;
}
.code {
  font-family: Consolas, Menlo, monospace;
  font-size: 0.8125rem;
}
.tick {
  line-height: 32px;
}
.add {
  margin: 6px;
}
</style>
