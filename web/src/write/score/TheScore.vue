<script setup lang="ts">
/** The score: brackets on tracks left of the manuscript, one track a level, with what governs them. */
import { vTip } from '../../ui/controls/tip';
import PushButton from '../../ui/controls/PushButton.vue';
import { defineAsyncComponent, shallowRef } from 'vue';
import type { Desk } from '../desk/useDesk';
import type { Bracket } from '../editor/brackets';
import { bracketPath, MARKS } from './kinds';
import { useDrawnBrackets } from './useDrawnBrackets';
import { useEndDrag } from './useEndDrag';

/** Loaded when the first is opened: the list of the library with it. */
const BracketMenu = defineAsyncComponent(() => import('./BracketMenu.vue'));
const props = defineProps<{ desk: Pick<Desk, 'manuscript' | 'passages'>; sheet: HTMLElement | null }>();
const emit = defineEmits<{ choose: [] }>();
const { manuscript, passages } = props.desk;
const { editor } = manuscript;
const { drawn, deep } = useDrawnBrackets(manuscript, () => props.sheet);
const menu = shallowRef<{ readonly bracket: Bracket; readonly top: number }>();
const TRACK = 14;
const NARROW = 7;
const x = (level: number): number => (deep.value ? Math.min(level, 7) * NARROW : Math.min(level, 3) * TRACK) + 4;

function choose(bracket: Bracket): void {
  passages.choose(bracket);
  editor.commands.focus();
  emit('choose');
}
function act(run: () => void): void {
  menu.value = undefined;
  run();
}
const { dragging, drag } = useEndDrag(editor, passages, () => props.sheet);
const alternatives = (bracket: Bracket): number[] => passages.alternatives(bracket);
</script>

<template>
  <div class="score" role="group" aria-label="Score">
    <div
      v-for="(each, index) in drawn"
      :key="index"
      class="drawn"
      :class="{ here: each.here, out: passages.holds(each.bracket.condition) === false }"
      @contextmenu.prevent="menu = { bracket: each.bracket, top: each.labelTop ?? each.top }"
    >
      <PushButton
        v-if="each.labelTop !== undefined"
        class="label"
        tabindex="-1"
        :style="{ top: `${each.labelTop}px` }"
        v-tip="each.label"
        :aria-label="`${each.kind}: ${each.label}`"
        @mousedown.prevent
        @click="choose(each.bracket)"
      >
        <span class="words">{{ each.label }}</span>
        <svg class="mark" viewBox="0 0 16 16" aria-hidden="true"><path :d="MARKS[each.kind]" /></svg>
      </PushButton>
      <svg class="bracket" aria-hidden="true" :style="{ top: `${each.top}px`, height: `${each.height}px` }">
        <path class="line" :d="bracketPath(each.kind, x(each.bracket.level), each.height)" />
        <rect
          class="hit"
          :x="x(each.bracket.level) - 4"
          y="0"
          :width="deep ? 7 : 12"
          :height="each.height"
          @mousedown.prevent
          @click="choose(each.bracket)"
        />
        <template v-if="each.kind !== 'block'">
          <rect
            v-for="end in ['start', 'end'] as const"
            :key="end"
            class="end"
            :x="x(each.bracket.level) - 3"
            :y="end === 'start' ? 0 : each.height - 8"
            width="12"
            height="8"
            @mousedown.prevent
            @pointerdown.prevent="drag($event, each.bracket, end)"
          />
        </template>
      </svg>
      <span
        v-if="alternatives(each.bracket).length > 1 && passages.folds.value.hidden.size > 0 && each.here"
        class="switch"
        :style="{ top: `${each.top + each.height + 2}px` }"
      >
        <PushButton
          kind="plain"
          size="small"
          v-for="(pos, nth) in alternatives(each.bracket)"
          :key="nth"
          tabindex="-1"
          :aria-pressed="pos === each.bracket.from"
          @mousedown.prevent
          @click="passages.alone(alternatives(each.bracket)[nth] ?? pos)"
        >
          {{ nth + 1 }}
        </PushButton>
      </span>
    </div>
    <div v-if="dragging" class="guide" :style="{ top: `${dragging.top}px` }" />
    <BracketMenu
      v-if="menu"
      :passages="passages"
      :bracket="menu.bracket"
      :style="{ top: `${menu.top + 18}px`, left: '24px' }"
      @act="act"
      @close="menu = undefined"
    />
  </div>
</template>

<style scoped>
.score {
  position: relative;
  width: 176px;
  flex: none;
}
.label {
  position: absolute;
  left: 4px;
  width: 108px;
  height: auto;
  padding: 0;
  border: 0;
  display: -webkit-box;
  -webkit-line-clamp: 2;
  -webkit-box-orient: vertical;
  overflow: hidden;
  white-space: normal;
  text-align: right;
  font-size: 0.75rem;
  line-height: 1rem;
  color: var(--quiet);
  background: none;
}
.label:hover {
  text-decoration: underline;
}
.bracket {
  position: absolute;
  left: 118px;
  width: 58px;
  fill: none;
  stroke: var(--quiet);
  stroke-width: 1.5;
  overflow: visible;
  pointer-events: none;
}
.hit,
.end {
  stroke: none;
  fill: transparent;
  pointer-events: all;
  cursor: pointer;
}
.end {
  cursor: ns-resize;
}
.end:hover {
  fill: color-mix(in srgb, var(--action) 35%, transparent);
}
/* What is left out for the current recipient is dotted, what is kept solid. */
.out .line {
  stroke-dasharray: 1.5 3;
}
.here .line {
  stroke: var(--action);
}
.here .label {
  color: var(--action);
  font-weight: 600;
}
.switch {
  position: absolute;
  left: 60px;
  display: flex;
  background: var(--table);
}
.switch button {
  height: 20px;
  padding: 0 6px;
}
.switch [aria-pressed='true'] {
  font-weight: 600;
  box-shadow: inset 0 -2px var(--action);
}
.guide {
  position: absolute;
  left: 110px;
  right: -560px;
  border-top: 2px solid var(--action);
  z-index: 4;
  pointer-events: none;
}
.mark {
  display: none;
  width: 16px;
  height: 16px;
  fill: none;
  stroke: currentcolor;
  stroke-width: 1.5;
}
@media (max-width: 1279px) {
  .score {
    width: 80px;
  }
  .label {
    left: 0;
    width: 16px;
    display: block;
  }
  .words {
    display: none;
  }
  .mark {
    display: block;
  }
  .bracket {
    left: 16px;
  }
  .switch {
    left: 0;
  }
}
@media (max-width: 899px) {
  .score {
    width: 72px;
  }
  .bracket {
    left: 12px;
  }
}
</style>
