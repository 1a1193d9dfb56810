<script setup lang="ts">
/** A chosen block: its title, how its variables join those of this text, and where to go from here. */
import PushButton from '../../ui/controls/PushButton.vue';
import { bodyOf, bodyText, labelFromKey, namesIncluded } from '@vocabula/core';
import { computed } from 'vue';
import { useRouter } from 'vue-router';
import { useNotice } from '../../ui/notice';
import { knownText, libraryVersion } from '../../ui/library';
import TypeMark from '../../ui/TypeMark.vue';
import type { Desk } from '../desk/useDesk';
import type { Bracket } from '../editor/brackets';

const props = defineProps<{
  desk: Pick<Desk, 'blocks' | 'copy' | 'keep' | 'manuscript' | 'passages' | 'proof'>;
  bracket: Bracket;
}>();
const router = useRouter();
const notice = useNotice();
const { manuscript, proof, blocks, passages, keep } = props.desk;
const text = computed(() => {
  void libraryVersion.value;
  return knownText(props.bracket.name);
});
/** Each of its variables: asked once with this text's, asked for itself, or in each other's way. */
const joined = computed(() =>
  (text.value?.attrs.variables ?? []).map((variable) => {
    const own = manuscript.variables.value.find(({ key }) => key === variable.key);
    const clash = proof.findings.value.find(
      ({ code, place }) => code === 'type-clash' && place.variable === variable.key,
    );
    const how = clash
      ? clash.message
      : variable.value !== undefined
        ? 'calculated'
        : own
          ? `one question with “${own.label ?? labelFromKey(own.key)}” of this text`
          : 'asked by the block';
    return { variable, how, clash: clash !== undefined };
  }),
);
const lines = computed(() => (text.value ? bodyOf(text.value).flatMap(bodyText).slice(0, 3) : []));
const inner = computed(() => (text.value ? namesIncluded(text.value) : []));
async function goThere(): Promise<void> {
  await keep();
  await router.push({
    name: 'write',
    params: { name: props.bracket.name },
    query: { from: props.desk.copy.name.value },
  });
}
</script>

<template>
  <div class="chosen">
    <p>
      <b>{{ text?.attrs.front.title ?? bracket.name }}</b>
      <span class="quiet">{{
        text ? ` ${text.attrs.front.kind}, live: it follows changes of the block` : ' unknown'
      }}</span>
    </p>
    <p v-if="!text" class="error">There is no block “{{ bracket.name }}”.</p>
    <p v-for="(line, index) in lines" :key="index" class="quiet small line">{{ line }}</p>
    <ul v-if="joined.length > 0" class="rows" aria-label="Its variables">
      <li v-for="{ variable, how, clash } in joined" :key="variable.key" class="variable">
        <TypeMark :type="variable.type" />{{ variable.label ?? labelFromKey(variable.key) }}
        <span class="small" :class="clash ? 'error' : 'quiet'">{{ how }}</span>
      </li>
    </ul>
    <p v-if="inner.length > 0" class="quiet small">It includes {{ inner.join(', ') }}.</p>
    <p class="acts">
      <PushButton v-if="text && passages.mayOpen(bracket)" @click="passages.openBlock(bracket)"
        >Edit it here</PushButton
      >
      <PushButton v-if="text" @click="goThere">Open the block</PushButton>
      <PushButton v-if="text" @click="blocks.toCopy(bracket.from).catch(notice.fail)">Turn into a copy</PushButton>
      <PushButton kind="plain" @click="passages.takeOut(bracket)">Remove it</PushButton>
    </p>
  </div>
</template>

<style scoped>
.variable {
  display: flex;
  gap: 8px;
  align-items: center;
  font-size: 0.8125rem;
  padding: 3px 0;
}
.line {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
