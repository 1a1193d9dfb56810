<script setup lang="ts">
/** One variable, opened: everything that can be said of it. */
import TickBox from '../../ui/controls/TickBox.vue';
import PickOne from '../../ui/controls/PickOne.vue';
import InputText from 'primevue/inputtext';
import PushButton from '../../ui/controls/PushButton.vue';
import { labelFromKey, TYPE_NAMES, type Option, type TypeName, type Variable } from '@vocabula/core';
import { computed, defineAsyncComponent, ref } from 'vue';
import { useNotice } from '../../ui/notice';
import ExpressionField from '../../ui/condition/ExpressionField.vue';
import { namesOf } from '../../ui/condition/names';
import type { Desk } from '../desk/useDesk';
import AgreeingWords from './AgreeingWords.vue';
import AttributeFields from '../../ui/AttributeFields.vue';
import { attributeFields } from '../../ui/attributes';
import ColumnsEditor from './ColumnsEditor.vue';
import OptionsEditor from './OptionsEditor.vue';
import SourceFields from './SourceFields.vue';
import VariableActs from './VariableActs.vue';
import ViewList from './ViewList.vue';

/** Loaded when a condition is first built. */
const ConditionBuilder = defineAsyncComponent(() => import('../../ui/condition/ConditionBuilder.vue'));
const props = defineProps<{ desk: Desk; variable: Variable }>();
const notice = useNotice();
const { tray, manuscript, proof, insertable, previews, openOption, answer, inserting } = props.desk;
const locale = computed(() => manuscript.front.value.locale ?? 'en-GB');
const names = computed(() => namesOf(insertable.value).filter(({ name }) => name !== props.variable.key));
const label = computed(() => props.variable.label ?? labelFromKey(props.variable.key));
/** What is wrong with the expression, where it is. */
const problems = computed(() =>
  proof.findings.value.flatMap(({ message, place }) =>
    place.variable === props.variable.key && place.attribute === 'value' && !place.text
      ? [{ message, offset: place.offset ?? 0, length: place.length ?? 1 }]
      : [],
  ),
);
const value = computed(() => proof.values.value.get(props.variable.key)?.words);
/** How many passages are kept with each option. */
const used = computed(() => {
  const counts = new Map<string, number>();
  for (const { condition } of props.desk.passages.all.value)
    if (condition?.of === props.variable.key)
      for (const key of condition.is) counts.set(key, (counts.get(key) ?? 0) + 1);
  return counts;
});
const retyping = ref<{ type: TypeName; lost: readonly string[]; apply: () => void }>();

const set = (name: keyof Variable, given: unknown, id?: string): void => tray.set(props.variable.key, name, given, id);
const text = (event: Event): string => (event.target as HTMLInputElement).value.trim();
function retype(type: TypeName): void {
  const { lost, apply } = tray.retyped(props.variable.key, type);
  if (lost.length === 0) return apply();
  retyping.value = { type, lost, apply };
}
function confirmType(): void {
  retyping.value?.apply();
  retyping.value = undefined;
}
function rename(event: Event): void {
  if (!tray.rename(props.variable.key, text(event))) (event.target as HTMLInputElement).value = props.variable.key;
}
function workOut(source: string): void {
  tray.change(
    props.variable.key,
    ({ value: _old, from: _from, default: _default, ...rest }) => ({ ...rest, value: source }),
    `value ${props.variable.key}`,
  );
}
const setOptions = (options: readonly Option[], id?: string): void =>
  tray.change(props.variable.key, (old) => ({ ...old, options }), id);
function tryOption(key: string): void {
  answer(props.variable.key, props.variable.type === 'choices' ? [key] : key);
}
function putIn(view: string): void {
  inserting.take({ what: 'placeholder', name: props.variable.key, view });
}
</script>

<template>
  <form class="details" @submit.prevent>
    <label class="field"
      ><span>Label</span
      ><InputText :model-value="label" maxlength="120" @change="tray.relabel(variable.key, text($event))"
    /></label>
    <label class="field"
      ><span>Type</span
      ><PickOne :model-value="retyping?.type ?? variable.type" @update:model-value="retype">
        <option v-for="type in TYPE_NAMES" :key="type">{{ type }}</option>
      </PickOne></label
    >
    <p v-if="retyping" class="wide lost">
      As a {{ retyping.type }} it would lose {{ retyping.lost.join('; ') }}.
      <PushButton kind="main" @click="confirmType">Change it</PushButton>
      <PushButton @click="retyping = undefined">Cancel</PushButton>
    </p>
    <OptionsEditor
      v-if="variable.options"
      :variable="variable"
      :used="used"
      :open="openOption"
      @change="setOptions"
      @try="tryOption"
      @refuse="notice.fail(new Error($event))"
    />
    <ColumnsEditor
      v-if="variable.type === 'list'"
      :variable="variable"
      @change="set('columns', $event)"
      @refuse="notice.fail(new Error($event))"
    />
    <fieldset v-if="variable.value === undefined" class="wide group">
      <legend>The question</legend>
      <SourceFields part="question" :variable="variable" :locale="locale" :fields="insertable.fields" @set="set" />
      <label class="field wide"
        ><span>Help text</span><InputText :model-value="variable.help ?? ''" @change="set('help', text($event))"
      /></label>
      <label class="field"
        ><span>Example</span><InputText :model-value="variable.example ?? ''" @change="set('example', text($event))"
      /></label>
    </fieldset>
    <fieldset class="wide group">
      <legend>Where its value comes from</legend>
      <template v-if="variable.value === undefined">
        <SourceFields part="source" :variable="variable" :locale="locale" :fields="insertable.fields" @set="set" />
        <label class="wide"><TickBox :checked="false" @change="workOut('')" /> calculated by a formula</label>
      </template>
      <template v-else>
        <div class="wide">
          <ConditionBuilder
            v-if="variable.type === 'yes-no'"
            :model-value="variable.value"
            :names="names"
            :problems="problems"
            :value="value"
            @update:model-value="workOut"
          />
          <ExpressionField
            v-else
            :model-value="variable.value"
            label="Formula"
            :names="names"
            :problems="problems"
            :value="value"
            @update:model-value="workOut"
          />
        </div>
        <label class="wide"><TickBox checked @change="set('value', undefined)" /> calculated by a formula</label>
      </template>
    </fieldset>
    <fieldset v-if="attributeFields(variable.type, 'limits').length > 0" class="wide group">
      <legend>Limits</legend>
      <AttributeFields about="limits" :variable="variable" :locale="locale" @set="set" />
    </fieldset>
    <fieldset class="wide group">
      <legend>How it is written</legend>
      <AttributeFields about="writing" :variable="variable" :locale="locale" @set="set" />
      <AgreeingWords v-if="variable.type === 'number'" :variable="variable" :locale="locale" @set="set" />
      <div class="wide">
        <span class="quiet small">Views: choose one to insert it at the caret</span>
        <ViewList :variable="variable" :previews="previews" @choose="putIn" />
      </div>
      <label class="field"
        ><span>Key, in files and expressions</span
        ><InputText class="code" :model-value="variable.key" spellcheck="false" @change="rename"
      /></label>
    </fieldset>
    <VariableActs :desk="desk" :variable="variable" />
  </form>
</template>

<style scoped>
.details {
  padding: 8px 14px 12px 42px;
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 8px 12px;
  background: var(--hover);
  align-items: end;
}
.details :deep(.wide) {
  grid-column: 1 / -1;
}
.group {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 8px 12px;
  align-items: end;
  border: 0;
  border-top: 1px solid var(--hair);
  margin: 4px 0 0;
  padding: 4px 0 0;
  min-width: 0;
}
.group > legend {
  padding: 0 8px 0 0;
  font-size: 0.8125rem;
  font-weight: 600;
}
.details :deep(.tick) {
  line-height: 32px;
}
.lost {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  font-size: 0.8125rem;
}
.code {
  font-family: Consolas, Menlo, monospace;
  font-size: 0.8125rem;
}
</style>
