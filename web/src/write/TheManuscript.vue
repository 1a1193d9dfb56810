<script setup lang="ts">
/** The manuscript: envelope and body in one editor, with one history. */
import PushButton from '../ui/controls/PushButton.vue';
import { EditorContent } from '@tiptap/vue-3';
import { plainWords, part } from '@vocabula/core';
import { computed, ref } from 'vue';
import { useHouse } from '../ui/house';
import type { Desk } from './desk/useDesk';
import { houseRules } from './houseRules';
import './manuscript.css';

const props = defineProps<{ desk: Pick<Desk, 'manuscript'>; kind: string }>();
const { manuscript } = props.desk;
const house = useHouse();
const more = ref(false);
const purpose = computed(() => manuscript.front.value.purpose ?? 'new');
const shows = computed(() => ({ message: props.kind === 'message', more: more.value, [purpose.value]: true }));
const rules = computed(() => houseRules(house.house.style));
/** What the folded lines of the envelope say. */
const folded = computed(() => {
  const document = manuscript.current.value;
  const filled = (['cc', 'bcc', 'reply_to'] as const).filter((name) =>
    part(document, name).content.some((address) => plainWords(address.content) !== ''),
  );
  const files = part(document, 'attachments').content?.length ?? 0;
  const names = { cc: 'Cc', bcc: 'Bcc', reply_to: 'reply-to' };
  const said = [
    ...filled.map((name) => names[name]),
    ...(files > 0 ? [`${files} ${files === 1 ? 'file' : 'files'}`] : []),
    ...(purpose.value === 'new' ? [] : [purpose.value]),
  ];
  return said.length > 0 ? said.join(', ') : 'Cc, Bcc, reply-to, files';
});
</script>

<template>
  <component :is="'style'">{{ rules }}</component>
  <PushButton
    kind="plain"
    size="small"
    v-if="kind === 'message'"
    class="more"
    :aria-expanded="more"
    @click="more = !more"
  >
    {{ folded }} {{ more ? '▾' : '▸' }}
  </PushButton>
  <EditorContent class="manuscript" :class="shows" :editor="manuscript.editor as never" />
</template>

<style scoped>
.more {
  position: absolute;
  right: 20px;
  top: 20px;
  height: 22px;
  max-width: 240px;
  color: var(--quiet);
  z-index: 1;
  background: var(--sheet);
}
@media (max-width: 899px) {
  .more {
    position: static;
    margin-left: -8px;
  }
}
</style>
