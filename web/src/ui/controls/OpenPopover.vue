<script setup lang="ts">
/** A popover that is open for as long as it is there, below what opened it; `close` asks whoever put it there to take it away. */
import Popover from 'primevue/popover';
import { nextTick, onMounted, useTemplateRef } from 'vue';

const { opener } = defineProps<{ label: string; opener: HTMLElement }>();
const emit = defineEmits<{ shown: []; close: [] }>();
const popover = useTemplateRef('popover');
const inside = useTemplateRef<HTMLElement>('inside');
/** What was shown: its reference is gone by the time the popover is. */
let content: HTMLElement | null = null;

/** Told in the tick it is mounted, it would stand there without its place, its focus and its keys. */
onMounted(async () => {
  await nextTick();
  popover.value?.show({ currentTarget: opener } as unknown as Event);
});
function shown(): void {
  content = inside.value;
  emit('shown');
}
/** The focus goes back to the opener, unless what was done in the popover has put it elsewhere. */
function closed(): void {
  const { activeElement } = document;
  const elsewhere = activeElement && activeElement !== document.body && !content?.contains(activeElement);
  emit('close');
  if (!elsewhere) opener.focus();
}
defineExpose({ hide: () => popover.value?.hide() });
</script>

<template>
  <Popover ref="popover" :aria-label="label" @show="shown" @hide="closed">
    <div ref="inside"><slot /></div>
  </Popover>
</template>
