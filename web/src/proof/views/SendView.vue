<script setup lang="ts">
/** Proofs by mail: to oneself or a typed address, for one, several or all; and what the stand-in has taken. */
import RadioButton from 'primevue/radiobutton';
import PickOne from '../../ui/controls/PickOne.vue';
import InputText from 'primevue/inputtext';
import PushButton from '../../ui/controls/PushButton.vue';
import type { Letter, LetterSummary } from '@vocabula/contract';
import { computed, onMounted, ref, shallowRef } from 'vue';
import { useRoute } from 'vue-router';
import { api } from '../../api/client';
import { useMe } from '../../ui/me';
import { useNotice } from '../../ui/notice';
import { whenInWords, zone } from '../../ui/today';
import { numbersIn } from '../table/numbers';
import type { Series } from '../table/protocol';
import { casesOf, useProofing } from '../table/useProofing';

/** As many as one sending takes. */
const MOST = 100;
const route = useRoute();
const me = useMe();
const notice = useNotice();
const proofing = useProofing();
const to = ref(me.profile.email);
const series = ref<Series>(
  (['recipients', 'hard', 'pairing'] as const).find((each) => each === route.query.series) ?? 'recipients',
);
const which = ref<'these' | 'all'>('these');
const typed = ref(String((Number(route.query.at ?? 0) || 0) + 1));
const busy = ref(false);
const letters = shallowRef<readonly LetterSummary[]>([]);
const letter = shallowRef<Letter>();

const all = computed(() => casesOf(proofing, series.value));
const numbers = computed(() =>
  which.value === 'all' ? all.value.cases.map((_, at) => at) : numbersIn(typed.value, all.value.cases.length),
);
const addresses = computed(() =>
  to.value
    .split(/[,;\n]/)
    .map((each) => each.trim())
    .filter(Boolean),
);
const why = computed(() => {
  if (addresses.value.length === 0) return 'Enter a recipient.';
  if (numbers.value === undefined) return `Numbers from 1 to ${all.value.cases.length}, such as 1-3, 7.`;
  if (numbers.value.length === 0) return 'No messages chosen.';
  return numbers.value.length > MOST ? `${MOST} at most are sent at once.` : '';
});

async function load(): Promise<void> {
  try {
    letters.value = await api.letters();
  } catch (problem) {
    notice.fail(problem);
  }
}
onMounted(async () => {
  await me.load().catch(() => undefined);
  to.value ||= me.profile.email;
  await load();
});
async function send(): Promise<void> {
  const meant = numbers.value ?? [];
  busy.value = true;
  try {
    const fillings = await proofing.fillings(meant.map((at) => ({ series: series.value, at })));
    const cases = meant.flatMap((at, index) => {
      const filling = fillings[index];
      const label = (all.value.cases[at]?.label ?? '').slice(0, 200);
      return filling ? [{ label, recipient: { ...filling.recipient }, answers: { ...filling.answers } }] : [];
    });
    const { sent } = await api.sendProof(proofing.name, { to: addresses.value, cases, timezone: zone() });
    notice.say(`${sent === 1 ? 'One proof' : `${sent} proofs`} sent to ${addresses.value.join(', ')}.`);
    await load();
  } catch (problem) {
    notice.fail(problem);
  } finally {
    busy.value = false;
  }
}
async function read(id: string): Promise<void> {
  try {
    letter.value = await api.letter(id);
  } catch (problem) {
    notice.fail(problem);
  }
}
</script>

<template>
  <div class="send">
    <form class="form" @submit.prevent="send">
      <h2>Send proofs</h2>
      <p class="quiet small">They go only to the addresses below; the subject begins with [Proof].</p>
      <label class="field"><span>To</span><InputText v-model="to" inputmode="email" /></label>
      <label class="field"
        ><span>Of</span
        ><PickOne v-model="series">
          <option value="recipients">recipients of {{ proofing.set?.title ?? 'the sample set' }}</option>
          <option value="hard">hard cases</option>
          <option value="pairing">every pairing</option>
        </PickOne></label
      >
      <fieldset>
        <legend class="small quiet">Which</legend>
        <label><RadioButton v-model="which" name="which" value="these" /> the messages numbered</label>
        <InputText
          v-model="typed"
          class="numbers"
          :disabled="which === 'all'"
          aria-label="Numbers of messages"
          placeholder="1-3, 7"
        />
        <label><RadioButton v-model="which" name="which" value="all" /> all {{ all.cases.length }}</label>
      </fieldset>
      <p v-if="why" class="small warning" role="status">{{ why }}</p>
      <p v-else class="small quiet" role="status">
        {{
          numbers
            ?.slice(0, 4)
            .map((at) => all.cases[at]?.label)
            .join(', ')
        }}{{ (numbers?.length ?? 0) > 4 ? ' …' : '' }}
      </p>
      <PushButton kind="main" type="submit" :disabled="busy || why !== ''">
        Send {{ numbers?.length === 1 ? 'the proof' : `${numbers?.length ?? 0} proofs` }}
      </PushButton>
    </form>
    <section class="taken" aria-label="Taken by the stand-in">
      <h2>Taken by the stand-in</h2>
      <p class="quiet small">No mail service is set up: mail stays here and is not sent.</p>
      <p v-if="letters.length === 0" class="quiet none">Nothing yet.</p>
      <ul class="rows">
        <li v-for="each in letters" :key="each.id">
          <button class="row" :aria-current="letter?.id === each.id" @click="read(each.id)">
            {{ each.subject || 'no subject' }}
            <span class="quiet small">to {{ each.recipients.join(', ') }} · {{ whenInWords(each.at) }}</span>
          </button>
        </li>
      </ul>
    </section>
    <div class="reading">
      <article v-if="letter" class="sheet letter">
        <p class="subject">{{ letter.subject }}</p>
        <iframe class="frame" sandbox="" :srcdoc="letter.html" title="Letter" />
      </article>
    </div>
  </div>
</template>

<style scoped>
.send {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: 320px 320px minmax(0, 1fr);
}
.form,
.taken {
  border-right: 1px solid var(--hair);
  padding: 16px 20px;
  overflow: auto;
}
.form {
  display: grid;
  gap: 12px;
  align-content: start;
}
.taken {
  padding: 16px 0;
}
.taken > h2,
.taken > p {
  padding: 0 16px;
}
fieldset {
  border: 0;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 6px;
}
.numbers {
  margin-left: 24px;
  max-width: 180px;
}
.form .main {
  justify-self: start;
}
.row span {
  display: block;
}
.reading {
  padding: 16px;
  min-height: 0;
  overflow: auto;
}
.letter {
  height: 100%;
  min-height: 320px;
  display: flex;
  flex-direction: column;
  padding: 16px 24px;
}
.subject {
  font-weight: 600;
  margin-bottom: 12px;
}
.frame {
  flex: 1;
  border: 0;
  width: 100%;
  min-height: 0;
}
.none {
  padding: 12px 16px;
}
@media (max-width: 1099px) {
  .send {
    grid-template-columns: 1fr 1fr;
    overflow: auto;
  }
  .reading {
    grid-column: 1 / -1;
    min-height: 360px;
  }
}
@media (max-width: 699px) {
  .send {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
