<script setup lang="ts">
/** One message as it would arrive: rich, plain, 360 px, dark, or its headers. */
import { computed, useTemplateRef } from 'vue';
import ProofFrame from '../../ui/ProofFrame.vue';
import type { ShownMessage } from '../table/protocol';
import type { LookAs, Part } from './looks';

const props = defineProps<{
  message: ShownMessage;
  as: LookAs;
  /** Numbers of stretches, by part. */
  lit?: ReadonlySet<string>;
  fresh?: ReadonlySet<string>;
  sender?: string;
}>();
const emit = defineEmits<{
  point: [part: Part, stretch: number | undefined];
  choose: [part: Part, stretch: number];
}>();
const frame = useTemplateRef('frame');

const marked = computed(() => {
  const classes = new Map<number, string>();
  props.message.stretches.forEach((_, at) => {
    const own = [
      props.fresh?.has(`body ${at}`) ? 'vs-fresh' : '',
      props.message.blankStretches.includes(at) ? 'vs-blank' : '',
      props.lit?.has(`body ${at}`) ? 'vs-lit' : '',
    ].filter(Boolean);
    if (own.length > 0) classes.set(at, own.join(' '));
  });
  return classes;
});
const headers = computed(() =>
  (
    [
      ['From', props.sender ?? ''],
      ['To', props.message.to.join(', ') || '—'],
      ['Cc', props.message.cc.join(', ')],
      ['Bcc', props.message.bcc.join(', ')],
      ['Reply-to', props.message.replyTo.join(', ')],
      ['Subject', props.message.subject || '—'],
      ['Attachments', props.message.attachments.map(({ name }) => name).join(', ')],
      ['Size', `${Math.ceil(new TextEncoder().encode(props.message.html).length / 1000)} kB of HTML`],
    ] as const
  ).filter(([, words]) => words !== ''),
);
const show = (stretch: number): void => frame.value?.showStretch(stretch);
defineExpose({ show });
</script>

<template>
  <div class="sheet paper" :class="[as, { dark: as === 'dark' }]">
    <dl v-if="as === 'headers'" class="headers">
      <template v-for="[name, words] in headers" :key="name">
        <dt class="quiet">{{ name }}</dt>
        <dd>{{ words }}</dd>
      </template>
    </dl>
    <template v-else>
      <p class="subject">
        <span
          v-for="(piece, at) in message.subjectPieces"
          :key="at"
          class="piece"
          :class="{ lit: lit?.has(`subject ${at}`), fresh: fresh?.has(`subject ${at}`) }"
          @mouseenter="emit('point', 'subject', at)"
          @mouseleave="emit('point', 'subject', undefined)"
          @click="emit('choose', 'subject', at)"
          >{{ piece }}</span><span v-if="message.subject === ''" class="quiet">no subject</span>
      </p>
      <pre v-if="as === 'plain'" class="words" tabindex="0">{{ message.text }}</pre>
      <ProofFrame
        v-else
        ref="frame"
        class="words"
        :fragment="message.fragment"
        v-bind="message.look"
        :dark="as === 'dark'"
        :marked="marked"
        title="Message"
        @point="emit('point', 'body', $event)"
        @stretch="emit('choose', 'body', $event)"
      />
    </template>
  </div>
</template>

<style scoped>
.paper {
  width: 100%;
  max-width: 640px;
  height: 100%;
  min-height: 320px;
  display: flex;
  flex-direction: column;
  padding: 20px 34px 12px;
  margin: 0 auto;
}
.paper.narrow {
  max-width: 360px;
  padding: 16px 12px 8px;
}
.paper.dark {
  background: #1b1d21;
  color: #e8e6e1;
}
.subject {
  font-weight: 600;
  margin-bottom: 14px;
  overflow-wrap: anywhere;
}
.piece {
  cursor: pointer;
}
.lit {
  background: var(--selected);
  color: var(--ink);
}
.fresh {
  text-decoration: underline 2px var(--action);
  text-underline-offset: 3px;
}
.words {
  flex: 1;
  min-height: 0;
}
pre.words {
  margin: 0;
  overflow: auto;
  white-space: pre-wrap;
  font:
    0.8125rem/1.25rem ui-monospace,
    monospace;
}
.headers {
  display: grid;
  grid-template-columns: 96px minmax(0, 1fr);
  gap: 8px 12px;
  margin: 0;
  font-size: 0.8125rem;
}
dd {
  margin: 0;
  overflow-wrap: anywhere;
}
</style>
