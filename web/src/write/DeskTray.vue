<script setup lang="ts">
/** The tray below the proof: variables, the chosen passage, findings, markers. */
import { computed } from 'vue';
import FindingsTray from './FindingsTray.vue';
import MarkersPanel from './MarkersPanel.vue';
import PassageTray from './PassageTray.vue';
import type { Desk, Tab } from './useDesk';
import VariablesTray from './VariablesTray.vue';

const props = defineProps<{ desk: Desk }>();
const { tab, openVariable, finding, showingValues, values, chosenHolds, proof } = props.desk;
const { variables, chosen, places, markers } = props.desk.manuscript;
const tabs = computed<readonly { readonly name: Tab; readonly count?: number }[]>(() => [
  { name: 'Variables', count: variables.value.length },
  { name: 'Passage' },
  { name: 'Findings', count: proof.findings.value.length },
  { name: 'Markers', count: markers.value.length },
]);
</script>

<template>
  <section class="tray" aria-label="Tray">
    <div class="tabs">
      <div class="names" role="tablist" aria-label="Tray">
        <button
          v-for="{ name, count } in tabs"
          :id="`tab-${name}`"
          :key="name"
          class="plain"
          role="tab"
          :aria-selected="tab === name"
          aria-controls="tray-body"
          @click="tab = name"
        >
          {{ name }} <span v-if="count !== undefined">{{ count }}</span>
        </button>
      </div>
      <label class="right small values"><input v-model="showingValues" type="checkbox" /> values</label>
    </div>
    <div id="tray-body" class="tray-body" role="tabpanel" :aria-labelledby="`tab-${tab}`" tabindex="-1">
      <VariablesTray
        v-if="tab === 'Variables'"
        v-model:open="openVariable"
        :variables="variables"
        :slots="proof.slots.value"
        :places="places"
        :values="values"
        @change="desk.change"
        @remove="desk.remove"
        @add="desk.addVariable"
        @step="desk.stepTo"
      />
      <PassageTray
        v-else-if="tab === 'Passage'"
        :condition="chosen?.condition"
        :variables="variables"
        :holds="chosenHolds"
        @change="desk.governAnew"
        @unwrap="desk.takeBracketOff"
        @tick="desk.tryOut"
      />
      <FindingsTray
        v-else-if="tab === 'Findings'"
        :findings="proof.findings.value"
        :current="finding"
        @show="desk.showFinding"
        @repair="desk.onRepair"
      />
      <MarkersPanel v-else :groups="markers" @convert="desk.onConvert" @show="desk.show" />
    </div>
  </section>
</template>

<style scoped>
.tray {
  height: 40%;
  border-top: 1px solid var(--edge);
  display: flex;
  flex-direction: column;
  flex: none;
  min-height: 0;
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
  gap: 2px;
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
}
.values {
  white-space: nowrap;
}
.tray-body {
  overflow: auto;
  flex: 1;
}
@media (min-width: 900px) and (max-width: 1099px) {
  .tray {
    height: auto;
    border-top: 0;
    border-left: 1px solid var(--hair);
  }
}
</style>
