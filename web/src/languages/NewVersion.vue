<script setup lang="ts">
/** Begins a version of a text in another language. */
import type { TextSummary } from '@vocabula/contract';
import { agreedBy, besideOriginal, newVersion } from '@vocabula/core/languages';
import InputText from 'primevue/inputtext';
import { computed, ref } from 'vue';
import { api } from '../api/client';
import PopForm from '../ui/controls/PopForm.vue';
import PushButton from '../ui/controls/PushButton.vue';
import TypeOrPick from '../ui/controls/TypeOrPick.vue';
import FieldRow from '../ui/controls/FieldRow.vue';
import { useTexts } from '../ui/stores/lists';
import { languageName } from './languageWords';

const { of, taken } = defineProps<{ of: TextSummary; taken: readonly TextSummary[] }>();
const emit = defineEmits<{ made: [name: string] }>();
const LOCALES = ['de-DE', 'fr-FR', 'es-ES', 'it-IT', 'nl-NL', 'pl-PL', 'pt-PT', 'sv-SE', 'ga-IE', 'en-IE', 'en-GB'];
const texts = useTexts();
const locale = ref('');
const title = ref('');
const problem = ref('');
const busy = ref(false);
/** Languages that it is not in yet. */
const offered = computed(() => {
  const has = new Set([of.locale, ...taken.map((each) => each.locale)]);
  return LOCALES.filter((each) => !has.has(each));
});
const suggested = computed(() => (locale.value ? `${of.title} (${languageName(locale.value)})` : ''));

function localeProblem(): string {
  if (locale.value === '') return 'Choose a language.';
  try {
    const [canonical] = Intl.getCanonicalLocales(locale.value);
    if (canonical) locale.value = canonical;
  } catch {
    return 'That is no language, such as de-DE.';
  }
  const other = taken.find((each) => each.locale === locale.value);
  return other ? `“${other.title}” is its version in that language.` : '';
}
async function make(close: () => void): Promise<void> {
  problem.value = localeProblem();
  if (problem.value !== '') return;
  busy.value = true;
  try {
    const { document } = await api.text(of.name);
    const about = { of: of.name, locale: locale.value, title: title.value.trim() || suggested.value };
    const versionOf = (name: string): string | undefined =>
      texts.standing.find((text) => text.translationOf === name && text.locale === locale.value)?.name;
    const made = newVersion(document, about, { versionOf });
    const { name } = await api.createText({
      kind: of.kind,
      title: about.title,
      document: made,
      ...(of.mayWrite ? { folder: of.folder } : {}),
    });
    // Its title was just written for it; all other lines wait for their translation.
    const pairs = agreedBy(besideOriginal(document, made).rows.filter(({ original }) => original?.what === 'title'));
    await api.agreeOn(name, { pairs });
    close();
    emit('made', name);
  } catch (failure) {
    problem.value = failure instanceof Error ? failure.message : 'It could not be made.';
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <PopForm v-slot="{ close }" label="New language version">
    <form class="new" @submit.prevent="make(close)">
      <FieldRow v-slot="{ id, describedBy }" label="Language" :problem="problem">
        <TypeOrPick
          :id="id"
          label="Language"
          :model-value="locale"
          :options="offered"
          :aria-describedby="describedBy"
          @change="locale = $event"
        />
      </FieldRow>
      <p v-if="locale" class="small quiet">{{ languageName(locale) }}</p>
      <FieldRow v-slot="{ id }" label="Title">
        <InputText :id="id" v-model="title" :placeholder="suggested" maxlength="200" fluid />
      </FieldRow>
      <PushButton type="submit" kind="main" :disabled="busy">Begin</PushButton>
    </form>
  </PopForm>
</template>

<style scoped>
.new {
  display: grid;
  gap: 12px;
}
</style>
