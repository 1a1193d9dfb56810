<script setup lang="ts">
/** The recipient lists: whose they are, and until when their rows are kept. */
import PickOne from '../ui/controls/PickOne.vue';
import DayField from '../ui/dates/DayField.vue';
import type { TableChange, TableSummary } from '@vocabula/contract';
import { storeToRefs } from 'pinia';
import { onMounted } from 'vue';
import { api } from '../api/client';
import { useMe } from '../ui/me';
import { useNotice } from '../ui/notice';
import { useFolders, usePeople } from '../ui/stores/lists';

defineProps<{ lists: readonly TableSummary[] }>();
const emit = defineEmits<{ changed: [] }>();
const me = useMe();
const notice = useNotice();
const people = usePeople();
const ownerOf = ({ owner }: TableSummary): string =>
  owner === undefined ? 'no owner' : owner === me.who?.id ? 'yours' : (people.names.get(owner) ?? 'another person');

const folderStore = useFolders();
const { list: folders, writable } = storeToRefs(folderStore);
onMounted(async () => {
  if (me.isAdministrator) void people.load().catch(() => []);
  if (me.isAuthor) await folderStore.load().catch(() => []);
});

async function change(list: TableSummary, made: TableChange, words: string): Promise<void> {
  try {
    await api.changeTable(list.id, { revision: list.revision, changes: [made] });
    notice.say(words);
  } catch (problem) {
    notice.fail(problem);
  }
  emit('changed');
}
const keepUntil = (list: TableSummary, day: string): Promise<void> =>
  change(
    list,
    { what: 'keep-until', day: day || null },
    day ? `“${list.title}” is emptied after ${day}.` : `“${list.title}” is kept without an end.`,
  );
const share = (list: TableSummary, folder: string): Promise<void> =>
  change(
    list,
    { what: 'folder', folder: folder || null },
    folder
      ? `Those who write in “${folders.value.find(({ id }) => id === folder)?.title ?? ''}” may change “${list.title}”.`
      : `Only its owner and administrators may change “${list.title}”.`,
  );
</script>

<template>
  <section aria-label="Recipient lists">
    <h2>Recipient lists</h2>
    <p v-if="lists.length === 0" class="quiet small">No lists yet. Authors import them in Samples.</p>
    <ul v-else>
      <li v-for="list in lists" :key="list.id">
        <span>
          <RouterLink v-if="me.isAuthor" :to="{ name: 'samples', params: { id: list.id } }">{{
            list.title
          }}</RouterLink>
          <template v-else>{{ list.title }}</template>
          <br /><span class="quiet small">{{ list.rows }} people · {{ ownerOf(list) }}</span>
        </span>
        <label v-if="list.mayShare" class="small until"
          >Changed by
          <PickOne
            :model-value="list.folder ?? ''"
            :aria-label="`Who may change ${list.title}`"
            @update:model-value="share(list, $event)"
          >
            <option value="">only the owner</option>
            <option v-for="folder in writable" :key="folder.id" :value="folder.id">
              writers in {{ folder.title }}
            </option>
          </PickOne></label
        >
        <span class="small until"
          >Kept until
          <DayField
            :model-value="list.keepUntil ?? ''"
            :disabled="!list.mayChange"
            :label="`Kept until, ${list.title}`"
            @update:model-value="keepUntil(list, $event)"
        /></span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
h2 {
  margin: 24px 0 8px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 12px;
  padding: 8px 0;
  border-bottom: 1px solid var(--hair);
}
li > span:first-child {
  flex: 1 1 160px;
}
.until .p-select {
  width: 208px;
  height: 28px;
}
.until {
  display: flex;
  align-items: center;
  gap: 4px;
  white-space: nowrap;
}
.until .day {
  width: 232px;
}
</style>
