<script setup lang="ts">
/** Two states of a text beside each other: only what differs, by what it is about. */
import type { House, TextDocument } from '@vocabula/core';
import { computed } from 'vue';
import ComparedWords from '../ui/ComparedWords.vue';
import { differencesOf } from './differences';

const { before, after, names } = defineProps<{
  before: TextDocument | House;
  after: TextDocument | House;
  /** What the two are called. */
  names: readonly [before: string, after: string];
}>();
const groups = computed(() => differencesOf(before, after));
const count = computed(() => groups.value.reduce((sum, { items }) => sum + items.length, 0));
</script>

<template>
  <div class="states">
    <div class="names small quiet" aria-hidden="true">
      <span>{{ names[0] }}</span><span>{{ names[1] }}</span>
    </div>
    <p v-if="count === 0" class="quiet same">Nothing differs between {{ names[0] }} and {{ names[1] }}.</p>
    <section v-for="group in groups" :key="group.title" :aria-label="group.title">
      <h2>
        {{ group.title }} <span class="quiet">{{ group.items.length }}</span>
      </h2>
      <div v-for="(item, index) in group.items" :key="index" class="pair">
        <p v-if="item.where" class="where small quiet">{{ item.where }}</p>
        <div class="side" :aria-label="names[0]">
          <div class="was"><ComparedWords :left="item.before" :right="item.after" side="left" /></div>
          <p v-if="item.before.length === 0" class="quiet small">nothing here</p>
        </div>
        <div class="side" :aria-label="names[1]">
          <ComparedWords :left="item.before" :right="item.after" side="right" />
          <p v-if="item.after.length === 0" class="quiet small">taken out</p>
        </div>
      </div>
    </section>
  </div>
</template>

<style scoped>
.states {
  display: grid;
  gap: 20px;
}
.names,
.pair {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 4px 32px;
}
.names {
  position: sticky;
  top: 0;
  background: var(--sheet);
  border-bottom: 1px solid var(--hair);
  padding-bottom: 6px;
  z-index: 1;
}
h2 {
  margin-bottom: 4px;
}
.pair {
  padding: 8px 0;
  border-top: 1px solid var(--hair);
}
.where {
  grid-column: 1 / -1;
}
.was :deep(mark) {
  text-decoration: line-through;
  font-weight: 400;
}
.same {
  padding: 12px 0;
}
@media (max-width: 699px) {
  .names {
    display: none;
  }
  .pair {
    grid-template-columns: minmax(0, 1fr);
  }
  .side::before {
    content: attr(aria-label);
    font-size: 0.75rem;
    color: var(--quiet);
  }
}
</style>
