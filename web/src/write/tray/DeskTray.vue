<script setup lang="ts">
/** The tray below the proof: variables, what is chosen, the outline, findings, markers, find and replace. */
import Tab from 'primevue/tab';
import TabList from 'primevue/tablist';
import TabPanel from 'primevue/tabpanel';
import TabPanels from 'primevue/tabpanels';
import Tabs from 'primevue/tabs';
import { computed, defineAsyncComponent, nextTick, shallowRef, useTemplateRef, watch, type Component } from 'vue';
import { ChevronsDown, ChevronsUp } from '@lucide/vue';
import { usePreferences } from '../../ui/preferences';
import PushButton from '../../ui/controls/PushButton.vue';
import ActMenu from '../../ui/controls/ActMenu.vue';
import { useFitting } from '../../ui/useFitting';
import { TAB_LABELS, type Tab as TabName } from '../desk/tabs';
import type { Desk } from '../desk/useDesk';
import VariablesTray from './VariablesTray.vue';

/** All but the variables, which one sees first, are loaded when they are opened. */
const FindPanel = defineAsyncComponent(() => import('../find/FindPanel.vue'));
const RemarksTray = defineAsyncComponent(() => import('./RemarksTray.vue'));
const ChosenTray = defineAsyncComponent(() => import('./ChosenTray.vue'));
const FindingsTray = defineAsyncComponent(() => import('./FindingsTray.vue'));
const MarkersPanel = defineAsyncComponent(() => import('./MarkersPanel.vue'));
const props = defineProps<{ desk: Desk }>();
const preferences = usePreferences();
const { tab, shut, proof, going, insertable, manuscript, remarks } = props.desk;
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
const copies = useTemplateRef<HTMLElement>('copies');
const fitting = useFitting(useTemplateRef<HTMLElement>('row'), copies, () =>
  tabs.value.findIndex(({ name }) => name === tab.value),
);
/** Those that there is room for; the others are in a menu. */
const shown = computed(() =>
  fitting.value.length === 0 ? tabs.value : tabs.value.filter((_, index) => fitting.value.includes(index)),
);
const more = computed(() =>
  tabs.value
    .filter((each) => !shown.value.includes(each))
    .map(({ name, count }) => ({ label: `${TAB_LABELS[name]} ${count || ''}`.trim(), command: () => choose(name) })),
);
function choose(name: TabName): void {
  shut.value = false;
  tab.value = name;
}
const OutlineTree = shallowRef<Component>();
const outline = useTemplateRef<{ focus(): unknown }>('outline');
/** The outline takes the focus once it is there. */
async function focusOutline(): Promise<void> {
  OutlineTree.value ??= (await import('../score/OutlineTree.vue')).default;
  await nextTick();
  void outline.value?.focus();
}

watch(tab, async (now) => {
  shut.value = false;
  if (now === 'outline') await focusOutline();
});
watch(props.desk.outlineAsked, async () => {
  shut.value = false;
  tab.value = 'outline';
  await focusOutline();
});
/** `Esc` goes back to the text: the tray is as it was before something was chosen there, or shut. */
function leave(event: KeyboardEvent): void {
  if (event.defaultPrevented) return;
  event.stopPropagation();
  if (!props.desk.goBack()) shut.value = true;
  manuscript.editor.commands.focus();
}
</script>

<template>
  <section class="tray" aria-label="Tray" @keydown.esc="leave">
    <Tabs class="tabs" :value="tab" select-on-focus :show-navigators="false" @update:value="tab = $event as TabName">
      <div class="names">
        <div ref="row" class="row-of-tabs">
          <TabList aria-label="Tray">
            <Tab v-for="{ name, count } in shown" :key="name" :value="name" @click="shut = false">
              {{ TAB_LABELS[name] }} <span v-if="count">{{ count }}</span>
            </Tab>
          </TabList>
          <ActMenu v-if="more.length > 0" kind="plain" size="small" label="More" :items="more" />
          <div ref="copies" class="copies" aria-hidden="true">
            <span v-for="{ name, count } in tabs" :key="name" class="p-tab"
              >{{ TAB_LABELS[name] }} <span v-if="count">{{ count }}</span></span
            >
          </div>
        </div>
        <PushButton
          kind="plain"
          size="small"
          class="whole"
          aria-label="Tray in the whole pane"
          :aria-pressed="preferences.trayWhole"
          @click="preferences.trayWhole = !preferences.trayWhole"
          ><component :is="preferences.trayWhole ? ChevronsDown : ChevronsUp" :size="16"
        /></PushButton>
      </div>
      <TabPanels v-show="!shut">
        <TabPanel :value="tab" tabindex="-1">
          <VariablesTray v-if="tab === 'variables'" :desk="desk" />
          <ChosenTray v-else-if="tab === 'chosen'" :desk="desk" />
          <component :is="OutlineTree" v-else-if="tab === 'outline'" ref="outline" :desk="desk" />
          <FindingsTray
            v-else-if="tab === 'findings'"
            :findings="proof.findings.value"
            :current="going.finding.value"
            @show="going.showFinding"
            @repair="desk.onRepair"
          />
          <FindPanel v-else-if="tab === 'find'" :desk="desk" />
          <RemarksTray v-else-if="tab === 'remarks'" :desk="desk" />
          <MarkersPanel
            v-else
            :groups="markers"
            :fields="insertable.fields"
            @convert="desk.onConvert"
            @show="going.show"
          />
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
.names {
  display: flex;
  flex: none;
  align-items: center;
  padding-right: 4px;
}
.row-of-tabs {
  display: flex;
  flex: 1;
  min-width: 0;
  align-items: center;
  padding: 0 8px;
  position: relative;
  overflow: hidden;
}
.tabs :deep(.p-tablist) {
  flex: none;
}
.copies {
  position: absolute;
  visibility: hidden;
  display: flex;
  width: max-content;
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
