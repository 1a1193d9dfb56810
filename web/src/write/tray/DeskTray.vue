<script setup lang="ts">
/** The tray below the proof: variables, what is chosen, the outline, findings, markers, find and replace. */
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue';
import type { Desk, Tab } from '../desk/useDesk';
import FindPanel from '../find/FindPanel.vue';
import OutlineTree from '../score/OutlineTree.vue';
import ChosenTray from './ChosenTray.vue';
import FindingsTray from './FindingsTray.vue';
import MarkersPanel from './MarkersPanel.vue';
import RemarksTray from './RemarksTray.vue';
import VariablesTray from './VariablesTray.vue';

const props = defineProps<{ desk: Desk }>();
const { tab, proof, going, manuscript, remarks } = props.desk;
const { variables, markers } = manuscript;
const REMEMBERED = 'vocabula.tray-height';
const tabs = computed<readonly { readonly name: Tab; readonly count?: number }[]>(() => [
  { name: 'Variables', count: variables.value.length },
  { name: 'Chosen' },
  { name: 'Outline' },
  { name: 'Findings', count: proof.findings.value.length },
  // Old markers are rare once they were turned into variables.
  ...(markers.value.length > 0 || tab.value === 'Markers'
    ? [{ name: 'Markers' as const, count: markers.value.length }]
    : []),
  { name: 'Find' },
  { name: 'Remarks', count: remarks.open.value.length },
]);
/** The share of the pane, in hundredths, and whether the tray is shut. */
const share = ref(Number(localStorage.getItem(REMEMBERED)) || 40);
const shut = ref(false);
const tray = useTemplateRef<HTMLElement>('tray');
const outline = useTemplateRef('outline');

watch(tab, async (now) => {
  shut.value = false;
  await nextTick();
  if (now === 'Outline') void outline.value?.focus();
});
watch(props.desk.outlineAsked, async () => {
  shut.value = false;
  tab.value = 'Outline';
  await nextTick();
  void outline.value?.focus();
});
function resize(next: number): void {
  share.value = Math.max(15, Math.min(75, next));
  localStorage.setItem(REMEMBERED, String(Math.round(share.value)));
}
function drag(event: PointerEvent): void {
  const handle = event.currentTarget as HTMLElement;
  const pane = tray.value?.parentElement?.getBoundingClientRect();
  if (!pane) return;
  handle.setPointerCapture(event.pointerId);
  const move = ({ clientY }: PointerEvent): void => resize(((pane.bottom - clientY) / pane.height) * 100);
  handle.addEventListener('pointermove', move);
  handle.addEventListener('pointerup', () => handle.removeEventListener('pointermove', move), { once: true });
}
/** `Esc` shuts the tray and goes back to the text. */
function leave(event: KeyboardEvent): void {
  if (event.defaultPrevented) return;
  event.stopPropagation();
  shut.value = true;
  manuscript.editor.commands.focus();
}
</script>

<template>
  <section
    ref="tray"
    class="tray"
    :class="{ shut }"
    aria-label="Tray"
    :style="{ '--share': `${share}%` }"
    @keydown.esc="leave"
  >
    <div
      class="edge"
      role="separator"
      aria-orientation="horizontal"
      aria-label="Height of the tray"
      tabindex="0"
      :aria-valuenow="Math.round(share)"
      aria-valuemin="15"
      aria-valuemax="75"
      @pointerdown.prevent="drag"
      @keydown.up.prevent="resize(share + 5)"
      @keydown.down.prevent="resize(share - 5)"
    />
    <div class="tabs">
      <div class="names" role="tablist" aria-label="Tray">
        <button
          v-for="{ name, count } in tabs"
          :id="`tab-${name}`"
          :key="name"
          class="plain"
          role="tab"
          :aria-selected="tab === name && !shut"
          aria-controls="tray-body"
          @click="
            tab = name;
            shut = false;
          "
        >
          {{ name }} <span v-if="count">{{ count }}</span>
        </button>
      </div>
    </div>
    <div v-if="!shut" id="tray-body" class="tray-body" role="tabpanel" :aria-labelledby="`tab-${tab}`" tabindex="-1">
      <VariablesTray v-if="tab === 'Variables'" :desk="desk" />
      <ChosenTray v-else-if="tab === 'Chosen'" :desk="desk" />
      <OutlineTree v-else-if="tab === 'Outline'" ref="outline" :desk="desk" />
      <FindingsTray
        v-else-if="tab === 'Findings'"
        :findings="proof.findings.value"
        :current="going.finding.value"
        @show="going.showFinding"
        @repair="desk.onRepair"
      />
      <FindPanel v-else-if="tab === 'Find'" :desk="desk" />
      <RemarksTray v-else-if="tab === 'Remarks'" :desk="desk" />
      <MarkersPanel v-else :groups="markers" @convert="desk.onConvert" @show="going.show" />
    </div>
  </section>
</template>

<style scoped>
.tray {
  /* The proof keeps a height of its own; the tray gives way. */
  height: var(--share);
  border-top: 1px solid var(--edge);
  display: flex;
  flex-direction: column;
  flex: 0 1 auto;
  min-height: 0;
  position: relative;
}
.tray.shut {
  height: auto;
}
.edge {
  position: absolute;
  inset: -4px 0 auto;
  height: 8px;
  cursor: ns-resize;
  z-index: 3;
}
.tabs {
  display: flex;
  align-items: center;
  padding: 0 8px;
  border-bottom: 1px solid var(--hair);
  height: 36px;
  flex: none;
  overflow-x: auto;
  font-size: 0.8125rem;
  color: var(--quiet);
}
.names {
  display: flex;
}
.tabs [aria-selected='true'] {
  color: var(--ink);
  font-weight: 600;
  box-shadow: inset 0 -2px var(--action);
  border-radius: 0;
}
.tabs button {
  height: 36px;
  gap: 4px;
  padding: 0 7px;
}
.tray-body {
  overflow: auto;
  flex: 1;
}
.tray-body :deep(.chosen) {
  padding: 12px 14px;
  display: grid;
  gap: 10px;
}
.tray-body :deep(.chosen .acts) {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
@media (min-width: 900px) and (max-width: 1099px) {
  .tray {
    height: auto;
    border-top: 0;
    border-left: 1px solid var(--hair);
  }
  .edge {
    display: none;
  }
}
</style>
