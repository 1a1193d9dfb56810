<script setup lang="ts">
/** The mails: whether the template reproduces each, where it differs, and its oddities. */
import { computed, ref } from 'vue';
import PushButton from '../ui/controls/PushButton.vue';
import type { Deriving } from './useDerive';

const { deriving } = defineProps<{ deriving: Deriving }>();
const { mails, out, derived, leaveOut } = deriving;
const open = ref<string>();
const byFile = computed(() => new Map(derived.value?.mails.map((mail) => [mail.file, mail])));
const odd = computed(() => {
  const found = new Map<string, string[]>();
  for (const { file, words } of derived.value?.oddities ?? []) found.set(file, [...(found.get(file) ?? []), words]);
  return found;
});
/** Mails with differences first. */
const shown = computed(() =>
  mails.value.toSorted(
    (a, b) => Number(byFile.value.get(a.file)?.exact ?? true) - Number(byFile.value.get(b.file)?.exact ?? true),
  ),
);
function says(file: string): string {
  if (out.value.has(file)) return 'left out';
  const mail = byFile.value.get(file);
  if (!mail) return '';
  if (mail.exact) return 'word for word';
  return `${mail.differences.length} ${mail.differences.length === 1 ? 'place differs' : 'places differ'}`;
}
</script>

<template>
  <ul class="slips" aria-label="Mails">
    <li v-for="mail in shown" :key="mail.file" :class="{ quiet: out.has(mail.file) }">
      <div class="line">
        <PushButton
          kind="plain"
          class="name"
          :aria-expanded="open === mail.file"
          @click="open = open === mail.file ? undefined : mail.file"
          >{{ mail.file }}</PushButton
        >
        <span class="small" :class="says(mail.file).includes('differ') ? 'warning' : 'quiet'">{{
          says(mail.file)
        }}</span>
        <PushButton
          kind="plain"
          size="small"
          :aria-label="out.has(mail.file) ? `Take ${mail.file} in again` : `Leave ${mail.file} out`"
          @click="leaveOut(mail.file, !out.has(mail.file))"
          >{{ out.has(mail.file) ? 'Take in' : 'Leave out' }}</PushButton
        >
      </div>
      <div v-if="open === mail.file" class="more">
        <div v-for="(each, at) in byFile.get(mail.file)?.differences" :key="at" class="difference">
          <p><span class="quiet small">The mail</span><br />{{ each.was || 'nothing' }}</p>
          <p><span class="quiet small">The template</span><br />{{ each.now || 'nothing' }}</p>
        </div>
        <p v-for="words in odd.get(mail.file)" :key="words" class="small">
          Only in this mail: “{{ words }}”
          <PushButton
            kind="plain"
            size="small"
            :aria-label="`Take “${words}” in as an option`"
            @click="deriving.settle({ how: 'take', words })"
            >Take it in as an option</PushButton
          >
        </p>
        <p v-if="byFile.get(mail.file)?.setAside.length" class="small quiet">
          Not compared (quoted text, signature): {{ byFile.get(mail.file)?.setAside.join(' / ').slice(0, 300) }}
        </p>
        <p v-if="byFile.get(mail.file)?.exact" class="small quiet">The template reproduces this mail exactly.</p>
      </div>
    </li>
  </ul>
</template>

<style scoped>
.slips {
  list-style: none;
  margin: 0;
  padding: 0;
}
.slips > li {
  border-top: 1px solid var(--hair);
}
.line {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto 88px;
  gap: 12px;
  align-items: center;
  min-height: 36px;
}
.name {
  justify-content: flex-start;
  padding-left: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.more {
  padding: 0 0 8px 8px;
  border-left: 3px solid var(--hair);
}
.difference {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
  white-space: pre-line;
}
.difference p {
  margin: 4px 0;
  overflow-wrap: anywhere;
}
</style>
