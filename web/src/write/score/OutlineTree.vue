<script setup lang="ts">
/** The score as an outline: a tree of brackets from which everything that is done with one works by key. */
import { computed, defineAsyncComponent, nextTick, ref, useTemplateRef, watch } from 'vue';
import { bracketInWords } from '../caret';
import type { Desk } from '../desk/useDesk';
import { flatten, sameBracket, type Bracket } from '../editor/brackets';
import { actsOf } from './acts';
import { kindOf, MARKS } from './kinds';

const BracketMenu = defineAsyncComponent(() => import('./BracketMenu.vue'));
const props = defineProps<{ desk: Pick<Desk, 'manuscript' | 'passages' | 'tellStays'> }>();
const { manuscript, passages } = props.desk;
const tree = useTemplateRef<HTMLElement>('tree');
/** Brackets whose children are not shown, by their path in the tree: their place in the text moves as one types. */
const closed = ref(new Set<string>());
const at = ref(0);
const menu = ref(false);

interface Row {
  readonly bracket: Bracket;
  readonly depth: number;
  readonly path: string;
}
const rows = computed(() => {
  const out: Row[] = [];
  const add = (brackets: readonly Bracket[], depth: number, above: string): void =>
    brackets.forEach((bracket, index) => {
      const path = `${above}${index} `;
      out.push({ bracket, depth, path });
      if (!closed.value.has(path)) add(bracket.children, depth + 1, path);
    });
  add(manuscript.brackets.value, 0, '');
  return out;
});
const row = computed(() => rows.value[Math.min(at.value, rows.value.length - 1)]);
const current = computed(() => row.value?.bracket);
const acts = computed(() => (current.value ? actsOf(passages, current.value) : []));
const kept = (bracket: Bracket): string => {
  const holds = passages.holds(bracket.condition);
  return holds === undefined ? '' : holds ? 'kept' : 'left out';
};
/** The outline follows the caret while the caret is in the text. */
watch(
  manuscript.chosen,
  (chosen) => {
    if (!chosen || tree.value?.contains(document.activeElement)) return;
    const index = rows.value.findIndex(({ bracket }) => sameBracket(bracket, chosen));
    if (index >= 0) at.value = index;
  },
  { immediate: true },
);

async function focusRow(index = at.value): Promise<void> {
  at.value = Math.max(0, Math.min(rows.value.length - 1, index));
  await nextTick();
  tree.value?.querySelectorAll<HTMLElement>('[role="treeitem"]')[at.value]?.focus();
}
/** Does something with the current bracket, and stays on it. */
async function act(run: () => void): Promise<void> {
  const before = current.value;
  menu.value = false;
  run();
  await nextTick();
  const index = rows.value.findIndex(({ bracket }) => sameBracket(bracket, before));
  await focusRow(index >= 0 ? index : at.value);
}
function toggle(path: string, close: boolean): void {
  const next = new Set(closed.value);
  if (close) next.add(path);
  else next.delete(path);
  closed.value = next;
}
function onKey(event: KeyboardEvent): void {
  if (!row.value) return;
  const { bracket, path } = row.value;
  const done = acts.value.find(({ is }) => is(event));
  if (done) void act(done.run);
  else if (event.shiftKey || event.ctrlKey || event.metaKey || event.altKey) return;
  else if (event.key === 'ArrowDown') void focusRow(at.value + 1);
  else if (event.key === 'ArrowUp') void focusRow(at.value - 1);
  else if (event.key === 'Home') void focusRow(0);
  else if (event.key === 'End') void focusRow(rows.value.length - 1);
  else if (event.key === 'ArrowRight') {
    if (closed.value.has(path)) toggle(path, false);
    else if (bracket.children.length > 0) void focusRow(at.value + 1);
  } else if (event.key === 'ArrowLeft') {
    if (bracket.children.length > 0 && !closed.value.has(path)) toggle(path, true);
    else
      void focusRow(
        rows.value.findLastIndex(({ depth }, index) => index < at.value && depth < (rows.value[at.value]?.depth ?? 0)),
      );
  } else if (event.key === 'Enter') {
    passages.choose(bracket);
    manuscript.editor.commands.focus();
  } else if (event.key === ' ') passages.choose(bracket);
  else if (event.key === 'm' || event.key === 'ContextMenu') menu.value = !menu.value;
  else if (event.key === 'Escape' || event.key === 'F6') manuscript.editor.commands.focus();
  else if (event.key === 'Delete' || event.key === 'Backspace') props.desk.tellStays();
  else return;
  event.preventDefault();
  event.stopPropagation();
}
defineExpose({ focus: () => focusRow() });
</script>

<template>
  <p v-if="rows.length === 0" class="quiet none">
    No passages yet. Select words and press <kbd>Alt ⏎</kbd> and <kbd>o</kbd>: they are kept only when ticked.
  </p>
  <div v-else class="outline">
    <ul ref="tree" role="tree" aria-label="Outline of the passages" @keydown="onKey">
      <li
        v-for="({ bracket, depth, path }, index) in rows"
        :key="path"
        role="treeitem"
        class="row"
        :class="{ selected: sameBracket(bracket, manuscript.chosen.value) }"
        :style="{ paddingInlineStart: `${12 + depth * 16}px` }"
        :tabindex="index === Math.min(at, rows.length - 1) ? 0 : -1"
        :aria-level="depth + 1"
        :aria-expanded="bracket.children.length > 0 ? !closed.has(path) : undefined"
        :aria-selected="sameBracket(bracket, manuscript.chosen.value)"
        :aria-label="`${kindOf(bracket, passages.variableOf(bracket))}, ${bracketInWords(bracket, manuscript.variables.value)}${kept(bracket) ? `, ${kept(bracket)}` : ''}: ${manuscript.firstWords(bracket)}`"
        @focus="at = index"
        @click="passages.choose(bracket)"
        @dblclick="manuscript.editor.commands.focus()"
        @contextmenu.prevent="
          at = index;
          menu = true;
        "
      >
        <span class="twist" aria-hidden="true" @click.stop="toggle(path, !closed.has(path))">{{
          bracket.children.length === 0 ? '' : closed.has(path) ? '▸' : '▾'
        }}</span>
        <svg class="mark" viewBox="0 0 16 16" aria-hidden="true">
          <path :d="MARKS[kindOf(bracket, passages.variableOf(bracket))]" />
        </svg>
        <b class="label">{{ bracketInWords(bracket, manuscript.variables.value) }}</b>
        <span class="quiet small kept" :class="{ out: kept(bracket) === 'left out' }">{{ kept(bracket) }}</span>
        <span class="quiet small words">{{ manuscript.firstWords(bracket) }}</span>
      </li>
    </ul>
    <BracketMenu
      v-if="menu && current"
      class="menu"
      :passages="passages"
      :bracket="current"
      @act="act"
      @close="menu = false"
    />
    <p class="quiet small keys">
      <kbd>⏎</kbd> to the text <kbd>m</kbd> what can be done
      <button class="plain small" @click="passages.foldAll(true)">Fold all</button
      ><button class="plain small" @click="passages.foldAll(false)">Open all</button>
      {{ flatten(manuscript.brackets.value).length }} brackets
    </p>
  </div>
</template>

<style scoped>
.outline {
  position: relative;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
ul .row {
  display: grid;
  grid-template-columns: 12px 16px minmax(0, 11fr) 48px minmax(0, 14fr);
  gap: 6px;
  padding: 4px 12px;
  font-size: 0.8125rem;
  line-height: 1.25rem;
  cursor: pointer;
}
.label,
.words {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.label {
  font-weight: 500;
}
.mark {
  width: 16px;
  height: 16px;
  fill: none;
  stroke: var(--quiet);
  stroke-width: 1.5;
  align-self: center;
}
.kept.out {
  border-bottom: 1.5px dotted var(--edge);
}
.menu {
  right: 8px;
  top: 8px;
}
.none,
.keys {
  padding: 8px 14px;
}
.keys {
  display: flex;
  gap: 6px;
  align-items: center;
  flex-wrap: wrap;
}
</style>
