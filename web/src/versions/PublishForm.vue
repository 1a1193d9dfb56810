<script setup lang="ts">
/** The note, the time, and what stands against publishing. */
import RadioButton from 'primevue/radiobutton';
import Textarea from 'primevue/textarea';
import CheckedForm from '../ui/controls/CheckedForm.vue';
import FieldRow from '../ui/controls/FieldRow.vue';
import PushButton from '../ui/controls/PushButton.vue';
import type { Remark, Standing } from '@vocabula/contract';
import { publishSchema } from '@vocabula/contract/forms';
import type { Finding } from '@vocabula/core';
import { computed, ref, useTemplateRef } from 'vue';
import MomentField from '../ui/dates/MomentField.vue';
import { showMoment } from '../ui/dates/reader';

const props = defineProps<{
  standing: Standing;
  findings: readonly Finding[];
  remarks: readonly Remark[];
  /** Publishes with the note, or asks for it; a failure is shown in the form. */
  send: (note: string) => Promise<void>;
  command: string;
}>();
const form = useTemplateRef<{ submit(): void }>('form');
const schema = publishSchema.pick({ note: true });
/** Who asked has said what is new. */
const note = props.standing.requests.find(({ state }) => state === 'open')?.note ?? '';
/** A local moment, as its control gives it; `T` while it has no parts yet, empty for now. */
const at = defineModel<string>('at', { required: true });
const later = ref(false);

const errors = computed(() => props.findings.filter(({ level }) => level === 'error'));
const others = computed(() => props.findings.filter(({ level }) => level !== 'error'));
const waiting = computed(() => props.standing.timed.find(({ state }) => state === 'waiting'));
const next = computed(() => (props.standing.versions[0]?.number ?? 0) + 1);
/** The next full hour, as something to begin from. */
function soon(): string {
  const date = new Date(Date.now() + 3_600_000);
  date.setMinutes(0 - date.getTimezoneOffset(), 0, 0);
  return date.toISOString().slice(0, 16);
}
function choose(when: 'now' | 'later'): void {
  later.value = when === 'later';
  at.value = later.value ? at.value || soon() : '';
}
defineExpose({ submit: () => form.value?.submit() });
const words = computed(() => {
  if (!props.standing.mayPublish) return 'Ask to publish';
  return later.value ? 'Publish then' : `Publish as version ${next.value}`;
});
</script>

<template>
  <CheckedForm
    ref="form"
    v-slot="{ problemOf, busy }"
    class="form"
    :schema="schema"
    :initial="{ note }"
    :send="(given) => send(given.note)"
  >
    <p v-if="!standing.changed" class="quiet">
      No changes since version {{ standing.published?.number }}, which colleagues use.
    </p>
    <p v-if="!standing.mayPublish" class="quiet">
      {{ standing.whyNot ?? 'You write here; others publish. What you ask goes to those who may, with the findings.' }}
    </p>
    <FieldRow v-slot="{ id, describedBy }" label="What is new, in a line" :problem="problemOf('note')"
      ><Textarea
        :id="id"
        name="note"
        rows="3"
        maxlength="2000"
        autofocus
        placeholder="The fee from April is in."
        :aria-describedby="describedBy"
    /></FieldRow>
    <fieldset v-if="standing.mayPublish">
      <legend class="small quiet">When</legend>
      <label><RadioButton name="when" :value="true" :model-value="!later" @change="choose('now')" /> Now</label>
      <label><RadioButton name="when" :value="true" :model-value="later" @change="choose('later')" /> At a time</label>
      <MomentField
        v-if="later"
        class="moment"
        label="Publish at"
        :model-value="at"
        @update:model-value="at = $event || 'T'"
      />
      <p v-if="waiting" class="small warning">
        ‸ This replaces the publication planned for {{ showMoment(waiting.due, 'words') }}.
      </p>
    </fieldset>
    <section v-if="errors.length" aria-label="Errors">
      <h2 class="error">⚠ {{ errors.length }} {{ errors.length === 1 ? 'error stops' : 'errors stop' }} it</h2>
      <ul>
        <li v-for="(finding, index) in errors" :key="index" class="small">{{ finding.message }}</li>
      </ul>
      <RouterLink class="small" :to="{ name: 'write', params: { name: standing.name } }">Fix them in Write</RouterLink>
    </section>
    <section v-if="remarks.length" aria-label="Open remarks">
      <h2 class="warning">‸ {{ remarks.length }} open {{ remarks.length === 1 ? 'remark' : 'remarks' }}</h2>
      <ul>
        <li v-for="remark in remarks" :key="remark.id" class="small">
          “{{ remark.quote.exact.slice(0, 60) }}”: {{ remark.body }} <span class="quiet">{{ remark.who }}</span>
        </li>
      </ul>
    </section>
    <details v-if="others.length" class="others">
      <summary class="small">
        {{ others.length }} {{ others.length === 1 ? 'warning or note' : 'warnings and notes' }}
      </summary>
      <ul>
        <li v-for="(finding, index) in others" :key="index" class="small">{{ finding.message }}</li>
      </ul>
    </details>
    <p v-else-if="!errors.length" class="small quiet">No findings.</p>
    <PushButton kind="main" type="submit" :disabled="busy || errors.length > 0">
      {{ words }} <kbd>{{ command }} Enter</kbd>
    </PushButton>
  </CheckedForm>
</template>

<style scoped>
.form {
  padding: 20px 24px 32px 16px;
  overflow: auto;
  display: grid;
  gap: 16px;
  align-content: start;
}
fieldset {
  border: 0;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: auto auto 1fr;
  gap: 6px 16px;
}
legend {
  padding: 0 0 4px;
}
fieldset > .moment,
fieldset > p {
  grid-column: 1 / -1;
}
ul {
  margin: 4px 0 0;
  padding-left: 18px;
  display: grid;
  gap: 4px;
}
.main {
  justify-self: start;
}
@media (max-width: 899px) {
  .form {
    padding: 16px;
    overflow: visible;
  }
}
</style>
