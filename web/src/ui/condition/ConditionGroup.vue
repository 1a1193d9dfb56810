<script setup lang="ts">
/** A group of conditions, of which all or any must hold; groups stand in groups. */
import PickOne from '../controls/PickOne.vue';
import PushButton from '../controls/PushButton.vue';
import { isGroup, type Comparison, type ConditionGroup, type ConditionTree } from '@vocabula/core';
import ComparisonRow from './ComparisonRow.vue';
import { firstComparison, type Named } from './names';

const props = defineProps<{ names: readonly Named[]; outermost?: boolean; place: string }>();
const emit = defineEmits<{ remove: [] }>();
const group = defineModel<ConditionGroup>({ required: true });
const blank = (): Comparison => firstComparison(props.names[0]);
/** How many must be met: by what joins them, and whether that is turned round. */
const HOW_MANY = [
  ['all', 'all are met'],
  ['any', 'any is met'],
  ['not any', 'none is met'],
  ['not all', 'not all are met'],
] as const;
const here = (index: number): string => (props.place === '' ? String(index + 1) : `${props.place}.${index + 1}`);

const change = (more: Partial<ConditionGroup>): void => void (group.value = { ...group.value, ...more });
const put = (index: number, part: ConditionTree): void => change({ parts: group.value.parts.with(index, part) });
const add = (part: ConditionTree): void => change({ parts: [...group.value.parts, part] });
const remove = (index: number): void => change({ parts: group.value.parts.toSpliced(index, 1) });
</script>

<template>
  <fieldset class="group" :class="{ outermost }">
    <legend class="how-many">
      <PickOne
        :model-value="`${group.not ? 'not ' : ''}${group.join}`"
        :aria-label="`How many must be met ${place}`.trim()"
        @update:model-value="
          (value: string) => change({ not: value.startsWith('not'), join: value.endsWith('all') ? 'all' : 'any' })
        "
      >
        <option v-for="[value, words] in HOW_MANY" :key="value" :value="value">{{ words }}</option>
      </PickOne>
      <PushButton
        kind="plain"
        size="small"
        v-if="!outermost"
        :aria-label="`Remove group ${place}`"
        @click="emit('remove')"
      >
        Remove
      </PushButton>
    </legend>
    <div v-for="(part, index) in group.parts" :key="index" class="part">
      <ConditionGroup
        v-if="isGroup(part)"
        :model-value="part"
        :names="names"
        :place="here(index)"
        @update:model-value="put(index, $event)"
        @remove="remove(index)"
      />
      <template v-else>
        <ComparisonRow
          :model-value="part"
          :names="names"
          :place="here(index)"
          @update:model-value="put(index, $event)"
        />
        <PushButton
          kind="plain"
          :aria-label="`Remove comparison ${here(index)}`"
          :disabled="outermost && group.parts.length === 1"
          @click="remove(index)"
        >
          −
        </PushButton>
      </template>
    </div>
    <p class="acts">
      <PushButton kind="plain" size="small" @click="add(blank())">Add a comparison</PushButton>
      <PushButton
        kind="plain"
        size="small"
        @click="add({ join: group.join === 'all' ? 'any' : 'all', not: false, parts: [blank()] })"
      >
        Add a group
      </PushButton>
    </p>
  </fieldset>
</template>

<style scoped>
.group {
  border: 0;
  border-left: 1.5px solid var(--edge);
  margin: 0;
  padding: 0 0 0 10px;
  display: grid;
  gap: 6px;
  min-width: 0;
  flex: 1;
}
.how-many {
  display: flex;
  gap: 8px;
  padding: 0;
  margin-bottom: 6px;
}
.how-many .p-select {
  width: auto;
}
.part {
  display: flex;
  gap: 4px;
  align-items: flex-start;
}
.acts {
  display: flex;
  gap: 4px;
}
</style>
