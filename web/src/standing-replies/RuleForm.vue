<script setup lang="ts">
/** One rule: which mail it answers, with what, where the values come from, and what happens. */
import type { StandingReply, StandingRule, TriedStanding } from '@vocabula/contract';
import { MAIL_VARIABLES } from '@vocabula/core/standing-replies';
import InputText from 'primevue/inputtext';
import RadioButton from 'primevue/radiobutton';
import { computed } from 'vue';
import ConditionBuilder from '../ui/condition/ConditionBuilder.vue';
import { labelFromKey } from '@vocabula/core';
import type { Named } from '../ui/condition/names';
import FieldRow from '../ui/controls/FieldRow.vue';
import PickOne from '../ui/controls/PickOne.vue';
import PushButton from '../ui/controls/PushButton.vue';
import TickBox from '../ui/controls/TickBox.vue';
import WholeField from '../ui/dates/WholeField.vue';
import { useTexts } from '../ui/stores/lists';
import { MOST_STANDING } from '@vocabula/contract/constants';
import { ACTS } from './standingWords';
import ValueSources from './ValueSources.vue';

const { rule, standing, tried } = defineProps<{
  rule: StandingRule;
  standing: StandingReply;
  tried: TriedStanding | undefined;
  /** How far it is kept, in words. */
  keeping: string;
}>();
const emit = defineEmits<{ change: [more: Partial<StandingRule>]; switch: [to: 'on' | 'off']; putAway: [] }>();
const texts = useTexts();
void texts.load().catch(() => undefined);
const templates = computed(() =>
  texts.messages
    .filter(({ offered }) => offered)
    .map(({ name, title }) => ({ value: name, words: title }))
    .toSorted((a, b) => a.words.localeCompare(b.words)),
);
const NAMES: readonly Named[] = MAIL_VARIABLES.map((variable) => ({
  name: variable.key,
  label: variable.label ?? labelFromKey(variable.key),
  group: 'mail',
  variable,
}));
const problems = computed(() =>
  standing.problem !== '' && rule.when !== '' && rule.when === standing.rule.when
    ? [{ offset: 0, length: rule.when.length, message: standing.problem }]
    : [],
);
const comes = computed(() => {
  const trial = tried?.standing.trial;
  return trial ? `holds for ${trial.answered + trial.held} of ${trial.looked}` : '';
});
/** Why it cannot be switched on yet; empty where it can. */
const notYet = computed(() => {
  const { trial } = standing;
  if (standing.on) return '';
  if (standing.problem !== '' || rule.text === '') return 'It needs a condition and a template.';
  if (!trial?.current) return 'It is tried on the past first.';
  if (trial.stillWrong > 0) return 'It still answers what you marked as wrong.';
  return '';
});
const count = (value: string, otherwise: number): number => Math.round(Number(value)) || otherwise;
</script>

<template>
  <form class="form" aria-label="The rule" @submit.prevent>
    <label class="field"
      ><span>Called</span
      ><InputText
        :model-value="rule.title"
        maxlength="120"
        @change="emit('change', { title: ($event.target as HTMLInputElement).value.trim() || rule.title })"
    /></label>
    <fieldset>
      <legend>It answers mail where</legend>
      <ConditionBuilder
        :model-value="rule.when"
        :names="NAMES"
        :problems="problems"
        :value="undefined"
        :comes="comes"
        @update:model-value="emit('change', { when: $event })"
      />
    </fieldset>
    <FieldRow v-slot="{ id, labelledBy }" label="With the template">
      <PickOne
        :input-id="id"
        :labelled-by="labelledBy"
        :model-value="rule.text"
        :options="templates"
        @update:model-value="emit('change', { text: $event, values: {} })"
        ><option value="" disabled>choose…</option></PickOne
      >
    </FieldRow>
    <ValueSources
      v-if="rule.text"
      :key="rule.text"
      :text="rule.text"
      :values="rule.values"
      @change="emit('change', { values: $event })"
    />
    <fieldset>
      <legend>And then</legend>
      <label v-for="each in ACTS" :key="each.act" class="act"
        ><RadioButton
          name="does"
          :value="each.act"
          :model-value="rule.does"
          @update:model-value="emit('change', { does: each.act })"
        /><span
          >{{ each.words }}<br /><span class="quiet small">{{ each.says }}</span></span
        ></label
      >
      <div v-if="rule.does !== 'suggest'" class="limits">
        <label
          >Once a sender in
          <WholeField
            type="number"
            aria-label="Days until one sender is answered again"
            :bounds="[1, 365]"
            :model-value="String(rule.everyDays)"
            @update:model-value="emit('change', { everyDays: count($event, rule.everyDays) })"
          />
          days</label
        >
        <template v-if="rule.does === 'send'">
          <label
            >At most
            <WholeField
              type="number"
              aria-label="The most it sends a day"
              :bounds="[1, MOST_STANDING]"
              :model-value="String(rule.mostADay)"
              @update:model-value="emit('change', { mostADay: count($event, rule.mostADay) })"
            />
            a day, then it goes off</label
          >
          <label
            ><TickBox :checked="rule.hours" @change="emit('change', { hours: $event })" /> within my working
            hours</label
          >
        </template>
      </div>
      <p class="quiet small">
        Never to programs, mailing lists, yourself or addresses on the do-not-write list, and never with something
        missing.
      </p>
    </fieldset>
    <p v-if="standing.why" class="warning small">‸ {{ standing.why }}</p>
    <p class="acts">
      <PushButton v-if="standing.on" @click="emit('switch', 'off')">Switch it off</PushButton>
      <PushButton v-else kind="main" :disabled="notYet !== ''" aria-describedby="not-yet" @click="emit('switch', 'on')"
        >Switch it on</PushButton
      >
      <span id="not-yet" class="quiet small">{{ notYet || keeping }}</span>
      <PushButton kind="plain" class="right" @click="emit('putAway')">Put away</PushButton>
    </p>
  </form>
</template>

<style scoped>
.form {
  padding: 16px 20px 0;
  display: grid;
  gap: 16px;
  grid-template-columns: minmax(0, 1fr);
}
fieldset {
  border: 0;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 8px;
  min-width: 0;
}
legend {
  padding: 0;
  margin-bottom: 6px;
  font-size: 0.8125rem;
  color: var(--quiet);
}
.act {
  display: flex;
  gap: 8px;
  align-items: flex-start;
}
.limits {
  display: grid;
  gap: 6px;
  padding-left: 28px;
}
.limits :deep(input[type='text']),
.limits :deep(.p-inputtext) {
  width: 56px;
}
.acts {
  display: flex;
  gap: 12px;
  align-items: center;
  position: sticky;
  bottom: 0;
  margin: 0 -20px;
  padding: 10px 20px;
  background: var(--table);
  z-index: 2;
  border-top: 1px solid var(--hair);
}
</style>
