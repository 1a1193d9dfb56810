<script setup lang="ts">
/** Keys for other programs: made, shown once, taken back. */
import Checkbox from 'primevue/checkbox';
import CheckboxGroup from 'primevue/checkboxgroup';
import CheckedForm from '../ui/controls/CheckedForm.vue';
import FieldRow from '../ui/controls/FieldRow.vue';
import PushButton from '../ui/controls/PushButton.vue';
import InputText from 'primevue/inputtext';
import type { Key, MakeKey, Scope } from '@vocabula/contract';
import { SCOPES } from '@vocabula/contract/constants';
import { makeKeySchema } from '@vocabula/contract/forms';
import { onMounted, ref, useTemplateRef } from 'vue';
import { api } from '../api/client';
import { useMe } from '../ui/me';
import { useNotice } from '../ui/notice';
import PartHead from './PartHead.vue';
import WebhooksForm from './WebhooksForm.vue';
import { showMoment } from '../ui/dates/reader';

const me = useMe();
const notice = useNotice();
const keys = ref<Key[]>([]);
const NEW: MakeKey = { title: '', scopes: ['read'] };
const form = useTemplateRef<{ reset(): void }>('form');
const fresh = ref('');
const WORDS: Readonly<Record<Scope, string>> = {
  read: 'find and read what you may see',
  render: 'ask questions and render messages',
  begin: 'begin messages and series in your name',
  recipients: 'add and change people in recipient lists',
  publish: 'publish',
};

async function load(): Promise<void> {
  try {
    keys.value = await api.keys();
  } catch (problem) {
    notice.fail(problem);
  }
}
onMounted(load);
async function make(wanted: MakeKey): Promise<void> {
  fresh.value = (await api.makeKey(wanted)).key;
  form.value?.reset();
  await load();
}
async function copy(): Promise<void> {
  await navigator.clipboard.writeText(fresh.value).then(
    () => notice.say('Key copied.'),
    () => notice.fail(new Error('It could not be copied. Select it and copy it by hand.')),
  );
}
async function end(key: Key): Promise<void> {
  try {
    await api.endKey(key.id);
    await load();
    notice.say(`“${key.title}” is revoked.`);
  } catch (problem) {
    notice.fail(problem);
  }
}
</script>

<template>
  <PartHead title="For other programs" about="a key acts as you, within the rights you give it">
    <template #about>· <a href="/api/v1">Endpoints</a></template>
  </PartHead>
  <section v-if="fresh" class="fresh sheet" aria-label="The new key">
    <p>This is the key. Copy it now: it is shown only once.</p>
    <code>{{ fresh }}</code>
    <div class="acts">
      <PushButton kind="main" @click="copy">Copy it</PushButton
      ><PushButton kind="plain" @click="fresh = ''">Done</PushButton>
    </div>
  </section>
  <ul v-if="keys.length" class="rows">
    <li v-for="key in keys" :key="key.id" class="key">
      <span
        >{{ key.title }} <span class="quiet small">{{ key.start }}…</span></span
      >
      <span class="quiet small">{{ key.scopes.map((scope) => WORDS[scope]).join('; ') }}</span>
      <span class="quiet small">{{ key.usedAt ? `used ${showMoment(key.usedAt, 'figures')}` : 'never used' }}</span>
      <PushButton kind="plain" size="small" @click="end(key)">Take back</PushButton>
    </li>
  </ul>
  <p v-else class="quiet">You have no keys.</p>
  <CheckedForm ref="form" v-slot="{ problemOf, busy }" class="form" :schema="makeKeySchema" :initial="NEW" :send="make">
    <h3>A new key</h3>
    <FieldRow v-slot="{ id, describedBy }" class="wide" label="What it is for" :problem="problemOf('title')"
      ><InputText :id="id" name="title" maxlength="80" placeholder="Website" :aria-describedby="describedBy"
    /></FieldRow>
    <fieldset>
      <legend class="small quiet">It may</legend>
      <CheckboxGroup name="scopes" data-field="scopes" class="scopes">
        <label v-for="scope in SCOPES.filter((each) => each !== 'publish' || me.isAuthor)" :key="scope"
          ><Checkbox :value="scope" /> {{ WORDS[scope] }}</label
        >
      </CheckboxGroup>
      <p v-if="problemOf('scopes')" class="error small">⚠ {{ problemOf('scopes') }}</p>
    </fieldset>
    <PushButton kind="main" type="submit" :disabled="busy">Make it</PushButton>
  </CheckedForm>
  <WebhooksForm v-if="me.isAdministrator" />
</template>

<style scoped>
h3 {
  font-size: 0.8125rem;
  margin: 0;
}
.rows {
  max-width: 900px;
}
.key {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.4fr) 168px 88px;
  gap: 16px;
  align-items: center;
  min-height: 40px;
}
.fresh {
  padding: 16px 20px;
  display: grid;
  gap: 8px;
  margin-bottom: 16px;
  max-width: 640px;
}
code {
  overflow-wrap: anywhere;
  user-select: all;
}
.acts {
  display: flex;
  gap: 8px;
}
.form {
  width: min(480px, 100%);
  display: grid;
  gap: 12px;
  justify-items: start;
  margin-top: 28px;
}
.wide {
  width: 100%;
}
.scopes {
  display: grid;
  gap: 4px;
}
fieldset {
  border: 0;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 4px;
}
</style>
