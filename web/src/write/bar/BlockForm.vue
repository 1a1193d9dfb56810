<script setup lang="ts">
/** Selected words become a block that other texts can include; it stands here live. */
import TickBox from '../../ui/controls/TickBox.vue';
import InputText from 'primevue/inputtext';
import PushButton from '../../ui/controls/PushButton.vue';
import { labelFromKey } from '@vocabula/core';
import { ref } from 'vue';
import { useNotice } from '../../ui/notice';
import type { Desk } from '../desk/useDesk';

const props = defineProps<{ desk: Pick<Desk, 'blocks' | 'fields'> }>();
const emit = defineEmits<{ close: [] }>();
const notice = useNotice();
const { blocks, fields } = props.desk;
const { from, to } = fields.main.state.selection;
const title = ref('');
const elsewhere = blocks.sameElsewhere({ from, to });
const everywhere = ref(true);
const busy = ref(false);
const draft = blocks.draft({ from, to });
/** The variables that go along. */
const along = (draft?.document.attrs.variables ?? []).map((each) => each.label ?? labelFromKey(each.key));
async function done(): Promise<void> {
  if (title.value.trim() === '' || busy.value) return;
  busy.value = true;
  try {
    await blocks.fromSelection(title.value.trim(), { from, to }, everywhere.value ? elsewhere : []);
    emit('close');
  } catch (problem) {
    notice.fail(problem);
    busy.value = false;
  }
}
</script>

<template>
  <form @submit.prevent="done">
    <p v-if="!draft" class="quiet">
      Items and rows cannot be a block by themselves: select whole blocks, or words of a line.
    </p>
    <template v-else>
      <label class="field"
        ><span>Title of the block, for finding it</span><InputText v-model="title" maxlength="200"
      /></label>
      <p class="quiet small">
        {{ along.length === 0 ? 'It has no variables.' : `It uses: ${along.join(', ')}.` }}
      </p>
      <label v-if="elsewhere.length > 0"
        ><TickBox v-model="everywhere" /> also replace the same words, {{ elsewhere.length }}
        {{ elsewhere.length === 1 ? 'place' : 'places' }}</label
      >
      <PushButton kind="main" type="submit" :disabled="title.trim() === '' || busy">Make the block</PushButton>
    </template>
  </form>
</template>
