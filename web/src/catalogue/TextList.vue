<script setup lang="ts">
/** The texts as a list that is fast however long: one is read, several may be chosen. */
import type { TextSummary } from '@vocabula/contract';
import { useVirtualizer } from '@tanstack/vue-virtual';
import { computed, useTemplateRef, watch } from 'vue';
import { whenInWords } from '../ui/today';
import type { Catalogue } from './useCatalogue';

const { catalogue } = defineProps<{ catalogue: Catalogue }>();
const emit = defineEmits<{ open: [text: TextSummary]; move: []; tag: [] }>();
const { shown, current, chosen, hits, go, bin, shift, me } = catalogue;
const ROW = 48;
const KIND_WORD = { message: 'template', block: 'block', signature: 'signature', series: 'series' } as const;
const STATE_WORD = {
  'not published': 'not published',
  published: '',
  changed: 'changed',
  withdrawn: 'withdrawn',
  retired: 'retired',
} as const;
const scroller = useTemplateRef<HTMLElement>('scroller');
const rows = useVirtualizer(
  computed(() => ({
    count: shown.value.length,
    getScrollElement: () => scroller.value,
    estimateSize: () => ROW,
    overscan: 12,
  })),
);
const at = computed(() => shown.value.findIndex(({ name }) => name === current.value?.name));
// Also when one comes with an address, once the rows have their place.
watch(
  [at, scroller],
  ([index, element]) => {
    if (index >= 0 && element) rows.value.scrollToIndex(index, { align: 'auto' });
  },
  { flush: 'post', immediate: true },
);

/** Where a stretch of chosen texts begins. */
let anchor = 0;
function pick(
  index: number,
  { shiftKey, ctrlKey, metaKey }: { shiftKey: boolean; ctrlKey: boolean; metaKey: boolean },
): void {
  const text = shown.value[index];
  if (!text) return;
  if (shiftKey) {
    const [from, to] = [Math.min(anchor, index), Math.max(anchor, index)];
    chosen.value = new Set(shown.value.slice(from, to + 1).map(({ name }) => name));
  } else if (ctrlKey || metaKey) {
    toggle(text);
    anchor = index;
  } else {
    anchor = index;
    chosen.value = new Set();
  }
  go({ name: text.name });
}
function toggle({ name }: TextSummary): void {
  const next = new Set(chosen.value);
  if (!next.delete(name)) next.add(name);
  chosen.value = next;
}
/** What Delete puts into the bin: the chosen texts, or the current one. */
const toBin = computed(() => catalogue.subjects.value.filter(({ binned }) => !binned));
function onKey(event: KeyboardEvent): void {
  const { key, shiftKey, ctrlKey, metaKey } = event;
  const text = current.value;
  const by = key === 'ArrowDown' ? 1 : key === 'ArrowUp' ? -1 : 0;
  if (by !== 0 && (ctrlKey || metaKey) && text?.mayWrite) void shift(text, by);
  else if (by !== 0)
    pick(Math.max(0, Math.min(shown.value.length - 1, at.value + by)), { shiftKey, ctrlKey: false, metaKey: false });
  else if (key === 'Home') pick(0, { shiftKey, ctrlKey: false, metaKey: false });
  else if (key === 'End') pick(shown.value.length - 1, { shiftKey, ctrlKey: false, metaKey: false });
  else if (ctrlKey || metaKey) {
    if (key !== 'a') return;
    chosen.value = new Set(shown.value.map(({ name }) => name));
  } else if (key === 'Enter' && text) emit('open', text);
  else if (key === ' ' && text) toggle(text);
  else if (key === 'Delete' && me.isAuthor && toBin.value.length > 0) void bin(toBin.value);
  else if (key === 'm' && me.isAuthor) emit('move');
  else if (key === 't' && me.isAuthor) emit('tag');
  else if (key === 'Escape' && chosen.value.size > 0) chosen.value = new Set();
  else return;
  event.preventDefault();
}
function drag(event: DragEvent, text: TextSummary): void {
  const names = chosen.value.has(text.name) ? [...chosen.value] : [text.name];
  event.dataTransfer?.setData('text/x-texts', names.join(','));
  event.dataTransfer?.setData('text/plain', text.title);
}
/** What the row says at its end: where the text stands, else when it was used. */
function said(text: TextSummary): string {
  if (STATE_WORD[text.state]) return STATE_WORD[text.state];
  if (text.kind !== 'message') return KIND_WORD[text.kind];
  if (!text.offered) return 'not offered now';
  return text.lastUsed ? `used ${whenInWords(text.lastUsed)}` : 'not used yet';
}
const second = (text: TextSummary): string =>
  text.subject ||
  (text.kind === 'message' ? 'uses the subject of the mail it answers' : `changed ${whenInWords(text.updatedAt)}`);
const marks = ({ findings }: TextSummary): string =>
  findings?.[0] ? `⚠ ${findings[0]}` : findings?.[1] ? `‸ ${findings[1]}` : '';
</script>

<template>
  <div
    ref="scroller"
    class="list"
    role="listbox"
    aria-label="Texts"
    aria-multiselectable="true"
    tabindex="0"
    :aria-activedescendant="current ? `text-${current.name}` : undefined"
    @keydown="onKey"
  >
    <div :style="{ height: `${rows.getTotalSize()}px` }" class="all" role="presentation">
      <template v-for="item in rows.getVirtualItems()" :key="shown[item.index]?.name">
        <div
          v-if="shown[item.index]"
          :id="`text-${shown[item.index]!.name}`"
          class="row text"
          role="option"
          :class="{ chosen: chosen.has(shown[item.index]!.name), selected: shown[item.index]!.name === current?.name }"
          :aria-selected="
            chosen.size > 0 ? chosen.has(shown[item.index]!.name) : shown[item.index]!.name === current?.name
          "
          :aria-posinset="item.index + 1"
          :aria-setsize="shown.length"
          :style="{ transform: `translateY(${item.start}px)` }"
          :draggable="shown[item.index]!.mayWrite"
          @click="pick(item.index, $event)"
          @dblclick="emit('open', shown[item.index]!)"
          @dragstart="drag($event, shown[item.index]!)"
        >
          <span class="title"
            ><span v-if="chosen.has(shown[item.index]!.name)" aria-hidden="true">✓ </span>{{ shown[item.index]!.title
            }}<span v-for="each in shown[item.index]!.tags" :key="each" class="small quiet tag">
              #{{ each }}</span
            ></span
          ><span class="quiet small">{{ shown[item.index]!.call }}</span
          ><span class="quiet small when"
            ><span v-if="marks(shown[item.index]!)" :class="shown[item.index]!.findings?.[0] ? 'error' : 'warning'">{{
              marks(shown[item.index]!)
            }}</span>
            {{ said(shown[item.index]!) }}</span
          >
          <span class="quiet small subject"
            ><template v-if="hits.get(shown[item.index]!.name)?.found.some(({ hit }) => hit)"
              ><template v-for="(part, index) in hits.get(shown[item.index]!.name)?.found" :key="index"
                ><mark v-if="part.hit">{{ part.text }}</mark
                ><template v-else>{{ part.text }}</template></template
              ></template
            ><template v-else>{{ second(shown[item.index]!) }}</template></span
          >
        </div>
      </template>
    </div>
  </div>
</template>

<style scoped>
.list {
  overflow: auto;
  flex: 1;
}
.list:focus-visible {
  outline-offset: -2px;
}
.all {
  position: relative;
}
.text {
  position: absolute;
  inset: 0 0 auto;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 80px 128px;
  column-gap: 12px;
  height: 48px;
  padding: 5px 16px;
  cursor: pointer;
  align-items: center;
  border-bottom: 1px solid var(--hair);
}
.text.chosen {
  background: var(--selected);
}
.text[aria-selected='true']:not(.selected) {
  box-shadow: none;
}
.title,
.subject,
.when {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.when {
  text-align: right;
}
.subject {
  grid-column: 1 / -1;
}
.subject mark {
  background: none;
  color: var(--ink);
  font-weight: 600;
  text-decoration: underline;
  text-underline-offset: 2px;
}
@media (max-width: 1099px) {
  .text {
    grid-template-columns: minmax(0, 1fr) 110px;
  }
  .text > :nth-child(2) {
    display: none;
  }
}
</style>
