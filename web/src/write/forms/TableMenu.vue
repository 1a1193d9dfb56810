<script setup lang="ts">
/** What can be done with the table that the caret is in. */
import PopMenu from '../../ui/PopMenu.vue';
import type { Desk } from '../desk/useDesk';
import { actOnTable, canActOnTable, TABLE_ACTS } from '../editor/operations/tables';

const props = defineProps<{ desk: Desk }>();
const { manuscript, fields } = props.desk;
const { editor } = manuscript;
</script>

<template>
  <PopMenu label="Table" :width="210" pressed>
    <template #default="{ close }">
      <button
        v-for="[words, act] in TABLE_ACTS"
        :key="words"
        type="button"
        class="row"
        role="menuitem"
        :disabled="fields.beat.value >= 0 && !canActOnTable(editor, act)"
        @click="
          actOnTable(editor, act);
          close(false);
        "
      >
        {{ words }}
      </button>
    </template>
  </PopMenu>
</template>
