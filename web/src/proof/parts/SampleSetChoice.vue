<script setup lang="ts">
/** The sample set that a template is proofed with, and whether it is the template's own. */
import { computed } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api } from '../../api/client';
import PickOne from '../../ui/controls/PickOne.vue';
import TickBox from '../../ui/controls/TickBox.vue';
import { useNotice } from '../../ui/notice';
import { useProofing } from '../table/useProofing';

const [route, router] = [useRoute(), useRouter()];
const notice = useNotice();
const proofing = useProofing();

async function choose(id: string): Promise<void> {
  try {
    await proofing.choose(id);
    if (route.query.at) await router.replace({ query: {} });
  } catch (problem) {
    notice.fail(problem);
  }
}
async function setOwn(own: boolean): Promise<void> {
  const { set } = proofing;
  if (!set) return;
  try {
    await api.ownSet(proofing.name, own ? set.id : null);
    await proofing.open(proofing.name);
  } catch (problem) {
    notice.fail(problem);
  }
}
const isOwn = computed(() =>
  proofing.sets.some(({ id, ownOf }) => id === proofing.set?.id && ownOf.includes(proofing.name)),
);
</script>

<template>
  <span class="set small">
    <template v-if="proofing.sets.length">
      <label
        ><span class="quiet">sample set: </span
        ><PickOne :model-value="proofing.set?.id" aria-label="Sample set" @update:model-value="choose($event)">
          <option v-for="each in proofing.sets" :key="each.id" :value="each.id">
            {{ each.title }}, {{ each.rows }}
          </option>
        </PickOne></label
      >
      <label class="quiet"><TickBox :checked="isOwn" @change="setOwn" />&nbsp; its own</label>
    </template>
    <RouterLink v-else to="/samples">Import sample recipients</RouterLink>
  </span>
</template>

<style scoped>
.set {
  display: flex;
  gap: 12px;
  align-items: center;
}
.set .p-select {
  width: 180px;
  height: 28px;
  padding: 0 4px;
}
</style>
