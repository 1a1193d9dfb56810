<script setup lang="ts">
/** A language version beside its original, line by line. */
import { defineAsyncComponent, onBeforeUpdate, ref, watch } from 'vue';
import { onBeforeRouteLeave } from 'vue-router';
import PushButton from '../ui/controls/PushButton.vue';
import { useHouse } from '../ui/house';
import type { TextDocument } from '@vocabula/core';
import type { LanguageRow } from '@vocabula/core/languages';
import FindingsTray from '../write/tray/FindingsTray.vue';
import { languageName } from '../ui/languageName';
import { toDoWords } from './languageWords';
import LineRow from './LineRow.vue';
import '../write/manuscript.css';
import { useBeside } from './useBeside';

const ConflictDialog = defineAsyncComponent(() => import('../write/conflict/ConflictDialog.vue'));
const { name } = defineProps<{ name: string }>();
const house = useHouse();
const { copy, original, version, beside, counts, problem, open, change, agree, agreeOnAll, carry, settle, nextToDo } =
  useBeside();
void house.load().catch(() => undefined);
watch(() => name, open, { immediate: true });
onBeforeRouteLeave(() => copy.flush());

let lines: { focus(): void }[] = [];
onBeforeUpdate(() => (lines = []));
const keep = (line: unknown, at: number): void => void (line && (lines[at] = line as { focus(): void }));
const goTo = (from: number): void => lines[nextToDo(from)]?.focus();
/** The finding that one went to. */
const shown = ref(-1);
function show(index: number): void {
  shown.value = index;
  const { place } = beside.value.findings[index] ?? {};
  const at = beside.value.rows.findIndex(({ version: line }) =>
    line?.place.in === 'node'
      ? JSON.stringify(line.place.path) === JSON.stringify(place?.path)
      : line?.place.in === 'variable' && line.place.key === place?.variable,
  );
  lines[at]?.focus();
}
/** A row is the same as long as its line stands where it stood. */
const idOf = ({ version: line, original: first }: LanguageRow): string =>
  JSON.stringify(line?.place ?? ['original', first?.place]);
const localeOf = (document: TextDocument | undefined): string =>
  document?.attrs.front.locale ?? house.house.locale ?? 'en-GB';
</script>

<template>
  <main v-if="problem" class="empty">
    <p class="error">⚠ {{ problem }}</p>
  </main>
  <main v-else-if="original && version" class="beside">
    <div class="bar">
      <p role="status" :class="{ quiet: counts.changed + counts.open + counts.missing + counts.unsure === 0 }">
        {{ toDoWords(counts) }}
      </p>
      <span class="small quiet" :class="{ error: copy.failed.value }">{{ copy.state.value }}</span>
      <span class="right acts">
        <PushButton v-if="counts.unsure" kind="plain" @click="agreeOnAll">All of it fits</PushButton>
        <PushButton v-if="counts.missing || beside.findings.length" @click="carry"
          >Build it as the original is</PushButton
        >
        <PushButton v-if="counts.changed + counts.open + counts.unsure" kind="main" @click="goTo(-1)"
          >Next line to do</PushButton
        >
      </span>
    </div>
    <FindingsTray v-if="beside.findings.length" :findings="beside.findings" :current="shown" @show="show" />
    <div class="languages" aria-hidden="true">
      <h2>{{ languageName(localeOf(original)) }}</h2>
      <h2>{{ languageName(localeOf(version)) }}</h2>
    </div>
    <ul class="rows" aria-label="Lines">
      <LineRow
        v-for="(row, index) in beside.rows"
        :key="idOf(row)"
        :ref="(line) => keep(line, index)"
        :row="row"
        :variables="original.attrs.variables"
        :langs="[localeOf(original), localeOf(version)]"
        @change="(content) => change(row, content)"
        @fits="agree([row])"
        @next="goTo(index)"
      />
    </ul>
  </main>
  <main v-else class="empty"><p class="quiet">Opening…</p></main>
  <ConflictDialog v-if="copy.conflict.value" :clash="copy.conflict.value" @settle="settle" />
</template>

<style scoped>
.beside {
  flex: 1;
  min-height: 0;
  overflow: auto;
  padding: 0 24px 48px;
}
.bar {
  position: sticky;
  top: 0;
  z-index: 2;
  display: flex;
  align-items: center;
  gap: 16px;
  padding: 10px 0;
  background: var(--table);
  border-bottom: 1px solid var(--hair);
}
.acts {
  display: flex;
  gap: 8px;
}
.languages {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) 128px;
  gap: 24px;
  padding: 16px 0 4px;
}
@media (max-width: 899px) {
  .languages {
    display: none;
  }
  .bar {
    flex-wrap: wrap;
  }
}
</style>
