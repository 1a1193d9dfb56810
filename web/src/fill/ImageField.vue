<script setup lang="ts">
/** An image: one of the library's, or a file put into it, with the words that stand for it where none is shown. */
import type { Asset } from '@vocabula/contract';
import { computed, onMounted, ref, shallowRef } from 'vue';
import { api, assetUrl } from '../api/client';

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
      <select
        class="control"
        :aria-labelledby="labelledBy"
        :aria-describedby="describedBy"
        :value="src"
        @change="say(($event.target as HTMLSelectElement).value, alt)"
      >
        <option value="">No image</option>
        <option v-if="src && !images.some(({ path }) => path === src)" :value="src">{{ src }}</option>
        <option v-for="image in images" :key="image.path" :value="image.path">
          {{ image.path.replace('assets/', '') }}
        </option>
      </select>
      <label class="file"
        ><input
          type="file"
          accept="image/*"
          class="unseen"
          @change="take(($event.target as HTMLInputElement).files?.[0])"
        /><span class="button-like">From a file…</span></label
      >
      <input
        v-if="src"
        class="control words"
        :value="alt"
        aria-label="Words in place of the image"
        placeholder="Words in place of the image"
        @input="say(src, ($event.target as HTMLInputElement).value)"
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
.file:focus-within {
  outline: 2px solid var(--action);
}
.button-like {
  display: inline-flex;
  align-items: center;
  height: 36px;
  padding: 0 12px;
  border: 1px solid var(--edge);
  border-radius: 3px;
  cursor: pointer;
}
</style>
