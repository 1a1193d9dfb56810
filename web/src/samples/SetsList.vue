<script setup lang="ts">
/** Sample sets and recipient lists, and the ways to more of them. */
import PushButton from '../ui/controls/PushButton.vue';
import type { TableSummary, Use } from '@vocabula/contract';
import { useFileChoice } from '../ui/controls/fileChoice';

defineProps<{ tables: readonly TableSummary[]; open: string }>();
const emit = defineEmits<{ file: [file: File, use: Use]; paste: [use: Use] }>();
const USES: readonly { use: Use; words: string; what: string }[] = [
  { use: 'sample', words: 'Sample sets', what: 'for proofs; never mailed' },
  { use: 'recipients', words: 'Recipient lists', what: 'real people to write to' },
];
const choose = useFileChoice(([file]) => file && emit('file', file, use), {
  accept: '.csv,.txt,.tsv,.json,.vcf,.xlsx,text/csv,text/vcard,application/json',
});
let use: Use = 'sample';

function pick(what: Use): void {
  use = what;
  choose();
}
defineExpose({ pick });
</script>

<template>
  <nav class="sets" aria-label="Sets and lists">
    <template v-for="group in USES" :key="group.use">
      <h2>{{ group.words }}</h2>
      <p class="quiet small what">{{ group.what }}</p>
      <RouterLink
        v-for="each in tables.filter((one) => one.use === group.use)"
        :key="each.id"
        class="row"
        :to="{ name: 'samples', params: { id: each.id } }"
        :aria-current="each.id === open"
        >{{ each.title }} <span class="quiet small">{{ each.rows }}</span></RouterLink
      >
      <div class="more">
        <PushButton @click="pick(group.use)">Import…</PushButton>
        <PushButton kind="plain" @click="emit('paste', group.use)">Paste</PushButton>
      </div>
    </template>
  </nav>
</template>

<style scoped>
.sets {
  border-right: 1px solid var(--hair);
  padding: 12px 0;
  overflow: auto;
}
h2,
.what,
.more {
  margin: 0 16px;
}
h2:not(:first-child) {
  margin-top: 24px;
}
.what {
  margin-bottom: 4px;
}
.more {
  display: flex;
  gap: 4px;
  margin-top: 8px;
}
@media (max-width: 899px) {
  .sets {
    border: 0;
    border-bottom: 1px solid var(--hair);
  }
}
</style>
