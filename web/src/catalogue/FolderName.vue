<script setup lang="ts">
/** The name of a folder, where the folder stands: `Enter` keeps it, `Esc` and leaving it empty do not. */
import type { MakeFolder } from '@vocabula/contract';
import { makeFolderSchema } from '@vocabula/contract/forms';
import InputText from 'primevue/inputtext';
import { useTemplateRef } from 'vue';
import CheckedForm from '../ui/controls/CheckedForm.vue';
import FieldRow from '../ui/controls/FieldRow.vue';

const { initial } = defineProps<{ initial: MakeFolder; label: string }>();
const emit = defineEmits<{ named: [title: string]; close: [] }>();
const form = useTemplateRef<{ submit(): void }>('form');
const send = async ({ title }: MakeFolder): Promise<void> => emit('named', title);
/** Leaving it keeps what was typed. */
function left({ target }: Event): void {
  if ((target as HTMLInputElement).value.trim() === '') emit('close');
  else form.value?.submit();
}
</script>

<template>
  <CheckedForm
    ref="form"
    v-slot="{ problemOf }"
    class="naming"
    :schema="makeFolderSchema"
    :initial="initial"
    :send="send"
    @keydown.esc="emit('close')"
  >
    <FieldRow v-slot="{ id, describedBy }" :label="label" :problem="problemOf('title')">
      <InputText :id="id" name="title" maxlength="80" autofocus :aria-describedby="describedBy" @blur="left" />
    </FieldRow>
  </CheckedForm>
</template>

<style scoped>
.naming {
  padding: 2px 8px;
}
</style>
