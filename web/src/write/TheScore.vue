<script setup lang="ts">
/** The score: brackets on tracks left of the manuscript, one track a level, with what governs them. */
import type { Editor } from '@tiptap/core';
import { conditionInWords, type Condition, type Variable } from '@vocabula/core';
import { onMounted, onUnmounted, shallowRef, watch } from 'vue';
import { knownText } from '../ui/library';
import { selectNode, variablesOf } from './editor/operations';

type Kind = 'optional' | 'alternative' | 'conditional' | 'repeated' | 'block';
interface Bracket {
  readonly pos: number;
  readonly kind: Kind;
  readonly label: string;
  readonly level: number;
  readonly top: number;
  readonly height: number;
  readonly here: boolean;
  readonly labelTop: number;
}

const props = defineProps<{ editor: Editor; sheet: HTMLElement | null }>();
const emit = defineEmits<{ choose: [pos: number] }>();
const brackets = shallowRef<Bracket[]>([]);
const TRACK = 14;
const LABEL_LINE = 16;

function kindOf(condition: Condition, variable: Variable | undefined): Kind {
  if (variable?.type === 'list' && !condition.not) return 'repeated';
  if (condition.is.length > 0) return 'alternative';
  return variable?.value === undefined ? 'optional' : 'conditional';
}

function measure(): void {
  const { sheet, editor } = props;
  if (!sheet || editor.isDestroyed) return;
  const variables = variablesOf(editor.state.doc);
  const origin = sheet.getBoundingClientRect().top;
  const { from, to } = editor.state.selection;
  const found: Omit<Bracket, 'labelTop'>[] = [];
  editor.state.doc.descendants((node, pos) => {
    const { name } = node.type;
    if (name !== 'passage' && name !== 'inclusion') return name !== 'subject' && !node.isTextblock;
    const element = editor.view.nodeDOM(pos);
    if (!(element instanceof HTMLElement)) return true;
    const box = element.getBoundingClientRect();
    const $pos = editor.state.doc.resolve(pos);
    let level = 0;
    for (let depth = $pos.depth; depth > 0; depth -= 1) if ($pos.node(depth).type.name === 'passage') level += 1;
    const variable = variables.find((each) => each.key === node.attrs.of);
    const condition = node.attrs as Condition;
    found.push({
      pos,
      level,
      top: box.top - origin,
      height: box.height,
      here: from <= pos + node.nodeSize && to >= pos,
      kind: name === 'inclusion' ? 'block' : kindOf(condition, variable),
      label:
        name === 'inclusion'
          ? `Block: ${knownText(String(node.attrs.name))?.attrs.front.title.toLowerCase() ?? String(node.attrs.name)}`
          : conditionInWords(condition, variable),
    });
    return true;
  });
  // Labels stand at their bracket's top, pushed down where they would touch.
  let free = -Infinity;
  brackets.value = found.map((bracket) => {
    const labelTop = Math.max(bracket.top + 2, free);
    free = labelTop + LABEL_LINE * (bracket.label.length > 17 ? 2 : 1) + 2;
    return { ...bracket, labelTop };
  });
}
let frame = 0;
const later = (): void => {
  cancelAnimationFrame(frame);
  frame = requestAnimationFrame(measure);
};
const watcher = new ResizeObserver(later);
onMounted(() => {
  props.editor.on('transaction', later);
  if (props.sheet) watcher.observe(props.sheet);
  later();
});
watch(
  () => props.sheet,
  (sheet) => {
    if (sheet) watcher.observe(sheet);
    later();
  },
);
onUnmounted(() => {
  props.editor.off('transaction', later);
  watcher.disconnect();
});

const x = (level: number): number => Math.min(level, 3) * TRACK + 4;
function path({ kind, height, level }: Bracket): string {
  const left = x(level);
  const right = left + 8;
  const middle = height / 2;
  switch (kind) {
    case 'alternative':
      return `M${right} 1 Q${left} 1 ${left} 9 V${height - 9} Q${left} ${height - 1} ${right} ${height - 1}`;
    case 'conditional':
      return `M${right} 1 H${left} V${middle - 5} L${left - 4} ${middle} L${left} ${middle + 5} V${height - 1} H${right}`;
    case 'repeated':
      return `M${right} 1 H${left} V${height - 1} H${right} M${left - 3} ${middle + 2} a4 4 0 1 1 5 2 m-5 -2 l-1 -4 m1 4 l4 -1`;
    case 'block':
      return `M${right} 1 H${left} V${height - 1} H${right} M${left + 3} 1 V${height - 1}`;
    default:
      return `M${right} 1 H${left} V${height - 1} H${right}`;
  }
}
/** What stands for a label where there is no room for its words. */
const MARKS: Readonly<Record<Bracket['kind'], string>> = {
  optional: 'M10 3H6v10h4',
  alternative: 'M12 3Q6 3 6 8T12 13',
  conditional: 'M8 3l5 5-5 5-5-5z',
  repeated: 'M5 6a4 4 0 1 1-1 4M5 2v4h4',
  block: 'M10 3H5v10h5M8 3v10',
};
function choose(pos: number): void {
  selectNode(props.editor, pos);
  emit('choose', pos);
}
</script>

<template>
  <div class="score" role="tree" aria-label="Score">
    <div
      v-for="bracket in brackets"
      :key="bracket.pos"
      role="treeitem"
      :aria-level="bracket.level + 1"
      :aria-label="bracket.label"
      :aria-selected="bracket.here"
      :class="{ here: bracket.here }"
    >
      <button
        class="label"
        :style="{ top: `${bracket.labelTop}px` }"
        :title="bracket.label"
        @mousedown.prevent
        @click="choose(bracket.pos)"
      >
        <span class="words">{{ bracket.label }}</span>
        <svg class="mark" viewBox="0 0 16 16" aria-hidden="true"><path :d="MARKS[bracket.kind]" /></svg>
      </button>
      <svg
        class="bracket"
        aria-hidden="true"
        :style="{ top: `${bracket.top}px`, height: `${bracket.height}px` }"
        @mousedown.prevent
        @click="choose(bracket.pos)"
      >
        <path :d="path(bracket)" />
      </svg>
    </div>
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
  cursor: pointer;
  overflow: visible;
}
.here .bracket {
  stroke: var(--action);
}
.here .label {
  color: var(--action);
  font-weight: 600;
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
