<script setup lang="ts">
/** The people: invited, given a role, ended. */
import type { Invite, Person, Role } from '@vocabula/contract';
import { ROLES } from '@vocabula/contract/constants';
import { inviteSchema } from '@vocabula/contract/forms';
import Column from 'primevue/column';
import DataTable from 'primevue/datatable';
import InputText from 'primevue/inputtext';
import { storeToRefs } from 'pinia';
import { onMounted, ref, useTemplateRef } from 'vue';
import { api } from '../api/client';
import { useMe } from '../ui/me';
import { useNotice } from '../ui/notice';
import { usePeople } from '../ui/stores/lists';
import CheckedForm from '../ui/controls/CheckedForm.vue';
import FieldRow from '../ui/controls/FieldRow.vue';
import PickOne from '../ui/controls/PickOne.vue';
import PushButton from '../ui/controls/PushButton.vue';
import PartHead from './PartHead.vue';
import { showMoment } from '../ui/dates/reader';

const me = useMe();
const notice = useNotice();
const store = usePeople();
const { list: people } = storeToRefs(store);
const EMPTY: Invite = { name: '', address: '', role: 'colleague' };
const invitation = useTemplateRef<{ reset(): void }>('invitation');
const link = ref<{ readonly who: string; readonly address: string; readonly endsAt: string }>();

async function act(work: () => Promise<unknown>, words = ''): Promise<void> {
  try {
    await work();
    await store.load();
    if (words) notice.say(words);
  } catch (problem) {
    notice.fail(problem);
    await store.load().catch(() => []);
  }
}
onMounted(() => act(async () => undefined));
const shown = (who: string, made: { path: string; endsAt: string }): void =>
  void (link.value = { who, address: location.origin + made.path, endsAt: made.endsAt });
async function send(values: Invite): Promise<void> {
  const { link: made, name } = await api.invite(values);
  shown(name, made);
  invitation.value?.reset();
  await act(async () => undefined);
}
const renew = (person: Person): Promise<void> => act(async () => shown(person.name, await api.personLink(person.id)));
const setRole = (person: Person, role: Role): Promise<void> =>
  act(() => api.changePerson(person.id, { role }), `${person.name} is ${role === 'colleague' ? 'a' : 'an'} ${role}.`);
const end = (person: Person): Promise<void> =>
  act(
    () => api.changePerson(person.id, { ended: person.state !== 'ended' }),
    person.state === 'ended'
      ? `${person.name} may come in again.`
      : `${person.name} cannot sign in any more. What they did stays.`,
  );
const confirm = (person: Person, address: string): Promise<void> =>
  act(() => api.confirmAddress(person.id, address), `${person.name} reads and sends as ${address} too.`);
const remove = (person: Person, address: string): Promise<void> =>
  act(() => api.removeAddress(person.id, address), `${person.name} no longer has ${address}.`);
async function copy(): Promise<void> {
  await navigator.clipboard.writeText(link.value?.address ?? '').then(
    () => notice.say('The link is on the clipboard.'),
    () => notice.fail(new Error('It could not be copied: select it, and copy it by hand.')),
  );
}
</script>

<template>
  <PartHead title="People" about="administrators look after people, authors write, colleagues fill" />
  <section v-if="link" class="sheet link" aria-label="The link">
    <p>
      Give this link to {{ link.who }}. It is shown once, can be followed once, and ends
      {{ showMoment(link.endsAt, 'figures') }}.
    </p>
    <code>{{ link.address }}</code>
    <div class="acts">
      <PushButton kind="main" @click="copy">Copy the link</PushButton
      ><PushButton kind="plain" @click="link = undefined">Done</PushButton>
    </div>
  </section>
  <DataTable
    :value="[...people]"
    data-key="id"
    class="people"
    :row-class="(person: Person) => ({ quiet: person.state === 'ended' })"
    :pt="{ table: { 'aria-label': 'People' } }"
  >
    <Column field="name" header="Name" sortable />
    <Column field="address" header="Address" sortable class="address">
      <template #body="{ data: person }: { data: Person }">
        {{ person.address }}
        <div v-for="{ address, confirmed } in person.addresses" :key="address" class="further small">
          <span>{{ address }}</span>
          <PushButton
            v-if="!confirmed && person.id !== me.who?.id"
            size="small"
            :aria-label="`Confirm ${address} for ${person.name}`"
            @click="confirm(person, address)"
          >
            Confirm
          </PushButton>
          <span v-else-if="!confirmed" class="quiet">another administrator confirms it</span>
          <PushButton
            kind="plain"
            size="small"
            :aria-label="`Remove ${address} from ${person.name}`"
            @click="remove(person, address)"
          >
            {{ confirmed ? 'Remove' : 'Refuse' }}
          </PushButton>
        </div>
      </template>
    </Column>
    <Column field="role" header="Role" sortable>
      <template #body="{ data: person }: { data: Person }">
        <PickOne
          class="role"
          :model-value="person.role"
          :options="ROLES"
          :disabled="person.state === 'ended'"
          :label="`Role of ${person.name}`"
          @update:model-value="setRole(person, $event)"
        />
      </template>
    </Column>
    <Column field="lastSeen" header="Last here" sortable class="small">
      <template #body="{ data: person }: { data: Person }">
        {{
          person.state === 'active'
            ? person.lastSeen
              ? showMoment(person.lastSeen, 'figures')
              : 'not yet'
            : person.state
        }}
      </template>
    </Column>
    <Column class="does">
      <template #header><span class="unseen">What can be done</span></template>
      <template #body="{ data: person }: { data: Person }">
        <PushButton v-if="person.state !== 'ended'" kind="plain" size="small" @click="renew(person)">
          {{ person.state === 'invited' ? 'New invitation' : 'Reset link' }}
        </PushButton>
        <PushButton v-if="person.id !== me.who?.id" kind="plain" size="small" @click="end(person)">
          {{ person.state === 'ended' ? 'Let in again' : 'End' }}
        </PushButton>
      </template>
    </Column>
  </DataTable>
  <CheckedForm
    ref="invitation"
    v-slot="{ problemOf, busy }"
    class="invite"
    :initial="EMPTY"
    :schema="inviteSchema"
    :send="send"
  >
    <h3>Invite a person</h3>
    <FieldRow v-slot="{ id, describedBy }" label="Name" :problem="problemOf('name')"
      ><InputText :id="id" name="name" maxlength="200" :aria-describedby="describedBy"
    /></FieldRow>
    <FieldRow v-slot="{ id, describedBy }" label="Address" :problem="problemOf('address')"
      ><InputText :id="id" name="address" type="email" :aria-describedby="describedBy"
    /></FieldRow>
    <FieldRow v-slot="{ id, labelledBy }" label="Role"
      ><PickOne name="role" :input-id="id" :labelled-by="labelledBy" :options="ROLES"
    /></FieldRow>
    <PushButton kind="main" type="submit" :disabled="busy">Make the invitation</PushButton>
  </CheckedForm>
</template>

<style scoped>
h3 {
  font-size: 0.8125rem;
  margin: 0;
  grid-column: 1 / -1;
}
.people {
  max-width: 960px;
}
.role {
  width: 152px;
}
.people :deep(.does) {
  text-align: right;
  white-space: nowrap;
}
.further button {
  height: 24px;
  padding: 0 8px;
}
.further {
  display: flex;
  align-items: center;
  gap: 8px;
}
.link {
  padding: 16px 20px;
  display: grid;
  gap: 8px;
  margin-bottom: 20px;
  max-width: 720px;
}
code {
  overflow-wrap: anywhere;
  user-select: all;
}
.acts {
  display: flex;
  gap: 8px;
}
.invite {
  margin-top: 28px;
  display: grid;
  grid-template-columns: 1fr 1fr 132px auto;
  gap: 8px 12px;
  align-items: start;
  max-width: 960px;
}
/* Beside the fields, which have their names above them. */
.invite > :deep(.p-button) {
  margin-top: 22px;
}
@media (max-width: 899px) {
  .invite {
    grid-template-columns: minmax(0, 1fr);
  }
  .invite > :deep(.p-button) {
    margin-top: 0;
  }
  .people :deep(thead) {
    display: none;
  }
  .people :deep(tr) {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    align-items: center;
    border-top: 1px solid var(--hair);
    padding: 4px 0;
  }
  .people :deep(td) {
    border: 0;
  }
  .people :deep(td:nth-child(2)) {
    grid-column: 1 / -1;
    grid-row: 2;
    overflow-wrap: anywhere;
  }
  .people :deep(td:nth-child(4)) {
    grid-row: 3;
  }
}
</style>
