<script setup lang="ts">
/** Signing in; and, where there is nobody yet, the first administrator. */
import InputText from 'primevue/inputtext';
import PushButton from '../ui/controls/PushButton.vue';
import type { Door } from '@vocabula/contract';
import { MIN_PASSWORD } from '@vocabula/contract/constants';
import { onMounted, ref } from 'vue';
import { useRoute } from 'vue-router';
import { api } from '../api/client';
import DoorSheet from './DoorSheet.vue';

const route = useRoute();
const door = ref<Door>();
const name = ref('');
const address = ref('');
const password = ref('');
const problem = ref('');
const busy = ref(false);

onMounted(async () => {
  door.value = await api.door().catch((failure: unknown) => {
    problem.value = failure instanceof Error ? failure.message : '';
    return undefined;
  });
});

async function enter(): Promise<void> {
  problem.value = '';
  busy.value = true;
  try {
    if (door.value?.first) await api.makeFirst({ name: name.value, address: address.value, password: password.value });
    else await api.signIn({ address: address.value, password: password.value });
    const to = String(route.query.to ?? '/');
    // The whole page anew: nothing of who was here before stays in it. Only ways inside are gone.
    location.assign(to.startsWith('/') && !to.startsWith('//') ? to : '/');
  } catch (failure) {
    problem.value = failure instanceof Error ? failure.message : 'That did not work.';
    busy.value = false;
  }
}
function pick(account: Door['demo'][number]): void {
  address.value = account.address;
  password.value = account.password;
  void enter();
}
</script>

<template>
  <DoorSheet v-if="door" :title="door.first ? 'The first administrator' : 'Sign in'">
    <p v-if="door.first" class="quiet">
      No accounts yet. The first person becomes the administrator, who invites others and sets what they may do.
    </p>
    <form class="form" @submit.prevent="enter">
      <label v-if="door.first" class="field"
        ><span>Your name</span><InputText v-model="name" autocomplete="name" required
      /></label>
      <label class="field"
        ><span>Address</span
        ><InputText v-model="address" type="email" autocomplete="username" required :autofocus="!door.first"
      /></label>
      <label class="field"
        ><span>Password</span
        ><InputText
          v-model="password"
          type="password"
          :autocomplete="door.first ? 'new-password' : 'current-password'"
          :minlength="door.first ? MIN_PASSWORD : undefined"
          required
        /><span v-if="door.first" class="quiet small">{{ MIN_PASSWORD }} characters at least; a sentence is good.</span>
      </label>
      <p v-if="problem" class="error" role="alert">{{ problem }}</p>
      <PushButton kind="main" type="submit" :disabled="busy">{{ door.first ? 'Begin' : 'Sign in' }}</PushButton>
    </form>
    <p v-if="!door.first" class="quiet small">
      Forgotten your password? An administrator can send you a link to set a new one.
    </p>
    <section v-if="door.demo.length > 0" aria-label="People of the demo">
      <h2 class="small quiet">Demo accounts</h2>
      <ul>
        <li v-for="account in door.demo" :key="account.address">
          <PushButton kind="plain" class="person" :disabled="busy" @click="pick(account)">
            <span>{{ account.name }}</span><span class="quiet small">{{ account.role }}</span>
          </PushButton>
        </li>
      </ul>
    </section>
  </DoorSheet>
  <DoorSheet v-else title="Sign in">
    <p :class="problem ? 'error' : 'quiet'" role="status">{{ problem || 'Opening…' }}</p>
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
ul {
  list-style: none;
  margin: 4px -8px 0;
  padding: 0;
  display: grid;
  grid-template-columns: 1fr 1fr;
}
.person {
  display: grid;
  text-align: left;
  width: 100%;
  height: 44px;
  padding: 4px 8px;
  gap: 0;
  align-content: center;
  line-height: 1.125rem;
}
</style>
