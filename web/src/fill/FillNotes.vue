<script setup lang="ts">
/** What has to be known or decided before going on: other versions, words that dispute a value, things said twice. */
import PushButton from '../ui/controls/PushButton.vue';
import type { Fill } from '@vocabula/contract';
import { compileBundle, render } from '@vocabula/core';
import { composed, difference } from '@vocabula/core/filling';
import { computed, ref } from 'vue';
import { useRouter } from 'vue-router';
import { api } from '../api/client';
import { useNotice } from '../ui/notice';
import { whenInWords } from '../ui/today';
import type { Filling } from './useFill';
import type { useRewording } from './useRewording';

const props = defineProps<{ filling: Filling; rewording: ReturnType<typeof useRewording> | undefined }>();
const { fill, recipient, answers, changes, original, message, input, disputed, twice, take, settled, asked } =
  props.filling;
const router = useRouter();
const notice = useNotice();
/** Whether the word about a newer version was put away. */
const dismissed = ref(false);
const again = ref(false);
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

/** Begins the message again on the version in use: with what was answered, or with nothing. */
async function anew(withAnswers: boolean): Promise<void> {
  if (!fill.value) return;
  try {
    await settled();
    const { id: old, text, state } = fill.value;
    const kept = withAnswers
      ? {
          recipient: { ...recipient.value },
          answers: { ...answers.value } as never,
          changes: changes.value,
          ...(original.value ? { original: original.value } : {}),
        }
      : {};
    take(await api.startFill({ text, ...kept }));
    if (state === 'unfinished') await api.binFill(old);
    await router.replace({ name: 'filling', params: { id: fill.value?.id } });
    const [note] = fill.value?.notes ?? [];
    notice.say(`Started again on the current version.${note ? ` ${note}` : ''}`);
  } catch (error) {
    notice.fail(error);
  }
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
