<script setup lang="ts">
/** Following an invitation, or a link that sets a new password. */
import InputText from 'primevue/inputtext';
import PushButton from '../ui/controls/PushButton.vue';
import type { LinkFor } from '@vocabula/contract';
import { MIN_PASSWORD } from '@vocabula/contract/constants';
import { onMounted, ref } from 'vue';
import { useRoute } from 'vue-router';
import { api } from '../api/client';
import DoorSheet from './DoorSheet.vue';

const route = useRoute();
const token = String(route.params.token);
const found = ref<LinkFor>();
const password = ref('');
const problem = ref('');

onMounted(async () => {
  try {
    found.value = await api.linkFor(token);
  } catch (failure) {
    problem.value = failure instanceof Error ? failure.message : 'This link leads nowhere.';
  }
});
async function enter(): Promise<void> {
  problem.value = '';
  try {
    await api.setPassword(token, password.value);
    location.assign('/');
  } catch (failure) {
    problem.value = failure instanceof Error ? failure.message : 'That did not work.';
  }
}
</script>

<template>
  <DoorSheet :title="found ? (found.what === 'invitation' ? `Welcome, ${found.name}` : 'A new password') : 'Your link'">
    <form v-if="found" class="form" @submit.prevent="enter">
      <p class="quiet">You sign in as {{ found.address }}. Choose a password to go with it.</p>
      <input type="hidden" autocomplete="username" :value="found.address" />
      <label class="field"
        ><span>Password</span
        ><InputText
          v-model="password"
          type="password"
          autocomplete="new-password"
          :minlength="MIN_PASSWORD"
          required
          autofocus
        /><span class="quiet small">{{ MIN_PASSWORD }} characters at least; a sentence is good.</span></label
      >
      <p v-if="problem" class="error" role="alert">{{ problem }}</p>
      <PushButton kind="main" type="submit">Set it and go in</PushButton>
    </form>
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
