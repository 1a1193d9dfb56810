<script setup lang="ts">
/** How one message reads in each family of mail programs, beside the original or beside another family. */
import PickOne from '../../ui/controls/PickOne.vue';
import PushButton from '../../ui/controls/PushButton.vue';
import { FAMILIES, FAMILY_WORDS, shareOf, type Arrival, type Family, type Loss } from '@vocabula/core/arrives';
import { computed, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import ArrivalSheet from '../parts/ArrivalSheet.vue';
import RecipientBar from '../parts/RecipientBar.vue';
import { levelled } from '../parts/levelled';
import { useMade } from '../parts/useShown';
import type { Which } from '../table/protocol';
import { useProofing } from '../table/useProofing';

/** Places of a loss that are named. */
const PLACES_NAMED = 3;

const route = useRoute();
const router = useRouter();
const proofing = useProofing();

const count = computed(() => Math.max(1, proofing.recipients.cases.length));
const at = computed(() => Math.min(count.value - 1, Math.max(0, Number(route.query.at ?? 0) || 0)));
const which = computed((): Which => ({ series: 'recipients', at: at.value }));
const family = computed(() => FAMILIES.find((each) => each === route.query.family) ?? 'inline');
const beside = computed(() => FAMILIES.find((each) => each === route.query.beside));
const made = useMade(
  (now) => proofing.arrivals(now, [family.value, beside.value ?? family.value]),
  which,
  computed(() => proofing.recipients.sheets[at.value]),
  family,
  beside,
);
const arrivalOf = (wanted: Family): Arrival | undefined => made.value?.arrivals.find((each) => each.family === wanted);
const arrival = computed(() => arrivalOf(family.value));
const besideArrival = computed(() => arrivalOf(beside.value ?? family.value));
const put = (query: Record<string, string | undefined>): void =>
  void router.replace({ query: { ...route.query, ...query } });
function step(by: number): void {
  put({ at: String((at.value + by + count.value) % count.value) });
}
/** The family before or after the one that is shown. */
function stepFinding(by: number): void {
  const next = FAMILIES[(FAMILIES.indexOf(family.value) + by + FAMILIES.length) % FAMILIES.length];
  put({ family: next });
}
defineExpose({ step, stepFinding });

const lossesIn = (each: Family): number => made.value?.losses[each] ?? 0;
function lossWords(each: Family): string {
  const number = lossesIn(each);
  return number === 0 ? 'nothing lost' : `${number} ${number === 1 ? 'loss' : 'losses'}`;
}
/** Where it is lost, by the first words there. */
function placesOf({ places }: Loss): string {
  const named = places.filter((words) => words !== '').slice(0, PLACES_NAMED);
  if (named.length === 0) return 'in the whole message';
  const more = places.length - named.length;
  return `“${named.join('”, “')}”${more > 0 ? ` and ${more} more` : ''}`;
}
const shareWords = computed(() => {
  const share = shareOf(family.value);
  return share ? `${share.programs} of ${share.tested} tested programs are of this family.` : '';
});
const label = computed(() => proofing.recipients.cases[at.value]?.label ?? 'no sample recipient');

// Both pages, level with each other.
let pages: { readonly left?: Document; readonly right?: Document } = {};
function shown(side: 'left' | 'right', page: Document): void {
  pages = { ...pages, [side]: page };
  const { left, right } = pages;
  if (left && right) levelled(left, right);
}
watch([arrival, besideArrival], () => (pages = {}));
</script>

<template>
  <div class="arrives">
    <RecipientBar :at="at" :count="count" :label="label" @step="step">
      <label class="small right"
        ><span class="quiet">Compare with </span
        ><PickOne
          :model-value="beside ?? ''"
          aria-label="Compare with"
          @update:model-value="put({ beside: $event || undefined })"
        >
          <option value="">the original</option>
          <option v-for="each in FAMILIES" :key="each" :value="each">{{ FAMILY_WORDS[each].name }}</option>
        </PickOne></label
      >
    </RecipientBar>
    <nav class="families" aria-label="Families of mail programs">
      <PushButton
        kind="plain"
        v-for="each in FAMILIES"
        :key="each"
        class="family"
        :aria-pressed="family === each"
        @click="put({ family: each })"
      >
        <b>{{ FAMILY_WORDS[each].name }}</b>
        <span class="small quiet">{{ FAMILY_WORDS[each].about }}</span>
        <span class="small" :class="{ some: lossesIn(each) > 0 }">{{ lossWords(each) }}</span>
      </PushButton>
    </nav>
    <div class="room" tabindex="0" aria-label="The message, and how it arrives">
      <template v-if="arrival && besideArrival">
        <section aria-label="Compared with">
          <h2>{{ beside ? FAMILY_WORDS[beside].name : 'The original' }}</h2>
          <ArrivalSheet
            :key="`${beside ?? 'original'} ${family}`"
            :arrival="besideArrival"
            :original="beside === undefined"
            :title="beside ? FAMILY_WORDS[beside].name : 'The original'"
            @shown="shown('left', $event)"
          />
        </section>
        <section aria-label="As it arrives">
          <h2>{{ FAMILY_WORDS[family].name }}</h2>
          <ArrivalSheet
            :key="family"
            :arrival="arrival"
            :title="FAMILY_WORDS[family].name"
            @shown="shown('right', $event)"
          />
        </section>
        <section class="losses" aria-label="What is lost">
          <h2>{{ arrival.losses.length === 0 ? 'Nothing is lost.' : 'What is lost' }}</h2>
          <ol>
            <li v-for="loss in arrival.losses" :key="loss.number">
              <b>{{ loss.number }}</b>
              <span>
                {{ loss.what }}<template v-if="loss.instead">: {{ loss.instead }}</template>
                <span class="quiet">&ensp;{{ placesOf(loss) }}</span>
              </span>
            </li>
          </ol>
          <p v-if="shareWords" class="small quiet">{{ shareWords }}</p>
        </section>
      </template>
    </div>
  </div>
</template>

<style scoped>
.arrives {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template: 36px minmax(0, 1fr) / 216px minmax(0, 1fr);
}
.p-select {
  width: 216px;
  height: 28px;
}
.families {
  overflow: auto;
  border-right: 1px solid var(--hair);
  padding: 8px 0;
}
.family {
  display: grid;
  gap: 0;
  width: 100%;
  height: auto;
  padding: 8px 16px;
  text-align: left;
  grid-template-columns: minmax(0, 1fr);
  justify-items: start;
  align-content: start;
  border-left: 3px solid transparent;
  border-radius: 0;
}
.family b {
  font-weight: 600;
}
.family span {
  white-space: normal;
}
.family[aria-pressed='true'] {
  background: var(--selected);
  border-left-color: var(--action);
}
.some {
  color: var(--warning);
}
.room {
  overflow: auto;
  padding: 16px;
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 8px 16px;
  align-content: start;
}
h2 {
  font-size: 0.8125rem;
  font-weight: 600;
  margin: 0 0 8px;
}
.losses {
  grid-column: 1 / -1;
  padding: 8px 0 16px;
}
.losses ol {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 4px;
}
.losses li {
  display: flex;
}
.losses b {
  flex: none;
  width: 24px;
  color: var(--warning);
}
@media (max-width: 1099px) {
  .arrives {
    grid-template: auto auto minmax(320px, 1fr) / minmax(0, 1fr);
    overflow: auto;
  }
  .families {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(200px, 1fr));
    border-right: 0;
    border-bottom: 1px solid var(--hair);
  }
}
@media (max-width: 699px) {
  .families {
    display: flex;
  }
  .family {
    flex: 0 0 192px;
  }
  .room {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
