<script setup lang="ts">
/** What can be done with a message that is a draft, waits, may have gone, or went. */
import PushButton from '../ui/controls/PushButton.vue';
import type { ChangeOutgoing, OutgoingSummary } from '@vocabula/contract';
import { computed } from 'vue';
import { api } from '../api/client';
import LaterForm from '../fill/LaterForm.vue';
import { useMe } from '../ui/me';
import { showMoment } from '../ui/dates/reader';
import { useNotice } from '../ui/notice';

const props = defineProps<{ outgoing: OutgoingSummary }>();
const emit = defineEmits<{ changed: [] }>();
const me = useMe();
const notice = useNotice();
const when = computed(() => showMoment(props.outgoing.goneAt ?? props.outgoing.due, 'words'));
async function change(body: ChangeOutgoing, words: string): Promise<void> {
  try {
    await api.changeOutgoing(props.outgoing.id, body);
    notice.say(words);
    emit('changed');
  } catch (problem) {
    notice.fail(problem);
  }
}
const counted = computed(() => Object.entries(props.outgoing.counts));
</script>

<template>
  <aside class="acts" aria-label="Sending">
    <template v-if="outgoing.state === 'draft'">
      <h2>A draft</h2>
      <PushButton kind="main" @click="change({ act: 'now' }, 'It is being sent.')">Send now</PushButton>
      <LaterForm :hours="me.ways" @at="(due) => change({ due }, 'It waits for its time to be sent.')" />
    </template>
    <template v-else-if="outgoing.state === 'waiting'">
      <h2>Goes {{ when }}</h2>
      <p v-if="outgoing.attempts" class="quiet small">Tried {{ outgoing.attempts }} times. {{ outgoing.why }}</p>
      <PushButton @click="change({ act: 'take back' }, 'Taken back: it is an unfinished message again.')">
        Take it back
      </PushButton>
      <PushButton @click="change({ act: 'now' }, 'It is being sent.')">Send now</PushButton>
      <LaterForm :hours="me.ways" @at="(due) => change({ due }, 'Time changed.')" />
    </template>
    <template v-else-if="outgoing.state === 'uncertain'">
      <h2 class="warning">‸ It may have been sent</h2>
      <p class="small">{{ outgoing.why }}</p>
      <p class="small">Ask {{ outgoing.name || outgoing.address }}, or check the log of the mail service.</p>
      <PushButton @click="change({ act: 'arrived' }, 'Noted as sent.')">It arrived</PushButton>
      <PushButton @click="change({ act: 'again' }, 'It is sent again.')">Send it again</PushButton>
    </template>
    <template v-else-if="outgoing.state === 'refused'">
      <h2 class="error">⚠ It was refused</h2>
      <p class="small">{{ outgoing.why }}</p>
      <PushButton @click="change({ act: 'again' }, 'It is tried again.')">Try again</PushButton>
      <PushButton @click="change({ act: 'take back' }, 'Taken back: it is an unfinished message again.')">
        Take it back
      </PushButton>
    </template>
    <template v-else>
      <h2>Sent {{ when }}</h2>
      <p v-if="outgoing.why" class="warning small">‸ {{ outgoing.why }}</p>
      <ul v-if="counted.length" class="small">
        <li v-for="[what, number] in counted" :key="what">{{ what }}{{ number > 1 ? `, ${number} times` : '' }}</li>
      </ul>
      <p v-else-if="!me.who?.workspace.counting" class="quiet small">Openings and links are not counted here.</p>
    </template>
    <RouterLink v-if="outgoing.fill" :to="{ name: 'filling', params: { id: outgoing.fill } }"
      >The message in Fill</RouterLink
    >
    <RouterLink v-if="outgoing.mailing" :to="{ name: 'many', params: { id: outgoing.mailing } }"
      >Its mailing</RouterLink
    >
    <RouterLink v-if="outgoing.address" :to="{ name: 'recipients', params: { address: outgoing.address } }"
      >All messages to this person</RouterLink
    >
  </aside>
</template>

<style scoped>
.acts {
  display: flex;
  flex-direction: column;
  align-items: flex-start;
  gap: 8px;
}
ul {
  margin: 0;
  padding-left: 16px;
}
</style>
