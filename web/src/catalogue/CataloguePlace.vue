<script setup lang="ts">
/** All texts in folders: filtered by a typed line, read at the side, several changed at once. */
import PickOne from '../ui/controls/PickOne.vue';
import PushButton from '../ui/controls/PushButton.vue';
import type { TextSummary } from '@vocabula/contract';
import { computed, onMounted, ref, useTemplateRef, watch } from 'vue';
import { useRouter } from 'vue-router';
import { api } from '../api/client';
import { fillAddress } from '../ui/fillAddress';
import NoticeLine from '../ui/NoticeLine.vue';
import ActMenu from '../ui/controls/ActMenu.vue';
import { useHouse } from '../ui/house';
import AlikePanel from './AlikePanel.vue';
import FilterLine from './FilterLine.vue';
import FolderRights from './FolderRights.vue';
import FolderTree from './FolderTree.vue';
import LibraryImport from './LibraryImport.vue';
import ManyBar from './ManyBar.vue';
import NextSteps from './NextSteps.vue';
import PurgeDialog from './PurgeDialog.vue';
import ReadingSheet from './ReadingSheet.vue';
import RequestsPanel from './RequestsPanel.vue';
import RetireForm from './RetireForm.vue';
import TextList from './TextList.vue';
import { useCatalogue, type Order } from './useCatalogue';
import { useImports } from './useImports';

const router = useRouter();
const house = useHouse();
const catalogue = useCatalogue();
const { me, loaded, typed, narrowing, order, view, folder, folders, current, shown, chosen, subjects } = catalogue;
const { library, acts } = useImports(catalogue);
const middle = useTemplateRef<HTMLElement>('middle');
const focusList = (): void => middle.value?.querySelector<HTMLElement>('.list')?.focus();
/** What is asked about the chosen texts. */
const asking = ref<'move' | 'tag' | 'retire'>();
const purging = ref<readonly TextSummary[]>();
const ORDERS: readonly [Order, string][] = [
  ['title', 'by title'],
  ['use', 'by use'],
  ['hand', 'by hand'],
];
const isList = computed(() => view.value === undefined || view.value === 'bin' || view.value === 'review');
const here = computed(() => folders.value.find(({ id }) => id === folder.value));
/** Where a text that is started goes; while the folders are not known yet, where the address says. */
const startIn = computed(() =>
  folders.value.length === 0
    ? folder.value
      ? { in: folder.value }
      : {}
    : here.value && here.value.right !== 'fill'
      ? { in: here.value.id }
      : {},
);

onMounted(async () => {
  await Promise.all([me.load().catch(() => undefined), house.load().catch(() => undefined), catalogue.load()]);
});
watch([current, view], () => (asking.value = undefined));

const write = (text: TextSummary): void => void router.push({ name: 'write', params: { name: text.name } });
const fill = (text: TextSummary): void => void router.push(fillAddress(text));
/** `Enter` fills for colleagues, writes for authors. */
function open(text: TextSummary): void {
  if (text.binned) return;
  if (text.mayWrite && me.isAuthor) write(text);
  else if (text.offered) fill(text);
}
function retire(text: TextSummary): void {
  if (text.state !== 'retired') asking.value = 'retire';
  else
    void catalogue.act(
      `“${text.title}” is offered again.`,
      () => api.offerAgain(text.name),
      () => api.retire(text.name, text.replacedBy),
    );
}
async function purge(): Promise<void> {
  const list = purging.value ?? [];
  purging.value = undefined;
  await catalogue.act(`${list.length} ${list.length === 1 ? 'text is' : 'texts are'} deleted for good.`, () =>
    api.many({ act: 'purge', names: list.map(({ name }) => name) }),
  );
}
</script>

<template>
  <div class="catalogue">
    <header class="head">
      <h1>Catalogue</h1>
      <template v-if="me.isAuthor">
        <ActMenu class="right" label="Import and export" :items="acts" />
        <RouterLink v-slot="{ navigate }" :to="{ name: 'write', query: startIn }" custom
          ><PushButton kind="main" @click="navigate()">Start a text</PushButton></RouterLink
        >
      </template>
    </header>
    <main>
      <FolderTree :catalogue="catalogue" />
      <section ref="middle" class="middle" aria-label="Texts">
        <template v-if="isList">
          <FilterLine
            v-model="typed"
            label="Filter the list"
            placeholder="Filter: any words, block, in Visits, by Maeve, tagged spring, with warnings, unused…"
            :understood="narrowing.understood"
            @down="focusList"
          >
            <PickOne v-model="order" label="Order" class="order">
              <option v-for="[key, words] in ORDERS" :key="key" :value="key">{{ words }}</option>
            </PickOne>
          </FilterLine>
          <TextList
            v-if="shown.length"
            :catalogue="catalogue"
            @open="open"
            @move="asking = 'move'"
            @tag="asking = 'tag'"
          />
          <div v-else-if="loaded" class="empty">
            <p>
              {{
                typed
                  ? 'No text matches this filter.'
                  : view === 'bin'
                    ? 'The bin is empty.'
                    : me.isAuthor
                      ? 'This folder is empty.'
                      : 'Nothing is published here yet.'
              }}
            </p>
            <RouterLink v-if="!typed && me.isAuthor && view !== 'bin'" to="/write">Start a text</RouterLink>
          </div>
          <ManyBar
            v-if="chosen.size > 0 || asking === 'move' || asking === 'tag'"
            v-model:asking="asking"
            :catalogue="catalogue"
            @purge="purging = subjects"
          />
        </template>
        <RequestsPanel v-else-if="view === 'asked'" :catalogue="catalogue" />
        <AlikePanel v-else-if="view === 'alike'" :catalogue="catalogue" />
        <LibraryImport v-else-if="view === 'import'" :catalogue="catalogue" :file="library" />
        <FolderRights v-else-if="view === 'rights' && here" :key="here.id" :catalogue="catalogue" :folder="here" />
      </section>
      <aside class="side" aria-label="Reading">
        <template v-if="current?.binned"
          ><h2>{{ current.title }}</h2>
          <p class="quiet">In the bin.</p>
          <div class="acts">
            <PushButton kind="main" @click="catalogue.restore([current])">Restore</PushButton>
            <PushButton @click="purging = [current]">Purge…</PushButton>
          </div></template
        >
        <template v-else-if="current">
          <RetireForm v-if="asking === 'retire'" :catalogue="catalogue" :text="current" @close="asking = undefined" />
          <ReadingSheet
            :catalogue="catalogue"
            :text="current"
            @fill="fill(current)"
            @write="write(current)"
            @copy="router.push({ name: 'write', query: { copy: current.name } })"
            @move="asking = 'move'"
            @tag="asking = 'tag'"
            @retire="retire(current)"
          />
        </template>
        <NextSteps v-else :catalogue="catalogue" />
      </aside>
    </main>
    <footer class="foot">
      <span v-if="isList">{{ shown.length }} {{ shown.length === 1 ? 'text' : 'texts' }}</span
      ><NoticeLine />
    </footer>
    <PurgeDialog v-if="purging" :texts="purging" @purge="purge" @close="purging = undefined" />
  </div>
</template>

<style scoped>
.catalogue {
  display: flex;
  flex-direction: column;
}
main {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: 208px minmax(0, 1fr) 400px;
}
.middle {
  border-right: 1px solid var(--hair);
  display: flex;
  flex-direction: column;
  min-height: 0;
  min-width: 0;
}
.order {
  width: auto !important;
  height: 40px !important;
  border: 0 !important;
  background: transparent !important;
  color: var(--quiet);
  font-size: 0.75rem;
}
.side {
  padding: 12px 16px;
  overflow: auto;
  display: flex;
  flex-direction: column;
  gap: 12px;
}
.side .acts {
  display: flex;
  gap: 8px;
}
@media (max-width: 1099px) {
  main {
    grid-template-columns: 160px minmax(0, 1fr) 320px;
  }
}
@media (max-width: 899px) {
  main {
    display: flex;
    flex-direction: column;
    overflow: auto;
  }
  .middle {
    flex: none;
    height: 52vh;
    border: 0;
  }
  .side {
    overflow: visible;
    flex: none;
  }
}
</style>
