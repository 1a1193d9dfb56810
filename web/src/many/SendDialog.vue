<script setup lang="ts">
/** The last look before one message each goes to many: what goes, what does not, and the number typed. */
import InputText from 'primevue/inputtext';
import PushButton from '../ui/controls/PushButton.vue';
import { computed, ref, useTemplateRef } from 'vue';
import ModalDialog from '../ui/controls/ModalDialog.vue';
import { command } from '../ui/keys';

const props = defineProps<{ title: string; ready: number; apart: number; broken: number }>();
const emit = defineEmits<{ send: [typed: number]; close: [] }>();
const dialog = useTemplateRef('dialog');
const typed = ref('');
const right = computed(() => Number(typed.value.trim()) === props.ready);
function send(): void {
  if (right.value) emit('send', props.ready);
}
</script>

<template>
  <ModalDialog ref="dialog" :header="`Send “${title}” to ${ready} people`" width="440px" @close="emit('close')">
    <form @submit.prevent="send" @keydown.ctrl.enter.prevent="send" @keydown.meta.enter.prevent="send">
      <p>
        Each of {{ ready }} people gets a message of their own. One is sent first; check it before you send the rest.
      </p>
      <p v-if="apart || broken" class="quiet">
        {{ apart + broken }} {{ apart + broken === 1 ? 'is' : 'are' }} set apart and get nothing.
      </p>
      <label class="field"
        ><span>Type {{ ready }} to go on</span
        ><InputText v-model="typed" inputmode="numeric" autocomplete="off" autofocus
      /></label>
      <p class="acts">
        <PushButton kind="main" type="submit" :disabled="!right">
          Send the first <kbd>{{ command }} ⏎</kbd>
        </PushButton>
        <PushButton kind="plain" @click="dialog?.hide()">Not yet</PushButton>
      </p>
    </form>
  </ModalDialog>
</template>

<style scoped>
form {
  display: grid;
  gap: 12px;
}
.acts {
  display: flex;
  gap: 8px;
}
</style>
