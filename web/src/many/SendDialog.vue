<script setup lang="ts">
/** The last look before one message each goes to many: what goes, what does not, and the number typed. */
import InputText from 'primevue/inputtext';
import PushButton from '../ui/controls/PushButton.vue';
import { computed, onMounted, ref, useTemplateRef } from 'vue';
import { command } from '../ui/keys';

const props = defineProps<{ title: string; ready: number; apart: number; broken: number }>();
const emit = defineEmits<{ send: [typed: number]; close: [] }>();
const dialog = useTemplateRef('dialog');
const typed = ref('');
const right = computed(() => Number(typed.value.trim()) === props.ready);
onMounted(() => dialog.value?.showModal());
function send(): void {
  if (right.value) emit('send', props.ready);
}
</script>

<template>
  <dialog ref="dialog" class="sheet" aria-labelledby="send-title" @close="emit('close')" @cancel="emit('close')">
    <form @submit.prevent="send" @keydown.ctrl.enter.prevent="send" @keydown.meta.enter.prevent="send">
      <h1 id="send-title">Send “{{ title }}” to {{ ready }} people</h1>
      <p>
        Each of {{ ready }} people gets one message of their own. One goes first, and you look at it before the rest go.
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
        <PushButton kind="plain" @click="dialog?.close()">Not yet</PushButton>
      </p>
    </form>
  </dialog>
</template>

<style scoped>
dialog {
  width: min(440px, calc(100vw - 32px));
  padding: 24px;
}
dialog::backdrop {
  background: rgb(32 38 46 / 0.15);
}
form {
  display: grid;
  gap: 12px;
}
h1 {
  white-space: normal;
}
.acts {
  display: flex;
  gap: 8px;
}
</style>
