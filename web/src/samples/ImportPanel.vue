<script setup lang="ts">
/** What was recognised in a file, before anything is taken from it. */
import type { Recognised, TableSummary, Use } from '@vocabula/contract';
import { onMounted, ref, useTemplateRef } from 'vue';
import { api } from '../api/client';
import TypeMark from '../ui/TypeMark.vue';

const props = defineProps<{ file: File; use: Use }>();
const emit = defineEmits<{ done: [table: TableSummary]; close: [] }>();
const found = ref<Recognised>();
const problem = ref('');
const title = ref(props.file.name.replace(/\.[a-z]+$/i, '').replace(/[_-]+/g, ' '));
const busy = ref(false);
const button = useTemplateRef('button');

onMounted(async () => {
  try {
    found.value = await api.recognise(props.file);
    requestAnimationFrame(() => button.value?.focus());
  } catch (error) {
    problem.value = error instanceof Error ? error.message : 'This file cannot be read.';
  }
});
async function take(): Promise<void> {
  busy.value = true;
  try {
    emit('done', await api.importTable(props.use, title.value, props.file));
  } catch (error) {
    problem.value = error instanceof Error ? error.message : 'This file cannot be imported.';
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <section class="panel" aria-label="Import" @keydown.esc="emit('close')">
    <h2>{{ file.name }}</h2>
    <p v-if="problem" class="error" role="alert">⚠ {{ problem }}</p>
    <template v-if="found">
      <p>
        {{ found.format }}<template v-if="found.separator">, separated by {{ found.separator }}</template
        >, {{ found.encoding }}: {{ found.rows }} rows, {{ found.columns.length }} columns.
      </p>
      <p v-for="note in found.notes" :key="note" class="warning">‸ {{ note }}</p>
      <table>
        <thead>
          <tr>
            <th>Column</th>
            <th>Key</th>
            <th>Type</th>
            <th>Empty</th>
            <th>Distinct</th>
            <th>For example</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="column in found.columns" :key="column.key">
            <td>{{ column.name }}</td>
            <td class="quiet">{{ column.key }}</td>
            <td class="type"><TypeMark :type="column.type" /> {{ column.type }}</td>
            <td class="number">{{ column.empty }}</td>
            <td class="number">{{ column.distinct }}</td>
            <td class="quiet examples">{{ column.examples.join(' · ') }}</td>
          </tr>
        </tbody>
      </table>
      <form @submit.prevent="take">
        <label class="field"><span>Call it</span><input v-model="title" required /></label>
        <button ref="button" class="main" :disabled="busy || !title.trim()">
          {{ found.notes.length ? 'Import with these names' : 'Import' }} {{ found.rows }} rows
        </button>
        <button type="button" @click="emit('close')">Leave it</button>
      </form>
    </template>
    <button v-else-if="problem" @click="emit('close')">Back</button>
  </section>
</template>

<style scoped>
.panel {
  padding: 24px 28px;
  display: grid;
  gap: 12px;
  align-content: start;
  justify-items: start;
}
table {
  border-collapse: collapse;
  font-size: 0.8125rem;
}
th {
  text-align: left;
  font-weight: 500;
}
th,
td {
  padding: 4px 16px 4px 0;
  border-bottom: 1px solid var(--hair);
}
.type {
  display: flex;
  gap: 6px;
  align-items: center;
}
.number {
  text-align: right;
}
.examples {
  max-width: 360px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
form {
  display: flex;
  gap: 12px;
  align-items: end;
}
label {
  width: 280px;
}
</style>
