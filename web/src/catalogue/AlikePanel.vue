<script setup lang="ts">
/** Texts that say nearly the same: compared, and made one by retiring all but one. */
import PushButton from '../ui/controls/PushButton.vue';
import type { AlikeGroup } from '@vocabula/contract';
import type { TextDocument } from '@vocabula/core';
import { onMounted, ref, shallowRef } from 'vue';
import { api } from '../api/client';
import { useNotice } from '../ui/notice';
import ComparedStates from '../versions/ComparedStates.vue';
import type { Catalogue } from './useCatalogue';

const { catalogue } = defineProps<{ catalogue: Catalogue }>();
const { act, go } = catalogue;
const notice = useNotice();
const groups = shallowRef<readonly AlikeGroup[]>();
const open = ref<{ readonly group: number; readonly left: string; readonly right: string }>();
const documents = shallowRef<readonly [TextDocument, TextDocument]>();

async function load(): Promise<void> {
  try {
    groups.value = await api.alike();
  } catch (problem) {
    notice.fail(problem);
  }
}
onMounted(load);
async function compare(group: number, left: string, right: string): Promise<void> {
  open.value = { group, left, right };
  documents.value = undefined;
  try {
    const [a, b] = await Promise.all([api.text(left), api.text(right)]);
    documents.value = [a.document, b.document];
  } catch (problem) {
    notice.fail(problem);
  }
}
const NUMBERS = ['', '', 'Two', 'Three', 'Four', 'Five', 'Six', 'Seven', 'Eight', 'Nine'];
const said = ({ texts, likeness }: AlikeGroup): string =>
  `${NUMBERS[texts.length] ?? texts.length} say nearly the same, ${Math.round(likeness * 100)} % at least`;
const titleOf = ({ texts }: AlikeGroup, name: string): string =>
  texts.find((each) => each.name === name)?.title ?? name;
/** Keeps one of a group; the others are retired and point to it. Those that were never published go to the bin. */
async function keep(group: AlikeGroup, name: string): Promise<void> {
  const others = group.texts.filter((each) => each.name !== name).map((each) => each.name);
  const published = new Set(
    catalogue.texts.value.filter(({ version, kind }) => version && kind === 'message').map((text) => text.name),
  );
  const retired = others.filter((each) => published.has(each));
  const binned = others.filter((each) => !published.has(each));
  open.value = undefined;
  await act(
    `“${titleOf(group, name)}” stays; ${retired.length} retired, ${binned.length} in the bin.`,
    async () => {
      for (const each of retired) await api.retire(each, published.has(name) ? name : undefined);
      if (binned.length > 0) await api.many({ act: 'bin', names: binned });
    },
    async () => {
      for (const each of retired) await api.offerAgain(each);
      if (binned.length > 0) await api.many({ act: 'restore', names: binned });
    },
  );
  await load();
}
</script>

<template>
  <div class="alike">
    <p v-if="!groups" class="empty quiet">Comparing all texts…</p>
    <p v-else-if="groups.length === 0" class="empty">No near-duplicates found.</p>
    <article v-for="(group, index) in groups" :key="group.texts[0]?.name" class="group">
      <h2>{{ said(group) }}</h2>
      <ul>
        <li v-for="text in group.texts" :key="text.name">
          <PushButton kind="plain" class="title" @click="go({ name: text.name })">{{ text.title }}</PushButton>
          <span class="quiet small">used {{ text.used }}</span>
          <PushButton
            kind="plain"
            size="small"
            v-if="text.name !== group.texts[0]?.name"
            @click="compare(index, group.texts[0]?.name ?? '', text.name)"
          >
            Compare
          </PushButton>
          <PushButton size="small" @click="keep(group, text.name)">Keep this one</PushButton>
        </li>
      </ul>
      <div v-if="open?.group === index && documents" class="sheet compared">
        <ComparedStates
          :before="documents[0]"
          :after="documents[1]"
          :names="[titleOf(group, open.left), titleOf(group, open.right)]"
        />
        <div class="acts">
          <RouterLink :to="{ name: 'write', params: { name: open.left }, query: { from: open.right } }" class="small"
            >Bring the wording into “{{ titleOf(group, open.left) }}” in Write</RouterLink
          >
        </div>
      </div>
    </article>
  </div>
</template>

<style scoped>
.alike {
  overflow: auto;
}
.group {
  padding: 12px 16px;
  border-bottom: 1px solid var(--hair);
}
ul {
  list-style: none;
  margin: 4px 0 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 64px 80px auto;
  align-items: center;
  gap: 8px;
  min-height: 34px;
}
li > button:last-child {
  grid-column: 4;
}
.title {
  padding: 0;
  justify-content: start;
  overflow: hidden;
  text-overflow: ellipsis;
}
.compared {
  padding: 12px 20px;
  margin-top: 8px;
}
.acts {
  margin-top: 12px;
}
</style>
