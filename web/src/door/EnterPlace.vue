<script setup lang="ts">
/** Following an invitation, or a link that sets a new password. */
import InputText from 'primevue/inputtext';
import CheckedForm from '../ui/controls/CheckedForm.vue';
import FieldRow from '../ui/controls/FieldRow.vue';
import PushButton from '../ui/controls/PushButton.vue';
import type { LinkFor, SetPassword } from '@vocabula/contract';
import { MIN_PASSWORD } from '@vocabula/contract/constants';
import { setPasswordSchema } from '@vocabula/contract/forms';
import { onMounted, ref } from 'vue';
import { useRoute } from 'vue-router';
import { api } from '../api/client';
import DoorSheet from './DoorSheet.vue';

const route = useRoute();
const token = String(route.params.token);
const found = ref<LinkFor>();
const problem = ref('');

onMounted(async () => {
  try {
    found.value = await api.linkFor(token);
  } catch (failure) {
    problem.value = failure instanceof Error ? failure.message : 'This link leads nowhere.';
  }
});
const enter = ({ password }: SetPassword): Promise<void> =>
  api.setPassword(token, password).then(() => location.assign('/'));
</script>

<template>
  <DoorSheet :title="found ? (found.what === 'invitation' ? `Welcome, ${found.name}` : 'A new password') : 'Your link'">
    <CheckedForm
      v-if="found"
      v-slot="{ problemOf, busy }"
      class="form"
      :schema="setPasswordSchema"
      :initial="{ token, password: '' }"
      :send="enter"
    >
      <p class="quiet">You sign in as {{ found.address }}. Choose a password to go with it.</p>
      <input type="hidden" autocomplete="username" :value="found.address" />
      <FieldRow
        v-slot="{ id, describedBy }"
        label="Password"
        :help="`${MIN_PASSWORD} characters at least; a sentence is good.`"
        :problem="problemOf('password')"
        ><InputText
          :id="id"
          name="password"
          type="password"
          autocomplete="new-password"
          autofocus
          :aria-describedby="describedBy" /></FieldRow
      ><PushButton kind="main" type="submit" :disabled="busy">Set it and go in</PushButton>
    </CheckedForm>
    <template v-else>
      <p :class="problem ? 'error' : 'quiet'" role="status">{{ problem || 'Opening…' }}</p>
      <RouterLink v-if="problem" to="/sign-in">Sign in</RouterLink>
    </template>
  </DoorSheet>
</template>

<style scoped>
.form {
  display: grid;
  gap: 12px;
}
.form .main {
  justify-self: start;
}
</style>
