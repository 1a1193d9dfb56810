<script setup lang="ts">
/** Your password, and the devices where you are signed in. */
import CheckedForm from '../ui/controls/CheckedForm.vue';
import PasswordField from '../ui/controls/PasswordField.vue';
import PushButton from '../ui/controls/PushButton.vue';
import type { ChangePassword, Session } from '@vocabula/contract';
import { changePasswordSchema } from '@vocabula/contract/forms';
import { onMounted, ref, useTemplateRef } from 'vue';
import { api } from '../api/client';
import { useMe } from '../ui/me';
import { useNotice } from '../ui/notice';
import PartHead from './PartHead.vue';
import { showMoment } from '../ui/dates/reader';

const me = useMe();
const notice = useNotice();
const sessions = ref<Session[]>([]);
const form = useTemplateRef<{ reset(): void }>('form');

async function act(work: () => Promise<unknown>, words: string): Promise<void> {
  try {
    await work();
    sessions.value = await api.sessions();
    if (words) notice.say(words);
  } catch (problem) {
    notice.fail(problem);
  }
}
onMounted(() => act(() => me.load(), ''));
async function change(words: ChangePassword): Promise<void> {
  await api.changePassword(words);
  form.value?.reset();
  await act(async () => undefined, 'Password changed. All other devices are signed out.');
}
async function signOut(): Promise<void> {
  await api.signOut().catch(() => undefined);
  location.assign('/sign-in');
}
/** A browser and its system in short words, from the header `User-Agent`. */
function browserOf(agent: string): string {
  const system = /Windows|Mac OS X|Android|iPhone|iPad|Linux/.exec(agent)?.[0] ?? '';
  return [/Firefox|Edg|Chrome|Safari/.exec(agent)?.[0] ?? agent.split(/[/\s]/)[0], system].filter(Boolean).join(' on ');
}
</script>

<template>
  <PartHead title="Signing in" :about="`you sign in as ${me.who?.address}`">
    <PushButton class="right" @click="signOut">Sign out</PushButton>
  </PartHead>
  <CheckedForm
    ref="form"
    v-slot="{ problemOf, busy }"
    class="form"
    :schema="changePasswordSchema"
    :initial="{ old: '', password: '' }"
    :send="change"
  >
    <input type="hidden" autocomplete="username" :value="me.who?.address" />
    <PasswordField name="old" label="Current password" :problem="problemOf('old')" />
    <PasswordField is-new label="New password" :problem="problemOf('password')" />
    <PushButton type="submit" :disabled="busy">Change password</PushButton>
  </CheckedForm>
  <h3>Signed-in devices</h3>
  <ul class="rows">
    <li v-for="session in sessions" :key="session.id" class="session">
      <span>{{ browserOf(session.agent) }} <strong v-if="session.here" class="small">this one</strong></span>
      <span class="quiet small"
        >since {{ showMoment(session.createdAt, 'figures') }} · seen {{ showMoment(session.seenAt, 'figures') }}</span
      >
      <PushButton
        kind="plain"
        size="small"
        v-if="!session.here"
        @click="act(() => api.endSession(session.id), 'Signed out there.')"
      >
        Sign out there
      </PushButton>
    </li>
  </ul>
  <PushButton
    v-if="sessions.length > 1"
    class="others"
    @click="act(api.endOtherSessions, 'Signed out everywhere else.')"
  >
    Sign out everywhere else
  </PushButton>
</template>

<style scoped>
h3 {
  font-size: 0.8125rem;
  margin: 28px 0 4px;
}
.form {
  width: min(480px, 100%);
  display: grid;
  gap: 12px;
  justify-items: start;
}
.form label {
  width: 100%;
}
.rows {
  max-width: 720px;
}
.session {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto 112px;
  gap: 16px;
  align-items: center;
  min-height: 40px;
}
.others {
  margin-top: 12px;
}
</style>
