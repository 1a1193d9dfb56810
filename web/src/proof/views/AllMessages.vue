<script setup lang="ts">
/** Every recipient's message as a slip of what differs, beside the grid of recipients and what varies. */
import { useResizeObserver } from '@vueuse/core';
import PickOne from '../../ui/controls/PickOne.vue';
import InputText from 'primevue/inputtext';
import PushButton from '../../ui/controls/PushButton.vue';
import { useVirtualizer } from '@tanstack/vue-virtual';
import { computed, ref, useTemplateRef, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import MessageGrid from '../parts/MessageGrid.vue';
import MessageSlip from '../parts/MessageSlip.vue';
import { ORDERS, type Order } from '../table/filter';
import { useProofing } from '../table/useProofing';
import { useAllMessages } from './useAllMessages';

const route = useRoute();
const router = useRouter();
const proofing = useProofing();
const condition = ref(String(route.query.only ?? ''));
const typed = ref('');
const order = ref<Order>('as they are');
const wide = ref<'slips' | 'grid'>('slips');
const chosen = ref(0);
const room = useTemplateRef<HTMLElement>('room');
const SLIP = 168;

const { sheets, labelOf, numbers, common, values, passages, choices } = useAllMessages(proofing, {
  ...{ condition, words: typed, order },
});
watch(numbers, (now) => {
  chosen.value = Math.min(chosen.value, Math.max(0, now.length - 1));
});
const across = ref(3);
useResizeObserver(room, ([entry]) => {
  across.value = Math.max(1, Math.floor(((entry?.contentRect.width ?? 0) + 8) / 250));
});
const slipRows = useVirtualizer(
  computed(() => ({
    count: Math.ceil(numbers.value.length / across.value),
    getScrollElement: () => room.value,
    estimateSize: () => SLIP + 12,
    overscan: 3,
  })),
);
const slipsIn = (row: number): { at: number; index: number }[] =>
  numbers.value
    .slice(row * across.value, (row + 1) * across.value)
    .map((at, index) => ({ at, index: row * across.value + index }));

function open(at: number, query: Record<string, string> = {}): void {
  void router.push({
    name: 'proof',
    params: { name: proofing.name, view: 'one' },
    query: { at: String(at), ...query },
  });
}
function onKey(event: KeyboardEvent): void {
  const by = { ArrowRight: 1, ArrowLeft: -1, ArrowDown: across.value, ArrowUp: -across.value }[event.key];
  if (by !== undefined) {
    chosen.value = Math.max(0, Math.min(numbers.value.length - 1, chosen.value + by));
    slipRows.value.scrollToIndex(Math.floor(chosen.value / across.value));
  } else if (event.key === ' ' || event.key === 'Enter') {
    const at = numbers.value[chosen.value];
    if (at !== undefined) open(at);
  } else return;
  event.preventDefault();
}
function step(by: number): void {
  const { length } = numbers.value;
  if (length > 0) chosen.value = (chosen.value + by + length) % length;
}
function stepFinding(by: number): void {
  const { length } = numbers.value;
  for (let tried = 1; tried <= length; tried += 1) {
    const to = (chosen.value + by * tried + length * tried) % length;
    const sheet = sheets.value[numbers.value[to] ?? -1];
    if (sheet && (sheet.findings.length > 0 || sheet.blanks.length > 0)) return void (chosen.value = to);
  }
}
defineExpose({ step, stepFinding });
</script>

<template>
  <div class="all" :class="`wide-${wide}`">
    <div class="tools">
      <label class="small"
        >Only
        <PickOne v-model="condition" aria-label="Only messages with">
          <option value="">all messages</option>
          <option value="any">with a blank or finding</option>
          <option v-for="each in choices" :key="each.value" :value="each.value">{{ each.words }}</option>
        </PickOne></label
      >
      <label class="small"
        >Order
        <PickOne v-model="order" aria-label="Order">
          <option v-for="each in ORDERS" :key="each" :value="each">{{ each }}</option>
        </PickOne></label
      >
      <InputText v-model="typed" type="search" placeholder="Words of a name or value" aria-label="Filter by words" />
      <span class="quiet small right" role="status">{{ numbers.length }} of {{ sheets.length }}</span>
      <PushButton kind="plain" size="small" @click="wide = wide === 'slips' ? 'grid' : 'slips'">
        {{ wide === 'slips' ? 'Wider grid' : 'Wider slips' }}
      </PushButton>
    </div>
    <section ref="room" class="slips" tabindex="0" aria-label="Slips" @keydown="onKey">
      <p v-if="numbers.length === 0" class="quiet none">
        {{ sheets.length === 0 ? 'No recipients to proof for.' : 'No message matches this filter.' }}
      </p>
      <div class="rows-room" :style="{ height: `${slipRows.getTotalSize()}px` }">
        <div
          v-for="item in slipRows.getVirtualItems()"
          :key="item.index"
          class="slip-row"
          :style="{
            transform: `translateY(${item.start}px)`,
            gridTemplateColumns: `repeat(${across}, minmax(0, 1fr))`,
          }"
        >
          <div
            v-for="each in slipsIn(item.index)"
            :key="each.at"
            class="place"
            :class="{ chosen: each.index === chosen }"
            @click="chosen = each.index"
            @dblclick="open(each.at)"
          >
            <MessageSlip
              v-if="sheets[each.at]"
              :sheet="sheets[each.at]!"
              :label="labelOf(each.at)"
              :common="common"
              :line-of="proofing.lineOf"
            />
          </div>
        </div>
      </div>
    </section>
    <MessageGrid
      class="beside"
      :numbers="numbers"
      :sheets="sheets"
      :label-of="labelOf"
      :values="values"
      :passages="passages"
      :chosen="chosen"
      @choose="chosen = $event"
      @open="open"
    />
  </div>
</template>

<style scoped>
.all {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template: 40px minmax(0, 1fr) / minmax(0, 1fr) 344px;
}
.all.wide-grid {
  grid-template-columns: 300px minmax(0, 1fr);
}
.tools {
  grid-column: 1 / -1;
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 0 16px;
  border-bottom: 1px solid var(--hair);
  white-space: nowrap;
  min-width: 0;
}
.tools .p-select {
  width: 190px;
  height: 28px;
  padding: 0 4px;
}
.tools input[type='search'] {
  width: 190px;
  height: 28px;
}
.slips {
  overflow: auto;
  padding: 12px 16px;
}
.slips:focus-visible {
  outline-offset: -2px;
}
.rows-room {
  position: relative;
}
.slip-row {
  position: absolute;
  top: 0;
  left: 0;
  right: 0;
  display: grid;
  gap: 12px;
  height: 168px;
}
.place {
  min-width: 0;
  height: 168px;
  cursor: pointer;
}
.chosen {
  outline: 2px solid var(--action);
  outline-offset: 2px;
}
.beside {
  border-left: 1px solid var(--hair);
}
.none {
  padding: 16px;
}
@media (max-width: 1099px) {
  .all,
  .all.wide-grid {
    grid-template: auto minmax(0, 1fr) minmax(0, 1fr) / minmax(0, 1fr);
  }
  .tools {
    flex-wrap: wrap;
    padding: 6px 16px;
  }
  .beside {
    border: 0;
    border-top: 1px solid var(--edge);
  }
}
</style>
