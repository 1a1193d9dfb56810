<script setup lang="ts">
/** Requests to publish: those that one can answer, and one's own. */
import PushButton from '../ui/controls/PushButton.vue';
import InputText from 'primevue/inputtext';
import type { Request } from '@vocabula/contract';
import { ref } from 'vue';
import { api } from '../api/client';
import { showMoment } from '../ui/dates/reader';
import type { Catalogue } from './useCatalogue';

const { catalogue } = defineProps<{ catalogue: Catalogue }>();
const { requests, texts, act, go } = catalogue;
const returning = ref<string>();
const remark = ref('');

const accept = (request: Request): Promise<void> =>
  act(`“${request.title}” is published.`, () => api.answerRequest(request.id, { answer: 'accept' }));
async function giveBack(request: Request): Promise<void> {
  if (remark.value.trim() === '') return;
  const words = remark.value.trim();
  returning.value = undefined;
  remark.value = '';
  await act(`Returned to ${request.who}.`, () => api.answerRequest(request.id, { answer: 'return', remark: words }));
}
const takeBack = (request: Request): Promise<void> => act('Taken back.', () => api.takeBackRequest(request.id));
const isTemplate = ({ text }: Request): boolean =>
  texts.value.some(({ name, kind }) => name === text && kind === 'message');
const stateOf = ({ mine, state, answeredBy }: Request): string =>
  state === 'returned' ? `returned by ${answeredBy ?? 'unknown'}` : mine ? 'waiting for an answer' : '';
</script>

<template>
  <div class="requests">
    <p v-if="requests.length === 0" class="empty">No requests to publish.</p>
    <article v-for="request in requests" :key="request.id" class="request">
      <h2>
        <PushButton kind="plain" class="title" @click="go({ name: request.text })">{{ request.title }}</PushButton>
        <span class="quiet small">{{ stateOf(request) }}</span>
      </h2>
      <p>{{ request.note }}</p>
      <p class="quiet small">{{ request.who }} · {{ showMoment(request.at, 'figures') }}</p>
      <p v-if="request.remark" class="warning">‸ {{ request.remark }}</p>
      <details v-if="request.report.findings.length" class="small">
        <summary>
          Findings: {{ request.report.errors }} errors, {{ request.report.warnings }} warnings<template
            v-if="request.report.messages"
            >; {{ request.report.messages }} messages proofed with {{ request.report.set }}</template
          ><template v-if="request.report.lookedAt">; {{ request.report.lookedAt }} cases looked at</template>
        </summary>
        <ul>
          <li v-for="(finding, index) in request.report.findings" :key="index">{{ finding }}</li>
        </ul>
      </details>
      <p v-else class="small quiet">No findings.</p>
      <form
        v-if="returning === request.id"
        class="acts"
        @submit.prevent="giveBack(request)"
        @keydown.esc="returning = undefined"
      >
        <InputText
          v-model="remark"
          aria-label="What is missing"
          placeholder="What is missing"
          maxlength="2000"
          autofocus
          required
        />
        <PushButton kind="main" type="submit">Return it</PushButton>
      </form>
      <div v-else class="acts">
        <template v-if="!request.mine">
          <RouterLink v-slot="{ navigate }" :to="{ name: 'publish', params: { name: request.text } }" custom
            ><PushButton @click="navigate()">Look at it</PushButton></RouterLink
          >
          <RouterLink
            v-if="isTemplate(request)"
            v-slot="{ navigate }"
            :to="{ name: 'proof', params: { name: request.text, view: 'report' } }"
            custom
            ><PushButton @click="navigate()">Proof report</PushButton></RouterLink
          >
          <PushButton kind="main" @click="accept(request)">Publish it</PushButton>
          <PushButton @click="returning = request.id">Return…</PushButton>
        </template>
        <template v-else>
          <RouterLink v-slot="{ navigate }" :to="{ name: 'write', params: { name: request.text } }" custom
            ><PushButton @click="navigate()">Write</PushButton></RouterLink
          >
          <PushButton v-if="request.state === 'open'" @click="takeBack(request)">Take back</PushButton>
        </template>
      </div>
    </article>
  </div>
</template>

<style scoped>
.requests {
  overflow: auto;
}
.request {
  padding: 12px 16px;
  border-bottom: 1px solid var(--hair);
  display: grid;
  gap: 4px;
}
.title {
  padding: 0;
  height: auto;
  font-weight: 600;
}
.acts {
  display: flex;
  gap: 8px;
  margin-top: 4px;
}
ul {
  margin: 4px 0;
  padding-left: 18px;
}
</style>
