<script setup lang="ts">
/** Hard cases, or every pairing: what each is for, the message, its values, and whether it has been looked at. */
import TickBox from '../../ui/controls/TickBox.vue';
import PushButton from '../../ui/controls/PushButton.vue';
import { ref, useTemplateRef, watch } from 'vue';
import { useMe } from '../../ui/me';
import FindingMarks from '../parts/FindingMarks.vue';
import LookSwitch from '../parts/LookSwitch.vue';
import SheetView from '../parts/SheetView.vue';
import type { LookAs } from '../parts/looks';
import { useCases } from './useCases';

const props = defineProps<{ series: 'hard' | 'pairing' }>();
const me = useMe();
const as = ref<LookAs>('rich');
const list = useTemplateRef<HTMLElement>('list');
const { all, at, chosen, sheet, message, state, lookedAt, changed, fresh, filled, ...moves } = useCases(props.series);
const { go, step, stepFinding, lookedNext, tick } = moves;
watch(at, () => list.value?.querySelector('[aria-current]')?.scrollIntoView({ block: 'nearest' }), {
  flush: 'post',
});
defineExpose({ step, stepFinding, lookedNext, lookedAt, changed });
</script>

<template>
  <div class="cases">
    <ol ref="list" class="list" :aria-label="series === 'hard' ? 'Hard cases' : 'Cases'">
      <li v-for="(each, index) in all.cases" :key="each.key" class="case" :class="{ chosen: index === at }">
        <button class="row" :aria-current="index === at ? 'step' : undefined" @click="go(index)">
          <span class="number">{{ index + 1 }}</span>
          <span class="what">
            <span class="label">{{ each.label }}</span>
            <span class="quiet small">{{ state(index) === 'changed' ? 'changed since looked at' : each.detail }}</span>
          </span>
          <span v-if="all.sheets[index]?.findings.length || all.sheets[index]?.blanks.length" class="warning"
            >‸<span class="unseen"> has findings</span></span
          >
        </button>
        <TickBox
          :checked="state(index) === 'yes'"
          :aria-label="`Looked at: ${each.label}`"
          :disabled="!all.sheets[index]"
          @change="tick(index)"
        />
      </li>
    </ol>
    <div class="table">
      <div class="tools"><LookSwitch :as="as" @change="as = $event" /></div>
      <div class="paper-room">
        <SheetView v-if="message" :message="message" :as="as" :fresh="fresh" :sender="me.profile.email" />
      </div>
    </div>
    <aside class="values" aria-label="This case">
      <h2>{{ series === 'hard' ? 'Filled with' : 'This case' }}</h2>
      <p v-if="series === 'hard' && chosen" class="small provokes">Here {{ chosen.detail }}.</p>
      <dl>
        <div v-for="(level, index) in filled" :key="index">
          <dt>{{ level.label }}</dt>
          <dd :class="{ fresh: level.fresh }">{{ level.words }}</dd>
        </div>
      </dl>
      <FindingMarks v-if="message" :blanks="message.blanks" :findings="message.findings" />
      <PushButton v-if="chosen" class="next" :disabled="!sheet" @click="lookedNext">
        Looked at, next <kbd>Space</kbd>
      </PushButton>
    </aside>
  </div>
</template>

<style scoped>
.cases {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: 320px minmax(0, 1fr) 256px;
}
.list {
  margin: 0;
  padding: 0;
  list-style: none;
  overflow: auto;
  border-right: 1px solid var(--hair);
}
.case {
  display: flex;
  align-items: center;
  border-bottom: 1px solid var(--hair);
  padding-right: 12px;
}
.chosen {
  background: var(--selected);
  box-shadow: inset 3px 0 var(--action);
}
.case .row {
  display: flex;
  align-items: baseline;
  gap: 14px;
  flex: 1;
  min-width: 0;
  min-height: 54px;
}
.number {
  font: 500 1rem/1.25rem var(--serif);
  color: var(--quiet);
  min-width: 18px;
}
.what {
  flex: 1;
  min-width: 0;
  display: grid;
}
.label {
  overflow-wrap: anywhere;
}
.table {
  display: flex;
  flex-direction: column;
  min-height: 0;
}
.tools {
  display: flex;
  justify-content: flex-end;
  padding: 4px 16px 0;
}
.paper-room {
  flex: 1;
  min-height: 0;
  padding: 8px 16px 16px;
  overflow: auto;
}
.values {
  padding: 16px 16px 16px 0;
  overflow: auto;
  font-size: 0.8125rem;
  display: flex;
  flex-direction: column;
  gap: 8px;
}
dl {
  margin: 0;
}
dl div {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  border-bottom: 1px solid var(--hair);
  padding: 4px 0;
}
dt {
  color: var(--quiet);
}
dd {
  margin: 0;
  text-align: right;
  overflow-wrap: anywhere;
  min-width: 0;
  max-height: 4.5em;
  overflow: hidden;
}
.fresh {
  font-weight: 600;
}
.provokes {
  color: var(--quiet);
}
.next {
  justify-content: center;
}
@media (max-width: 1099px) {
  .cases {
    grid-template: minmax(420px, 1fr) auto / 240px minmax(0, 1fr);
    overflow: auto;
  }
  .values {
    grid-column: 1 / -1;
    padding: 12px 16px;
    border-top: 1px solid var(--hair);
    overflow: visible;
  }
  .values dl {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(240px, 1fr));
    gap: 0 24px;
  }
  .next {
    order: -1;
    align-self: start;
  }
}
@media (max-width: 699px) {
  .cases {
    grid-template: 220px minmax(420px, auto) auto / minmax(0, 1fr);
  }
  .list {
    border-right: 0;
    border-bottom: 1px solid var(--hair);
  }
}
</style>
