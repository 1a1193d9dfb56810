<script setup lang="ts">
/** The recipient lists: whose they are, and until when their rows are kept. */
import type { Person, TableSummary } from '@vocabula/contract';
import { api } from '../api/client';
import { useMe } from '../ui/me';
import { useNotice } from '../ui/notice';

const props = defineProps<{ lists: readonly TableSummary[]; people: readonly Pick<Person, 'id' | 'name'>[] }>();
const emit = defineEmits<{ changed: [] }>();
const me = useMe();
const notice = useNotice();
const ownerOf = ({ owner }: TableSummary): string =>
  owner === undefined
    ? 'nobody’s'
    : owner === me.who?.id
      ? 'yours'
      : (props.people.find(({ id }) => id === owner)?.name ?? 'somebody else’s');

async function keepUntil(list: TableSummary, day: string): Promise<void> {
  try {
    await api.changeTable(list.id, { revision: list.revision, changes: [{ what: 'keep-until', day: day || null }] });
    notice.say(day ? `“${list.title}” is emptied after ${day}.` : `“${list.title}” is kept without an end.`);
    emit('changed');
  } catch (problem) {
    notice.fail(problem);
  }
}
</script>

<template>
  <section aria-label="Recipient lists">
    <h2>Recipient lists</h2>
    <p v-if="lists.length === 0" class="quiet small">
      None yet. Authors bring them in under Samples, as recipient lists.
    </p>
    <ul v-else>
      <li v-for="list in lists" :key="list.id">
        <span>
          <RouterLink v-if="me.isAuthor" :to="{ name: 'samples', params: { id: list.id } }">{{
            list.title
          }}</RouterLink>
          <template v-else>{{ list.title }}</template>
          <br /><span class="quiet small">{{ list.rows }} people · {{ ownerOf(list) }}</span>
        </span>
        <label class="small until"
          >kept until
          <input
            type="date"
            :value="list.keepUntil ?? ''"
            :disabled="!me.isAuthor"
            :aria-label="`Kept until, ${list.title}`"
            @change="keepUntil(list, ($event.target as HTMLInputElement).value)"
        /></label>
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
  align-items: center;
  justify-content: space-between;
  gap: 8px;
  min-height: 48px;
  border-bottom: 1px solid var(--hair);
}
.until {
  display: flex;
  align-items: center;
  gap: 4px;
  white-space: nowrap;
}
.until input {
  width: 136px;
  height: 28px;
}
</style>
