<script setup lang="ts">
/** What is chosen in the manuscript: a placeholder, an image, a note, a button, a block or a passage. */
import { NodeSelection } from '@tiptap/pm/state';
import { computed } from 'vue';
import type { Desk } from '../desk/useDesk';
import BlockTray from './BlockTray.vue';
import ButtonTray from './ButtonTray.vue';
import ImageTray from './ImageTray.vue';
import NoteTray from './NoteTray.vue';
import PassageTray from './PassageTray.vue';
import PlaceholderTray from './PlaceholderTray.vue';

const props = defineProps<{ desk: Desk }>();
const { manuscript } = props.desk;
/** The node that is selected, or the button that the caret is in, with its place. */
const chosen = computed(() => {
  void manuscript.rest.value;
  const { selection } = manuscript.editor.state;
  if (selection instanceof NodeSelection) return { node: selection.node, pos: selection.from };
  const { $from } = selection;
  if ($from.parent.type.name === 'button') return { node: $from.parent, pos: $from.before() };
  return undefined;
});
const kind = computed(() => chosen.value?.node.type.name);
const bracket = computed(() => manuscript.chosen.value);
</script>

<template>
  <PlaceholderTray
    v-if="chosen && kind === 'placeholder'"
    :key="chosen.pos"
    :desk="desk"
    :node="chosen.node"
    :pos="chosen.pos"
  />
  <ImageTray v-else-if="chosen && kind === 'image'" :desk="desk" :node="chosen.node" :pos="chosen.pos" />
  <NoteTray
    v-else-if="chosen && (kind === 'comment' || kind === 'inlineComment')"
    :desk="desk"
    :node="chosen.node"
    :pos="chosen.pos"
  />
  <ButtonTray v-else-if="chosen && kind === 'button'" :desk="desk" :node="chosen.node" :pos="chosen.pos" />
  <BlockTray v-else-if="bracket && bracket.name" :desk="desk" :bracket="bracket" />
  <PassageTray v-else-if="bracket" :desk="desk" :bracket="bracket" />
  <p v-else class="quiet none">
    Choose a bracket, placeholder, image or note in the text, or put the caret in a passage: its settings appear here.
  </p>
</template>

<style scoped>
.none {
  padding: 12px 14px;
}
</style>
