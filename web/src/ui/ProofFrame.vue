<script setup lang="ts">
/**
 * A rendered message in a frame without scripts. Its content is replaced in place, so that nothing
 * flickers, and words that just changed are underlined for a moment.
 */
import { PROOF_CLASS, PROOF_DATA } from '@vocabula/core';
import { onMounted, useTemplateRef, watch } from 'vue';
import { assetUrl } from '../api/client';

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

const MARKS = `
  html { color-scheme: light; }
  body { overflow-wrap: anywhere; }
  body > :last-child { margin-bottom: 0 !important; }
  .${PROOF_CLASS.blank} { background: linear-gradient(transparent 58%, #E9B949 58%, #E9B949 92%, transparent 92%); cursor: pointer; }
  [${PROOF_DATA.stretch}] { cursor: pointer; }
  .vs-lit { background-color: #DCE9E6; box-shadow: 0 -2px #DCE9E6, 0 2px #DCE9E6; color: #20262E; }
  .vs-fresh { font-weight: 600; text-decoration: underline 2px #1E6E66; text-underline-offset: 3px; }
  .vs-blank { background: linear-gradient(transparent 58%, #E9B949 58%, #E9B949 92%, transparent 92%); }
  .vx-now { background-color: #DCE9E6; box-shadow: 0 -3px #DCE9E6, 0 3px #DCE9E6; }
  .${PROOF_CLASS.gone} { display: inline-block; width: 10px; border-bottom: 1.5px dotted #857D6E; }
  .${PROOF_CLASS.leftOut} { margin: 0 0 14px; color: #5D6470; }
  .${PROOF_CLASS.leftOut} summary { font: 12px/16px sans-serif; display: flex; align-items: center; gap: 8px; cursor: pointer; list-style: none; }
  .${PROOF_CLASS.leftOut} summary::after { content: ''; flex: 1; border-top: 1.5px dotted #857D6E; }
  .${PROOF_CLASS.leftOut}[open] > :not(summary) { opacity: .75; border-left: 1.5px dotted #857D6E; padding-left: 12px !important; }
  ::highlight(changed) { text-decoration: underline 1.5px; }
  @media (forced-colors: active) { .${PROOF_CLASS.blank} { outline: 1px solid; } }
  .${PROOF_CLASS.note} { font: 12px/16px sans-serif; color: #5D6470; border-left: 2px solid #857D6E; padding-left: 6px; margin: 0 0 14px; }
  span.${PROOF_CLASS.note} { margin: 0; }
  .vx-unsure { border-bottom: 1.5px dotted #5D6470; }
  [${PROOF_DATA.line}] { border-radius: 1px; }
  .worked [${PROOF_DATA.line}]:hover, .worked summary:hover { box-shadow: 0 0 0 4px #F4F1EA; background-color: #F4F1EA; cursor: text; }
  [${PROOF_DATA.line}]:focus, summary:focus { outline: 2px solid #1E6E66; outline-offset: 4px; }
  [${PROOF_DATA.line}][contenteditable] { outline: 2px solid #1E6E66; outline-offset: 4px; background: #FFFDF8; box-shadow: none; }
  [${PROOF_DATA.line}][contenteditable] [${PROOF_DATA.node}] .${PROOF_CLASS.value}, [${PROOF_DATA.line}][contenteditable] .${PROOF_CLASS.value} { border-bottom: 1.5px dotted #857D6E; }
  .vx-reworded { text-decoration: underline 1.5px dashed #7A5400; text-underline-offset: 4px; }
  .worked .${PROOF_CLASS.gone} { cursor: pointer; }
`;

function update(): void {
  const inside = frame.value?.contentDocument;
  if (!inside?.body || props.held) return;
  if (!inside.head.querySelector('style')) {
    inside.head.append(
      Object.assign(inside.createElement('style'), { textContent: MARKS }),
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
  const before = new Map(
    [...inside.body.children].map((child, index) => [
      child.getAttribute(PROOF_DATA.path) ?? `#${index}`,
      child.textContent ?? '',
    ]),
  );
  const open = new Set([...inside.querySelectorAll('details[open]')].map((each) => each.getAttribute(PROOF_DATA.path)));
  replaceChanged(inside.body, props.fragment);
  for (const each of inside.querySelectorAll('details'))
    if (open.has(each.getAttribute(PROOF_DATA.path))) each.open = true;
  markFocus();
  markStretches();
  markChanged();
  emit('shown');
  if (before.size > 0) highlight(inside, before);
}

/** Puts new content in place of the old, leaving alone the blocks at either end that stay the same. */
function replaceChanged(body: HTMLElement, fragment: string): void {
  const template = body.ownerDocument.createElement('template');
  template.innerHTML = fragment;
  for (const image of template.content.querySelectorAll('img')) fetchOwn(image);
  const [old, next] = [[...body.childNodes], [...template.content.childNodes]];
  const same = (a: Node | undefined, b: Node | undefined): boolean => a?.isEqualNode(b ?? null) ?? false;
  let start = 0;
  while (start < Math.min(old.length, next.length) && same(old[start], next[start])) start += 1;
  let end = 0;
  while (end < Math.min(old.length, next.length) - start && same(old.at(-1 - end), next.at(-1 - end))) end += 1;
  const behind = old[old.length - end] ?? null;
  for (const node of old.slice(start, old.length - end)) node.remove();
  for (const node of next.slice(start, next.length - end)) body.insertBefore(node, behind);
}

/** Assets come from this server; an image of elsewhere is not fetched, and shows its alternative text. */
function fetchOwn(image: HTMLImageElement): void {
  const src = image.getAttribute('src') ?? '';
  if (src.startsWith('assets/')) image.setAttribute('src', assetUrl(src));
  else if (!src.startsWith('data:')) image.removeAttribute('src');
}

/** Underlines what differs from before, between the common beginning and end of each block. */
function highlight(inside: Document, before: ReadonlyMap<string, string>): void {
  const view = inside.defaultView as
    (Window & { CSS?: { highlights?: Map<string, unknown> }; Highlight?: new (...ranges: Range[]) => unknown }) | null;
  if (!view?.CSS?.highlights || !view.Highlight) return;
  const ranges: Range[] = [];
  [...inside.body.children].forEach((child, index) => {
    const old = before.get(child.getAttribute(PROOF_DATA.path) ?? `#${index}`);
    const now = child.textContent ?? '';
    if (old === undefined || old === now) return;
    let start = 0;
    while (start < now.length && now[start] === old[start]) start += 1;
    let end = 0;
    while (
      end < now.length - start &&
      end < old.length - start &&
      now[now.length - 1 - end] === old[old.length - 1 - end]
    )
      end += 1;
    const range = textRange(child, start, now.length - end);
    if (range) ranges.push(range);
  });
  view.CSS.highlights.set('changed', new view.Highlight(...ranges));
  setTimeout(() => view.CSS?.highlights?.delete('changed'), 600);
}

function textRange(within: Element, from: number, to: number): Range | undefined {
  const inside = within.ownerDocument;
  const walker = inside.createTreeWalker(within, 4);
  const range = inside.createRange();
  let at = 0;
  let begun = false;
  for (let node = walker.nextNode(); node; node = walker.nextNode()) {
    const { length } = node.textContent ?? '';
    if (!begun && at + length >= from) {
      range.setStart(node, from - at);
      begun = true;
    }
    if (begun && at + length >= to) {
      range.setEnd(node, to - at);
      return range;
    }
    at += length;
  }
  return undefined;
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
function markStretches(): void {
  const inside = frame.value?.contentDocument;
  if (!inside || !props.marked) return;
  for (const each of inside.querySelectorAll(`[${PROOF_DATA.stretch}]`))
    each.setAttribute('class', props.marked.get(Number(each.getAttribute(PROOF_DATA.stretch))) ?? '');
}
/** Shows which lines were reworded, and which values nobody has confirmed. */
function markChanged(): void {
  const inside = frame.value?.contentDocument;
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
watch(() => props.marked, markStretches);
watch(() => [props.reworded, props.unsure], markChanged);
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
