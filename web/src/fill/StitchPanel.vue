<script setup lang="ts">
/** Another template or block put before, after or at the caret of the message. */
import RadioButton from 'primevue/radiobutton';
import PushButton from '../ui/controls/PushButton.vue';
import type { Hit } from '@vocabula/contract';
import { bodyOf } from '@vocabula/core';
import { computed, onMounted, ref, useTemplateRef } from 'vue';
import { api } from '../api/client';
import HitList from '../ui/HitList.vue';
import { useNotice } from '../ui/notice';
import type { Filling } from './useFill';

const props = defineProps<{ filling: Filling; caret: number | undefined }>();
const emit = defineEmits<{ close: [] }>();
const { fill, changes, take, settled } = props.filling;
const notice = useNotice();
const query = ref('');
const where = ref<'before' | 'after' | 'caret'>(props.caret === undefined ? 'after' : 'caret');
const list = useTemplateRef('list');
const parts = computed(() =>
  changes.value.parts.map((part, at) => ({
    at,
    title: fill.value?.texts.find((text) => text.name === part.name)?.document.attrs.front.title ?? part.name,
  })),
);
onMounted(() => list.value?.focus());

async function stitch({ name, title }: Hit): Promise<void> {
  const [own] = fill.value?.texts ?? [];
  if (!fill.value || !own) return;
  const length = bodyOf(own.document).length;
  const at = where.value === 'before' ? 0 : where.value === 'after' ? length : (props.caret ?? length);
  try {
    await settled();
    take(await api.stitch(fill.value.id, { name, at }));
    notice.say(`“${title}” is stitched to this message.`, () => takeOut(changes.value.parts.length - 1));
    emit('close');
  } catch (problem) {
    notice.fail(problem);
  }
}
function takeOut(at: number): void {
  changes.value = { ...changes.value, parts: changes.value.parts.filter((_, index) => index !== at) };
}
</script>

<template>
  <section class="sheet stitch" aria-label="Stitch" @keydown.esc.stop="emit('close')" @keydown.enter.stop>
    <p class="where" role="radiogroup" aria-label="Where">
      <label
        v-for="[key, words] in [
          ['before', 'before'],
          ['caret', 'at the caret'],
          ['after', 'after'],
        ] as const"
        :key="key"
        ><RadioButton v-model="where" :value="key" name="where" :disabled="key === 'caret' && caret === undefined" />
        {{ words }}</label
      >
      <PushButton kind="plain" size="small" class="right" @click="emit('close')">Close</PushButton>
    </p>
    <HitList ref="list" v-model="query" label="Find a text to stitch" purpose="stitch" @choose="stitch" />
    <ul v-if="parts.length" class="parts">
      <li v-for="part in parts" :key="part.at" class="small">
        {{ part.title }} <PushButton kind="plain" size="small" @click="takeOut(part.at)">Remove</PushButton>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.stitch {
  margin-bottom: 16px;
}
.where {
  display: flex;
  gap: 12px;
  align-items: center;
  padding: 8px 16px;
}
.parts {
  list-style: none;
  margin: 0;
  padding: 8px 16px;
  border-top: 1px solid var(--hair);
}
</style>
