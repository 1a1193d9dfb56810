<script setup lang="ts">
/** Taking a version out of use, with the reason. */
import InputText from 'primevue/inputtext';
import CheckedForm from '../ui/controls/CheckedForm.vue';
import FieldRow from '../ui/controls/FieldRow.vue';
import PushButton from '../ui/controls/PushButton.vue';
import type { Because, Version } from '@vocabula/contract';
import { becauseSchema } from '@vocabula/contract/forms';

defineProps<{ version: Version; used: boolean }>();
const emit = defineEmits<{ withdraw: [because: string]; close: [] }>();
const send = async ({ because }: Because): Promise<void> => emit('withdraw', because);
</script>

<template>
  <CheckedForm
    v-slot="{ problemOf, busy }"
    class="withdraw"
    :schema="becauseSchema"
    :initial="{ because: '' }"
    :send="send"
    @keydown.esc="emit('close')"
  >
    <p class="small">
      {{
        used
          ? 'No one can start a message with it from now on, and unfinished messages begun on it cannot be sent. Colleagues have no version until you publish another one.'
          : 'It is no longer in use. Unfinished messages begun on it cannot be sent.'
      }}
      <template v-if="version.sent"
        >{{ version.sent }} {{ version.sent === 1 ? 'message was' : 'messages were' }} sent from it; they are listed
        here.</template
      >
    </p>
    <FieldRow v-slot="{ id, describedBy }" label="Why" :problem="problemOf('because')"
      ><InputText :id="id" name="because" maxlength="2000" autofocus :aria-describedby="describedBy"
    /></FieldRow>
    <div class="acts">
      <PushButton kind="main" type="submit" :disabled="busy">Withdraw version {{ version.number }}</PushButton
      ><PushButton kind="plain" @click="emit('close')">Cancel</PushButton>
    </div>
  </CheckedForm>
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
