<script setup lang="ts">
/** The house style: fonts and sizes, named colours with dark partners, button, table, header and footer. */
import FieldRow from '../ui/controls/FieldRow.vue';
import PickOne from '../ui/controls/PickOne.vue';
import InputText from 'primevue/inputtext';
import WholeField from '../ui/dates/WholeField.vue';
import { MESSAGE_WIDTH, type HouseStyle } from '@vocabula/core';
import { storeToRefs } from 'pinia';
import { computed, onMounted } from 'vue';
import { useTexts } from '../ui/stores/lists';
import ColourPair from './ColourPair.vue';
import NamedColours from './NamedColours.vue';
import PartHead from './PartHead.vue';
import StyleSheet from './StyleSheet.vue';
import { useHouseDraft } from './useHouseDraft';

const { draft, ready, changed, save } = useHouseDraft();
const texts = useTexts();
const { blocks } = storeToRefs(texts);
onMounted(() => texts.load().catch(() => []));
const style = computed(() => draft.value.style);
const colours = computed(() => Object.keys(style.value.colours));
const set = (more: Partial<HouseStyle>): void =>
  void (draft.value = { ...draft.value, style: { ...style.value, ...more } });
/** Sets what may be left out; the empty text leaves it out. */
function setOr(name: 'headingFont' | 'header' | 'footer', value: string): void {
  const { [name]: _old, ...rest } = style.value;
  draft.value = { ...draft.value, style: value === '' ? rest : { ...rest, [name]: value } };
}
/** Sizes in pixels, with the least and the greatest of each. */
const SIZES = [
  ['size', 'Size (px)', [8, 80]],
  ['lineHeight', 'Line height (px)', [8, 80]],
  ['width', 'Message width (px)', [320, 1200]],
] as const;
const text = (event: Event): string => (event.target as HTMLInputElement).value.trim();
function heading(at: 0 | 1 | 2, value: number): void {
  const sizes: [number, number, number] = [...style.value.heading];
  sizes[at] = value;
  set({ heading: sizes });
}
function head(name: string): void {
  const { lines } = style.value.table;
  set({ table: name === '' ? { lines } : { head: name, lines } });
}
</script>

<template>
  <PartHead
    house
    title="House style"
    about="how every message looks; authors pick names, never values"
    :changed="changed"
    @save="save"
  />
  <div v-if="ready" class="whole">
    <form @submit.prevent="save">
      <FieldRow v-slot="{ id }" class="wide" label="Font and fallbacks"
        ><InputText :id="id" :model-value="style.font" @change="set({ font: text($event) || style.font })"
      /></FieldRow>
      <FieldRow v-slot="{ id }" class="wide" label="Heading font, if different"
        ><InputText :id="id" :model-value="style.headingFont ?? ''" @change="setOr('headingFont', text($event))"
      /></FieldRow>
      <FieldRow v-for="[key, label, bounds] in SIZES" :key="key" v-slot="{ id }" :label="label"
        ><WholeField
          :id="id"
          type="number"
          :model-value="String(style[key] ?? MESSAGE_WIDTH)"
          :bounds="bounds"
          @update:model-value="set({ [key]: Number($event) })"
      /></FieldRow>
      <FieldRow v-for="at in [0, 1, 2] as const" :key="at" v-slot="{ id }" :label="`Heading ${at + 1}`"
        ><WholeField
          :id="id"
          type="number"
          :model-value="String(style.heading[at])"
          :bounds="[8, 80]"
          @update:model-value="heading(at, Number($event))"
      /></FieldRow>
      <div class="wide pairs">
        <ColourPair name="Words" :colour="style.ink" @change="set({ ink: $event })" />
        <ColourPair name="Links" :colour="style.link" @change="set({ link: $event })" />
        <ColourPair name="Lines" :colour="style.rule" :words="false" @change="set({ rule: $event })" />
      </div>
      <NamedColours
        class="wide"
        :colours="style.colours"
        :used="[style.button.colour, style.table.head ?? '']"
        @change="set({ colours: $event })"
      />
      <label class="field"
        ><span>Button colour</span
        ><PickOne
          :model-value="style.button.colour"
          @update:model-value="set({ button: { ...style.button, colour: $event } })"
        >
          <option v-for="name in colours" :key="name">{{ name }}</option>
        </PickOne></label
      >
      <FieldRow v-slot="{ id }" label="Corner radius (px)"
        ><WholeField
          :id="id"
          type="number"
          :model-value="String(style.button.corners)"
          :bounds="[0, 40]"
          @update:model-value="set({ button: { ...style.button, corners: Number($event) } })"
      /></FieldRow>
      <label class="field"
        ><span>Table head colour</span
        ><PickOne :model-value="style.table.head ?? ''" @update:model-value="head($event)">
          <option value="">none</option>
          <option v-for="name in colours" :key="name">{{ name }}</option>
        </PickOne></label
      >
      <label class="field"
        ><span>Table lines</span
        ><PickOne
          :model-value="style.table.lines"
          @update:model-value="set({ table: { ...style.table, lines: $event as 'rows' | 'all' | 'none' } })"
        >
          <option value="rows">under rows</option>
          <option value="all">around cells</option>
          <option value="none">none</option>
        </PickOne></label
      >
      <label v-for="where in ['header', 'footer'] as const" :key="where" class="field"
        ><span>{{ where === 'header' ? 'Block before every message' : 'Block after every message' }}</span
        ><PickOne :model-value="style[where] ?? ''" @update:model-value="setOr(where, $event)">
          <option value="">none</option>
          <option v-for="block in blocks" :key="block.name" :value="block.name">{{ block.title }}</option>
        </PickOne></label
      >
      <input type="submit" hidden />
    </form>
    <StyleSheet :house="draft" />
  </div>
</template>

<style scoped>
.whole {
  display: grid;
  grid-template-columns: minmax(0, 460px) minmax(0, 480px);
  gap: 32px;
  align-items: start;
}
form {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}
.wide {
  grid-column: 1 / -1;
}
.pairs {
  display: grid;
  gap: 6px;
}
@media (max-width: 1099px) {
  .whole {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
