<script setup lang="ts">
/** When it goes, asked below the button it stands for. */
import type { HandOverWays } from '@vocabula/contract';
import Popover from 'primevue/popover';
import { nextTick, onMounted, useTemplateRef } from 'vue';
import LaterForm from './LaterForm.vue';

const { opener } = defineProps<{ hours: HandOverWays; opener: HTMLElement }>();
const emit = defineEmits<{ at: [iso: string]; close: [] }>();
const popover = useTemplateRef('popover');
/** Told in the tick it is mounted, it would stand there without its place, its focus and its keys. */
onMounted(async () => {
  await nextTick();
  popover.value?.show({ currentTarget: opener } as unknown as Event);
});
</script>

<template>
  <Popover
    ref="popover"
    aria-label="Send later"
    @show="($refs.form as { $el: HTMLElement }).$el.querySelector('button')?.focus()"
    @hide="(emit('close'), opener.focus())"
  >
    <LaterForm ref="form" :hours="hours" @at="(at) => (popover?.hide(), emit('at', at))" />
  </Popover>
</template>
