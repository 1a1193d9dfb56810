<script setup lang="ts">
/** The head of Write: the title, whether the working copy is kept, and what is about the whole text. */
import { vTip } from '../ui/controls/tip';
import PickOne from '../ui/controls/PickOne.vue';
import FieldRow from '../ui/controls/FieldRow.vue';
import InputText from 'primevue/inputtext';
import PushButton from '../ui/controls/PushButton.vue';
import { computed, defineAsyncComponent, ref } from 'vue';
import { useRoute } from 'vue-router';
import { standingInWords } from '../versions/useStanding';
import type { Desk } from './desk/useDesk';

/** Loaded when what is about the text is opened. */
const DayField = defineAsyncComponent(() => import('../ui/dates/DayField.vue'));
const about = ref(false);
/** Dates of a text, with what they say. */
const DATES = [
  ['review_by', 'Review by'],
  ['valid_from', 'Offered from'],
  ['valid_until', 'Offered until'],
] as const;
const route = useRoute();
const props = defineProps<{
  desk: Pick<
    Desk,
    'copy' | 'keep' | 'manuscript' | 'proof' | 'setFront' | 'signOff' | 'standing' | 'takeSignOff' | 'texts'
  >;
}>();
const { copy, texts, signOff } = props.desk;
const { front } = props.desk.manuscript;
/** The text from which one came here, to go back to. */
const back = computed(() => texts.value.find(({ name }) => name === route.query.from));
/** The proofing table, where the place of the caret lights up what it became. */
const toProof = computed(() => {
  const name = props.desk.copy.name.value;
  const path = props.desk.manuscript.level.value?.path;
  return {
    name: 'proof',
    params: { name, view: 'one' },
    query: { at: String(props.desk.proof.at.value), ...(path ? { place: `${name}.${path}` } : {}) },
  };
});
const { standing } = props.desk.standing;
/** Saved since it was published: known at once from what is kept, without asking anew. */
const where = computed(() => {
  const now = standing.value;
  if (!now) return '';
  const changed = now.changed || copy.revision.value > now.revision;
  return standingInWords({ ...now, changed });
});
const signatures = computed(() => texts.value.filter((text) => text.kind === 'signature' && !text.binned));
</script>

<template>
  <header class="head">
    <RouterLink v-if="back" class="small" :to="{ name: 'write', params: { name: back.name } }"
      >‹ {{ back.title }}</RouterLink
    >
    <h1>
      <InputText
        class="title"
        :model-value="front.title"
        aria-label="Title"
        @change="desk.setFront('title', ($event.target as HTMLInputElement).value)"
      />
    </h1>
    <span class="quiet small state" :class="{ error: copy.failed.value }" role="status">{{ copy.state.value }}</span>
    <RouterLink
      v-if="where"
      class="small quiet standing"
      :to="{ name: 'versions', params: { name: copy.name.value } }"
      v-tip="where"
      >{{ where }}</RouterLink
    >
    <details class="about right" @toggle="about = ($event.target as HTMLDetailsElement).open">
      <summary class="small">Details</summary>
      <div v-if="about" class="sheet about-sheet">
        <label class="field"
          ><span>Call word</span
          ><InputText
            :model-value="front.call ?? ''"
            maxlength="30"
            @change="desk.setFront('call', ($event.target as HTMLInputElement).value.toLowerCase())"
        /></label>
        <label v-if="front.kind === 'message'" class="field"
          ><span>Sent as</span
          ><PickOne :model-value="front.purpose ?? 'new'" @update:model-value="desk.setFront('purpose', $event)">
            <option value="new">new message</option>
            <option value="reply">reply</option>
            <option value="invitation">invitation</option>
          </PickOne></label
        >
        <label v-if="front.kind === 'message'" class="field"
          ><span>Signature</span
          ><PickOne :model-value="front.signature ?? ''" @update:model-value="desk.setFront('signature', $event)">
            <option value="">the sender’s own</option>
            <option value="none">none</option>
            <option v-for="text in signatures" :key="text.name" :value="text.name">{{ text.title }}</option>
          </PickOne></label
        >
        <p v-if="signOff.length > 0" class="small">
          <span class="warning">‸ It has a typed signature: “{{ signOff.join(', ').slice(0, 80) }}”.</span>
          <PushButton size="small" @click="desk.takeSignOff">Remove it</PushButton>
        </p>
        <label class="field"
          ><span>Language</span
          ><InputText
            :model-value="front.locale ?? ''"
            placeholder="en-GB"
            @change="desk.setFront('locale', ($event.target as HTMLInputElement).value)"
        /></label>
        <RouterLink class="small" :to="{ name: 'languages', params: { name: copy.name.value } }"
          >Versions in other languages</RouterLink
        >
        <label class="field"
          ><span>Owner</span
          ><InputText
            :model-value="front.owner ?? ''"
            placeholder="name@example.org"
            @change="desk.setFront('owner', ($event.target as HTMLInputElement).value)"
        /></label>
        <FieldRow v-for="[field, words] in DATES" :key="field" v-slot="{ id, labelledBy }" :label="words"
          ><DayField
            :id="id"
            :labelled-by="labelledBy"
            :model-value="front[field] ?? ''"
            @update:model-value="desk.setFront(field, $event)"
        /></FieldRow>
        <a class="small" :href="`/api/texts/${copy.name.value}/file`" download>Save as a file</a>
      </div>
    </details>
    <RouterLink v-if="front.kind === 'message'" v-slot="{ navigate }" :to="toProof" custom
      ><PushButton @click="desk.keep().then(() => navigate())">Proof</PushButton></RouterLink
    >
    <RouterLink
      v-if="front.kind === 'message' && standing?.published"
      v-slot="{ navigate }"
      :to="{ name: 'filling', params: { id: 'new' }, query: { template: copy.name.value } }"
      custom
      ><PushButton @click="desk.keep().then(() => navigate())">Fill</PushButton></RouterLink
    >
    <RouterLink v-slot="{ navigate }" :to="{ name: 'publish', params: { name: copy.name.value } }" custom
      ><PushButton kind="main" @click="desk.keep().then(() => navigate())">
        {{ standing && !standing.mayPublish ? 'Ask…' : 'Publish…' }}
      </PushButton></RouterLink
    >
  </header>
</template>

<style scoped>
h1 {
  flex: 0 1 auto;
  min-width: 120px;
  padding: 2px 0;
}
.title {
  font: 500 1.125rem/1.5rem var(--serif);
  border-color: transparent !important;
  background: transparent !important;
  padding: 2px 4px !important;
  width: auto !important;
  field-sizing: content;
  max-width: 100%;
  text-overflow: ellipsis;
}
.title:hover {
  border-color: var(--edge) !important;
}
.state {
  white-space: nowrap;
}
.state.error {
  white-space: normal;
  color: var(--error);
}
.standing {
  flex: 0 1 auto;
  min-width: 48px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.about {
  position: relative;
}
.about summary {
  cursor: pointer;
  color: var(--quiet);
}
.about-sheet {
  position: absolute;
  right: 0;
  top: 28px;
  width: 280px;
  padding: 16px;
  display: grid;
  gap: 12px;
  z-index: 8;
}
@media (max-width: 899px) {
  .about summary {
    max-width: 96px;
    overflow: hidden;
    white-space: nowrap;
    text-overflow: ellipsis;
  }
}
@media (max-width: 599px) {
  .head {
    flex-wrap: wrap;
    height: auto;
    min-height: 48px;
    padding: 6px 12px;
    gap: 4px 8px;
  }
}
</style>
