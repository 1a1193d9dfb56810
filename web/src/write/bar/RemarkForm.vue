<script setup lang="ts">
/** A remark on the selected words, for those who write this text. It never becomes part of it. */
import Textarea from 'primevue/textarea';
import PushButton from '../../ui/controls/PushButton.vue';
import { ref } from 'vue';
import { useNotice } from '../../ui/notice';
import type { Desk } from '../desk/useDesk';

const props = defineProps<{ desk: Pick<Desk, 'remarks'> }>();
const emit = defineEmits<{ close: [] }>();
const notice = useNotice();
const quote = props.desk.remarks.selected();
const body = ref('');
async function done(): Promise<void> {
  if (!quote || body.value.trim() === '') return;
  try {
    await props.desk.remarks.make(quote, body.value.trim());
    emit('close');
  } catch (problem) {
    notice.fail(problem);
  }
}
</script>

<template>
  <form @submit.prevent="done">
    <label class="field"
      ><span>Remark on “{{ quote?.exact.slice(0, 50) }}”</span
      ><Textarea
        v-model="body"
        rows="3"
        maxlength="4000"
        required
        @keydown.ctrl.enter="done"
        @keydown.meta.enter="done"
      />
    </label>
    <PushButton kind="main" type="submit" :disabled="!quote">Add remark</PushButton>
  </form>
</template>
