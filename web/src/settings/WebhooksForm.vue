<script setup lang="ts">
/** Webhooks: other programs that are told when something happens to a message. For administrators. */
import type { MakeWebhook, NewWebhook, Webhook, WebhookDelivery } from '@vocabula/contract';
import { WEBHOOK_EVENTS, type WebhookEvent } from '@vocabula/contract/constants';
import { makeWebhookSchema } from '@vocabula/contract/forms';
import Checkbox from 'primevue/checkbox';
import CheckboxGroup from 'primevue/checkboxgroup';
import InputText from 'primevue/inputtext';
import { ref, shallowRef } from 'vue';
import { api } from '../api/client';
import CheckedForm from '../ui/controls/CheckedForm.vue';
import FieldRow from '../ui/controls/FieldRow.vue';
import PushButton from '../ui/controls/PushButton.vue';
import { showMoment } from '../ui/dates/reader';
import { useNotice } from '../ui/notice';

const notice = useNotice();
const hooks = shallowRef<readonly Webhook[]>([]);
const fresh = ref<NewWebhook>();
const NEW: MakeWebhook = { url: '', events: [...WEBHOOK_EVENTS] };
const WORDS: Readonly<Record<WebhookEvent | 'test', string>> = {
  'handed over': 'handed over by copy, draft or file',
  sent: 'sent through the mail service',
  answered: 'answered',
  bounced: 'came back',
  test: 'a test',
};
async function load(): Promise<void> {
  hooks.value = await api.webhooks();
}
void load().catch((problem) => notice.fail(problem));
async function make(given: MakeWebhook): Promise<void> {
  fresh.value = await api.makeWebhook(given);
  await load();
}
async function work(run: () => Promise<unknown>, words: string): Promise<void> {
  try {
    await run();
    await load();
    notice.say(words);
  } catch (problem) {
    notice.fail(problem);
  }
}
function tellWords({ event, state, why, attempts, due }: WebhookDelivery): string {
  if (state === 'told') return `${WORDS[event]}: told ${showMoment(due, 'figures')}`;
  if (state === 'given up') return `${WORDS[event]}: given up after ${attempts} tries. ${why}`;
  return `${WORDS[event]}: ${why ? `${why} Tried again ${showMoment(due, 'figures')}.` : 'on its way'}`;
}
</script>

<template>
  <section class="hooks" aria-label="Webhooks">
    <h3>Webhooks</h3>
    <p class="quiet small">
      Programs that are told when a message is handed over, sent, answered or comes back: its template, version and
      recipient, not its words. Each call is signed, and tried again for two days until it is answered with 2xx.
    </p>
    <ul v-if="hooks.length" class="rows">
      <li v-for="hook in hooks" :key="hook.id">
        <div class="line">
          <code>{{ hook.url }}</code>
          <span class="quiet small">{{ hook.events.map((event) => WORDS[event]).join('; ') }}</span>
          <PushButton
            kind="plain"
            size="small"
            @click="work(() => api.tryWebhook(hook.id), 'It was called once. What came of it stands below.')"
            >Try it</PushButton
          >
          <PushButton kind="plain" size="small" @click="work(() => api.removeWebhook(hook.id), 'It is told no more.')"
            >Take away</PushButton
          >
        </div>
        <details v-if="hook.deliveries.length">
          <summary class="small quiet">{{ hook.deliveries[0] && tellWords(hook.deliveries[0]) }}</summary>
          <ul class="told small">
            <li v-for="each in hook.deliveries" :key="each.id" :class="{ warning: each.state === 'given up' }">
              {{ tellWords(each) }}
            </li>
          </ul>
        </details>
      </li>
    </ul>
    <p v-if="fresh" class="sheet secret" role="status">
      Its secret, shown this once: <code>{{ fresh.secret }}</code>
      <span class="quiet small"
        >The header vocabula-signature is sha256= and the HMAC of vocabula-id, vocabula-time and the body, with full
        stops between.</span
      >
    </p>
    <CheckedForm v-slot="{ problemOf, busy }" class="form" :schema="makeWebhookSchema" :initial="NEW" :send="make">
      <FieldRow v-slot="{ id, describedBy }" class="wide" label="Address" :problem="problemOf('url')"
        ><InputText :id="id" name="url" :aria-describedby="describedBy"
      /></FieldRow>
      <fieldset>
        <legend class="small quiet">It is told when a message is</legend>
        <CheckboxGroup name="events" data-field="events" class="events">
          <label v-for="each in WEBHOOK_EVENTS" :key="each"><Checkbox :value="each" /> {{ WORDS[each] }}</label>
        </CheckboxGroup>
        <p v-if="problemOf('events')" class="error small">⚠ {{ problemOf('events') }}</p>
      </fieldset>
      <PushButton type="submit" :disabled="busy">Make a webhook</PushButton>
    </CheckedForm>
  </section>
</template>

<style scoped>
.hooks {
  display: grid;
  gap: 12px;
  max-width: 900px;
  margin-top: 32px;
  padding-top: 20px;
  border-top: 1px solid var(--hair);
}
h3 {
  font-size: 0.9375rem;
  margin: 0;
}
.hooks p {
  margin: 0;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  align-items: baseline;
}
code {
  overflow-wrap: anywhere;
}
.secret {
  padding: 12px 16px;
  display: grid;
  gap: 4px;
}
.form {
  display: grid;
  gap: 12px;
  justify-items: start;
}
fieldset {
  border: 0;
  margin: 0;
  padding: 0;
}
.events {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
}
.wide {
  width: min(480px, 100%);
}
.wide :deep(input) {
  width: 100%;
}
</style>
