<script setup lang="ts">
/** Opens an invitation, or a link for a new password: choose the password and go in. */
import CheckedForm from '../ui/controls/CheckedForm.vue';
import PasswordField from '../ui/controls/PasswordField.vue';
import PushButton from '../ui/controls/PushButton.vue';
import type { LinkFor, SetPassword } from '@vocabula/contract';
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
    problem.value = failure instanceof Error ? failure.message : 'This link does not work.';
  }
});
const enter = ({ password }: SetPassword): Promise<void> =>
  api.setPassword(token, password).then(() => location.assign('/'));
</script>

<template>
  <DoorSheet :title="found ? (found.what === 'invitation' ? `Welcome, ${found.name}` : 'New password') : 'Your link'">
    <CheckedForm
      v-if="found"
      v-slot="{ problemOf, busy }"
      class="form"
      :schema="setPasswordSchema"
      :initial="{ token, password: '' }"
      :send="enter"
    >
      <p class="quiet">You sign in as {{ found.address }}. Choose a password.</p>
      <input type="hidden" autocomplete="username" :value="found.address" />
      <PasswordField is-new autofocus :problem="problemOf('password')" />
      <PushButton kind="main" type="submit" :disabled="busy">Save and sign in</PushButton>
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
