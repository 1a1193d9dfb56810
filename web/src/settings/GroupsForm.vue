<script setup lang="ts">
/** Groups of people, who are given rights together. */
import Checkbox from 'primevue/checkbox';
import CheckboxGroup from 'primevue/checkboxgroup';
import CheckedForm from '../ui/controls/CheckedForm.vue';
import FieldRow from '../ui/controls/FieldRow.vue';
import PushButton from '../ui/controls/PushButton.vue';
import InputText from 'primevue/inputtext';
import type { Group, SaveGroup } from '@vocabula/contract';
import { saveGroupSchema } from '@vocabula/contract/forms';
import { storeToRefs } from 'pinia';
import { onMounted, ref } from 'vue';
import { api } from '../api/client';
import { useNotice } from '../ui/notice';
import { useGroups, usePeople } from '../ui/stores/lists';
import PartHead from './PartHead.vue';

const notice = useNotice();
const [groupStore, peopleStore] = [useGroups(), usePeople()];
const { list: groups } = storeToRefs(groupStore);
const { list: people, names } = storeToRefs(peopleStore);
const open = ref<string>();
const initial = ref<SaveGroup>({ title: '', members: [] });

async function act(work: () => Promise<unknown>, words = ''): Promise<void> {
  try {
    await work();
    await Promise.all([groupStore.load(), peopleStore.load()]);
    if (words) notice.say(words);
  } catch (problem) {
    notice.fail(problem);
  }
}
onMounted(() => act(async () => undefined));
function edit(group: Group | undefined): void {
  open.value = group?.id ?? 'new';
  initial.value = { title: group?.title ?? '', members: [...(group?.members ?? [])] };
}
async function save(group: SaveGroup): Promise<void> {
  const id = open.value ?? 'new';
  await (id === 'new' ? api.makeGroup(group) : api.saveGroup(id, group));
  open.value = undefined;
  await act(async () => undefined, `“${group.title}” is kept.`);
}
const remove = (group: Group): Promise<void> =>
  act(() => api.removeGroup(group.id), `“${group.title}” and its rights are deleted.`);
const nameOf = (id: string): string => names.value.get(id) ?? 'unknown';
</script>

<template>
  <PartHead title="Groups" about="rights in folders are given to people or to groups">
    <PushButton kind="main" class="right" @click="edit(undefined)">New group</PushButton>
  </PartHead>
  <CheckedForm
    v-if="open"
    :key="open"
    v-slot="{ problemOf, busy }"
    class="sheet form"
    :schema="saveGroupSchema"
    :initial="initial"
    :send="save"
    @keydown.esc="open = undefined"
  >
    <FieldRow v-slot="{ id, describedBy }" label="Name of the group" :problem="problemOf('title')"
      ><InputText :id="id" name="title" maxlength="80" autofocus :aria-describedby="describedBy"
    /></FieldRow>
    <fieldset>
      <legend class="small quiet">Who is in it</legend>
      <CheckboxGroup name="members" class="members">
        <label v-for="person in people.filter(({ state }) => state !== 'ended')" :key="person.id"
          ><Checkbox :value="person.id" /> {{ person.name }} <span class="quiet small">{{ person.role }}</span></label
        >
      </CheckboxGroup>
    </fieldset>
    <div class="acts">
      <PushButton kind="main" type="submit" :disabled="busy">Keep</PushButton
      ><PushButton kind="plain" @click="open = undefined">Cancel</PushButton>
    </div>
  </CheckedForm>
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
}
.members {
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
