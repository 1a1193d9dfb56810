<script setup lang="ts">
/** Publishing: the note, what stands against it, what changed, and what it does to other messages. */
import { useEventListener } from '@vueuse/core';
import PushButton from '../ui/controls/PushButton.vue';
import type { Ask, Remark, State } from '@vocabula/contract';
import { HOUSE_NAME } from '@vocabula/contract/constants';
import type { Finding } from '@vocabula/core';
import { computed, onMounted, ref, shallowRef, useTemplateRef } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api } from '../api/client';
import NoticeLine from '../ui/NoticeLine.vue';
import { command, keyOf } from '../ui/keys';
import { useNotice } from '../ui/notice';
import ComparedStates from './ComparedStates.vue';
import ImpactList from './ImpactList.vue';
import PublishForm from './PublishForm.vue';
import { showMoment } from '../ui/dates/reader';
import { useStanding } from './useStanding';

const route = useRoute();
const router = useRouter();
const notice = useNotice();
const name = String(route.params.name);
const isHouse = name === HOUSE_NAME;
const { standing, problem, load } = useStanding();
const findings = shallowRef<readonly Finding[]>([]);
const remarks = shallowRef<readonly Remark[]>([]);
const before = shallowRef<State>();
const after = shallowRef<State>();
const form = useTemplateRef<{ submit(): void }>('form');
const at = ref('');
/** The view that was chosen; until one is, what the kind of text calls for. */
const chosen = ref<'changes' | 'impact'>();
const impact = ref('');

const errors = computed(() => findings.value.filter(({ level }) => level === 'error'));
const openRemarks = computed(() => remarks.value.filter(({ settled }) => !settled));
const kind = computed(() =>
  after.value && 'type' in after.value.document ? after.value.document.attrs.front.kind : 'house',
);
const view = computed(() => chosen.value ?? (kind.value !== 'message' && before.value ? 'impact' : 'changes'));
const back = computed(() =>
  isHouse ? { name: 'settings', params: { part: 'style' } } : { name: 'write', params: { name } },
);

onMounted(async () => {
  notice.clear();
  await load(name);
  if (!standing.value) return;
  try {
    const { published } = standing.value;
    [findings.value, remarks.value, after.value, before.value] = await Promise.all([
      api.findings(name),
      isHouse ? [] : api.remarks(name),
      api.state(name, 'working'),
      published ? api.state(name, `version:${published.number}`) : undefined,
    ]);
  } catch (failure) {
    notice.fail(failure);
  }
});

/**
 * Publishes, or asks those who may.
 * @throws what keeps it from being published, in words
 */
async function send(note: string): Promise<void> {
  const now = standing.value;
  if (!now) return;
  if (at.value !== '' && Number.isNaN(Date.parse(at.value))) throw new Error('Choose a date and a time to publish at.');
  const { revision } = now;
  if (!now.mayPublish) {
    await api.ask(name, { revision, note, report: await report() });
    notice.sayThere(`Request sent. People who may publish “${now.title}” see it in the Catalogue.`);
    return void (await router.push(back.value));
  }
  const moment = at.value ? new Date(at.value).toISOString() : undefined;
  const { version } = await api.publish(name, { revision, note, ...(moment ? { at: moment } : {}) });
  notice.sayThere(
    version === undefined
      ? `“${now.title}” publishes ${showMoment(moment ?? '', 'words')}.`
      : `Published: colleagues use version ${version}${impact.value ? `. ${impact.value}` : ''}.`,
  );
  await router.push(back.value);
}
/** What goes along with a request: what the checker says and how much was looked at, for whoever answers it. */
const report = async (): Promise<Ask['report']> => ({
  messages: 0,
  set: '',
  lookedAt: isHouse ? 0 : await api.proofRecord(name).then(({ lookedAt }) => lookedAt.length),
  errors: errors.value.length,
  warnings: findings.value.filter(({ level }) => level === 'warning').length,
  findings: findings.value.slice(0, 200).map(({ level, message }) => `${level}: ${message}`),
});
function onKey(event: KeyboardEvent): void {
  if (keyOf(event)?.id !== 'hand-over') return;
  event.preventDefault();
  if (errors.value.length === 0) form.value?.submit();
}
useEventListener('keydown', onKey);
const onImpact = (messages: number, templates: number): void => {
  impact.value =
    messages > 0
      ? `${messages} sample messages of ${templates} ${templates === 1 ? 'template' : 'templates'} changed`
      : '';
};
</script>

<template>
  <div class="publish">
    <header class="head">
      <RouterLink class="small" :to="back">‹ {{ isHouse ? 'Settings' : 'Write' }}</RouterLink>
      <h1>Publish “{{ standing?.title ?? '' }}”</h1>
      <RouterLink class="right small" :to="{ name: 'versions', params: { name } }">Versions</RouterLink>
    </header>
    <main v-if="problem" class="empty">
      <p class="error">⚠ {{ problem }}</p>
    </main>
    <main v-else-if="standing" class="two">
      <PublishForm
        ref="form"
        v-model:at="at"
        :standing="standing"
        :findings="findings"
        :remarks="openRemarks"
        :send="send"
        :command="command"
      />
      <section class="sheet page" aria-label="What it does">
        <nav aria-label="Views" class="views">
          <PushButton kind="plain" :aria-pressed="view === 'changes'" @click="chosen = 'changes'"
            >What changed</PushButton
          >
          <PushButton
            kind="plain"
            v-if="kind !== 'message'"
            :aria-pressed="view === 'impact'"
            @click="chosen = 'impact'"
          >
            Impact
          </PushButton>
        </nav>
        <template v-if="view === 'changes'">
          <ComparedStates
            v-if="before && after"
            :before="before.document"
            :after="after.document"
            :names="[`version ${standing.published?.number ?? ''}`, 'your working copy']"
          />
          <p v-else-if="after" class="quiet">
            {{
              standing.versions.length > 0
                ? 'The version before was withdrawn; this takes its place.'
                : 'This is the first version. There is nothing to compare it with.'
            }}
          </p>
        </template>
        <KeepAlive><ImpactList v-if="view === 'impact'" :name="name" @done="onImpact" /></KeepAlive>
      </section>
    </main>
    <footer class="foot"><NoticeLine /></footer>
  </div>
</template>

<style scoped>
.publish {
  display: flex;
  flex-direction: column;
}
.two {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: 384px minmax(0, 1fr);
}
.page {
  margin: 16px 24px 24px 0;
  padding: 12px 28px 28px;
  overflow: auto;
}
.views {
  display: flex;
  gap: 4px;
  margin: 0 -8px 12px;
  border-bottom: 1px solid var(--hair);
}
.views [aria-pressed='true'] {
  font-weight: 600;
  box-shadow: inset 0 -3px var(--action);
  border-radius: 0;
}
@media (max-width: 899px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
    overflow: auto;
  }
  .page {
    margin: 0 12px 24px;
    overflow: visible;
    padding: 12px 16px;
  }
}
</style>
