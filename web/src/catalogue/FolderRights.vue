<script setup lang="ts">
/** Who may do what in a folder. */
import TickBox from '../ui/controls/TickBox.vue';
import PickOne from '../ui/controls/PickOne.vue';
import PushButton from '../ui/controls/PushButton.vue';
import type { Folder, FolderRights, Grant, Right } from '@vocabula/contract';
import { RIGHTS } from '@vocabula/contract/constants';
import { computed, onMounted, ref } from 'vue';
import { api } from '../api/client';
import { useNotice } from '../ui/notice';
import type { Catalogue } from './useCatalogue';

const { catalogue, folder } = defineProps<{ catalogue: Catalogue; folder: Folder }>();
const { people, groups, act, go } = catalogue;
const notice = useNotice();
const rights = ref<FolderRights>();
const grants = ref<Grant[]>([]);
const inherits = ref(true);
const second = ref(false);
const adding = ref('');
const WORDS: Readonly<Record<Right, string>> = {
  fill: 'see and fill',
  write: 'write',
  publish: 'publish',
  manage: 'manage the folder',
};

async function load(): Promise<void> {
  try {
    const found = await api.folderRights(folder.id);
    rights.value = found;
    grants.value = found.grants.map((each) => ({ ...each }));
    inherits.value = found.inherits;
    second.value = found.secondPerson;
  } catch (problem) {
    notice.fail(problem);
  }
}
onMounted(load);
const holders = computed((): readonly [holder: string, words: string][] => [
  ['everyone', 'Everyone'],
  ['authors', 'All authors'],
  ...groups.value.map(({ id, title }) => [`group:${id}`, `${title} (group)`] as [string, string]),
  ...people.value
    .filter(({ state }) => state !== 'ended')
    .map(({ id, name }) => [`person:${id}`, name] as [string, string]),
]);
const nameOf = (holder: string): string => holders.value.find(([key]) => key === holder)?.[1] ?? 'unknown';
function add(): void {
  if (adding.value && !grants.value.some(({ holder }) => holder === adding.value))
    grants.value.push({ holder: adding.value, right: 'fill' });
  adding.value = '';
}
const save = (): Promise<void> =>
  act(`Rights saved for ${folder.title}.`, async () => {
    await api.changeFolder(folder.id, {
      grants: grants.value,
      secondPerson: second.value,
      ...(folder.parent === undefined ? {} : { inherits: inherits.value }),
    });
    await load();
  });
</script>

<template>
  <form v-if="rights" class="rights" @submit.prevent="save">
    <h2>Rights in “{{ folder.title }}”</h2>
    <label v-if="folder.parent !== undefined"
      ><TickBox v-model="inherits" /> Rights of the folder above also apply here</label
    >
    <ul v-if="inherits && rights.inherited.length" class="small quiet plainlist">
      <li v-for="each in rights.inherited" :key="each.holder + each.right">
        {{ nameOf(each.holder) }} may {{ WORDS[each.right] }}
      </li>
    </ul>
    <div v-for="(each, index) in grants" :key="each.holder" class="grant">
      <span>{{ nameOf(each.holder) }}</span>
      <PickOne v-model="each.right" :aria-label="`What ${nameOf(each.holder)} may do`">
        <option v-for="right in RIGHTS" :key="right" :value="right">may {{ WORDS[right] }}</option>
      </PickOne>
      <PushButton kind="plain" :aria-label="`Remove ${nameOf(each.holder)}`" @click="grants.splice(index, 1)">
        Remove
      </PushButton>
    </div>
    <label class="field"
      ><span>Give a right to</span
      ><PickOne v-model="adding" @update:model-value="add">
        <option value="">choose…</option>
        <option v-for="[key, words] in holders" :key="key" :value="key">{{ words }}</option>
      </PickOne></label
    >
    <label><TickBox v-model="second" /> A second person must publish each change</label>
    <p class="small quiet">
      Each right holds the ones before it. Administrators may do everything here; colleagues only fill.
    </p>
    <div class="acts">
      <PushButton kind="main" type="submit">Keep</PushButton>
      <PushButton kind="plain" @click="go({ in: folder.id })">Back to the folder</PushButton>
    </div>
  </form>
</template>

<style scoped>
.rights {
  padding: 16px;
  display: grid;
  gap: 12px;
  overflow: auto;
  max-width: 520px;
}
.grant {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 176px auto;
  gap: 8px;
  align-items: center;
}
.plainlist {
  margin: 0;
  padding-left: 26px;
}
.acts {
  display: flex;
  gap: 8px;
}
</style>
