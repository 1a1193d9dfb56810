<script setup lang="ts">
/** Standing replies: on the left the rule, beside it the past mail it would have answered, and how. */
import { computed, onMounted, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import PushButton from '../ui/controls/PushButton.vue';
import NoticeLine from '../ui/NoticeLine.vue';
import { keepingWords } from '../ui/keeper';
import DecidedMails from './DecidedMails.vue';
import PastMails from './PastMails.vue';
import ReplyToMail from './ReplyToMail.vue';
import RuleForm from './RuleForm.vue';
import RuleList from './RuleList.vue';
import { useStandingReplies } from './useStandingReplies';

const route = useRoute();
const router = useRouter();
const id = computed(() => String(route.params.id ?? ''));
const {
  replies,
  problem,
  chosen,
  rule,
  keeping,
  load,
  change,
  drive,
  make,
  tried,
  trying,
  cannot,
  letter,
  message,
  mark,
} = useStandingReplies(id);
const show = (which: string): void => void router.replace({ name: 'standing', params: { id: which } });
onMounted(load);
watch(replies, (all) => {
  if (all && !all.some((each) => each.id === id.value)) show(all[0]?.id ?? '');
});
async function begin(): Promise<void> {
  const made = await make();
  if (made) show(made);
}
async function putAway(): Promise<void> {
  const gone = chosen.value;
  if (!gone) return;
  await drive(
    gone.id,
    'bin',
    `“${gone.rule.title}” is put away.`,
    () => void drive(gone.id, 'restore', 'It is back, and off.').then(() => show(gone.id)),
  );
}
const switchTo = (act: 'on' | 'off'): void =>
  void drive(id.value, act, act === 'on' ? 'On: it answers what comes from now on.' : 'Off: it answers nothing.');
</script>

<template>
  <div class="standing">
    <header class="head">
      <h1>Standing replies</h1>
      <span class="quiet small">For mail that is always answered the same way</span>
      <PushButton class="right" @click="begin">New standing reply</PushButton>
    </header>
    <main v-if="problem" class="empty">
      <p class="error">⚠ {{ problem }}</p>
    </main>
    <main v-else-if="replies && replies.length === 0" class="empty">
      <p class="quiet">There is none yet. New standing reply begins one; nothing is sent until you switch it on.</p>
    </main>
    <main v-else-if="replies" class="three">
      <div class="rule">
        <RuleList
          :replies="replies"
          :chosen="id"
          @move="(which, by) => drive(which, by, 'The first whose condition holds answers.')"
        />
        <RuleForm
          v-if="chosen && rule"
          :key="chosen.id"
          :rule="rule"
          :standing="chosen"
          :tried="tried"
          :keeping="keepingWords(keeping)"
          @change="change"
          @switch="switchTo"
          @put-away="putAway"
        />
      </div>
      <div class="past">
        <PastMails v-model="letter" :tried="tried" :trying="trying" :cannot="cannot" @mark="mark" />
        <DecidedMails v-if="chosen" :key="`d${chosen.id}`" />
      </div>
      <ReplyToMail class="reply" :letter="letter" :message="message" />
    </main>
    <main v-else class="empty"><p class="quiet">Opening…</p></main>
    <footer class="foot"><NoticeLine /></footer>
  </div>
</template>

<style scoped>
.standing {
  display: flex;
  flex-direction: column;
  min-height: 0;
}
main {
  flex: 1;
}
.three {
  min-height: 0;
  display: grid;
  grid-template-columns: 400px minmax(240px, 360px) minmax(0, 1fr);
}
.rule,
.past,
.reply {
  overflow: auto;
  min-width: 0;
}
.rule,
.past {
  border-right: 1px solid var(--hair);
}
.past {
  display: flex;
  flex-direction: column;
}
@media (max-width: 1099px) {
  .three {
    grid-template-columns: minmax(0, 380px) minmax(0, 1fr);
    overflow: auto;
  }
  .rule,
  .past,
  .reply {
    overflow: visible;
  }
  .rule {
    grid-row: 1 / span 2;
  }
}
@media (max-width: 759px) {
  .head > .quiet {
    display: none;
  }
  .three {
    grid-template-columns: minmax(0, 1fr);
  }
  .rule {
    grid-row: auto;
    border-right: 0;
  }
  .past {
    border-right: 0;
    border-top: 1px solid var(--hair);
  }
}
</style>
