<script setup lang="ts">
/** Taking a version out of use, with the reason. */
import InputText from 'primevue/inputtext';
import PushButton from '../ui/controls/PushButton.vue';
import type { Version } from '@vocabula/contract';
import { ref } from 'vue';

defineProps<{ version: Version; used: boolean }>();
const emit = defineEmits<{ withdraw: [because: string]; close: [] }>();
const because = ref('');
</script>

<template>
  <form class="withdraw" @submit.prevent="emit('withdraw', because)" @keydown.esc="emit('close')">
    <p class="small">
      {{
        used
          ? 'No one can start a message with it from now on, and unfinished messages begun on it cannot be sent. Colleagues have none until you publish another.'
          : 'It is not in use any more. Unfinished messages begun on it cannot be sent.'
      }}
      <template v-if="version.sent"
        >{{ version.sent }} {{ version.sent === 1 ? 'message was' : 'messages were' }} sent from it; they are listed
        here.</template
      >
    </p>
    <label class="field"><span>Why</span><InputText v-model="because" maxlength="2000" required autofocus /></label>
    <div class="acts">
      <PushButton kind="main" type="submit">Withdraw version {{ version.number }}</PushButton
      ><PushButton kind="plain" @click="emit('close')">Leave it in use</PushButton>
    </div>
  </form>
</template>

<style scoped>
.withdraw {
  display: grid;
  gap: 8px;
  border-left: 3px solid var(--warning);
  padding: 4px 0 4px 16px;
}
.acts {
  display: flex;
  gap: 8px;
}
</style>
