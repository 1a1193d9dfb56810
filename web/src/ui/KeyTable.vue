<script setup lang="ts">
/** The table of keys. */
import ModalDialog from './controls/ModalDialog.vue';
import { KEYS } from './keys';

const emit = defineEmits<{ close: [] }>();
</script>

<template>
  <ModalDialog header="Keys" @close="emit('close')">
    <dl>
      <template v-for="key in KEYS" :key="key.id"
        ><dt>
          <kbd>{{ key.keys }}</kbd>
        </dt>
        <dd>{{ key.does }}</dd></template
      >
    </dl>
  </ModalDialog>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: max-content 1fr;
  gap: 8px 16px;
  margin: 0;
  font-size: 0.8125rem;
}
dd {
  margin: 0;
}
</style>
