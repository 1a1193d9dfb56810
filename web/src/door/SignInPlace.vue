<script setup lang="ts">
/** Sign in; on an empty installation, create the first administrator. */
import InputText from 'primevue/inputtext';
import CheckedForm from '../ui/controls/CheckedForm.vue';
import FieldRow from '../ui/controls/FieldRow.vue';
import PasswordField from '../ui/controls/PasswordField.vue';
import PushButton from '../ui/controls/PushButton.vue';
import type { Door, FirstPerson, SignIn } from '@vocabula/contract';
import { firstPersonSchema, signInSchema } from '@vocabula/contract/forms';
import { onMounted, ref } from 'vue';
import { useRoute } from 'vue-router';
import { api } from '../api/client';
import DoorSheet from './DoorSheet.vue';

const route = useRoute();
const door = ref<Door>();
const problem = ref('');
const busy = ref(false);

onMounted(async () => {
  door.value = await api.door().catch((failure: unknown) => {
    problem.value = failure instanceof Error ? failure.message : '';
    return undefined;
  });
});

/** Loads the whole page again, so that nothing of the last user stays. Only paths of this site are followed. */
function goIn(): void {
  const to = String(route.query.to ?? '/');
  location.assign(to.startsWith('/') && !to.startsWith('//') ? to : '/');
}
const begin = (person: FirstPerson): Promise<void> => api.makeFirst(person).then(goIn);
const enter = (words: SignIn): Promise<void> => api.signIn(words).then(goIn);
async function pick({ address, password }: Door['demo'][number]): Promise<void> {
  busy.value = true;
  try {
    await enter({ address, password });
  } catch (failure) {
    problem.value = failure instanceof Error ? failure.message : 'That did not work.';
    busy.value = false;
  }
}
</script>

<template>
  <DoorSheet v-if="door" :title="door.first ? 'The first administrator' : 'Sign in'">
    <p v-if="door.first" class="quiet">
      No accounts yet. The first person becomes the administrator, who invites others and sets what they may do.
    </p>
    <CheckedForm
      v-if="door.first"
      v-slot="{ problemOf, busy: sending }"
      class="form"
      :schema="firstPersonSchema"
      :initial="{ name: '', address: '', password: '' }"
      :send="begin"
    >
      <FieldRow v-slot="{ id, describedBy }" label="Your name" :problem="problemOf('name')"
        ><InputText :id="id" name="name" autocomplete="name" autofocus :aria-describedby="describedBy"
      /></FieldRow>
      <FieldRow v-slot="{ id, describedBy }" label="Address" :problem="problemOf('address')"
        ><InputText :id="id" name="address" type="email" autocomplete="username" :aria-describedby="describedBy"
      /></FieldRow>
      <PasswordField is-new :problem="problemOf('password')" />
      <PushButton kind="main" type="submit" :disabled="sending">Create account</PushButton>
    </CheckedForm>
    <CheckedForm
      v-else
      v-slot="{ problemOf, busy: sending }"
      class="form"
      :schema="signInSchema"
      :initial="{ address: '', password: '' }"
      :send="enter"
    >
      <FieldRow v-slot="{ id, describedBy }" label="Address" :problem="problemOf('address')"
        ><InputText
          :id="id"
          name="address"
          type="email"
          autocomplete="username"
          autofocus
          :aria-describedby="describedBy" /></FieldRow
      ><PasswordField :problem="problemOf('password')" /><PushButton
        kind="main"
        type="submit"
        :disabled="sending || busy"
        >Sign in</PushButton
      >
    </CheckedForm>
    <p v-if="problem" class="error" role="alert">⚠ {{ problem }}</p>
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
