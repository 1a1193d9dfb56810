<script setup lang="ts">
/** Other places where the same words stand, each in its sentence, to be taken or left. */
import TickBox from '../../ui/controls/TickBox.vue';
import type { Match } from '@vocabula/core';
import { computed } from 'vue';
import { placeInWords } from './placeInWords';

const props = defineProps<{ places: readonly Match[] }>();
const taken = defineModel<readonly Match[]>({ required: true });
const all = computed(() => taken.value.length === props.places.length);
function toggle(place: Match): void {
  taken.value = taken.value.includes(place) ? taken.value.filter((each) => each !== place) : [...taken.value, place];
}
</script>

<template>
  <fieldset class="others">
    <legend class="small">
      <label
        ><TickBox :checked="all" :indeterminate="!all && taken.length > 0" @change="taken = all ? [] : places" /> also
        in other places: {{ places.length }}</label
      >
    </legend>
    <ul class="rows">
      <li v-for="(place, index) in places" :key="index">
        <label class="place"
          ><TickBox :checked="taken.includes(place)" @change="toggle(place)" /><span
            ><span class="quiet small">{{ placeInWords(place.line) }}</span> {{ place.before }}<b>{{ place.words }}</b
            >{{ place.after }}</span
          ></label
        >
      </li>
    </ul>
  </fieldset>
</template>

<style scoped>
.others {
  border: 1px solid var(--hair);
  margin: 0;
  padding: 4px 8px;
  width: 100%;
  min-width: 0;
}
.rows {
  max-height: 168px;
  overflow: auto;
}
.place {
  display: flex;
  gap: 8px;
  padding: 4px 0;
  font-size: 0.8125rem;
  line-height: 1.25rem;
  overflow-wrap: anywhere;
}
.place input {
  flex: none;
}
</style>
