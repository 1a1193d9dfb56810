<script setup lang="ts">
/** Messages of which nobody knows whether they went: one decision for all, with the number typed before they go again. */
import PushButton from '../ui/controls/PushButton.vue';
import InputText from 'primevue/inputtext';
import { computed, ref } from 'vue';

const props = defineProps<{ count: number }>();
const emit = defineEmits<{ settle: [how: 'again' | 'arrived'] }>();
const typed = ref('');
const isRight = computed(() => Number(typed.value.trim()) === props.count);
function again(): void {
  if (isRight.value) emit('settle', 'again');
}
</script>

<template>
  <section class="uncertain" aria-label="May have been sent">
    <h2 class="warning">‸ {{ count }} may have been sent</h2>
    <p class="small">
      They were being sent when Vocabula stopped, the connection was lost, or a backup was restored. Check the log of
      the mail service.
    </p>
    <PushButton @click="emit('settle', 'arrived')">They arrived</PushButton>
    <form @submit.prevent="again">
      <label class="field"
        ><span>Type {{ count }} to send them again</span
        ><InputText v-model="typed" inputmode="numeric" autocomplete="off"
      /></label>
      <PushButton type="submit" :disabled="!isRight">Send them again</PushButton>
    </form>
  </section>
</template>

<style scoped>
.uncertain {
  display: grid;
  gap: 8px;
  justify-items: start;
}
h2,
p {
  margin: 0;
}
form {
  display: flex;
  gap: 8px;
  align-items: end;
}
</style>
