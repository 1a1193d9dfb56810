<script setup lang="ts">
/**
 * A rendered message in a frame without scripts. Its content is replaced in place, so that nothing
 * flickers, and words that just changed are underlined for a moment.
 */
import { PROOF_CLASS, PROOF_DATA } from '@vocabula/core';
import { onMounted, useTemplateRef, watch } from 'vue';
import { PROOF_MARKS, WORKED_STOPS } from './proofMarks';
import { blockTexts, highlightChanges, replaceChanged } from './replaceChanged';

const props = withDefaults(
  defineProps<{
    fragment: string;
    bodyStyle: string;
    lang: string;
    dir: string;
    darkRules?: string;
    title: string;
    dark?: boolean;
    focusOf?: string | undefined;
    /** Classes of stretches, by their numbers in `data-s`: `lit`, `fresh`, `blank`. */
    marked?: ReadonlyMap<number, string>;
    pad?: string;
    /** While something is typed into the page itself, nothing in it is replaced. */
    held?: boolean;
    /** Addresses (`data-l`) of lines that are shown as changed. */
    reworded?: ReadonlySet<string>;
    /** Names of values that are shown as not confirmed yet. */
    unsure?: ReadonlySet<string>;
    /** Presses are for whoever works in the message. */
    worked?: boolean;
  }>(),
  { pad: '0' },
);
const emit = defineEmits<{
  pick: [path: string];
  blank: [key: string];
  key: [event: KeyboardEvent];
  /** The pointer is over a stretch, or over none. */
  point: [stretch: number | undefined];
  /** A stretch was pressed. */
  stretch: [stretch: number];
  /** With `worked`: something in the page was pressed. */
  press: [target: Element];
  /** The page was made, or replaced. */
  shown: [];
}>();
const frame = useTemplateRef('frame');

function update(): void {
  const inside = frame.value?.contentDocument;
  if (!inside?.body || props.held) return;
  if (!inside.head.querySelector('style')) {
    inside.head.append(
      Object.assign(inside.createElement('style'), { textContent: PROOF_MARKS }),
      Object.assign(inside.createElement('style'), { id: 'dark' }),
    );
    inside.addEventListener('click', onClick);
    // Events of the frame do not reach the page: it is told that somebody is at work here.
    for (const kind of ['keydown', 'pointerdown'])
      inside.addEventListener(kind, () => frame.value?.dispatchEvent(new Event('activity', { bubbles: true })), true);
    inside.addEventListener('keydown', (event) => emit('key', event));
    inside.addEventListener('mouseover', onPoint);
    inside.addEventListener('mouseleave', () => emit('point', undefined));
  }
  const dark = inside.getElementById('dark');
  if (dark && dark.textContent !== props.darkRules) dark.textContent = props.darkRules ?? '';
  inside.documentElement.lang = props.lang;
  inside.documentElement.dir = props.dir;
  inside.body.setAttribute('style', `${props.bodyStyle};padding:${props.pad}`);
  inside.body.classList.toggle('dark', props.dark ?? false);
  inside.documentElement.classList.toggle('worked', props.worked ?? false);
  const before = blockTexts(inside);
  const open = new Set([...inside.querySelectorAll('details[open]')].map((each) => each.getAttribute(PROOF_DATA.path)));
  replaceChanged(inside.body, props.fragment, markContent);
  for (const each of inside.querySelectorAll('details'))
    if (open.has(each.getAttribute(PROOF_DATA.path))) each.open = true;
  markFocus();
  emit('shown');
  if (before.size > 0) highlightChanges(inside, before);
}

function markFocus(): void {
  const inside = frame.value?.contentDocument;
  inside?.querySelectorAll('.vx-now').forEach((each) => each.classList.remove('vx-now'));
  if (!props.focusOf) return;
  const marked = inside?.querySelectorAll(`[${PROOF_DATA.of}="${CSS.escape(props.focusOf)}"]`);
  marked?.forEach((each) => each.classList.add('vx-now'));
  marked?.[0]?.scrollIntoView({ block: 'center' });
}

const stretchOf = (event: Event): number | undefined => {
  const number = (event.target as Element | null)
    ?.closest?.(`[${PROOF_DATA.stretch}]`)
    ?.getAttribute(PROOF_DATA.stretch);
  return number ? Number(number) : undefined;
};
let pointed: number | undefined;
function onPoint(event: Event): void {
  const stretch = stretchOf(event);
  if (stretch === pointed) return;
  pointed = stretch;
  emit('point', stretch);
}
/** Everything that is marked in the content itself, before it stands in the page. */
function markContent(content: ParentNode): void {
  markStretches(content);
  markChanged(content);
  if (props.worked) for (const stop of content.querySelectorAll<HTMLElement>(WORKED_STOPS)) stop.tabIndex = -1;
}
function markStretches(inside: ParentNode | null | undefined = frame.value?.contentDocument): void {
  if (!inside || !props.marked) return;
  for (const each of inside.querySelectorAll(`[${PROOF_DATA.stretch}]`))
    each.setAttribute('class', props.marked.get(Number(each.getAttribute(PROOF_DATA.stretch))) ?? '');
}
/** Shows which lines were reworded, and which values nobody has confirmed. */
function markChanged(inside: ParentNode | null | undefined = frame.value?.contentDocument): void {
  if (!inside) return;
  for (const line of inside.querySelectorAll(`[${PROOF_DATA.line}]`))
    line.classList.toggle('vx-reworded', props.reworded?.has(line.getAttribute(PROOF_DATA.line) ?? '') ?? false);
  for (const value of inside.querySelectorAll(`.${PROOF_CLASS.value}`))
    value.classList.toggle('vx-unsure', props.unsure?.has(value.getAttribute(PROOF_DATA.of) ?? '') ?? false);
}
/** Brings a stretch to eye height. */
function showStretch(stretch: number): void {
  frame.value?.contentDocument
    ?.querySelector(`[${PROOF_DATA.stretch}="${stretch}"]`)
    ?.scrollIntoView({ block: 'center' });
}

function onClick(event: Event): void {
  const target = event.target as Element | null;
  if (target?.closest('[contenteditable]')) return;
  event.preventDefault();
  if (props.worked && target) return emit('press', target);
  const stretch = stretchOf(event);
  if (stretch !== undefined) return emit('stretch', stretch);
  const details = target?.closest('summary')?.parentElement as HTMLDetailsElement | null | undefined;
  if (details) details.open = !details.open;
  const blank = target?.closest(`[${PROOF_DATA.blank}]`)?.getAttribute(PROOF_DATA.blank);
  if (blank) return emit('blank', blank);
  const path = target?.closest(`[${PROOF_DATA.path}]`)?.getAttribute(PROOF_DATA.path);
  if (path) emit('pick', path);
}

/** Brings the block at a path to a height in the frame, in pixels from its top. */
function level(path: string, height: number): void {
  const inside = frame.value?.contentDocument;
  const block = inside?.querySelector(`[${PROOF_DATA.path}="${CSS.escape(path)}"]`);
  if (block && inside?.scrollingElement)
    inside.scrollingElement.scrollTop += block.getBoundingClientRect().top - height;
}

onMounted(update);
watch(() => [props.fragment, props.bodyStyle, props.dark, props.lang, props.darkRules], update);
watch(() => props.focusOf, markFocus);
watch(
  () => props.marked,
  () => markStretches(),
);
watch(
  () => [props.reworded, props.unsure],
  () => markChanged(),
);
watch(
  () => props.held,
  (held) => held || update(),
);
defineExpose({ level, showStretch, page: () => frame.value?.contentDocument ?? undefined, frame });
</script>

<template>
  <iframe
    ref="frame"
    class="frame"
    sandbox="allow-same-origin"
    :title="title"
    srcdoc="<!doctype html><html><head><meta charset='utf-8'></head><body></body></html>"
    @load="update"
  />
</template>

<style scoped>
.frame {
  display: block;
  width: 100%;
  height: 100%;
  border: 0;
}
</style>
