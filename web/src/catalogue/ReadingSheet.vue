<script setup lang="ts">
/** One text, read: how it reads, what it asks, what it needs and what needs it. */
import { useRouter } from 'vue-router';
import ActMenu from '../ui/controls/ActMenu.vue';
import type { MenuAct } from '../ui/controls/menuActs';
import PushButton from '../ui/controls/PushButton.vue';
import type { Closure, TextSummary } from '@vocabula/contract';
import { compile, labelFromKey, render } from '@vocabula/core';
import { computed, shallowRef, watch } from 'vue';
import { api } from '../api/client';
import ProofFrame from '../ui/ProofFrame.vue';
import TypeMark from '../ui/TypeMark.vue';
import { useHouse } from '../ui/house';
import { lookOf } from '../ui/look';
import { today, whenInWords, zone } from '../ui/today';
import type { Catalogue } from './useCatalogue';
import { waitWords } from '../series/seriesWords';
import UsesPicture from './UsesPicture.vue';

const { catalogue, text } = defineProps<{ catalogue: Catalogue; text: TextSummary }>();
const emit = defineEmits<{ fill: []; write: []; copy: []; move: []; tag: []; retire: [] }>();
const { me, texts, bin } = catalogue;
const house = useHouse();
const router = useRouter();
const reading = shallowRef<Closure>();

watch(
  () => [text.name, text.revision, text.version] as const,
  async ([name]) => {
    reading.value = undefined;
    const found = await api.closure(name).catch(() => undefined);
    if (text.name === name) reading.value = found;
  },
  { immediate: true },
);
const preview = computed(() => {
  const own = reading.value?.texts[0];
  if (!own) return undefined;
  const program = compile(own, {
    library: { get: (name) => reading.value?.texts.find((each) => each.name === name)?.document },
    house: house.house,
  });
  return {
    program,
    message: render(program, { today: today(), zone: zone(), sender: me.fields() }, { proof: true }),
    look: lookOf(program),
  };
});
/** Of a series: each step, and when it goes. */
const steps = computed(() =>
  (reading.value?.texts[0]?.document.attrs.steps ?? []).map((step, at) => ({
    title: reading.value?.texts.find(({ name }) => name === step.text)?.document.attrs.front.title ?? step.text,
    words: waitWords(step, at === 0),
  })),
);
const replacement = computed(() => texts.value.find(({ name }) => name === text.replacedBy));
const standing = computed(() => {
  const parts = [
    text.state === 'retired'
      ? `Retired${replacement.value ? `; “${replacement.value.title}” takes its place` : ''}.`
      : text.state === 'withdrawn'
        ? 'Withdrawn: it cannot be filled.'
        : text.version === undefined
          ? 'Not published yet.'
          : `Version ${text.version}${text.state === 'changed' ? ', changed since' : ''}.`,
    text.reviewBy ? `Review by ${text.reviewBy}${text.reviewBy < today() ? ', overdue' : ''}.` : '',
    text.validFrom && text.validFrom > today() ? `Offered from ${text.validFrom}.` : '',
    text.validUntil ? `Offered until ${text.validUntil}.` : '',
    text.owner ? `${text.owner} answers for it.` : '',
    text.used > 0
      ? `Begun ${text.used} ${text.used === 1 ? 'time' : 'times'}, last ${whenInWords(text.lastUsed)}.`
      : '',
  ];
  return parts.filter(Boolean).join(' ');
});
/** What else can be done with it. */
const more = computed((): MenuAct[] => [
  { label: 'Start a copy', command: () => emit('copy') },
  ...(text.mayWrite
    ? [
        { label: 'Versions', command: () => void router.push({ name: 'versions', params: { name: text.name } }) },
        { label: 'Languages', command: () => void router.push({ name: 'languages', params: { name: text.name } }) },
        { label: 'Move…', keys: 'm', command: () => emit('move') },
        { label: 'Tag…', keys: 't', command: () => emit('tag') },
        ...((text.kind === 'message' || text.kind === 'series') && text.version
          ? [{ label: text.state === 'retired' ? 'Offer it again' : 'Retire…', command: () => emit('retire') }]
          : []),
        { label: 'Bin', keys: 'Del', command: () => void bin([text]) },
      ]
    : []),
  {
    label: 'Save as a file',
    command: () =>
      Object.assign(document.createElement('a'), { href: `/api/texts/${text.name}/file`, download: '' }).click(),
  },
]);
</script>

<template>
  <div class="reading">
    <div class="acts">
      <PushButton v-if="text.offered" :class="{ main: !me.isAuthor || !text.mayWrite }" @click="emit('fill')">{{
        text.kind === 'series' ? 'Start it' : 'Fill'
      }}</PushButton><PushButton v-if="text.mayWrite" :class="{ main: me.isAuthor }" @click="emit('write')"
        >Write</PushButton
      >
      <ActMenu v-if="me.isAuthor" class="right" label="More" size="small" :items="more" />
    </div>
    <p class="small quiet">{{ standing }}</p>
    <template v-if="preview && reading">
      <ol v-if="steps.length" class="sheet steps" aria-label="Steps">
        <li v-for="(step, at) in steps" :key="at">
          {{ step.title }} <span class="quiet small">{{ step.words }}</span>
        </li>
      </ol>
      <div v-else class="sheet page">
        <p v-if="preview.message.subject" class="mail-subject">{{ preview.message.subject }}</p>
        <ProofFrame class="frame" :fragment="preview.message.fragment" v-bind="preview.look" title="Preview" />
      </div>
      <div v-if="preview.program.slots.length" class="about">
        <h2>Variables {{ preview.program.slots.length }}</h2>
        <ul class="variables">
          <li v-for="slot in preview.program.slots" :key="slot.index">
            <TypeMark :type="slot.variable.type" />
            <span class="label">{{ slot.label || labelFromKey(slot.key) }}</span>
            <span class="quiet small">{{
              slot.variable.value ? 'calculated' : slot.variable.required ? 'required' : ''
            }}</span>
          </li>
        </ul>
      </div>
      <UsesPicture :name="text.name" @go="catalogue.go({ name: $event })" />
    </template>
  </div>
</template>

<style scoped>
.reading {
  display: flex;
  flex-direction: column;
  gap: 12px;
}
.acts {
  display: flex;
  gap: 8px;
  align-items: center;
}
.page {
  padding: 16px 20px;
  height: 360px;
  flex: none;
  display: flex;
  flex-direction: column;
  gap: 8px;
}
.steps {
  padding: 16px 20px 16px 40px;
  display: grid;
  gap: 6px;
}
.mail-subject {
  font:
    600 0.875rem/1.25rem Arial,
    sans-serif;
}
.frame {
  flex: 1;
}
.about {
  display: grid;
  gap: 4px;
}
.variables {
  list-style: none;
  margin: 0;
  padding: 0;
  font-size: 0.8125rem;
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 2px 12px;
}
.variables li {
  display: flex;
  gap: 6px;
  align-items: center;
  min-width: 0;
}
.variables .quiet {
  white-space: nowrap;
}
.label {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
