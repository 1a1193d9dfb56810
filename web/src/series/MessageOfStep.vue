<script setup lang="ts">
/** One message of a series as it will read. */
import { render, type Program, type RenderInput } from '@vocabula/core';
import { computed } from 'vue';
import { lookOf } from '../ui/look';
import MessagePaper from '../ui/MessagePaper.vue';

const { program, input } = defineProps<{ program: Program; input: RenderInput }>();
const message = computed(() => render(program, input, { proof: true }));
const blanks = computed(() =>
  message.value.blanks.map((key) => program.slots.find((slot) => slot.key === key)?.label ?? key),
);
</script>

<template>
  <MessagePaper :subject="message.subject" :blanks="blanks" :fragment="message.fragment" :look="lookOf(program)" />
</template>
