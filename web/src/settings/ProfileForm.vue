<script setup lang="ts">
/** The person who asks: what signs messages and fills sender fields. */
import type { Profile } from '@vocabula/contract';
import { profileSchema } from '@vocabula/contract/forms';
import { keyFromLabel } from '@vocabula/core';
import { computed, onMounted, ref, useTemplateRef } from 'vue';
import { useMe } from '../ui/me';
import { useNotice } from '../ui/notice';
import { useTexts } from '../ui/stores/lists';
import InputText from 'primevue/inputtext';
import CheckedForm from '../ui/controls/CheckedForm.vue';
import FieldRow from '../ui/controls/FieldRow.vue';
import PickOne from '../ui/controls/PickOne.vue';
import PushButton from '../ui/controls/PushButton.vue';
import PartHead from './PartHead.vue';

const FIELDS = [
  ['name', 'Name'],
  ['title', 'Title'],
  ['telephone', 'Telephone'],
  ['pronouns', 'Pronouns'],
  ['booking_link', 'Booking link'],
] as const;
const me = useMe();
const notice = useNotice();
const draft = ref<Profile>();
const texts = useTexts();
const newField = ref('');
const newAddress = ref('');
/** Addresses that mail may be written from. */
const usable = computed(() => [
  me.who?.address ?? '',
  ...(me.who?.addresses ?? []).filter(({ confirmed }) => confirmed).map(({ address }) => address),
]);
const choices = computed(() => [
  { value: '', words: 'none' },
  ...texts.signatures.map(({ name, title }) => ({ value: name, words: title })),
]);
const changed = computed(() => JSON.stringify(draft.value) !== JSON.stringify(me.profile));

onMounted(async () => {
  notice.clear();
  try {
    await me.load();
    draft.value = JSON.parse(JSON.stringify(me.profile)) as Profile;
    await texts.load();
  } catch (problem) {
    notice.fail(problem);
  }
});
const form = useTemplateRef<{ submit(): void }>('form');
async function save(changed: Profile): Promise<void> {
  const before = JSON.parse(JSON.stringify(me.profile)) as Profile;
  await me.save(changed);
  notice.say('Saved.', async () => {
    await me.save(before);
    draft.value = before;
  });
}
async function act(work: Promise<void>, words: string): Promise<void> {
  try {
    await work;
    notice.say(words);
  } catch (problem) {
    notice.fail(problem);
  }
}
async function askAddress(): Promise<void> {
  const address = newAddress.value.trim();
  if (address === '') return;
  await act(me.askAddress(address), `An administrator confirms “${address}” under Settings › People.`);
  newAddress.value = '';
}
function addField(): void {
  if (!draft.value || !newField.value.trim()) return;
  draft.value.own[keyFromLabel(newField.value, new Set(Object.keys(draft.value.own)))] = '';
  newField.value = '';
}
</script>

<template>
  <PartHead
    title="You"
    about="your details, used as sender fields and in signatures"
    :changed="changed"
    @save="form?.submit()"
  />
  <div v-if="draft">
    <CheckedForm ref="form" v-slot="{ problemOf }" class="profile" :schema="profileSchema" :held="draft" :send="save">
      <FieldRow v-for="[key, words] in FIELDS" :key="key" :label="words" :problem="problemOf(key)">
        <template #label
          >{{ words }} <span class="small">sender.{{ key }}</span></template
        >
        <template #default="{ id, describedBy }"
          ><InputText :id="id" v-model="draft[key]" :name="key" :aria-describedby="describedBy"
        /></template>
      </FieldRow>
      <FieldRow label="Write from">
        <template #label>Write from <span class="small">sender.email</span></template>
        <template #default="{ id, labelledBy }"
          ><PickOne v-model="draft.email" :input-id="id" :labelled-by="labelledBy" :options="usable"
        /></template>
      </FieldRow>
      <h2>Further addresses</h2>
      <p class="quiet small">
        An address that is not your account’s counts for reading and sending once an administrator has confirmed it.
      </p>
      <div v-for="{ address, confirmed } in me.who?.addresses ?? []" :key="address" class="own has">
        <span class="further"
          >{{ address }}
          <span class="quiet small">{{ confirmed ? 'confirmed' : 'waiting for an administrator' }}</span></span
        ><PushButton kind="plain" :aria-label="`Remove ${address}`" @click="act(me.dropAddress(address), 'Removed.')">
          Remove
        </PushButton>
      </div>
      <div class="own">
        <FieldRow v-slot="{ id }" label="Another address"
          ><InputText
            :id="id"
            v-model="newAddress"
            type="email"
            placeholder="desk@larkmoor.example"
            @keydown.enter.prevent="askAddress" /></FieldRow
        ><PushButton @click="askAddress">Add address</PushButton>
      </div>
      <h2>Own fields</h2>
      <div v-for="(_value, key) in draft.own" :key="key" class="own">
        <FieldRow v-slot="{ id }" :label="`sender.${key}`"><InputText :id="id" v-model="draft.own[key]" /></FieldRow
        ><PushButton kind="plain" :aria-label="`Remove ${key}`" @click="delete draft.own[key]">Remove</PushButton>
      </div>
      <div class="own">
        <FieldRow v-slot="{ id }" label="A new field"
          ><InputText
            :id="id"
            v-model="newField"
            placeholder="such as Desk"
            @keydown.enter.prevent="addField" /></FieldRow
        ><PushButton @click="addField">Add</PushButton>
      </div>
      <h2>Signatures</h2>
      <FieldRow
        v-for="[key, words] in [
          ['signature', 'For new messages'],
          ['reply_signature', 'For replies'],
        ] as const"
        :key="key"
        v-slot="{ id, labelledBy }"
        :label="words"
        ><PickOne v-model="draft[key]" :input-id="id" :labelled-by="labelledBy" :options="choices"
      /></FieldRow>
    </CheckedForm>
  </div>
</template>

<style scoped>
.profile {
  width: min(480px, 100%);
  display: grid;
  gap: 12px;
}
h2 {
  margin-top: 12px;
}
.own {
  display: flex;
  gap: 8px;
  align-items: end;
}
.own.has {
  align-items: center;
}
.further {
  flex: 1;
  overflow-wrap: anywhere;
}
.own > .field-row {
  flex: 1;
}
</style>
