<script setup lang="ts">
/** What can be put in at the caret: placeholders, passages, blocks. Opened by Alt Enter or by typing {{. */
import type { TextSummary } from '@vocabula/contract';
import { labelFromKey, valueType, type Condition, type Variable } from '@vocabula/core';
import { computed, onMounted, ref, useTemplateRef } from 'vue';

export type Insertion =
  | { readonly what: 'placeholder'; readonly name: string; readonly view: string }
  | { readonly what: 'passage'; readonly condition: Condition }
  | { readonly what: 'new-passage'; readonly label: string }
  | { readonly what: 'new-variable'; readonly label: string }
  | { readonly what: 'block'; readonly name: string };

const props = defineProps<{
  variables: readonly Variable[];
  fields: readonly string[];
  texts: readonly TextSummary[];
  own: string;
  inBody: boolean;
  place: { left: number; top: number };
}>();
const emit = defineEmits<{ choose: [insertion: Insertion]; close: [] }>();
const input = useTemplateRef('input');
const typed = ref('');
const at = ref(0);
onMounted(() => input.value?.focus());

interface Entry {
  readonly group: string;
  readonly words: string;
  readonly detail: string;
  readonly insertion: Insertion;
}
const condition = (of: string, is: string[] = [], not = false): Condition => ({ of, is, not, run: 0 });
const labelOf = (variable: Variable): string => variable.label ?? labelFromKey(variable.key);

const entries = computed<Entry[]>(() => {
  const placeholders = props.variables.flatMap((variable): Entry[] => {
    const views = valueType(variable.type).views(variable);
    const plain: Entry[] =
      variable.type === 'list'
        ? []
        : [
            {
              group: 'Variables',
              words: labelOf(variable),
              detail: variable.value ? 'worked out' : variable.type,
              insertion: { what: 'placeholder', name: variable.key, view: '' },
            },
          ];
    return [
      ...plain,
      ...views.map((view): Entry => ({
        group: 'Variables',
        words: `${labelOf(variable)} · ${view}`,
        detail: variable.type,
        insertion: { what: 'placeholder', name: variable.key, view },
      })),
    ];
  });
  const fields = props.fields.map((name): Entry => ({
    group: name.startsWith('sender') ? 'My fields' : 'Recipient',
    words: labelFromKey(name.split('.')[1] ?? name),
    detail: name,
    insertion: { what: 'placeholder', name, view: '' },
  }));
  const passages = !props.inBody
    ? []
    : [
        {
          group: 'Passages',
          words: 'New optional passage',
          detail: 'switched by a tick',
          insertion: { what: 'new-passage', label: typed.value } as Insertion,
        },
        ...props.variables.flatMap((variable): Entry[] => {
          if (variable.type === 'yes-no')
            return [
              {
                group: 'Passages',
                words: `Only with: ${labelOf(variable)}`,
                detail: 'passage',
                insertion: { what: 'passage', condition: condition(variable.key) },
              },
              {
                group: 'Passages',
                words: `Only without: ${labelOf(variable)}`,
                detail: 'passage',
                insertion: { what: 'passage', condition: condition(variable.key, [], true) },
              },
            ];
          if (variable.type === 'choice' || variable.type === 'choices')
            return (variable.options ?? []).map((option): Entry => ({
              group: 'Passages',
              words: `Only with: ${labelOf(variable)}, ${option.label ?? labelFromKey(option.key)}`,
              detail: 'alternative',
              insertion: { what: 'passage', condition: condition(variable.key, [option.key]) },
            }));
          return [];
        }),
      ];
  const blocks = !props.inBody
    ? []
    : props.texts
        .filter((text) => text.kind !== 'message' && text.name !== props.own && !text.binned)
        .map((text): Entry => ({
          group: 'Blocks, live',
          words: text.title,
          detail: text.kind,
          insertion: { what: 'block', name: text.name },
        }));
  return [...placeholders, ...fields, ...passages, ...blocks];
});
const fold = (text: string): string =>
  text
    .normalize('NFKD')
    .replace(/\p{M}+/gu, '')
    .toLowerCase();
const shown = computed(() => {
  const words = fold(typed.value).split(/\s+/).filter(Boolean);
  const found = entries.value.filter(
    (entry) =>
      words.every((word) => fold(`${entry.words} ${entry.detail} ${entry.group}`).includes(word)) ||
      entry.insertion.what === 'new-passage',
  );
  // Plain placeholders before their other views; what nobody has yet can be made from what was typed.
  const plain = found.sort((a, b) => Number(a.words.includes(' · ')) - Number(b.words.includes(' · ')) || 0);
  const grouped = [...new Set(['Variables', 'Recipient', 'My fields', 'Passages', 'Blocks, live'])].flatMap((group) =>
    plain.filter((entry) => entry.group === group).slice(0, group === 'Variables' && typed.value === '' ? 12 : 30),
  );
  const made: Entry[] = typed.value.trim()
    ? [
        {
          group: 'New',
          words: `New variable “${typed.value.trim()}”`,
          detail: 'text',
          insertion: { what: 'new-variable', label: typed.value.trim() },
        },
      ]
    : [];
  return [
    ...grouped.filter(
      (entry) =>
        entry.insertion.what !== 'new-passage' ||
        !typed.value.trim() ||
        grouped.length <= 1 ||
        fold(entry.words).includes(fold(typed.value)),
    ),
    ...made,
  ];
});
function choose(entry: Entry | undefined): void {
  if (entry) emit('choose', entry.insertion);
}
function onKey(event: KeyboardEvent): void {
  const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
  if (step !== 0) {
    event.preventDefault();
    at.value = (at.value + step + shown.value.length) % Math.max(1, shown.value.length);
    document.getElementById(`insert-${at.value}`)?.scrollIntoView({ block: 'nearest' });
  } else if (event.key === 'Enter') {
    event.preventDefault();
    choose(shown.value[at.value]);
  } else if (event.key === 'Escape') {
    event.preventDefault();
    event.stopPropagation();
    emit('close');
  }
}
</script>

<template>
  <section
    class="insert sheet"
    role="dialog"
    aria-label="Insert"
    :style="{ left: `${props.place.left}px`, top: `${props.place.top}px` }"
    @keydown="onKey"
  >
    <input
      ref="input"
      v-model="typed"
      role="combobox"
      aria-expanded="true"
      aria-controls="insert-list"
      :aria-activedescendant="`insert-${at}`"
      aria-label="Insert"
      placeholder="variable, passage or block"
      autocomplete="off"
      @input="at = 0"
      @blur="emit('close')"
    />
    <ul id="insert-list" class="rows" role="listbox" aria-label="What can be put in">
      <template v-for="(entry, index) in shown" :key="entry.group + entry.words">
        <li v-if="entry.group !== shown[index - 1]?.group" class="group quiet small" role="presentation">
          {{ entry.group }}
        </li>
        <li
          :id="`insert-${index}`"
          class="row"
          role="option"
          :aria-selected="index === at"
          @mousedown.prevent="choose(entry)"
          @mousemove="at = index"
        >
          <span>{{ entry.words }}</span><span class="quiet small right">{{ entry.detail }}</span>
        </li>
      </template>
    </ul>
  </section>
</template>

<style scoped>
.insert {
  position: fixed;
  width: 340px;
  z-index: 12;
}
input {
  border: 0 !important;
  border-bottom: 1px solid var(--hair) !important;
  border-radius: 0;
  height: 36px !important;
  padding: 0 12px !important;
}
input:focus-visible {
  outline-offset: -2px;
}
.rows {
  max-height: 280px;
  overflow: auto;
}
.rows > li {
  border: 0;
}
.row {
  display: flex;
  gap: 12px;
  padding: 4px 12px;
  cursor: pointer;
  font-size: 0.8125rem;
  line-height: 1.25rem;
}
.group {
  padding: 6px 12px 2px;
}
</style>
