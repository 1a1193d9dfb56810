<script setup lang="ts">
import PushButton from './controls/PushButton.vue';
import { onMounted, ref } from 'vue';
import { KEYS } from './keys';

const emit = defineEmits<{ close: [] }>();
const panel = ref<HTMLElement>();
onMounted(() => panel.value?.focus());
</script>

<template>
  <section ref="panel" class="sheet keys" role="dialog" aria-label="Keys" tabindex="-1" @keydown.esc="emit('close')">
    <header>
      <h2>Keys</h2>
      <PushButton kind="plain" class="right" @click="emit('close')">Close</PushButton>
    </header>
    <dl>
      <template v-for="key in KEYS" :key="key.id"
        ><dt>
          <kbd>{{ key.keys }}</kbd>
        </dt>
        <dd>{{ key.does }}</dd></template
      >
    </dl>
  </section>
</template>

<style scoped>
.keys {
  position: fixed;
  left: 72px;
  bottom: 16px;
  width: min(480px, calc(100vw - 32px));
  padding: 12px 16px;
  z-index: 20;
}
header {
  display: flex;
  align-items: center;
}
dl {
  display: grid;
  grid-template-columns: max-content 1fr;
  gap: 8px 16px;
  margin: 8px 0;
  font-size: 0.8125rem;
}
dd {
  margin: 0;
}
</style>
