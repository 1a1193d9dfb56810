<script setup lang="ts">
/** From past mails: the derived template on the left; proposals and mails with their differences beside it. */
import type { SentText } from '@vocabula/contract';
import InputText from 'primevue/inputtext';
import { computed, onMounted, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api } from '../api/client';
import PushButton from '../ui/controls/PushButton.vue';
import PickOne from '../ui/controls/PickOne.vue';
import ProgressLine from '../ui/controls/ProgressLine.vue';
import TickBox from '../ui/controls/TickBox.vue';
import { useFileChoice } from '../ui/controls/fileChoice';
import { useHouse } from '../ui/house';
import NoticeLine from '../ui/NoticeLine.vue';
import { useNotice } from '../ui/notice';
import StartPreview from '../write/start/StartPreview.vue';
import MailSlips from './MailSlips.vue';
import ProposalsTable from './ProposalsTable.vue';
import { useDerive } from './useDerive';
import { useSignature } from './useSignature';

const route = useRoute();
const router = useRouter();
const notice = useNotice();
const house = useHouse();
/** Templates that the user has sent messages from. */
const sent = ref<readonly SentText[]>([]);
const deriving = useDerive();
const { mails, compared, locale, derived, template, settled, share, reading, problem } = deriving;
const signing = useSignature();
const title = ref('');
const hide = ref(true);
const over = ref(false);
const busy = ref(false);
const LOCALES = ['en-IE', 'en-GB', 'en-US', 'de-DE', 'fr-FR', 'es-ES', 'it-IT', 'nl-NL', 'pt-PT', 'sv-SE', 'pl-PL'];

onMounted(async () => {
  notice.clear();
  void house.load().catch(() => undefined);
  sent.value = await api.sentTexts().catch(() => []);
  // Everything that went to somebody, from the page of that person.
  const { address, sent: chosen } = route.query;
  if (address) await act(() => deriving.addSent({ address: String(address) }));
  // Messages that were chosen among those that went.
  if (chosen) await act(() => deriving.addChosen(String(chosen).split(',')));
});
async function act(work: () => string | Promise<string>): Promise<void> {
  try {
    const said = await work();
    if (said) notice.say(said);
    title.value ||= derived.value?.template.attrs.front.title ?? '';
  } catch (failure) {
    notice.fail(failure);
  }
}
const given = (files: readonly File[]): Promise<void> => {
  over.value = false;
  return act(() => deriving.addFiles(files));
};
const choose = useFileChoice(given, { accept: '.eml,.mbox,.html,.htm,.txt,.md', multiple: true });
const sentOf = (text: string): Promise<void> => act(() => deriving.addSent({ text }));
const suggested = computed(() => derived.value?.template.attrs.front.title ?? '');
async function take(): Promise<void> {
  busy.value = true;
  try {
    const folder = route.query.in ? String(route.query.in) : undefined;
    const name = await deriving.take(title.value.trim() || suggested.value, folder, hide.value);
    notice.sayThere('Saved as a working copy with a sample set of its answers.');
    await router.push({ name: 'write', params: { name } });
  } catch (failure) {
    notice.fail(failure);
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <div
    class="derive"
    :class="{ over }"
    @dragover.prevent="over = true"
    @dragleave.self="over = false"
    @drop.prevent="given([...($event.dataTransfer?.files ?? [])])"
    @paste="
      !($event.target as Element).closest('input, textarea') &&
      act(() => deriving.paste($event.clipboardData?.getData('text/plain') ?? ''))
    "
  >
    <header class="head">
      <h1>From past mails</h1>
      <strong v-if="derived && share === undefined" role="status"
        >{{ derived.exact }} of {{ derived.mails.length }} match word for word</strong
      >
      <template v-if="reading">
        <ProgressLine :done="reading.done" :total="reading.total" label="Reading the files" />
        <PushButton kind="plain" @click="deriving.stop()">Stop</PushButton>
      </template>
      <template v-else-if="share !== undefined">
        <ProgressLine :done="share" :total="1" label="Comparing the mails" />
        <PushButton kind="plain" @click="deriving.stop()">Stop</PushButton>
      </template>
      <span class="right adding">
        <PickOne
          v-model="locale"
          class="locale"
          label="Language of the mails"
          :options="LOCALES"
          @update:model-value="deriving.start()"
        />
        <PushButton @click="choose">Choose files…</PushButton>
      </span>
    </header>
    <main v-if="mails.length === 0" class="empty">
      <p>
        Drop mails of one kind here (.eml, .mbox, .html, .txt), or paste them one after the other. What stays the same
        becomes the words, what varies becomes a question.
      </p>
      <p><PushButton kind="main" @click="choose">Choose files…</PushButton></p>
      <p class="quiet small">
        Or choose among what you sent in the
        <RouterLink :to="{ name: 'mailroom', params: { stack: 'gone' } }">Mailroom</RouterLink>.
      </p>
      <template v-if="sent.length > 0">
        <p class="quiet small">Or compare the messages you sent from a template:</p>
        <ul class="sent">
          <li v-for="each in sent" :key="each.text">
            <PushButton kind="plain" size="small" @click="sentOf(each.text)">{{ each.title }}</PushButton>
            <span class="quiet small">{{ each.messages }} messages</span>
            <RouterLink class="small" :to="{ name: 'looking-back', params: { name: each.text } }"
              >what was changed by hand</RouterLink
            >
          </li>
        </ul>
      </template>
    </main>
    <main v-else class="two">
      <section class="left" aria-label="The template">
        <form v-if="template" class="take" @submit.prevent="take">
          <InputText v-model="title" :placeholder="suggested" aria-label="Title of the template" maxlength="200" />
          <label class="small"><TickBox v-model="hide" /> made-up names in the sample set</label>
          <PushButton kind="main" type="submit" :disabled="busy || share !== undefined">Start with this</PushButton>
        </form>
        <p v-if="problem" class="error" role="alert">⚠ {{ problem }}</p>
        <p v-else-if="compared.length < 2" class="quiet">Add at least one more mail of the same kind.</p>
        <p v-if="derived?.signature.length" class="small quiet" role="note" aria-label="Signature">
          Not in the template: the signature “{{ derived.signature.join(' / ').slice(0, 200) }}”.
          <template v-if="signing.hasOwn.value">Yours stands below its messages.</template>
          <PushButton
            v-else
            kind="plain"
            size="small"
            :disabled="signing.busy.value"
            @click="act(() => signing.take(derived?.signature ?? []))"
            >Make it mine</PushButton
          >
        </p>
        <StartPreview v-if="template" class="preview" :document="template" kind="message" />
      </section>
      <section class="rest" aria-label="The mails">
        <p v-if="derived && derived.groups.length > 1" class="warning small">
          ‸ These look like {{ derived.groups.length }} kinds of mail; {{ derived.groups[0]?.length }} belong together.
          Leave the others out for a better result.
        </p>
        <ProposalsTable
          v-if="derived && template"
          :derived="derived"
          :template="template"
          :settled="settled"
          @relabel="deriving.relabel"
          @settle="deriving.settle"
          @unsettle="deriving.unsettle"
        />
        <MailSlips :deriving="deriving" />
      </section>
    </main>
    <footer class="foot">
      <span>{{ mails.length }} {{ mails.length === 1 ? 'mail' : 'mails' }}</span
      ><NoticeLine />
    </footer>
  </div>
</template>

<style scoped>
.derive {
  display: flex;
  flex-direction: column;
}
.over {
  outline: 2px dashed var(--action);
  outline-offset: -4px;
}
.adding {
  display: flex;
  gap: 8px;
}
.locale {
  width: 104px !important;
}
.sent {
  list-style: none;
  margin: 0 0 0 -9px;
  padding: 0;
}
.sent li {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0 12px;
}
.two {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
}
.left,
.rest {
  min-height: 0;
  overflow: auto;
  padding: 16px;
  display: flex;
  flex-direction: column;
  gap: 16px;
}
.left {
  border-right: 1px solid var(--hair);
}
.empty {
  flex: 1;
}
.take :deep(input[type='text']),
.take > :deep(.p-inputtext) {
  flex: 1;
  min-width: 0;
}
.take > :deep(.p-button) {
  flex: none;
}
.take {
  display: flex;
  gap: 12px;
  align-items: center;
}
.take label {
  display: flex;
  align-items: center;
  gap: 6px;
  white-space: nowrap;
}
.preview {
  flex: 1;
  min-height: 320px;
  height: auto;
}
@media (max-width: 1099px) {
  .take {
    flex-wrap: wrap;
  }
}
@media (max-width: 899px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
    overflow: auto;
  }
  .left,
  .rest {
    overflow: visible;
    border-right: 0;
    min-height: auto;
  }
}
</style>
