<script setup lang="ts">
/** What went to somebody, and what may be done about them. */
import Column from 'primevue/column';
import DataTable from 'primevue/datatable';
import PushButton from '../ui/controls/PushButton.vue';
import InputText from 'primevue/inputtext';
import type { PersonRecord } from '@vocabula/contract';
import { ref } from 'vue';
import { api } from '../api/client';
import { useMe } from '../ui/me';
import { useNotice } from '../ui/notice';
import { whenInWords } from '../ui/today';

type SentMessage = PersonRecord['messages'][number];
const props = defineProps<{ record: PersonRecord }>();
const emit = defineEmits<{ changed: [] }>();
const me = useMe();
const notice = useNotice();
const because = ref('');
const asking = ref<'never' | 'forget'>();
const WAYS: Readonly<Record<string, string>> = {
  copy: 'copied',
  draft: 'saved as a draft',
  mailto: 'opened in a mail program',
  service: 'sent',
  many: 'sent to many',
  ics: 'as a calendar file',
  print: 'printed',
};
const STATES = { going: 'under way', done: 'done', stopped: 'stopped' } as const;
async function work(run: () => Promise<string>): Promise<void> {
  try {
    notice.say(await run());
    asking.value = undefined;
    emit('changed');
  } catch (problem) {
    notice.fail(problem);
  }
}
const refuse = (): Promise<void> =>
  work(async () => {
    await api.refuse({ address: props.record.address, because: because.value });
    return 'They get no more messages.';
  });
const allow = (): Promise<void> =>
  work(async () => {
    await api.allow(props.record.address);
    return 'They can get messages again.';
  });
const forget = (): Promise<void> =>
  work(async () => {
    const { messages, unfinished, rows } = await api.forget(props.record.address);
    return `Forgotten: ${messages} messages without their data, ${unfinished} unfinished messages emptied, ${rows} rows of lists deleted.`;
  });
</script>

<template>
  <section class="person" aria-label="Person">
    <h2 class="name">{{ record.name || record.address }}</h2>
    <p class="quiet">
      {{ record.address }}<template v-for="list in record.lists" :key="list.id"> · {{ list.title }}</template>
    </p>
    <p v-if="record.doNotWrite" class="warning">
      ‸ Do not write to them{{ record.doNotWrite.because ? `: ${record.doNotWrite.because}` : '' }} ({{
        record.doNotWrite.who
      }}, {{ whenInWords(record.doNotWrite.at) }})
      <PushButton kind="plain" v-if="me.isAuthor" @click="allow">Allow again</PushButton>
    </p>
    <p class="acts">
      <PushButton
        v-if="!record.doNotWrite"
        :aria-expanded="asking === 'never'"
        @click="asking = asking === 'never' ? undefined : 'never'"
      >
        Do not write to them…
      </PushButton>
      <PushButton
        v-if="me.isAuthor"
        :aria-expanded="asking === 'forget'"
        @click="asking = asking === 'forget' ? undefined : 'forget'"
      >
        Forget this person…
      </PushButton>
    </p>
    <form v-if="asking === 'never'" class="sheet ask" @submit.prevent="refuse">
      <label class="field"
        ><span>Why</span><InputText v-model="because" placeholder="asked not to be contacted"
      /></label>
      <PushButton type="submit">Put on the do-not-write list</PushButton>
    </form>
    <form v-if="asking === 'forget'" class="sheet ask" @submit.prevent="forget">
      <p>
        Their data is deleted from all records, unfinished messages and lists. The number of messages stays, without the
        recipient. This cannot be undone.
      </p>
      <PushButton type="submit">Forget {{ record.name || record.address }}</PushButton>
    </form>
    <template v-if="record.series.length">
      <h2>Series</h2>
      <ul class="series">
        <li v-for="(each, at) in record.series" :key="each.id ?? at">
          <RouterLink v-if="each.id" :to="{ name: 'running', params: { id: each.id } }">{{ each.title }}</RouterLink>
          <span v-else>{{ each.title ?? 'a series you cannot see' }}</span>
          <span class="quiet small">
            {{ STATES[each.state] }}{{ each.why ? `: ${each.why}` : '' }} · {{ each.gone }} of {{ each.steps }} sent ·
            {{ each.by }}, {{ whenInWords(each.startedAt) }}</span
          >
        </li>
      </ul>
    </template>
    <h2>Messages they got</h2>
    <p v-if="me.isAuthor && record.messages.length > 1" class="small">
      <RouterLink :to="{ name: 'from-mails', query: { address: record.address } }">Make a template of yours</RouterLink>
    </p>
    <p v-if="record.messages.length === 0" class="quiet">No messages yet.</p>
    <DataTable
      v-else
      :value="record.messages"
      data-key="id"
      sort-field="at"
      :sort-order="-1"
      :pt="{ table: { 'aria-label': 'Messages to this person' } }"
    >
      <Column field="at" header="When" sortable>
        <template #body="{ data: each }: { data: SentMessage }">{{ whenInWords(each.at) }}</template>
      </Column>
      <Column field="title" header="Template" sortable>
        <template #body="{ data: each }: { data: SentMessage }">{{ each.title ?? 'a text you cannot see' }}</template>
      </Column>
      <Column field="subject" header="Subject" sortable />
      <Column field="version" header="Version" />
      <Column field="way" header="How">
        <template #body="{ data: each }: { data: SentMessage }">{{ WAYS[each.way] ?? each.way }}</template>
      </Column>
      <Column field="by" header="By" sortable />
    </DataTable>
  </section>
</template>

<style scoped>
.person {
  overflow: auto;
  padding: 20px 28px;
}
.name {
  font: 500 1.25rem/1.75rem var(--serif);
}
h2:not(.name) {
  margin: 24px 0 8px;
}
.series {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 4px;
}
.acts,
.ask {
  display: flex;
  gap: 8px;
  margin-top: 12px;
}
.ask {
  padding: 16px;
  flex-direction: column;
  align-items: flex-start;
  max-width: 480px;
}
.person :deep(td:first-child) {
  white-space: nowrap;
}
</style>
