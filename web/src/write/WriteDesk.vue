<script setup lang="ts">
/** One text on the desk: the manuscript with its score, the proof, the tray. */
import { useMediaQuery } from '@vueuse/core';
import Splitter from 'primevue/splitter';
import SplitterPanel from 'primevue/splitterpanel';
import PushButton from '../ui/controls/PushButton.vue';
import type { TextDocument } from '@vocabula/core';
import { computed, defineAsyncComponent, ref, useTemplateRef } from 'vue';
import NoticeLine from '../ui/NoticeLine.vue';
import { useNotice } from '../ui/notice';
import { usePreferences } from '../ui/preferences';
import { useDesk } from './desk/useDesk';
import DeskFoot from './DeskFoot.vue';
import ProofPane from './proof/ProofPane.vue';
import TheScore from './score/TheScore.vue';
import TheManuscript from './TheManuscript.vue';
import ToolBar from './forms/ToolBar.vue';
import DeskTray from './tray/DeskTray.vue';
import { applyDocument } from './editor/operations/apply';
import { isBelow, writeBelow } from './editor/operations/below';
import type { Settled, useWorkingCopy } from './useWorkingCopy';
import WriteHead from './WriteHead.vue';

const ConflictDialog = defineAsyncComponent(() => import('./conflict/ConflictDialog.vue'));
const BlockInPlace = defineAsyncComponent(() => import('./block/BlockInPlace.vue'));
const loadInsertList = () => import('./bar/InsertList.vue');
const loadBar = () => import('./bar/SelectionBar.vue');
const InsertList = defineAsyncComponent(loadInsertList);
const SelectionBar = defineAsyncComponent(loadBar);
/** Loads what opens at the caret as soon as there is one: what is typed into it must not wait. */
function loadCaretParts(): void {
  void loadInsertList();
  void loadBar();
}
const props = defineProps<{ copy: ReturnType<typeof useWorkingCopy>; document: TextDocument }>();
const notice = useNotice();
const sheet = useTemplateRef<HTMLElement>('sheet');
const preferences = usePreferences();
/** The tray stands beside the proof where the pane is wide and low. */
const beside = useMediaQuery('(min-width: 900px) and (max-width: 1099px)');
const part = ref<'manuscript' | 'proof'>('manuscript');
const desk = useDesk(props.copy, props.document);
const { proof, shut, inserting, going } = desk;
const { list, bar } = inserting;
const { level, front } = desk.manuscript;
const kind = computed(() => front.value.kind);

/** A press below the text goes on there. */
function pressed(event: MouseEvent): void {
  const { editor } = desk.manuscript;
  if (!isBelow(editor, event)) return;
  event.preventDefault();
  writeBelow(editor);
}
async function settle(settled: Settled): Promise<void> {
  try {
    const copies = await props.copy.settle(settled);
    applyDocument(desk.manuscript.editor, settled.document);
    notice.say(copies.length > 0 ? `Also saved: ${copies.map((title) => `“${title}”`).join(', ')}.` : 'Merged.');
  } catch (problem) {
    notice.fail(problem);
  }
}
</script>

<template>
  <WriteHead :desk="desk" />
  <nav class="parts" aria-label="Parts">
    <PushButton
      kind="plain"
      v-for="each in ['manuscript', 'proof'] as const"
      :key="each"
      :aria-pressed="part === each"
      @click="part = each"
    >
      {{ each === 'manuscript' ? 'Manuscript' : 'Proof and tray' }}
    </PushButton>
  </nav>
  <div class="desk" :class="`shows-${part}`">
    <main class="left">
      <ToolBar :desk="desk" />
      <div class="table">
        <TheScore :desk="desk" :sheet="sheet" @choose="desk.showChosen" />
        <article
          ref="sheet"
          class="sheet page"
          @mousedown="pressed"
          @pointerdown.once="loadCaretParts"
          @focusin.once="loadCaretParts"
        >
          <TheManuscript :desk="desk" :kind="kind" />
        </article>
      </div>
    </main>
    <aside class="pane">
      <Splitter
        :key="String(beside)"
        class="halves"
        :class="{ shut: shut && !beside, whole: preferences.trayWhole && !shut }"
        :layout="beside ? 'horizontal' : 'vertical'"
        :gutter-size="1"
        :step="5"
        :pt="{ gutterHandle: { 'aria-label': 'Size of the tray' } }"
        @resizeend="({ sizes }) => (preferences.trayShare = Math.round(sizes[1] ?? 40))"
      >
        <SplitterPanel :size="100 - preferences.trayShare" :min-size="25">
          <ProofPane :proof="proof" :level="level" @pick="going.showPath" @blank="going.showVariable" />
        </SplitterPanel>
        <SplitterPanel class="below" :size="preferences.trayShare" :min-size="15">
          <DeskTray :desk="desk" />
        </SplitterPanel>
      </Splitter>
    </aside>
  </div>
  <footer class="foot">
    <NoticeLine v-if="notice.current" />
    <DeskFoot v-else :desk="desk" />
    <span class="right">next recipient <kbd>F9</kbd></span>
  </footer>
  <InsertList v-if="list" :desk="desk" :place="list" @choose="inserting.take" @close="inserting.leave" />
  <SelectionBar
    v-if="bar"
    :key="String(bar.focus)"
    :desk="desk"
    :at="bar"
    :focus="bar.focus"
    @make="desk.onMake"
    @close="inserting.leave"
  />
  <BlockInPlace
    v-if="desk.inPlace.opened.value"
    :key="desk.inPlace.opened.value.name"
    v-bind="desk.inPlace.opened.value"
    @close="desk.inPlace.close"
  />
  <ConflictDialog v-if="copy.conflict.value" :clash="copy.conflict.value" @settle="settle" />
</template>

<style scoped>
.desk {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 432px;
}
.left {
  display: flex;
  flex-direction: column;
  min-width: 0;
  min-height: 0;
}
.table {
  flex: 1;
  overflow: auto;
  display: flex;
  padding: 16px 16px 48px;
  align-items: flex-start;
}
.page {
  position: relative;
  width: 576px;
  min-height: 100%;
  padding: 18px 27px;
  flex: 0 1 auto;
  min-width: 0;
}
.pane {
  border-left: 1px solid var(--hair);
  display: flex;
  flex-direction: column;
  min-height: 0;
}
.halves {
  flex: 1;
  min-height: 0;
  border: 0;
}
.halves > :deep(.p-splitterpanel) {
  min-height: 0;
  min-width: 0;
  display: flex;
  flex-direction: column;
  overflow: hidden;
}
/* A tray that is shut is a row of its names. */
.halves.shut > :deep(.below) {
  flex: none !important;
}
/* One that takes the whole pane leaves the proof for later. */
.halves.whole > :deep(:not(.below)) {
  display: none;
}
.halves.whole > :deep(.below) {
  flex: 1 !important;
}
.parts {
  display: none;
}
@media (min-width: 1100px) and (max-width: 1279px) {
  .desk {
    grid-template-columns: minmax(0, 1fr) 380px;
  }
}
@media (min-width: 900px) and (max-width: 1099px) {
  .desk {
    grid-template-columns: minmax(0, 1fr);
    grid-template-rows: minmax(0, 55%) minmax(0, 45%);
  }
  .pane {
    border-left: 0;
    border-top: 1px solid var(--edge);
  }
}
@media (max-width: 899px) {
  .parts {
    display: flex;
    border-bottom: 1px solid var(--hair);
    padding: 0 8px;
  }
  .parts [aria-pressed='true'] {
    font-weight: 600;
    box-shadow: inset 0 -3px var(--action);
  }
  .desk {
    grid-template-columns: minmax(0, 1fr);
  }
  .desk.shows-manuscript .pane,
  .desk.shows-proof .left {
    display: none;
  }
  .table {
    padding: 12px 8px;
  }
  .page {
    padding: 16px;
  }
  .foot {
    height: auto;
    min-height: 28px;
    padding: 4px 16px;
    gap: 2px 16px;
    flex-wrap: wrap;
  }
}
</style>
