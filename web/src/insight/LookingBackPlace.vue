<script setup lang="ts">
/** Looking back: what became of messages, for every text, or for one of them sentence by sentence. */
import type { LedgerRow } from '@vocabula/contract';
import InputText from 'primevue/inputtext';
import { computed, ref, shallowRef, watch } from 'vue';
import { useRoute } from 'vue-router';
import { api, ledgerUrl } from '../api/client';
import { narrow } from '../catalogue/narrow';
import FieldRow from '../ui/controls/FieldRow.vue';
import PickOne from '../ui/controls/PickOne.vue';
import PushButton from '../ui/controls/PushButton.vue';
import DayField from '../ui/dates/DayField.vue';
import { useMe } from '../ui/me';
import NoticeLine from '../ui/NoticeLine.vue';
import { useNotice } from '../ui/notice';
import { useFolders, useTexts } from '../ui/stores/lists';
import { today } from '../ui/today';
import { holds } from '../catalogue/narrow';
import OneText from './OneText.vue';
import TheLedger from './TheLedger.vue';
import { PERIODS, usePeriod } from './usePeriod';

const route = useRoute();
const me = useMe();
const notice = useNotice();
const [texts, folders] = [useTexts(), useFolders()];
const { choice, from, until, period } = usePeriod();
const rows = shallowRef<readonly LedgerRow[]>([]);
const loading = ref(true);
const typed = ref('');
const name = computed(() => String(route.params.name ?? ''));

void Promise.all([texts.load(), folders.load()]).catch(notice.fail);
let asked = 0;
watch(
  period,
  async (wanted) => {
    const mine = (asked += 1);
    loading.value = true;
    try {
      const found = await api.ledger(wanted);
      if (mine === asked) rows.value = found;
    } catch (problem) {
      notice.fail(problem);
    } finally {
      if (mine === asked) loading.value = false;
    }
  },
  { immediate: true },
);
const narrowing = computed(() => narrow(typed.value, { folders: folders.list, people: new Map(), today: today() }));
const shown = computed(() => {
  if (typed.value.trim() === '') return rows.value;
  const { words, matches } = narrowing.value;
  const found = new Set(
    texts.list.filter((text) => matches(text) && (words === '' || holds(text, words))).map((text) => text.name),
  );
  return rows.value.filter((row) => found.has(row.name));
});
const messages = computed(() => shown.value.reduce((sum, { uses }) => sum + uses, 0));
</script>

<template>
  <div class="looking-back">
    <header class="head">
      <h1>Looking back</h1>
      <span class="quiet small about">{{
        me.isAuthor
          ? 'Texts are looked at here, not people: nothing is shown, sorted or counted by colleague.'
          : 'Your own messages. Nobody else sees figures of yours alone.'
      }}</span>
      <PickOne v-model="choice" class="period" label="Time looked back at" :options="PERIODS" />
      <a v-if="!name" class="small" :href="ledgerUrl(period)" download>Export as CSV</a>
    </header>
    <div v-if="choice === 'days'" class="days">
      <FieldRow v-slot="{ id, labelledBy }" label="From"
        ><DayField :id="id" v-model="from" :labelled-by="labelledBy"
      /></FieldRow>
      <FieldRow v-slot="{ id, labelledBy }" label="Until"
        ><DayField :id="id" v-model="until" :labelled-by="labelledBy"
      /></FieldRow>
    </div>
    <OneText v-if="name" :key="name" :name="name" :period="period" />
    <main v-else>
      <InputText
        v-model="typed"
        type="search"
        class="narrow"
        placeholder="Narrow: any words, in Visits, tagged spring, unused…"
        aria-label="Narrow the ledger"
      />
      <p v-if="narrowing.understood.length" class="understood small quiet">
        {{ narrowing.understood.join(' · ') }}
        <PushButton kind="plain" size="small" @click="typed = ''">Clear</PushButton>
      </p>
      <div class="table">
        <TheLedger
          :rows="shown"
          :loading="loading"
          :empty="loading ? 'Counting…' : typed ? 'No text fits this.' : 'No messages in this time.'"
        />
      </div>
    </main>
    <footer class="foot">
      <span v-if="!name"
        >{{ shown.length }} {{ shown.length === 1 ? 'text' : 'texts' }}, {{ messages }}
        {{ messages === 1 ? 'message' : 'messages' }}. A span holds the true share 19 times of 20.</span
      ><NoticeLine />
    </footer>
  </div>
</template>

<style scoped>
.looking-back {
  display: flex;
  flex-direction: column;
}
.about {
  flex: 1;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.period {
  width: 176px !important;
}
.days {
  display: flex;
  gap: 12px;
  padding: 8px 16px;
  border-bottom: 1px solid var(--hair);
}
main {
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
}
.narrow {
  height: 40px !important;
  border: 0 !important;
  border-bottom: 1px solid var(--hair) !important;
  border-radius: 0;
  padding: 0 16px !important;
  background: transparent !important;
  flex: none;
}
.narrow:focus-visible {
  outline-offset: -2px;
}
.understood {
  padding: 2px 16px;
  border-bottom: 1px solid var(--hair);
}
.table {
  flex: 1;
  min-height: 0;
  padding: 0 8px;
  overflow: auto;
}
@media (max-width: 899px) {
  .about {
    display: none;
  }
}
</style>
