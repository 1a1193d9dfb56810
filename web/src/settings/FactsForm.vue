<script setup lang="ts">
/** The organisation's facts: named, typed values, kept once, with changes that take effect on their day. */
import PickOne from '../ui/controls/PickOne.vue';
import InputText from 'primevue/inputtext';
import PushButton from '../ui/controls/PushButton.vue';
import {
  FACT_TYPES,
  factValues,
  holdsWords,
  keyFromLabel,
  valueOn,
  valueType,
  type Fact,
  type Variable,
} from '@vocabula/core';
import { computed, nextTick, ref } from 'vue';
import AttributeFields from '../ui/AttributeFields.vue';
import { showDay } from '@vocabula/core';
import { today } from '../ui/today';
import TypeMark from '../ui/TypeMark.vue';
import FactValues from './FactValues.vue';
import PartHead from './PartHead.vue';
import { useHouseDraft } from './useHouseDraft';

const { draft, ready, changed, save } = useHouseDraft();
const query = ref('');
const open = ref<string>();
const facts = computed(() =>
  Object.entries(draft.value.facts).filter(([key, { variable }]) =>
    holdsWords(`${key} ${variable.label ?? ''}`, query.value),
  ),
);
const put = (key: string, fact: Fact): void =>
  void (draft.value = { ...draft.value, facts: { ...draft.value.facts, [key]: fact } });
/** What holds today, as messages show it. */
function shown({ variable, ...rest }: Fact): string {
  const context = { today: today(), locale: draft.value.locale };
  const value = valueOn(factValues({ variable, ...rest }, context), today());
  const format = valueType(variable.type).formatter(variable, '', draft.value.locale);
  return value === undefined ? '—' : (format?.(value) ?? '');
}
function set(key: string, fact: Fact, name: keyof Variable, value: unknown): void {
  const { [name]: _old, ...rest } = fact.variable;
  put(key, {
    ...fact,
    variable: (value === undefined || value === ''
      ? rest
      : { ...rest, [name]: value === 'off' ? false : value }) as Variable,
  });
}
function retype(key: string, fact: Fact, type: Variable['type']): void {
  const { label } = fact.variable;
  put(key, {
    ...fact,
    variable: { key, type, ...(label ? { label } : {}), ...valueType(type).initial },
  });
}
async function add(): Promise<void> {
  const key = keyFromLabel('new fact', new Set(Object.keys(draft.value.facts)));
  put(key, { variable: { key, type: 'text', label: 'New fact' }, value: '', changes: [] });
  query.value = '';
  open.value = key;
  await nextTick();
  const input = document.querySelector<HTMLInputElement>(`#fact-${key} input`);
  input?.focus();
  input?.select();
}
/** A fact that is new here may still be called after its label. */
function relabel(key: string, fact: Fact, label: string): void {
  if (!/^new_fact/.test(key)) return set(key, fact, 'label', label);
  const { [key]: _old, ...others } = draft.value.facts;
  const next = keyFromLabel(label, new Set(Object.keys(others)));
  draft.value = {
    ...draft.value,
    facts: { ...others, [next]: { ...fact, variable: { ...fact.variable, key: next, label } } },
  };
  open.value = next;
}
function remove(key: string): void {
  const { [key]: _gone, ...others } = draft.value.facts;
  draft.value = { ...draft.value, facts: others };
}
const text = (event: Event): string => (event.target as HTMLInputElement).value.trim();
</script>

<template>
  <PartHead house title="Facts" about="kept once, used as house.… in every text" :changed="changed" @save="save" />
  <div v-if="ready" class="whole">
    <div class="find">
      <InputText v-model="query" type="search" placeholder="Find" aria-label="Find a fact" />
      <PushButton @click="add">New fact</PushButton>
    </div>
    <p v-if="facts.length === 0" class="quiet">
      {{ query ? 'No fact matches.' : 'No facts yet: opening hours, fees, addresses that many messages name.' }}
    </p>
    <ul class="rows">
      <li v-for="[key, fact] in facts" :id="`fact-${key}`" :key="key">
        <button
          class="row fact"
          :class="{ selected: open === key }"
          :aria-expanded="open === key"
          @click="open = open === key ? undefined : key"
        >
          <TypeMark :type="fact.variable.type" /><span>{{ fact.variable.label ?? key }}</span
          ><span>{{ shown(fact) }}</span
          ><span class="quiet small">{{
            fact.changes.some(({ date }) => date > today())
              ? `changes on ${showDay(fact.changes.find(({ date }) => date > today())?.date ?? '', draft.locale)}`
              : ''
          }}</span
          ><span class="quiet small">house.{{ key }}</span>
        </button>
        <form v-if="open === key" class="details" @submit.prevent>
          <label class="field"
            ><span>Label</span
            ><InputText
              :model-value="fact.variable.label ?? key"
              maxlength="120"
              @change="relabel(key, fact, text($event))"
          /></label>
          <label class="field"
            ><span>Type</span
            ><PickOne
              :model-value="fact.variable.type"
              @update:model-value="retype(key, fact, $event as Variable['type'])"
            >
              <option v-for="type in FACT_TYPES" :key="type">{{ type }}</option>
            </PickOne></label
          >
          <AttributeFields
            :variable="fact.variable"
            :locale="draft.locale"
            @set="(name, value) => set(key, fact, name, value)"
          />
          <FactValues :fact="fact" :locale="draft.locale" @change="put(key, $event)" />
          <PushButton size="small" @click="remove(key)">Delete fact</PushButton>
        </form>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.whole {
  max-width: 880px;
}
.find {
  display: flex;
  gap: 8px;
  margin-bottom: 12px;
}
.find input {
  width: 200px !important;
}
.fact {
  display: grid;
  grid-template-columns: 16px minmax(0, 2fr) minmax(0, 2fr) minmax(0, 1.2fr) minmax(0, 1.2fr);
  gap: 12px;
  align-items: center;
  min-height: 32px;
}
.details {
  padding: 12px 16px 16px 44px;
  background: var(--hover);
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
  align-items: end;
  justify-items: start;
}
.details :deep(.field) {
  width: 100%;
}
.details :deep(.wide) {
  grid-column: 1 / -1;
}
@media (max-width: 899px) {
  .fact {
    grid-template-columns: 16px minmax(0, 1fr) minmax(0, 1fr);
  }
  .fact .small {
    display: none;
  }
}
</style>
