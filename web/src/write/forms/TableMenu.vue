<script setup lang="ts">
/** The menu of what can be done with the table that the caret is in. */
import { computed } from 'vue';
import ActMenu from '../../ui/controls/ActMenu.vue';
import type { Desk } from '../desk/useDesk';
import { actOnTable, canActOnTable, TABLE_ACTS } from '../editor/operations/tables';

const props = defineProps<{ desk: Pick<Desk, 'fields' | 'manuscript'> }>();
const { manuscript, fields } = props.desk;
const { editor } = manuscript;
const items = computed(() =>
  TABLE_ACTS.map(([label, act]) => ({
    label,
    disabled: fields.beat.value >= 0 && !canActOnTable(editor, act),
    command: () => actOnTable(editor, act),
  })),
);
</script>

<template>
  <ActMenu label="Table" :items="items" aria-pressed="true" @mousedown.prevent><slot /></ActMenu>
</template>
