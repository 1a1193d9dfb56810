<script setup lang="ts">
/** The tray below the proof: variables, what is chosen, the outline, findings, markers, find and replace. */
import Tab from 'primevue/tab';
import TabList from 'primevue/tablist';
import TabPanel from 'primevue/tabpanel';
import TabPanels from 'primevue/tabpanels';
import Tabs from 'primevue/tabs';
import { computed, defineAsyncComponent, nextTick, useTemplateRef, watch } from 'vue';
import { TAB_LABELS, type Tab as TabName } from '../desk/tabs';
import type { Desk } from '../desk/useDesk';
import OutlineTree from '../score/OutlineTree.vue';
import VariablesTray from './VariablesTray.vue';

/** All but the variables, which one sees first, are loaded when they are opened. */
const FindPanel = defineAsyncComponent(() => import('../find/FindPanel.vue'));
const RemarksTray = defineAsyncComponent(() => import('./RemarksTray.vue'));
const ChosenTray = defineAsyncComponent(() => import('./ChosenTray.vue'));
const FindingsTray = defineAsyncComponent(() => import('./FindingsTray.vue'));
const MarkersPanel = defineAsyncComponent(() => import('./MarkersPanel.vue'));
const props = defineProps<{ desk: Desk }>();
const { tab, proof, going, manuscript, remarks } = props.desk;
const { variables, markers } = manuscript;
const tabs = computed<readonly { readonly name: TabName; readonly count?: number }[]>(() => [
  { name: 'variables', count: variables.value.length },
  { name: 'chosen' },
  { name: 'outline' },
  { name: 'findings', count: proof.findings.value.length },
  // Old markers are rare once they were turned into variables.
  ...(markers.value.length > 0 || tab.value === 'markers'
    ? [{ name: 'markers' as const, count: markers.value.length }]
    : []),
  { name: 'find' },
  { name: 'remarks', count: remarks.open.value.length },
]);
const shut = defineModel<boolean>('shut', { required: true });
const outline = useTemplateRef('outline');

watch(tab, async (now) => {
  shut.value = false;
  await nextTick();
  if (now === 'outline') void outline.value?.focus();
});
watch(props.desk.outlineAsked, async () => {
  shut.value = false;
  tab.value = 'outline';
  await nextTick();
  void outline.value?.focus();
});
/** `Esc` shuts the tray and goes back to the text. */
function leave(event: KeyboardEvent): void {
  if (event.defaultPrevented) return;
  event.stopPropagation();
  shut.value = true;
  manuscript.editor.commands.focus();
}
</script>

<template>
  <section class="tray" aria-label="Tray" @keydown.esc="leave">
    <Tabs class="tabs" :value="tab" scrollable select-on-focus @update:value="tab = $event as TabName">
      <TabList aria-label="Tray">
        <Tab v-for="{ name, count } in tabs" :key="name" :value="name" @click="shut = false">
          {{ TAB_LABELS[name] }} <span v-if="count">{{ count }}</span>
        </Tab>
      </TabList>
      <TabPanels v-show="!shut">
        <TabPanel :value="tab" tabindex="-1">
          <VariablesTray v-if="tab === 'variables'" :desk="desk" />
          <ChosenTray v-else-if="tab === 'chosen'" :desk="desk" />
          <OutlineTree v-else-if="tab === 'outline'" ref="outline" :desk="desk" />
          <FindingsTray
            v-else-if="tab === 'findings'"
            :findings="proof.findings.value"
            :current="going.finding.value"
            @show="going.showFinding"
            @repair="desk.onRepair"
          />
          <FindPanel v-else-if="tab === 'find'" :desk="desk" />
          <RemarksTray v-else-if="tab === 'remarks'" :desk="desk" />
          <MarkersPanel v-else :groups="markers" @convert="desk.onConvert" @show="going.show" />
        </TabPanel>
      </TabPanels>
    </Tabs>
  </section>
</template>

<style scoped>
.tray,
.tabs {
  height: 100%;
  display: flex;
  flex-direction: column;
  min-height: 0;
}
.tabs {
  font-size: 0.8125rem;
}
.tabs :deep(.p-tablist) {
  flex: none;
  padding: 0 8px;
}
.tabs :deep(.p-tabpanels) {
  overflow: auto;
  flex: 1;
  min-height: 0;
}
.tray :deep(.chosen) {
  padding: 12px 14px;
  display: grid;
  gap: 10px;
}
.tray :deep(.chosen .acts) {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
</style>
