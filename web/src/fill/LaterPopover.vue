<script setup lang="ts">
/** When a message goes, asked below the button it stands for. */
import type { HandOverWays } from '@vocabula/contract';
import { useTemplateRef } from 'vue';
import OpenPopover from '../ui/controls/OpenPopover.vue';
import LaterForm from './LaterForm.vue';

defineProps<{ hours: HandOverWays; opener: HTMLElement }>();
const emit = defineEmits<{ at: [iso: string]; close: [] }>();
const popover = useTemplateRef('popover');
const form = useTemplateRef<{ $el: HTMLElement }>('form');
</script>

<template>
  <OpenPopover
    ref="popover"
    label="Send later"
    :opener="opener"
    @shown="form?.$el.querySelector('button')?.focus()"
    @close="emit('close')"
  >
    <LaterForm ref="form" :hours="hours" @at="(at) => (popover?.hide(), emit('at', at))" />
  </OpenPopover>
</template>
