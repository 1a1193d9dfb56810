<script setup lang="ts">
/** The selection's own small bar: single letters make the words a variable, a choice, a passage or a block. */
import PushButton from '../../ui/controls/PushButton.vue';
import { computed, nextTick, onMounted, ref, useTemplateRef } from 'vue';
import { useAtPoint, type Point } from '../../ui/controls/atPoint';
import type { Making } from '../desk/making';
import type { Desk } from '../desk/useDesk';
import { crossed } from '../editor/operations/wrap';
import BlockForm from './BlockForm.vue';
import ConditionForm from './ConditionForm.vue';
import PassageForm from './PassageForm.vue';
import RemarkForm from './RemarkForm.vue';
import RepeatForm from './RepeatForm.vue';
import VariableForm from './VariableForm.vue';

const props = defineProps<{ desk: Desk; at: Point; focus: boolean }>();
const emit = defineEmits<{ make: [making: Making]; close: [] }>();
const ACTS = [
  ['v', 'variable', 'Variable'],
  ['p', 'pick-one', 'Pick one'],
  ['o', 'optional', 'Optional'],
  ['a', 'alternative', 'Alternatives'],
  ['c', 'condition', 'Condition'],
  ['r', 'repeat', 'Repeat'],
  ['b', 'block', 'Block'],
  ['m', 'remark', 'Remark'],
] as const;
type What = (typeof ACTS)[number][1];
const IN_LINES: ReadonlySet<What> = new Set(['variable', 'pick-one', 'optional', 'remark']);
/** What becomes of words that span lines: no placeholder. */
const OF_ONE_LINE: ReadonlySet<What> = new Set(['variable', 'pick-one']);

const { fields, insertable } = props.desk;
const target = fields.active.value;
const oneLine = target.state.selection.$from.parent === target.state.selection.$to.parent;
const crossings = fields.line.value ? [] : crossed(target.state.doc, target.state.selection);
const offered = computed(() =>
  ACTS.filter(([, what]) => what !== 'remark' || !fields.line.value).filter(([, what]) =>
    insertable.value.inBody ? oneLine || !OF_ONE_LINE.has(what) : IN_LINES.has(what),
  ),
);
const bar = useTemplateRef('bar');
const style = useAtPoint(bar, () => props.at);
const what = ref<What>();

onMounted(() => {
  if (props.focus) bar.value?.querySelector('button')?.focus();
});
async function begin(next: What): Promise<void> {
  what.value = next;
  await nextTick();
  const input = bar.value?.querySelector<HTMLElement>('input, [role=combobox], textarea');
  input?.focus();
  if (input instanceof HTMLInputElement) input.select();
}
function onKey(event: KeyboardEvent): void {
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
    :class="{ open: what }"
    role="dialog"
    aria-label="Make of these words"
    :style="style"
    @keydown="onKey"
  >
    <div v-if="!what" class="acts">
      <PushButton
        kind="plain"
        v-for="[key, name, title] in offered"
        :key="name"
        @mousedown.prevent
        @click="begin(name)"
      >
        <kbd>{{ key }}</kbd>{{ title }}
      </PushButton>
    </div>
    <VariableForm
      v-else-if="what === 'variable' || what === 'pick-one'"
      :desk="desk"
      :pick-one="what === 'pick-one'"
      @make="emit('make', $event)"
    />
    <ConditionForm v-else-if="what === 'condition'" :desk="desk" :crossings="crossings" @make="emit('make', $event)" />
    <RepeatForm v-else-if="what === 'repeat'" :desk="desk" :crossings="crossings" @make="emit('make', $event)" />
    <BlockForm v-else-if="what === 'block'" :desk="desk" @close="emit('close')" />
    <RemarkForm v-else-if="what === 'remark'" :desk="desk" @close="emit('close')" />
    <PassageForm v-else :desk="desk" :what="what" :crossings="crossings" @make="emit('make', $event)" />
  </section>
</template>

<style scoped>
.bar {
  z-index: 12;
  padding: 4px;
  max-width: calc(100vw - 16px);
}
.bar.open {
  max-height: calc(100vh - 24px);
  overflow: auto;
}
.acts {
  display: flex;
  flex-wrap: wrap;
}
.acts button {
  font-size: 0.8125rem;
  height: 28px;
  gap: 6px;
}
.bar :deep(form) {
  padding: 8px;
  width: 380px;
  max-width: 100%;
  display: grid;
  gap: 8px;
  justify-items: start;
}
.bar :deep(form .field) {
  width: 100%;
}
</style>
