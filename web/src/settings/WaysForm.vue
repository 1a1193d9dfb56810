<script setup lang="ts">
/** How somebody hands over, found out by trying it once: copy a test, paste it, say what arrived. */
import RadioButton from 'primevue/radiobutton';
import TickBox from '../ui/controls/TickBox.vue';
import PushButton from '../ui/controls/PushButton.vue';
import Textarea from 'primevue/textarea';
import type { HandOverWays } from '@vocabula/contract';
import { waysSchema } from '@vocabula/contract/forms';
import { ref } from 'vue';
import CheckedForm from '../ui/controls/CheckedForm.vue';
import FieldRow from '../ui/controls/FieldRow.vue';
import WholeField from '../ui/dates/WholeField.vue';
import { useMe } from '../ui/me';
import { useNotice } from '../ui/notice';
import PartHead from './PartHead.vue';
import { arrivedOf, lossWords, TEST_HTML, TEST_TEXT, waysFor } from './handOverTest';

const me = useMe();
const notice = useNotice();
const ways = ref<HandOverWays>({ ...me.ways });
const copied = ref(false);
const found = ref('');
const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];

async function copyTest(): Promise<void> {
  try {
    const part = (type: string, words: string): Blob => new Blob([words], { type });
    await navigator.clipboard.write([
      new ClipboardItem({ 'text/html': part('text/html', TEST_HTML), 'text/plain': part('text/plain', TEST_TEXT) }),
    ]);
    copied.value = true;
    notice.say('The test is copied. Paste it into a new mail.');
  } catch {
    notice.fail(new Error('The browser did not allow copying. Allow the clipboard for this page.'));
  }
}
/** What was pasted back from the mail program answers the questions below. */
async function pastedBack({ clipboardData }: ClipboardEvent): Promise<void> {
  const arrived = await arrivedOf(clipboardData?.getData('text/html') ?? '');
  ways.value = { ...ways.value, ...waysFor(arrived) };
  found.value = lossWords(arrived);
}
async function save(chosen: HandOverWays): Promise<void> {
  await me.saveWays({ ...chosen, tried: true });
  notice.say('Saved. Fill hands over in this way from now on.');
}
function toggleDay(day: number): void {
  const { days } = ways.value;
  ways.value.days = days.includes(day) ? days.filter((each) => each !== day) : [...days, day].sort();
}
</script>

<template>
  <CheckedForm v-slot="{ busy }" class="ways" :schema="waysSchema" :held="ways" :send="save">
    <PartHead title="Handing over" about="how messages get into your mail program; try it once" />
    <ol class="steps">
      <li><PushButton :class="{ main: !copied }" @click="copyTest">Copy a test</PushButton></li>
      <li>Start a new mail in your mail program and paste it.</li>
      <li>
        <label for="paste-back">Select what arrived, copy it, and paste it here:</label>
        <Textarea id="paste-back" rows="1" placeholder="Paste here" @paste.prevent="pastedBack" />
        <p v-if="found" class="found" role="status">{{ found }} The answers below are set to match.</p>
      </li>
    </ol>
    <fieldset>
      <legend>How did it arrive?</legend>
      <label><RadioButton v-model="ways.look" name="ways-look" value="house" /> In green Georgia, with a list</label>
      <label
        ><RadioButton v-model="ways.look" name="ways-look" value="structure" /> With a list and a bold word, in the
        program’s own look</label
      >
      <label><RadioButton v-model="ways.look" name="ways-look" value="plain" /> As plain text</label>
    </fieldset>
    <fieldset>
      <legend>The image</legend>
      <label><RadioButton v-model="ways.images" name="ways-images" :value="true" /> The green point is there</label>
      <label
        ><RadioButton v-model="ways.images" name="ways-images" :value="false" /> It is missing, or a broken image</label
      >
    </fieldset>
    <fieldset>
      <legend>Your signature</legend>
      <label
        ><RadioButton v-model="ways.signs" name="ways-signs" :value="false" /> My mail program adds none: use the one
        from here</label
      >
      <label
        ><RadioButton v-model="ways.signs" name="ways-signs" :value="true" /> My mail program adds one by itself</label
      >
    </fieldset>
    <fieldset>
      <legend>Subject and body</legend>
      <label
        ><RadioButton v-model="ways.order" name="ways-order" value="together" /> One press copies the body; the subject
        is typed or stays</label
      >
      <label
        ><RadioButton v-model="ways.order" name="ways-order" value="subject first" /> The first press copies the
        subject, the second the body</label
      >
    </fieldset>
    <fieldset>
      <legend>Working hours, for sending later</legend>
      <div class="hours">
        <FieldRow v-slot="{ id }" label="from"><WholeField :id="id" v-model="ways.from" type="time" /></FieldRow>
        <FieldRow v-slot="{ id }" label="to"><WholeField :id="id" v-model="ways.to" type="time" /></FieldRow>
      </div>
      <p class="days">
        <label v-for="(day, at) in DAYS" :key="day"
          ><TickBox :checked="ways.days.includes(at + 1)" @change="toggleDay(at + 1)" /> {{ day }}</label
        >
      </p>
    </fieldset>
    <PushButton type="submit" :class="{ main: copied }" :disabled="busy">Keep</PushButton>
  </CheckedForm>
</template>

<style scoped>
.ways {
  max-width: 640px;
  display: grid;
  gap: 16px;
  justify-items: start;
}
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
  display: grid;
  gap: 4px;
}
legend {
  font-weight: 600;
  padding: 0 0 4px;
}
.steps {
  margin: 0;
  padding: 0 0 0 20px;
  display: grid;
  gap: 12px;
}
.steps textarea {
  display: block;
  width: 320px;
  margin: 4px 0 0;
  resize: none;
}
.found {
  margin: 4px 0 0;
}
.hours,
.days {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  align-items: center;
}
.hours input {
  width: 112px;
}
</style>
