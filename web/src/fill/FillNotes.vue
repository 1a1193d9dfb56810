<script setup lang="ts">
/** What has to be known or decided before going on: other versions, words that dispute a value, things said twice. */
import PushButton from '../ui/controls/PushButton.vue';
import type { Fill, StartFill } from '@vocabula/contract';
import { compileBundle, render } from '@vocabula/core';
import { composed, difference } from '@vocabula/core/filling';
import { computed, ref } from 'vue';
import { useRouter } from 'vue-router';
import { api } from '../api/client';
import { languageName } from '../ui/languageName';
import { useNotice } from '../ui/notice';
import { whenInWords } from '../ui/today';
import type { Filling } from './useFill';
import { useLanguageOffered } from './useLanguageOffered';
import type { useRewording } from './useRewording';

const props = defineProps<{ filling: Filling; rewording: ReturnType<typeof useRewording> | undefined }>();
const { fill, recipient, answers, changes, original, message, input, disputed, twice, take, settled, asked } =
  props.filling;
const router = useRouter();
const notice = useNotice();
/** Whether the word about a newer version was put away. */
const dismissed = ref(false);
const again = ref(false);
const offered = useLanguageOffered(props.filling);
/** The recipient of whom it was said that the message stays in its language. */
const staysFor = ref('');
const address = computed(() => recipient.value.email ?? '');
const languageOf = (locale = ''): string => languageName(locale.split('-')[0] ?? '');
const newest = ref<{ adds: string; takes: string }>();

const labelOf = (key: string): string => asked.value.find((question) => question.key === key)?.label ?? key;
/** A line of a text with its placeholders by their labels. */
const said = (words: string): string =>
  words.replace(/\[([a-z][a-z0-9_.]*)\]/g, (_, name: string) => `[${labelOf(name)}]`);
const SAID = {
  copy: 'Copied',
  draft: 'Saved as a draft',
  many: 'Sent to many',
  service: 'Given to the mail service',
} as const;
const handed = computed(() => {
  const { value: now } = fill;
  if (!now?.last || again.value || now.state === 'unfinished') return '';
  const how = SAID[now.last.way as keyof typeof SAID] ?? 'Handed over';
  return `${now.state === 'sent' ? 'Sent' : how} at ${whenInWords(now.last.at)}${now.recipient ? ` for ${now.recipient}` : ''}.`;
});

async function seeNewest(): Promise<void> {
  if (!fill.value) return;
  try {
    newest.value = difference(message.value?.text ?? '', textOf(await api.newest(fill.value.id)));
  } catch (problem) {
    notice.fail(problem);
  }
}
function textOf(given: Fill): string {
  const texts = composed(given.texts, given.changes);
  const [own] = texts;
  if (!own) return '';
  const { house, signature } = given;
  return render(compileBundle({ text: own, texts, house, signature }), input.value).text;
}

/** Begins a message anew, in place of this one. @returns what its text gives to know; undefined where it failed */
async function begin(given: StartFill): Promise<string | undefined> {
  if (!fill.value) return undefined;
  try {
    await settled();
    const { id: old, state } = fill.value;
    take(await api.startFill(given));
    if (state === 'unfinished') await api.binFill(old);
    await router.replace({ name: 'filling', params: { id: fill.value?.id } });
    return fill.value?.notes?.[0] ?? '';
  } catch (error) {
    notice.fail(error);
    return undefined;
  }
}
const answered = (): Pick<StartFill, 'recipient' | 'answers' | 'original'> => ({
  recipient: { ...recipient.value },
  answers: { ...answers.value } as never,
  ...(original.value ? { original: original.value } : {}),
});
/** Begins the message again on the version in use: with what was answered, or with nothing. */
async function anew(withAnswers: boolean): Promise<void> {
  if (!fill.value) return;
  const kept = withAnswers ? { ...answered(), changes: changes.value } : {};
  const note = await begin({ text: fill.value.text, ...kept });
  if (note !== undefined) notice.say(`Started again on the current version.${note ? ` ${note}` : ''}`);
}
/** Goes on in the recipient's language, with what was answered. What was changed by hand stays with the other words. */
async function inLanguage(name: string, language: string): Promise<void> {
  const before = fill.value?.id;
  const note = await begin({ text: name, ...answered() });
  if (note === undefined || before === undefined) return;
  const made = fill.value?.id;
  notice.say(`It goes on in ${language}.`, async () => {
    await api.restoreFill(before);
    if (made !== undefined) await api.binFill(made);
    await router.push({ name: 'filling', params: { id: before } });
  });
}
</script>

<template>
  <div v-if="fill" class="notes">
    <p v-if="handed" class="note">
      {{ handed }}
      <PushButton @click="anew(false)">Start empty</PushButton>
      <PushButton kind="plain" @click="again = true">Go on with this one</PushButton>
    </p>
    <p v-if="fill.standing !== 'current' && !dismissed" class="note" role="alert">
      <template v-if="fill.standing === 'withdrawn'"
        ><span class="error">⚠ This wording was withdrawn and must not be sent.</span> Start again with the current
        version; your answers come along.</template
      >
      <template v-else
        >‸ There is a newer version of this template. This message goes on with version {{ fill.version }}.</template
      >
      <span v-if="newest" class="small"
        >It would {{ newest.adds ? `say “${newest.adds.slice(0, 200)}”` : ''
        }}{{ newest.adds && newest.takes ? ' in place of ' : ''
        }}{{ newest.takes ? `${newest.adds ? '' : 'leave out '}“${newest.takes.slice(0, 200)}”` : ''
        }}{{ newest.adds || newest.takes ? '.' : 'read the same for these answers.' }}</span
      >
      <PushButton kind="plain" v-else-if="fill.standing === 'newer'" @click="seeNewest">What would change?</PushButton>
      <PushButton @click="anew(true)">Start again</PushButton>
      <PushButton kind="plain" v-if="fill.standing === 'newer'" @click="dismissed = true"
        >Go on with this one</PushButton
      >
    </p>
    <p v-if="offered && staysFor !== address" class="note">
      {{ recipient.first_name || 'The recipient' }} reads {{ languageOf(offered.locale) }}.
      <PushButton @click="inLanguage(offered.name, languageOf(offered.locale))">Use “{{ offered.title }}”</PushButton>
      <PushButton kind="plain" @click="staysFor = address">Keep this language</PushButton>
    </p>
    <p v-for="{ rewording: each, since } in disputed" :key="each.text + each.path.join('.')" class="note" role="alert">
      ‸ You changed {{ since.map(({ name }) => labelOf(name)).join(', ') }}, which was “{{ since[0]?.was || 'empty' }}”
      then and is “{{ since[0]?.now || 'empty' }}” now.
      <PushButton @click="rewording?.keepWords(each)">Keep my words</PushButton>
      <PushButton kind="plain" @click="rewording?.putBack(each)">Restore the original wording</PushButton>
    </p>
    <p v-for="each in twice" :key="each.words + each.change.text" class="note">
      ‸ The message {{ each.what === 'greeting' ? 'greets a second time' : 'closes a second time' }}: “{{
        said(each.words)
      }}”.
      <PushButton @click="rewording?.takeOut(each.change)">Remove it</PushButton>
    </p>
  </div>
</template>

<style scoped>
.note {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 8px;
  align-items: center;
  padding: 8px 28px;
  border-bottom: 1px solid var(--hair);
  background: var(--sheet);
}
</style>
