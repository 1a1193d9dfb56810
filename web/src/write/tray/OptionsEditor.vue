<script setup lang="ts">
/** The options of a pick-one or pick-several: label and wording, in an order, tried out in the proof by going to them. */
import { vTip } from '../../ui/controls/tip';
import PushButton from '../../ui/controls/PushButton.vue';
import { useReorder } from '../../ui/controls/reorder';
import InputText from 'primevue/inputtext';
import type { Editor } from '@tiptap/core';
import {
  keyFromLabel,
  labelFromKey,
  MOST_OPTIONS,
  tooManyOptions,
  type Inline,
  type Option,
  type Variable,
} from '@vocabula/core';
import { nextTick, ref, useTemplateRef, watch } from 'vue';
import LineEditor from '../line/LineEditor.vue';
import LineWords from '../line/LineWords.vue';
import { optionsFrom } from '../editor/operations/variables';

const props = defineProps<{
  variable: Variable;
  /** Options that passages are kept with, by how many. */
  used: ReadonlyMap<string, number>;
  open?: string | undefined;
}>();
const emit = defineEmits<{
  change: [options: readonly Option[], id?: string];
  try: [key: string];
  refuse: [words: string];
}>();
const at = ref<string>();
const list = useTemplateRef<HTMLElement>('list');
const options = (): readonly Option[] => props.variable.options ?? [];
/** What an editor stands in. */
type EditorElement = HTMLElement & { editor?: Editor };
const labelOf = (option: Option): string => option.label ?? labelFromKey(option.key);

watch(
  () => props.open,
  (key) => {
    if (key) void go(key);
  },
  { immediate: true },
);
/** Goes to an option's wording. */
async function go(key: string): Promise<void> {
  enter(key);
  await nextTick();
  // The line's editor stands in the page one beat after its frame.
  await nextTick();
  list.value?.querySelector<EditorElement>(`[data-option="${key}"] .ProseMirror`)?.editor?.commands.focus('end');
}
function enter(key: string): void {
  at.value = key;
  emit('try', key);
}
const put = (index: number, option: Option, id?: string): void => emit('change', options().with(index, option), id);
function relabel(index: number, option: Option, event: Event): void {
  put(index, { ...option, label: (event.target as HTMLInputElement).value.trim() || labelOf(option) });
}
function reword(index: number, option: Option, wording: readonly Inline[]): void {
  const { wording: _old, ...rest } = option;
  put(index, wording.length > 0 ? { ...rest, wording } : rest, `wording ${props.variable.key} ${option.key}`);
}
async function move(index: number, to: number): Promise<void> {
  if (to < 0 || to >= options().length || to === index) return;
  const moved = options()[index] as Option;
  emit('change', options().toSpliced(index, 1).toSpliced(to, 0, moved));
  await nextTick();
  list.value?.querySelectorAll<HTMLElement>('.handle')[to]?.focus();
}
async function add(after = options().length - 1): Promise<void> {
  const label = `Option ${options().length + 1}`;
  const key = keyFromLabel(label, new Set(['empty', ...options().map((each) => each.key)]));
  emit('change', options().toSpliced(after + 1, 0, { key, label }));
  await nextTick();
  const input = list.value?.querySelectorAll<HTMLInputElement>('.label')[after + 1];
  input?.focus();
  input?.select();
}
function remove(index: number): void {
  const option = options()[index] as Option;
  const count = props.used.get(option.key) ?? 0;
  if (count > 0)
    return emit(
      'refuse',
      `${count} ${count === 1 ? 'passage is' : 'passages are'} kept with “${labelOf(option)}”: give them another option first.`,
    );
  if (options().length === 1) return emit('refuse', 'A question to pick from has one option at least.');
  emit('change', options().toSpliced(index, 1));
}
/** Several lines pasted into a label are that many options. */
function paste(index: number, event: ClipboardEvent): void {
  const lines = (event.clipboardData?.getData('text/plain') ?? '').split(/\r?\n/).filter((line) => line.trim() !== '');
  if (lines.length < 2) return;
  event.preventDefault();
  const total = options().length + lines.length;
  if (total > MOST_OPTIONS) return emit('refuse', tooManyOptions(total));
  const taken = new Set(['empty', ...options().map((each) => each.key)]);
  const fresh = optionsFrom(lines).map((option) => {
    const key = keyFromLabel(labelOf(option), taken);
    taken.add(key);
    return { ...option, key };
  });
  const here = options()[index] as Option;
  const empty = here.wording === undefined && /^Option \d+$/.test(labelOf(here)) && !props.used.has(here.key);
  emit('change', options().toSpliced(index + (empty ? 0 : 1), empty ? 1 : 0, ...fresh));
}
useReorder(list, move, { handle: '.handle' });
</script>

<template>
  <fieldset class="wide options">
    <legend class="quiet small">Options: label for choosing, wording for the message</legend>
    <ol ref="list">
      <li v-for="(option, index) in options()" :key="option.key" class="option" :data-option="option.key">
        <PushButton
          kind="plain"
          class="handle"
          :aria-label="`${labelOf(option)}, option ${index + 1}: move with the arrow keys`"
          v-tip="'Drag, or move with the arrow keys'"
          @keydown.up.prevent="move(index, index - 1)"
          @keydown.down.prevent="move(index, index + 1)"
        >
          ⠿
        </PushButton>
        <InputText
          class="label"
          :model-value="labelOf(option)"
          maxlength="120"
          :aria-label="`Label of option ${index + 1}`"
          @focus="enter(option.key)"
          @change="relabel(index, option, $event)"
          @paste="paste(index, $event)"
          @keydown.enter.prevent="go(option.key)"
        />
        <LineEditor
          v-if="at === option.key"
          :line="option.wording ?? []"
          :of="{ kind: 'wording', variable: variable.key, option: option.key }"
          :label="`Wording of ${labelOf(option)}`"
          :placeholder="labelOf(option)"
          @change="reword(index, option, $event)"
          @focus="emit('try', option.key)"
          @done="add(index)"
        />
        <PushButton v-else class="wording" :aria-label="`Wording of ${labelOf(option)}`" @focus="go(option.key)">
          <LineWords v-if="option.wording" :line="option.wording" /><span v-else class="quiet">{{
            labelOf(option)
          }}</span>
        </PushButton>
        <PushButton kind="plain" :aria-label="`Remove ${labelOf(option)}`" @click="remove(index)"> − </PushButton>
      </li>
    </ol>
    <PushButton kind="plain" size="small" @click="add()">Add an option</PushButton>
  </fieldset>
</template>

<style scoped>
.options {
  border: 0;
  margin: 0;
  padding: 0;
  min-width: 0;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 4px;
}
.option {
  display: grid;
  grid-template-columns: 24px minmax(0, 2fr) minmax(0, 3fr) 28px;
  gap: 4px;
  align-items: start;
  content-visibility: auto;
  contain-intrinsic-size: auto 32px;
}
.handle {
  padding: 0;
  justify-content: center;
  cursor: grab;
  color: var(--quiet);
}
.wording {
  height: auto;
  min-height: 32px;
  padding: 5px 8px;
  justify-content: flex-start;
  text-align: left;
  white-space: normal;
  background: var(--sheet);
  border-color: var(--hair);
}
</style>
