<script setup lang="ts">
/** Who a mailing goes to: people of a recipient list, all or those that hold some words, or pasted ones. */
import PickOne from '../ui/controls/PickOne.vue';
import InputText from 'primevue/inputtext';
import PushButton from '../ui/controls/PushButton.vue';
import Textarea from 'primevue/textarea';
import type { TableSummary } from '@vocabula/contract';
import { onMounted, ref } from 'vue';
import { api } from '../api/client';
import { useNotice } from '../ui/notice';
import type { ManyMessages } from './useMailing';

const props = defineProps<{ add: ManyMessages['add']; empty: boolean }>();
const notice = useNotice();
const lists = ref<readonly TableSummary[]>([]);
const list = ref('');
const search = ref('');
const pasted = ref('');
const busy = ref(false);
onMounted(async () => {
  try {
    lists.value = await api.lists();
    list.value = lists.value[0]?.id ?? '';
  } catch (problem) {
    notice.fail(problem);
  }
});
async function take(who: Parameters<ManyMessages['add']>[0]): Promise<void> {
  busy.value = true;
  try {
    await props.add(who);
    pasted.value = '';
  } catch (problem) {
    notice.fail(problem);
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <section aria-label="Who">
    <form v-if="lists.length" class="from" @submit.prevent="take({ list, search })">
      <label class="field"
        ><span>From a recipient list</span>
        <PickOne v-model="list">
          <option v-for="each in lists" :key="each.id" :value="each.id">{{ each.title }} ({{ each.rows }})</option>
        </PickOne></label
      >
      <label class="field"
        ><span>Filter (all if empty)</span><InputText v-model="search" placeholder="all of them"
      /></label>
      <PushButton type="submit" :disabled="busy || !list">Add</PushButton>
    </form>
    <form class="from" @submit.prevent="take({ paste: pasted })">
      <label class="field"
        ><span>Paste people: addresses, or a table with a head</span>
        <Textarea v-model="pasted" :rows="empty ? 4 : 2" placeholder="Ann Lee &lt;ann@school.example&gt;" />
      </label>
      <PushButton type="submit" :disabled="busy || pasted.trim() === ''">Add</PushButton>
    </form>
  </section>
</template>

<style scoped>
.from {
  display: grid;
  gap: 8px;
  justify-items: start;
  margin-bottom: 16px;
}
.field {
  width: 100%;
}
</style>
