<script setup lang="ts">
/** The person who asks: what signs messages and fills sender fields. */
import type { Profile, TextSummary } from '@vocabula/contract';
import { keyFromLabel } from '@vocabula/core';
import { computed, onMounted, ref } from 'vue';
import { api } from '../api/client';
import { useMe } from '../ui/me';
import { useNotice } from '../ui/notice';
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
const signatures = ref<TextSummary[]>([]);
const newField = ref('');
const newAddress = ref('');
/** Addresses that mail may be written from. */
const usable = computed(() => [
  me.who?.address ?? '',
  ...(me.who?.addresses ?? []).filter(({ confirmed }) => confirmed).map(({ address }) => address),
]);
const changed = computed(() => JSON.stringify(draft.value) !== JSON.stringify(me.profile));

onMounted(async () => {
  notice.clear();
  try {
    await me.load();
    draft.value = JSON.parse(JSON.stringify(me.profile)) as Profile;
    signatures.value = (await api.texts()).filter((text) => text.kind === 'signature' && !text.binned);
  } catch (problem) {
    notice.fail(problem);
  }
});
async function save(): Promise<void> {
  if (!draft.value) return;
  const before = JSON.parse(JSON.stringify(me.profile)) as Profile;
  try {
    await me.save(draft.value);
    notice.say('Saved.', async () => {
      await me.save(before);
      draft.value = before;
    });
  } catch (problem) {
    notice.fail(problem);
  }
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
  <PartHead title="You" about="who writes: used as sender fields and for signing off" :changed="changed" @save="save" />
  <main v-if="draft">
    <form @submit.prevent="save">
      <label v-for="[key, words] in FIELDS" :key="key" class="field"
        ><span
          >{{ words }} <span class="small">sender.{{ key }}</span></span
        ><input v-model="draft[key]"
      /></label>
      <label class="field"
        ><span>Write from <span class="small">sender.email</span></span
        ><select v-model="draft.email">
          <option v-for="address in usable" :key="address" :value="address">{{ address }}</option>
        </select></label
      >
      <h2>Further addresses</h2>
      <p class="quiet small">
        An address that is not your account’s counts for reading and sending once an administrator has confirmed it.
      </p>
      <div v-for="{ address, confirmed } in me.who?.addresses ?? []" :key="address" class="own has">
        <span class="further"
          >{{ address }}
          <span class="quiet small">{{ confirmed ? 'confirmed' : 'waiting for an administrator' }}</span></span
        ><button
          type="button"
          class="plain"
          :aria-label="`Remove ${address}`"
          @click="act(me.dropAddress(address), 'Removed.')"
        >
          Remove
        </button>
      </div>
      <div class="own">
        <label class="field"
          ><span>Another address</span
          ><input
            v-model="newAddress"
            type="email"
            placeholder="desk@larkmoor.example"
            @keydown.enter.prevent="askAddress" /></label
        ><button type="button" @click="askAddress">Ask for it</button>
      </div>
      <h2>Own fields</h2>
      <div v-for="(_value, key) in draft.own" :key="key" class="own">
        <label class="field"
          ><span>sender.{{ key }}</span
          ><input v-model="draft.own[key]" /></label
        ><button type="button" class="plain" :aria-label="`Take out ${key}`" @click="delete draft.own[key]">
          Take out
        </button>
      </div>
      <div class="own">
        <label class="field"
          ><span>A new field</span
          ><input v-model="newField" placeholder="such as Desk" @keydown.enter.prevent="addField" /></label
        ><button type="button" @click="addField">Add</button>
      </div>
      <h2>Signatures</h2>
      <label
        v-for="[key, words] in [
          ['signature', 'For new messages'],
          ['reply_signature', 'For replies'],
        ] as const"
        :key="key"
        class="field"
        ><span>{{ words }}</span
        ><select v-model="draft[key]">
          <option value="">none</option>
          <option v-for="text in signatures" :key="text.name" :value="text.name">{{ text.title }}</option>
        </select></label
      >
    </form>
  </main>
</template>

<style scoped>
form {
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
.own label {
  flex: 1;
}
</style>
