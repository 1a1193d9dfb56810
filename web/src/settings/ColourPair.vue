<script setup lang="ts">
/** A colour on light pages with its partner on dark ones, and how well words in it are read. */
import { vTip } from '../ui/controls/tip';
import ColorPicker from 'primevue/colorpicker';
import InputText from 'primevue/inputtext';
import { contrast, type NamedColour } from '@vocabula/core';
import { computed } from 'vue';

const props = withDefaults(defineProps<{ name: string; colour: NamedColour; words?: boolean }>(), { words: true });
const emit = defineEmits<{ change: [colour: NamedColour] }>();
/** WCAG 2.2 asks this of words. */
const ENOUGH = 4.5;
const PAGES = { light: '#FFFFFF', dark: '#1B1D21' } as const;
const sides = computed(() =>
  (['light', 'dark'] as const).map((side) => ({
    side,
    hex: props.colour[side],
    ratio: contrast(props.colour[side], PAGES[side]),
  })),
);
function choose(side: 'light' | 'dark', digits: string): void {
  emit('change', { ...props.colour, [side]: `#${digits.toUpperCase()}` });
}
function give(side: 'light' | 'dark', event: Event): void {
  const hex = (event.target as HTMLInputElement).value.trim().toUpperCase();
  if (/^#[0-9A-F]{6}$/.test(hex)) emit('change', { ...props.colour, [side]: hex });
  else (event.target as HTMLInputElement).value = props.colour[side];
}
</script>

<template>
  <div class="pair">
    <span class="name"
      ><slot>{{ name }}</slot></span
    >
    <span v-for="{ side, hex, ratio } in sides" :key="side" class="side">
      <ColorPicker
        format="hex"
        :model-value="hex.slice(1)"
        :pt="{ preview: { 'aria-label': `${name}, ${side}` } }"
        @update:model-value="choose(side, $event)"
      />
      <InputText
        :model-value="hex"
        maxlength="7"
        spellcheck="false"
        :aria-label="`${name}, ${side}, as a value`"
        @change="give(side, $event)"
      />
      <span
        v-if="words"
        class="small"
        :class="ratio < ENOUGH ? 'warning' : 'quiet'"
        v-tip="`Contrast ${ratio.toFixed(1)} to 1 on the ${side} page`"
        >{{ ratio < ENOUGH ? `‸ ${ratio.toFixed(1)}` : ratio.toFixed(1) }}</span
      >
    </span>
  </div>
</template>

<style scoped>
.pair {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto auto;
  gap: 12px;
  align-items: center;
}
.side {
  display: grid;
  grid-template-columns: 32px 84px 36px;
  gap: 4px;
  align-items: center;
}
</style>
