<script setup lang="ts">
/** The first question: who it is for. Typed, or found in a recipient list, which fills in the rest. */
import type { RecipientHit } from '@vocabula/contract';
import { computed, ref, useId, watch } from 'vue';
import { api } from '../api/client';

const fields = defineModel<Record<string, string>>({ required: true });
const id = useId();
const text = ref('');
const hits = ref<RecipientHit[]>([]);
const at = ref(0);
const open = ref(false);
let asked = 0;
/** True while there are typed words that nobody has taken yet. */
let typing = false;

const name = computed(() => [fields.value.first_name, fields.value.last_name].filter(Boolean).join(' ') || fields.value.name || '');
const shown = computed(() => (name.value && fields.value.email ? `${name.value} <${fields.value.email}>` : name.value || fields.value.email || ''));
watch(shown, (words) => {
  if (!open.value) text.value = words;
}, { immediate: true });

async function find(): Promise<void> {
  typing = true;
  const mine = (asked += 1);
  const found = await api.recipients(text.value).catch(() => []);
  if (mine !== asked || !typing) return;
  hits.value = found;
  at.value = 0;
  open.value = true;
}
function choose(hit: RecipientHit): void {
  open.value = false;
  typing = false;
  fields.value = { ...hit.fields, email: hit.email || (hit.fields.email ?? '') };
  text.value = hit.name && hit.email ? `${hit.name} <${hit.email}>` : hit.name || hit.email;
}
/** Words that are nobody in a list are taken as typed: `Ann Lee <ann@x.example>`, an address, or a name. */
function commit(): void {
  open.value = false;
  const typed = text.value.trim();
  if (!typing || typed === shown.value) return;
  typing = false;
  const named = /^([^<]*)<([^>]*)>$/.exec(typed);
  const email = (named?.[2] ?? (typed.includes('@') ? typed : '')).trim();
  const words = (named?.[1] ?? (typed.includes('@') ? '' : typed)).trim();
  const [first = '', ...rest] = words.split(/\s+/);
  fields.value = typed === '' ? {} : { ...(first ? { first_name: first } : {}), ...(rest.length ? { last_name: rest.join(' ') } : {}), ...(email ? { email } : {}) };
}
function onKey(event: KeyboardEvent): void {
  if (event.key === 'Escape' && open.value) {
    event.stopPropagation();
    open.value = false;
  }
  const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
  if (step !== 0 && open.value && hits.value.length > 0) {
    event.preventDefault();
    at.value = (at.value + step + hits.value.length) % hits.value.length;
  }
  if (event.key === 'Enter' && !event.ctrlKey && !event.metaKey) {
    const hit = open.value ? hits.value[at.value] : undefined;
    if (hit && text.value.trim() !== '') choose(hit);
    else commit();
  }
}
</script>

<template>
  <div class="recipient question" data-question="recipient">
    <label :for="id" class="quiet">Recipient</label>
    <input :id="id" v-model="text" class="control" role="combobox" :aria-expanded="open" :aria-controls="`${id}-list`" :aria-activedescendant="open && hits.length ? `${id}-${at}` : undefined" autocomplete="off" placeholder="a name, or an address" @input="find" @blur="commit" @keydown="onKey" />
    <ul v-if="open && hits.length" :id="`${id}-list`" class="rows sheet" role="listbox" aria-label="People of the recipient lists">
      <li v-for="(hit, index) in hits" :id="`${id}-${index}`" :key="hit.table + hit.email + index" class="row" role="option" :aria-selected="index === at" @mousedown.prevent="choose(hit)"><span>{{ hit.name || hit.email }}</span> <span class="quiet small">{{ hit.email }} · {{ hit.fields.organisation || hit.list }}</span></li>
    </ul>
  </div>
</template>

<style scoped>
.recipient { position: relative; margin-bottom: 16px; }
label { display: block; font-size: 0.8125rem; line-height: 1.25rem; }
input { height: 36px !important; }
.rows { position: absolute; z-index: 5; width: 100%; max-height: 300px; overflow: auto; }
</style>
