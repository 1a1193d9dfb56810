<script setup lang="ts">
/** Where the pointed words come from: the variable and what gave it, the blocks, and why each condition holds. */
import PushButton from '../../ui/controls/PushButton.vue';
import type { Explanation, Given } from '@vocabula/core/proof';
import { computed } from 'vue';
import { useProofing } from '../table/useProofing';

const props = defineProps<{ words: string; explanation: Explanation | undefined }>();
defineEmits<{ step: [by: number] }>();
const proofing = useProofing();
const titleOf = (name: string): string =>
  proofing.texts.find((text) => text.name === name)?.document.attrs.front.title ?? name;
const chain = computed(() => props.explanation?.blocks.map(titleOf) ?? []);
const inputs = (given: Given): readonly Given[] => given.inputs ?? [];
</script>

<template>
  <section class="origin" aria-label="Where this comes from">
    <header>
      <h2>Where this comes from</h2>
      <PushButton kind="plain" aria-label="Words before" @click="$emit('step', -1)">‹</PushButton>
      <PushButton kind="plain" aria-label="Words after" @click="$emit('step', 1)">›</PushButton>
    </header>
    <template v-if="explanation">
      <blockquote>{{ words.trim().slice(0, 160) || '(a space)' }}</blockquote>
      <dl>
        <template v-if="explanation.variable">
          <dt>Placeholder</dt>
          <dd>
            <b>{{ explanation.variable.label }}</b>, {{ explanation.variable.source }}
            <ul v-if="inputs(explanation.variable).length" class="inputs">
              <li v-for="each in inputs(explanation.variable)" :key="each.name">
                {{ each.label }}: {{ each.words || 'empty' }} <span class="quiet">({{ each.source }})</span>
              </li>
            </ul>
          </dd>
        </template>
        <template v-else>
          <dt>Words</dt>
          <dd>written in the {{ explanation.blocks.length ? 'block' : 'text' }}</dd>
        </template>
        <template v-if="explanation.wordingOf">
          <dt>Option</dt>
          <dd>
            <b>{{ explanation.wordingOf.label }}: {{ explanation.wordingOf.words }}</b
            >, {{ explanation.wordingOf.source }}
          </dd>
        </template>
        <template v-if="chain.length">
          <dt>Blocks</dt>
          <dd>{{ chain.join(' › ') }}</dd>
        </template>
        <template v-if="explanation.conditions.length">
          <dt>Kept because</dt>
          <dd>
            <div v-for="(condition, at) in explanation.conditions" :key="at" class="condition">
              <b>{{ condition.label }}</b>
              <div v-for="given in condition.because" :key="given.name">
                {{ given.label }}: {{ given.words || 'empty' }} <span class="quiet">({{ given.source }})</span>
                <ul v-if="inputs(given).length" class="inputs">
                  <li v-for="each in inputs(given)" :key="each.name">
                    {{ each.label }}: {{ each.words || 'empty' }} <span class="quiet">({{ each.source }})</span>
                  </li>
                </ul>
                <span v-if="given.inWords" class="quiet">asked: {{ given.inWords }}</span>
                <code v-else-if="given.expression" class="quiet">{{ given.expression }}</code>
              </div>
            </div>
          </dd>
        </template>
      </dl>
      <RouterLink :to="{ name: 'write', params: { name: explanation.text }, query: { at: explanation.path.join('.') } }"
        >Go to this place in the manuscript</RouterLink
      >
    </template>
    <p v-else class="quiet">Point at any words of the message; press them to go to their place in the manuscript.</p>
  </section>
</template>

<style scoped>
.origin {
  padding: 16px;
  overflow: auto;
  font-size: 0.8125rem;
  display: grid;
  gap: 10px;
  align-content: start;
}
header {
  display: flex;
  align-items: center;
  gap: 4px;
}
header h2 {
  flex: 1;
}
header button {
  height: 24px;
}
blockquote {
  margin: 0;
  padding: 6px 10px;
  background: var(--selected);
  overflow-wrap: anywhere;
}
dl {
  margin: 0;
  display: grid;
  grid-template-columns: 84px minmax(0, 1fr);
  gap: 8px;
}
dt {
  color: var(--quiet);
}
dd {
  margin: 0;
  overflow-wrap: anywhere;
}
.inputs {
  margin: 4px 0;
  padding: 0 0 0 12px;
  list-style: none;
  border-left: 1px solid var(--hair);
}
.condition + .condition {
  margin-top: 8px;
}
code {
  font-size: 0.75rem;
}
b {
  font-weight: 600;
}
</style>
