<script setup lang="ts">
/** An image: one of the library's, or a file put into it, with the words that stand for it where none is shown. */
import type { Asset } from '@vocabula/contract';
import { computed, onMounted, ref, shallowRef } from 'vue';
import { useFileChoice } from '../ui/controls/fileChoice';
import PushButton from '../ui/controls/PushButton.vue';
import InputText from 'primevue/inputtext';
import { api, assetUrl } from '../api/client';
import PickOne from '../ui/controls/PickOne.vue';

const { modelValue } = defineProps<{
  /** `assets/map.png The map`: the source and, behind a space, its words. */
  modelValue: string;
  labelledBy: string;
  describedBy?: string | undefined;
}>();
const emit = defineEmits<{ 'update:modelValue': [image: string] }>();
const assets = shallowRef<readonly Asset[]>([]);
const problem = ref('');
const over = ref(false);
const parts = computed(() => /^(\S*)\s*([\s\S]*)$/.exec(modelValue) ?? []);
const src = computed(() => parts.value[1] ?? '');
const alt = computed(() => parts.value[2] ?? '');
const images = computed(() => assets.value.filter(({ type }) => type.startsWith('image/')));
const choices = computed(() => [
  { value: '', words: 'No image' },
  ...(src.value && !images.value.some(({ path }) => path === src.value)
    ? [{ value: src.value, words: src.value }]
    : []),
  ...images.value.map(({ path }) => ({ value: path, words: path.replace('assets/', '') })),
]);
const say = (source: string, words: string): void => emit('update:modelValue', `${source} ${words}`.trim());

onMounted(async () => {
  assets.value = await api.assets().catch(() => []);
});
async function take(file: File | undefined): Promise<void> {
  over.value = false;
  if (!file) return;
  problem.value = '';
  try {
    const kept = await api.addAsset(file.name, file);
    assets.value = [...assets.value.filter(({ path }) => path !== kept.path), kept];
    say(kept.path, alt.value);
  } catch (failure) {
    problem.value = failure instanceof Error ? failure.message : 'That could not be kept.';
  }
}
const choose = useFileChoice(([file]) => void take(file), { accept: 'image/*' });
const pasted = (event: ClipboardEvent): void => {
  const file = event.clipboardData?.files[0];
  if (!file) return;
  event.preventDefault();
  void take(file);
};
</script>

<template>
  <div
    class="image"
    :class="{ over }"
    @paste="pasted"
    @dragover.prevent="over = true"
    @dragleave="over = false"
    @drop.prevent="take($event.dataTransfer?.files[0])"
  >
    <img v-if="src.startsWith('assets/')" :src="assetUrl(src)" :alt="alt" />
    <div class="choose">
      <PickOne
        pt-label-class="control"
        size="large"
        enter-goes-on
        :labelled-by="labelledBy"
        :described-by="describedBy"
        :model-value="src"
        :options="choices"
        @update:model-value="say($event, alt)"
      />
      <PushButton size="large" @click="choose">From a file…</PushButton>
      <InputText
        v-if="src"
        class="control words"
        size="large"
        :model-value="alt"
        aria-label="Alternative text"
        placeholder="Alternative text"
        @update:model-value="say(src, $event ?? '')"
      />
    </div>
    <p v-if="problem" class="error small" role="alert">⚠ {{ problem }}</p>
  </div>
</template>

<style scoped>
.image {
  display: grid;
  gap: 8px;
}
.image.over {
  outline: 2px dashed var(--action);
  outline-offset: 4px;
}
img {
  max-width: 160px;
  max-height: 96px;
}
.choose {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 8px;
  align-items: center;
}
.words {
  grid-column: 1 / -1;
}
</style>
