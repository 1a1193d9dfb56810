<script setup lang="ts">
/** An expression: names completed as one types, what is wrong underlined where it is, and what it comes to. */
import Textarea from 'primevue/textarea';
import { computed, nextTick, ref, useId, useTemplateRef } from 'vue';
import { completionsAt, wordAt, type Completion, type Named } from './names';

export interface ExpressionProblem {
  readonly offset: number;
  readonly length: number;
  readonly message: string;
}

const props = defineProps<{
  label: string;
  names: readonly Named[];
  problems: readonly ExpressionProblem[];
  /** What it comes to for the current recipient, in words; undefined where it cannot be told. */
  value: string | undefined;
}>();
const source = defineModel<string>({ required: true });
const id = useId();
const field = useTemplateRef<{ $el: HTMLTextAreaElement }>('field');
const completions = ref<readonly Completion[]>([]);
const at = ref(0);

/** The source in pieces, those that are wrong marked. */
const pieces = computed(() => {
  const wrong = props.problems.toSorted((a, b) => a.offset - b.offset);
  const out: { readonly text: string; readonly wrong: boolean }[] = [];
  let from = 0;
  for (const { offset, length } of wrong) {
    if (offset < from) continue;
    out.push({ text: source.value.slice(from, offset), wrong: false });
    // A problem at the very end has no letter of its own to stand under.
    out.push({ text: source.value.slice(offset, offset + length) || ' ', wrong: true });
    from = offset + length;
  }
  out.push({ text: source.value.slice(from), wrong: false });
  return out;
});

function typed(event: Event): void {
  source.value = (event.target as HTMLTextAreaElement).value.replace(/\n/g, ' ');
  offer();
}
function offer(): void {
  const caret = field.value?.$el.selectionStart ?? 0;
  completions.value = completionsAt(field.value?.$el.value ?? '', caret, props.names);
  at.value = 0;
}
async function complete(completion: Completion | undefined): Promise<void> {
  const caret = field.value?.$el.selectionStart ?? 0;
  if (!completion) return;
  const { start } = wordAt(source.value, caret);
  source.value = source.value.slice(0, start) + completion.insert + source.value.slice(caret);
  completions.value = [];
  await nextTick();
  field.value?.$el.setSelectionRange(start + completion.caret, start + completion.caret);
}
function onKey(event: KeyboardEvent): void {
  const { length } = completions.value;
  if (length === 0) {
    if (event.key === 'Enter') event.preventDefault();
    return;
  }
  const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
  if (step !== 0) at.value = (at.value + step + length) % length;
  else if (event.key === 'Enter' || event.key === 'Tab') void complete(completions.value[at.value]);
  else if (event.key === 'Escape') completions.value = [];
  else return;
  event.preventDefault();
  event.stopPropagation();
}
defineExpose({ focus: () => field.value?.$el.focus() });
</script>

<template>
  <div class="expression">
    <span :id="`${id}-label`" class="quiet small">{{ label }}</span>
    <div class="box">
      <pre
        aria-hidden="true"
      ><span v-for="(piece, index) in pieces" :key="index" :class="{ wrong: piece.wrong }">{{ piece.text }}</span></pre>
      <Textarea
        ref="field"
        rows="1"
        spellcheck="false"
        autocomplete="off"
        role="combobox"
        :aria-labelledby="`${id}-label`"
        :aria-expanded="completions.length > 0"
        :aria-controls="`${id}-list`"
        :aria-activedescendant="completions.length > 0 ? `${id}-${at}` : undefined"
        :aria-invalid="problems.length > 0"
        :aria-describedby="`${id}-note`"
        :model-value="source"
        @input="typed"
        @keydown="onKey"
        @blur="completions = []"
      />
      <ul
        v-if="completions.length > 0"
        :id="`${id}-list`"
        class="completions sheet"
        role="listbox"
        :aria-label="`What ${label} may name`"
      >
        <li
          v-for="(completion, index) in completions"
          :id="`${id}-${index}`"
          :key="completion.words"
          role="option"
          class="row"
          :aria-selected="index === at"
          @mousedown.prevent="complete(completion)"
        >
          <code>{{ completion.words }}</code><span class="quiet small">{{ completion.detail }}</span>
        </li>
      </ul>
    </div>
    <p :id="`${id}-note`" class="small" :class="problems.length > 0 ? 'error' : 'quiet'">
      {{ problems[0]?.message ?? (value === undefined ? 'waiting for a value' : `for this recipient: ${value}`) }}
    </p>
  </div>
</template>

<style scoped>
.expression {
  width: 100%;
}
.box {
  position: relative;
}
pre,
textarea {
  font:
    0.8125rem/1.25rem Consolas,
    Menlo,
    monospace;
  margin: 0;
  padding: 5px 8px;
  white-space: pre-wrap;
  overflow-wrap: anywhere;
  border: 1px solid transparent;
}
pre {
  min-height: 32px;
  color: transparent;
}
textarea {
  position: absolute;
  inset: 0;
  height: 100%;
  min-height: 32px;
  resize: none;
  overflow: hidden;
  border-color: var(--edge);
  background: transparent;
}
.box {
  background: var(--sheet);
}
.wrong {
  text-decoration: underline wavy var(--error);
  text-underline-offset: 3px;
  text-decoration-skip-ink: none;
}
.completions {
  position: absolute;
  left: 0;
  right: 0;
  top: 100%;
  z-index: 14;
  list-style: none;
  margin: 2px 0 0;
  padding: 0;
}
.row {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  padding: 4px 8px;
  cursor: pointer;
}
p {
  margin-top: 2px;
  min-height: 16px;
}
</style>
