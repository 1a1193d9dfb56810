<script setup lang="ts">
/** The real people that messages go to: lists with an owner and a last day, what went to whom, whom not to write to. */
import InputText from 'primevue/inputtext';
import PushButton from '../ui/controls/PushButton.vue';
import type { NotWritten, PersonRecord, RecipientHit, TableSummary } from '@vocabula/contract';
import { computed, onMounted, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api } from '../api/client';
import NoticeLine from '../ui/NoticeLine.vue';
import { useNotice } from '../ui/notice';
import ListsPanel from './ListsPanel.vue';
import PersonSheet from './PersonSheet.vue';

const route = useRoute();
const router = useRouter();
const notice = useNotice();
const query = ref('');
const hits = ref<readonly RecipientHit[]>([]);
const lists = ref<readonly TableSummary[]>([]);
const never = ref<readonly NotWritten[]>([]);
const record = ref<PersonRecord>();
const address = computed(() => String(route.params.address ?? ''));

async function load(): Promise<void> {
  try {
    [lists.value, never.value] = await Promise.all([api.lists(), api.notWritten()]);
  } catch (problem) {
    notice.fail(problem);
  }
}
async function find(): Promise<void> {
  try {
    const words = query.value;
    const found = words.trim() === '' ? [] : await api.recipients(words);
    if (words === query.value) hits.value = found;
  } catch (problem) {
    notice.fail(problem);
  }
}
async function show(): Promise<void> {
  record.value = undefined;
  if (address.value === '') return;
  try {
    record.value = await api.person(address.value);
  } catch (problem) {
    notice.fail(problem);
  }
}
const open = (email: string): void => void router.push({ name: 'recipients', params: { address: email } });
onMounted(() => {
  notice.clear();
  void load();
});
watch(address, show, { immediate: true });
watch(query, find);
</script>

<template>
  <div class="recipients">
    <header class="head">
      <h1>Recipients</h1>
      <span class="quiet small">real people; made-up ones for proofs are in Samples</span>
      <RouterLink class="right" :to="{ name: 'fill' }">Fill</RouterLink>
    </header>
    <main class="two">
      <section class="find" aria-label="Find a person">
        <label class="field"
          ><span>Find a person</span
          ><InputText v-model="query" type="search" placeholder="a name, an address, an organisation"
        /></label>
        <p v-if="!query" class="quiet small">Shows the messages a person got, their versions, and who sent them.</p>
        <button
          v-for="hit in hits"
          :key="hit.table + hit.email"
          class="row plain hit"
          :disabled="!hit.email"
          @click="open(hit.email)"
        >
          <span>{{ hit.name || hit.email }}</span><span class="quiet small"
            >{{ hit.email || 'no address' }} · {{ hit.list }}</span
          >
        </button>
        <h2>Do not write to</h2>
        <p v-if="never.length === 0" class="quiet small">
          No blocked addresses. Addresses listed here never get a message.
        </p>
        <ul v-else class="small never">
          <li v-for="each in never" :key="each.address">
            <PushButton kind="plain" size="small" @click="open(each.address)">{{ each.address }}</PushButton>
            <span class="quiet">{{ each.because }}</span>
          </li>
        </ul>
      </section>
      <PersonSheet v-if="record" :record="record" @changed="(load(), show())" />
      <section v-else class="lists">
        <ListsPanel :lists="lists" @changed="load" />
      </section>
    </main>
    <footer class="foot"><NoticeLine /></footer>
  </div>
</template>

<style scoped>
.recipients {
  display: flex;
  flex-direction: column;
}
.two {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: 400px minmax(0, 1fr);
}
.find {
  overflow: auto;
  padding: 16px 20px;
  border-right: 1px solid var(--hair);
}
h2 {
  margin: 24px 0 8px;
}
.lists {
  overflow: auto;
  padding: 0 28px;
}
.hit {
  display: grid;
  width: 100%;
  height: 48px;
  gap: 0;
  text-align: left;
}
.never {
  list-style: none;
  margin: 0;
  padding: 0;
}
.never button {
  padding: 0;
  text-decoration: underline;
}
@media (max-width: 899px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
    overflow: auto;
  }
  .find {
    border: 0;
  }
}
</style>
