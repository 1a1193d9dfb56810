<script setup lang="ts">
/** Invites a person and gives the link of the invitation. */
import type { Invite, OneTimeLink } from '@vocabula/contract';
import { ROLES } from '@vocabula/contract/constants';
import { inviteSchema } from '@vocabula/contract/forms';
import InputText from 'primevue/inputtext';
import { useTemplateRef } from 'vue';
import { api } from '../api/client';
import CheckedForm from '../ui/controls/CheckedForm.vue';
import FieldRow from '../ui/controls/FieldRow.vue';
import PickOne from '../ui/controls/PickOne.vue';
import PushButton from '../ui/controls/PushButton.vue';

const emit = defineEmits<{ invited: [name: string, link: OneTimeLink] }>();
const EMPTY: Invite = { name: '', address: '', role: 'colleague' };
const form = useTemplateRef<{ reset(): void }>('form');
async function send(values: Invite): Promise<void> {
  const { link, name } = await api.invite(values);
  emit('invited', name, link);
  form.value?.reset();
}
</script>

<template>
  <CheckedForm
    ref="form"
    v-slot="{ problemOf, busy }"
    class="invite"
    :initial="EMPTY"
    :schema="inviteSchema"
    :send="send"
  >
    <h3>Invite a person</h3>
    <FieldRow v-slot="{ id, describedBy }" label="Name" :problem="problemOf('name')"
      ><InputText :id="id" name="name" maxlength="200" :aria-describedby="describedBy"
    /></FieldRow>
    <FieldRow v-slot="{ id, describedBy }" label="Address" :problem="problemOf('address')"
      ><InputText :id="id" name="address" type="email" :aria-describedby="describedBy"
    /></FieldRow>
    <FieldRow v-slot="{ id, labelledBy }" label="Role"
      ><PickOne name="role" :input-id="id" :labelled-by="labelledBy" :options="ROLES"
    /></FieldRow>
    <PushButton kind="main" type="submit" :disabled="busy">Create invitation</PushButton>
  </CheckedForm>
</template>

<style scoped>
h3 {
  font-size: 0.8125rem;
  margin: 0;
  grid-column: 1 / -1;
}
.invite {
  margin-top: 28px;
  display: grid;
  grid-template-columns: 1fr 1fr 132px auto;
  gap: 8px 12px;
  align-items: start;
  max-width: 960px;
}
/* Beside the fields, which have their names above them. */
.invite > :deep(.p-button) {
  margin-top: 22px;
}
@media (max-width: 899px) {
  .invite {
    grid-template-columns: minmax(0, 1fr);
  }
  .invite > :deep(.p-button) {
    margin-top: 0;
  }
}
</style>
