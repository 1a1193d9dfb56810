<script setup lang="ts">
/** The people: invited, given a role, ended. */
import type { Invite, Person, Role } from '@vocabula/contract';
import { ROLES } from '@vocabula/contract/constants';
import { onMounted, ref } from 'vue';
import { api } from '../api/client';
import { useMe } from '../ui/me';
import { useNotice } from '../ui/notice';
import PartHead from './PartHead.vue';
import { momentInFigures } from '../versions/useStanding';

const me = useMe();
const notice = useNotice();
const people = ref<Person[]>([]);
const invite = ref<Invite>({ name: '', address: '', role: 'colleague' });
const link = ref<{ readonly who: string; readonly address: string; readonly endsAt: string }>();

async function act(work: () => Promise<unknown>, words = ''): Promise<void> {
  try {
    await work();
    people.value = await api.people();
    if (words) notice.say(words);
  } catch (problem) {
    notice.fail(problem);
    people.value = await api.people().catch(() => people.value);
  }
}
onMounted(() => act(async () => undefined));
const shown = (who: string, made: { path: string; endsAt: string }): void =>
  void (link.value = { who, address: location.origin + made.path, endsAt: made.endsAt });
const send = (): Promise<void> =>
  act(async () => {
    const { link: made, name } = await api.invite(invite.value);
    shown(name, made);
    invite.value = { name: '', address: '', role: 'colleague' };
  });
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
      {{ momentInFigures(link.endsAt) }}.
    </p>
    <code>{{ link.address }}</code>
    <div class="acts">
      <button class="main" @click="copy">Copy the link</button
      ><button class="plain" @click="link = undefined">Done</button>
    </div>
  </section>
  <table>
    <thead>
      <tr class="small quiet">
        <th>Name</th>
        <th>Address</th>
        <th>Role</th>
        <th>Last here</th>
        <th><span class="unseen">What can be done</span></th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="person in people" :key="person.id" :class="{ quiet: person.state === 'ended' }">
        <td>{{ person.name }}</td>
        <td>
          {{ person.address }}
          <div v-for="{ address, confirmed } in person.addresses" :key="address" class="further small">
            <span>{{ address }}</span>
            <button
              v-if="!confirmed && person.id !== me.who?.id"
              class="small"
              :aria-label="`Confirm ${address} for ${person.name}`"
              @click="confirm(person, address)"
            >
              Confirm
            </button>
            <span v-else-if="!confirmed" class="quiet">another administrator confirms it</span>
            <button
              class="plain small"
              :aria-label="`Remove ${address} from ${person.name}`"
              @click="remove(person, address)"
            >
              {{ confirmed ? 'Remove' : 'Refuse' }}
            </button>
          </div>
        </td>
        <td>
          <select
            :value="person.role"
            :disabled="person.state === 'ended'"
            :aria-label="`Role of ${person.name}`"
            @change="setRole(person, ($event.target as HTMLSelectElement).value as Role)"
          >
            <option v-for="role in ROLES" :key="role">{{ role }}</option>
          </select>
        </td>
        <td class="small">
          {{
            person.state === 'active' ? (person.lastSeen ? momentInFigures(person.lastSeen) : 'not yet') : person.state
          }}
        </td>
        <td class="does">
          <button v-if="person.state !== 'ended'" class="plain small" @click="renew(person)">
            {{ person.state === 'invited' ? 'New invitation' : 'Reset link' }}
          </button>
          <button v-if="person.id !== me.who?.id" class="plain small" @click="end(person)">
            {{ person.state === 'ended' ? 'Let in again' : 'End' }}
          </button>
        </td>
      </tr>
    </tbody>
  </table>
  <form class="invite" @submit.prevent="send">
    <h3>Invite somebody</h3>
    <label class="field"><span>Name</span><input v-model="invite.name" required maxlength="200" /></label>
    <label class="field"><span>Address</span><input v-model="invite.address" type="email" required /></label>
    <label class="field"
      ><span>Role</span
      ><select v-model="invite.role">
        <option v-for="role in ROLES" :key="role">{{ role }}</option>
      </select></label
    >
    <button class="main">Make the invitation</button>
  </form>
</template>

<style scoped>
h3 {
  font-size: 0.8125rem;
  margin: 0;
  grid-column: 1 / -1;
}
table {
  border-collapse: collapse;
  width: 100%;
  max-width: 960px;
}
th {
  text-align: left;
  font-weight: 400;
  padding: 0 12px 4px 0;
}
td {
  border-top: 1px solid var(--hair);
  padding: 4px 12px 4px 0;
}
td select {
  width: 132px;
}
.does {
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
  align-items: end;
  max-width: 960px;
}
@media (max-width: 899px) {
  .invite {
    grid-template-columns: minmax(0, 1fr);
  }
  thead {
    display: none;
  }
  tr {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    align-items: center;
    border-top: 1px solid var(--hair);
    padding: 4px 0;
  }
  td {
    border-top: 0;
  }
  td:nth-child(2) {
    grid-column: 1 / -1;
    grid-row: 2;
    overflow-wrap: anywhere;
  }
  td:nth-child(4) {
    grid-row: 3;
  }
}
</style>
