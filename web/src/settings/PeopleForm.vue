<script setup lang="ts">
/** The people: invite them, set their roles, end their access. */
import type { OneTimeLink, Person, Role } from '@vocabula/contract';
import { ROLES } from '@vocabula/contract/constants';
import Column from 'primevue/column';
import DataTable from 'primevue/datatable';
import { storeToRefs } from 'pinia';
import { onMounted, ref } from 'vue';
import { api } from '../api/client';
import { useMe } from '../ui/me';
import { useNotice } from '../ui/notice';
import { usePeople } from '../ui/stores/lists';
import PickOne from '../ui/controls/PickOne.vue';
import PushButton from '../ui/controls/PushButton.vue';
import InvitationLink from './InvitationLink.vue';
import InviteForm from './InviteForm.vue';
import PartHead from './PartHead.vue';
import { showMoment } from '../ui/dates/reader';

const me = useMe();
const notice = useNotice();
const store = usePeople();
const { list: people } = storeToRefs(store);
const link = ref<{ readonly name: string; readonly address: string; readonly endsAt: string }>();

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
const showLink = (name: string, made: OneTimeLink): void =>
  void (link.value = { name, address: location.origin + made.path, endsAt: made.endsAt });
const renew = (person: Person): Promise<void> =>
  act(async () => showLink(person.name, await api.personLink(person.id)));
const setRole = (person: Person, role: Role): Promise<void> =>
  act(() => api.changePerson(person.id, { role }), `${person.name} is ${role === 'colleague' ? 'a' : 'an'} ${role}.`);
const end = (person: Person): Promise<void> =>
  act(
    () => api.changePerson(person.id, { ended: person.state !== 'ended' }),
    person.state === 'ended'
      ? `${person.name} can sign in again.`
      : `${person.name} can no longer sign in. Their work stays.`,
  );
const confirm = (person: Person, address: string): Promise<void> =>
  act(() => api.confirmAddress(person.id, address), `${person.name} reads and sends as ${address} too.`);
const remove = (person: Person, address: string): Promise<void> =>
  act(() => api.removeAddress(person.id, address), `${person.name} no longer has ${address}.`);
</script>

<template>
  <PartHead title="People" about="administrators look after people, authors write, colleagues fill" />
  <InvitationLink v-if="link" v-bind="link" @close="link = undefined" />
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
          {{ person.state === 'ended' ? 'Restore access' : 'End access' }}
        </PushButton>
      </template>
    </Column>
  </DataTable>
  <InviteForm @invited="(name, link) => act(async () => showLink(name, link))" />
</template>

<style scoped>
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
@media (max-width: 899px) {
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
