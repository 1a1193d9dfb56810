<script setup lang="ts">
/** The versions of a text in other languages: which there are, one beside its original, and beginning one. */
import { computed, onMounted, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { storeToRefs } from 'pinia';
import NoticeLine from '../ui/NoticeLine.vue';
import { useNotice } from '../ui/notice';
import { useTexts } from '../ui/stores/lists';
import BesideView from './BesideView.vue';
import { languageName } from '../ui/languageName';
import NewVersion from './NewVersion.vue';

const route = useRoute();
const router = useRouter();
const notice = useNotice();
const texts = useTexts();
const { standing, loaded } = storeToRefs(texts);
const name = computed(() => String(route.params.name));
const text = computed(() => standing.value.find((each) => each.name === name.value));
/** The text that all of them are of. */
const first = computed(() => standing.value.find((each) => each.name === (text.value?.translationOf ?? name.value)));
const versions = computed(() =>
  standing.value
    .filter(({ translationOf }) => translationOf !== undefined && translationOf === first.value?.name)
    .map((each) => ({ ...each, language: languageName(each.locale ?? '') }))
    .toSorted((a, b) => a.language.localeCompare(b.language, 'en')),
);
onMounted(() => {
  notice.clear();
  void texts.load().catch((problem: unknown) => notice.fail(problem));
});
// The original by itself has nothing beside it.
watch([text, versions], ([now, all]) => {
  if (now && !now.translationOf && all[0]) void router.replace({ name: 'languages', params: { name: all[0].name } });
});
async function made(fresh: string): Promise<void> {
  await texts.load();
  await router.push({ name: 'languages', params: { name: fresh } });
}
</script>

<template>
  <div class="place">
    <header class="head">
      <h1>Languages</h1>
      <RouterLink v-if="first" class="small of" :to="{ name: 'write', params: { name: first.name } }">{{
        first.title
      }}</RouterLink>
      <nav class="tabs" aria-label="Language versions">
        <RouterLink
          v-for="each in versions"
          :key="each.name"
          class="tab"
          :to="{ name: 'languages', params: { name: each.name } }"
          :aria-current="each.name === name ? 'page' : undefined"
          >{{ each.language }}</RouterLink
        >
      </nav>
      <span class="right acts">
        <RouterLink v-if="text?.translationOf" class="small" :to="{ name: 'write', params: { name } }"
          >Open in Write</RouterLink
        >
        <NewVersion v-if="first" :key="first.name" :of="first" :taken="versions" @made="made" />
      </span>
    </header>
    <BesideView v-if="text?.translationOf" :key="name" :name="name" />
    <main v-else class="empty">
      <p v-if="text" class="quiet">
        “{{ text.title }}” is in one language. A new language version has all its passages and questions, with the words
        left to be translated.
      </p>
      <p v-else-if="loaded" class="quiet">There is no such text.</p>
      <p v-else class="quiet">Opening…</p>
    </main>
    <footer class="foot"><NoticeLine /></footer>
  </div>
</template>

<style scoped>
.place {
  display: flex;
  flex-direction: column;
  min-height: 0;
}
.of {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.tabs,
.acts {
  display: flex;
  align-items: center;
  gap: 4px;
}
.acts {
  gap: 12px;
}
.tab {
  padding: 4px 10px;
  border-radius: 3px;
  color: inherit;
  text-decoration: none;
}
.tab[aria-current] {
  background: var(--selected);
  box-shadow: inset 0 -2px var(--action);
}
@media (max-width: 759px) {
  .head {
    flex-wrap: wrap;
    height: auto;
    min-height: 48px;
    padding: 6px 12px;
  }
}
</style>
