<script setup lang="ts">
/** Two fields for a period: its first and its last day. Both are optional. */
import FieldRow from '../controls/FieldRow.vue';
import DayField from './DayField.vue';

/** First day, `YYYY-MM-DD`; empty for "from the beginning". */
const from = defineModel<string>('from', { required: true });
/** Last day, `YYYY-MM-DD`; empty for "until now". */
const until = defineModel<string>('until', { required: true });
</script>

<template>
  <FieldRow v-slot="{ id, labelledBy }" label="From"
    ><DayField :id="id" v-model="from" :labelled-by="labelledBy" /></FieldRow
  ><FieldRow v-slot="{ id, labelledBy }" label="Until"
    ><DayField :id="id" v-model="until" :labelled-by="labelledBy"
  /></FieldRow>
</template>
