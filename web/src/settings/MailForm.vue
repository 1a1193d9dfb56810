<script setup lang="ts">
/** What holds for all mail of the workspace. */
import TickBox from '../ui/controls/TickBox.vue';
import { ref } from 'vue';
import { api } from '../api/client';
import { useMe } from '../ui/me';
import { useNotice } from '../ui/notice';
import PartHead from './PartHead.vue';

const me = useMe();
const notice = useNotice();
const counting = ref(me.who?.workspace.counting ?? false);
async function save(): Promise<void> {
  try {
    const workspace = await api.saveWorkspace({ counting: counting.value });
    if (me.who) me.who = { ...me.who, workspace };
    notice.say(workspace.counting ? 'Counting is on.' : 'Counting is off.');
  } catch (problem) {
    counting.value = !counting.value;
    notice.fail(problem);
  }
}
</script>

<template>
  <section>
    <PartHead title="Mail service" about="for all messages that the mail service sends" />
    <label class="tick"
      ><TickBox v-model="counting" @change="save" />
      <span
        >Count openings and followed links<br /><span class="quiet small"
          >A small image and links by way of this server are put into messages. People writing messages are told. Off
          unless you turn it on.</span
        ></span
      ></label
    >
  </section>
</template>

<style scoped>
.tick {
  display: flex;
  gap: 8px;
  max-width: 560px;
  margin-top: 12px;
}
.tick input {
  flex: none;
}
</style>
