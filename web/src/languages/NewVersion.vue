<script setup lang="ts">
/** Begins a version of a text in another language. */
import type { TextSummary } from '@vocabula/contract';
import { agreedBy, besideOriginal, newVersion } from '@vocabula/core/languages';
import InputText from 'primevue/inputtext';
import { computed, ref } from 'vue';
import { api } from '../api/client';
import PopForm from '../ui/controls/PopForm.vue';
import PushButton from '../ui/controls/PushButton.vue';
import PickOne from '../ui/controls/PickOne.vue';
import FieldRow from '../ui/controls/FieldRow.vue';
import { useTexts } from '../ui/stores/lists';
import { languageName } from '../ui/languageName';

const { of, taken } = defineProps<{ of: TextSummary; taken: readonly TextSummary[] }>();
const emit = defineEmits<{ made: [name: string] }>();
/** Languages that are offered; any other is written into the details of the text. */
const LOCALES = [
  ...['bg-BG', 'ca-ES', 'cs-CZ', 'cy-GB', 'da-DK', 'de-AT', 'de-CH', 'de-DE', 'el-GR', 'en-GB', 'en-IE', 'en-US'],
  ...['es-ES', 'et-EE', 'eu-ES', 'fi-FI', 'fr-BE', 'fr-CH', 'fr-FR', 'ga-IE', 'hr-HR', 'hu-HU', 'is-IS', 'it-IT'],
  ...['ja-JP', 'ko-KR', 'lt-LT', 'lv-LV', 'mt-MT', 'nb-NO', 'nl-BE', 'nl-NL', 'pl-PL', 'pt-BR', 'pt-PT', 'ro-RO'],
  ...['ru-RU', 'sk-SK', 'sl-SI', 'sv-SE', 'tr-TR', 'uk-UA', 'zh-CN'],
];
const texts = useTexts();
const locale = ref('');
const title = ref('');
const problem = ref('');
const busy = ref(false);
/** Languages that it is not in yet. */
const offered = computed(() => {
  const has = new Set([of.locale, ...taken.map((each) => each.locale)]);
  return LOCALES.filter((each) => !has.has(each))
    .map((each) => ({ locale: each, name: languageName(each) }))
    .toSorted((a, b) => a.name.localeCompare(b.name, 'en'));
});
const suggested = computed(() => (locale.value ? `${of.title} (${languageName(locale.value)})` : ''));

async function make(close: () => void): Promise<void> {
  problem.value = locale.value === '' ? 'Choose a language.' : '';
  if (problem.value !== '') return;
  busy.value = true;
  try {
    const { document } = await api.text(of.name);
    const about = { of: of.name, locale: locale.value, title: title.value.trim() || suggested.value };
    const made = newVersion(document, about, { versionOf: (name) => texts.versionOf(name, about.locale) });
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
      <FieldRow v-slot="{ id, labelledBy }" label="Language" :problem="problem">
        <PickOne :id="id" v-model="locale" :labelled-by="labelledBy">
          <option v-for="each in offered" :key="each.locale" :value="each.locale">{{ each.name }}</option>
        </PickOne>
      </FieldRow>
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
