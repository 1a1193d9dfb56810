<script setup lang="ts">
/** Groups of people, who are given rights together. */
import TickBox from '../ui/controls/TickBox.vue';
import PushButton from '../ui/controls/PushButton.vue';
import InputText from 'primevue/inputtext';
import type { Group, Person } from '@vocabula/contract';
import { onMounted, ref } from 'vue';
import { api } from '../api/client';
import { useNotice } from '../ui/notice';
import PartHead from './PartHead.vue';

const notice = useNotice();
const groups = ref<Group[]>([]);
const people = ref<Person[]>([]);
const open = ref<string>();
const title = ref('');
const members = ref<string[]>([]);

async function act(work: () => Promise<unknown>, words = ''): Promise<void> {
  try {
    await work();
    [groups.value, people.value] = await Promise.all([api.groups(), api.people()]);
    if (words) notice.say(words);
  } catch (problem) {
    notice.fail(problem);
  }
}
onMounted(() => act(async () => undefined));
function edit(group: Group | undefined): void {
  open.value = group?.id ?? 'new';
  title.value = group?.title ?? '';
  members.value = [...(group?.members ?? [])];
}
async function save(): Promise<void> {
  const body = { title: title.value, members: members.value };
  const id = open.value;
  await act(() => (id === 'new' ? api.makeGroup(body) : api.saveGroup(id ?? '', body)), `“${title.value}” is kept.`);
  if (!notice.current?.problem) open.value = undefined;
}
const remove = (group: Group): Promise<void> =>
  act(() => api.removeGroup(group.id), `“${group.title}” is gone, and with it what it was granted.`);
const nameOf = (id: string): string => people.value.find((person) => person.id === id)?.name ?? 'unknown';
</script>

<template>
  <PartHead title="Groups" about="rights in folders are given to people or to groups">
    <PushButton kind="main" class="right" @click="edit(undefined)">New group</PushButton>
  </PartHead>
  <form v-if="open" class="sheet form" @submit.prevent="save" @keydown.esc="open = undefined">
    <label class="field"
      ><span>Name of the group</span><InputText v-model="title" maxlength="80" required autofocus
    /></label>
    <fieldset>
      <legend class="small quiet">Who is in it</legend>
      <label v-for="person in people.filter(({ state }) => state !== 'ended')" :key="person.id"
        ><TickBox v-model="members" :value="person.id" /> {{ person.name }}
        <span class="quiet small">{{ person.role }}</span></label
      >
    </fieldset>
    <div class="acts">
      <PushButton kind="main" type="submit">Keep</PushButton
      ><PushButton kind="plain" @click="open = undefined">Leave it</PushButton>
    </div>
  </form>
  <ul v-if="groups.length" class="rows">
    <li v-for="group in groups" :key="group.id" class="group">
      <strong>{{ group.title }}</strong>
      <span class="quiet small">{{ group.members.map(nameOf).join(', ') || 'no members yet' }}</span>
      <span
        ><PushButton kind="plain" size="small" @click="edit(group)">Change</PushButton
        ><PushButton kind="plain" size="small" @click="remove(group)">Delete</PushButton></span
      >
    </li>
  </ul>
  <p v-else-if="!open" class="quiet">There are no groups yet.</p>
</template>

<style scoped>
.form {
  padding: 16px 20px;
  display: grid;
  gap: 12px;
  max-width: 520px;
  margin-bottom: 20px;
}
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 4px 12px;
}
.acts {
  display: flex;
  gap: 8px;
}
.rows {
  max-width: 800px;
}
.group {
  display: grid;
  grid-template-columns: 200px minmax(0, 1fr) auto;
  gap: 16px;
  align-items: center;
  min-height: 40px;
}
.group strong {
  font-weight: 500;
}
</style>
