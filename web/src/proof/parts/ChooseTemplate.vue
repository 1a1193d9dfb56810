<script setup lang="ts">
/** Which template to proof: found by a few letters. */
import InputText from 'primevue/inputtext';
import { holdsWords } from '@vocabula/core';
import { computed, onMounted, ref, useTemplateRef } from 'vue';
import { useRouter } from 'vue-router';
import { useNotice } from '../../ui/notice';
import { useTexts } from '../../ui/stores/lists';
import { whenInWords } from '../../ui/today';

const router = useRouter();
const notice = useNotice();
const texts = useTexts();
const typed = ref('');
const at = ref(0);
const field = useTemplateRef<{ $el: HTMLInputElement }>('field');
const shown = computed(() =>
  texts.messages
    .filter(({ title, subject, call }) => holdsWords(`${title} ${subject} ${call ?? ''}`, typed.value))
    .sort((a, b) => b.updatedAt.localeCompare(a.updatedAt)),
);
onMounted(async () => {
  try {
    await texts.load();
    field.value?.$el.focus();
  } catch (problem) {
    notice.fail(problem);
  }
});
const open = (name: string): void => void router.push({ name: 'proof', params: { name, view: 'one' } });
function onKey(event: KeyboardEvent): void {
  const by = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
  const chosen = shown.value[at.value];
  if (by !== 0 && shown.value.length > 0) at.value = (at.value + by + shown.value.length) % shown.value.length;
  else if (event.key === 'Enter' && chosen) open(chosen.name);
  else return;
  event.preventDefault();
}
</script>

<template>
  <main class="choose">
    <label class="field"
      ><span>Choose a template to proof.</span
      ><InputText ref="field" v-model="typed" type="search" @input="at = 0" @keydown="onKey"
    /></label>
    <ul class="rows">
      <li v-for="(each, index) in shown" :key="each.name">
        <button class="row" :class="{ selected: index === at }" @click="open(each.name)">
          {{ each.title }}
          <span class="quiet small">{{ each.subject }} · changed {{ whenInWords(each.updatedAt) }}</span>
        </button>
      </li>
    </ul>
    <p v-if="texts.loaded && shown.length === 0" class="quiet">
      {{ texts.messages.length === 0 ? 'There is no template yet.' : 'No template has these words.' }}
      <RouterLink v-if="texts.messages.length === 0" to="/write">Write one</RouterLink>
    </p>
  </main>
</template>

<style scoped>
.choose {
  flex: 1;
  min-height: 0;
  overflow: auto;
  padding: 24px;
  display: grid;
  gap: 12px;
  align-content: start;
  max-width: 720px;
}
.row span {
  display: block;
}
</style>
