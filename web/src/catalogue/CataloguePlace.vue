<script setup lang="ts">
/** All templates, blocks and signatures: narrowed by one typed line, read at the side. */
import type { Closure, TextSummary } from '@vocabula/contract';
import { compile, holdsWords, labelFromKey, render } from '@vocabula/core';
import { computed, onMounted, ref, shallowRef, useTemplateRef, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api } from '../api/client';
import NoticeLine from '../ui/NoticeLine.vue';
import ProofFrame from '../ui/ProofFrame.vue';
import TypeMark from '../ui/TypeMark.vue';
import { useHouse } from '../ui/house';
import { lookOf } from '../ui/look';
import { useMe } from '../ui/me';
import { useNotice } from '../ui/notice';
import { today, whenInWords, zone } from '../ui/today';

const KINDS = {
  all: 'Everything',
  message: 'Templates',
  block: 'Blocks',
  signature: 'Signatures',
  bin: 'Bin',
} as const;
const KIND_WORD = { message: 'template', block: 'block', signature: 'signature' } as const;
const route = useRoute();
const router = useRouter();
const notice = useNotice();
const me = useMe();
const house = useHouse();
const texts = ref<TextSummary[]>([]);
const loaded = ref(false);
const kind = ref<keyof typeof KINDS>('all');
const typed = ref('');
const files = useTemplateRef('files');
const reading = shallowRef<Closure>();

const shown = computed(() =>
  texts.value.filter(
    (text) =>
      (kind.value === 'bin') === text.binned &&
      (kind.value === 'all' || kind.value === 'bin' || text.kind === kind.value) &&
      holdsWords(`${text.title} ${text.subject} ${text.call ?? ''} ${KIND_WORD[text.kind]}`, typed.value),
  ),
);
const count = (of: keyof typeof KINDS): number =>
  texts.value.filter((text) => (of === 'bin' ? text.binned : !text.binned && (of === 'all' || text.kind === of)))
    .length;
const chosen = computed(() => texts.value.find((text) => text.name === route.params.name));

async function load(): Promise<void> {
  try {
    texts.value = await api.texts();
    loaded.value = true;
  } catch (problem) {
    notice.fail(problem);
  }
}
onMounted(async () => {
  await Promise.all([load(), me.load().catch(() => undefined), house.load().catch(() => undefined)]);
});
watch(
  () => [route.params.name, texts.value] as const,
  async ([name]) => {
    reading.value = undefined;
    if (!name || chosen.value?.binned) return;
    const found = await api.closure(String(name)).catch(() => undefined);
    if (route.params.name === name) reading.value = found;
  },
  { immediate: true },
);

const preview = computed(() => {
  const own = reading.value?.texts[0];
  if (!own) return undefined;
  const program = compile(own, {
    library: { get: (name) => reading.value?.texts.find((text) => text.name === name)?.document },
    house: house.house,
  });
  return {
    program,
    message: render(program, { today: today(), zone: zone(), sender: me.fields() }, { proof: true }),
    look: lookOf(program),
  };
});

const select = (text: TextSummary): void => void router.replace({ name: 'catalogue', params: { name: text.name } });
const write = (text: TextSummary): void => void router.push({ name: 'write', params: { name: text.name } });
const fill = (text: TextSummary): void =>
  void router.push({ name: 'filling', params: { id: 'new' }, query: { template: text.name } });
function move(step: number): void {
  const at = shown.value.findIndex((text) => text.name === route.params.name);
  const next = shown.value[Math.max(0, Math.min(shown.value.length - 1, at + step))];
  if (next) select(next);
}
function onKey(event: KeyboardEvent): void {
  const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
  if (step !== 0) {
    event.preventDefault();
    move(step);
  } else if (event.key === 'Enter' && chosen.value && !chosen.value.binned && !event.ctrlKey && !event.metaKey) {
    event.preventDefault();
    write(chosen.value);
  }
}
async function act(words: string, work: () => Promise<unknown>, undo: () => Promise<unknown>): Promise<void> {
  try {
    await work();
    await load();
    notice.say(words, async () => {
      await undo();
      await load();
    });
  } catch (problem) {
    notice.fail(problem);
  }
}
const bin = (text: TextSummary): Promise<void> =>
  act(
    `“${text.title}” is in the bin.`,
    () => api.binText(text.name),
    () => api.restoreText(text.name),
  );
const restore = (text: TextSummary): Promise<void> =>
  act(
    `“${text.title}” is back.`,
    () => api.restoreText(text.name),
    () => api.binText(text.name),
  );
async function importFiles(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement;
  try {
    const given = await Promise.all(
      [...(input.files ?? [])].map(async (file) => ({ file: file.name, content: await file.text() })),
    );
    if (given.length === 0) return;
    const outcomes = await api.importFiles({ files: given });
    await load();
    const of = (what: string): number => outcomes.filter((each) => each.outcome === what).length;
    notice.say(`Imported: ${of('new')} new, ${of('changed')} changed, ${of('same')} the same.`);
  } catch (problem) {
    notice.fail(problem);
  } finally {
    input.value = '';
  }
}
</script>

<template>
  <div class="catalogue">
    <header class="head">
      <h1>Catalogue</h1>
      <button class="right" @click="files?.click()">Import files…</button>
      <input ref="files" type="file" accept=".md" multiple hidden @change="importFiles" />
      <RouterLink v-slot="{ navigate }" to="/write" custom
        ><button class="main" @click="navigate()">Start a text</button></RouterLink
      >
    </header>
    <main>
      <nav class="kinds" aria-label="Kinds">
        <button v-for="(words, key) in KINDS" :key="key" class="row" :aria-current="kind === key" @click="kind = key">
          {{ words }} <span class="quiet small right">{{ count(key) }}</span>
        </button>
      </nav>
      <section class="list" aria-label="Texts" @keydown="onKey">
        <input
          v-model="typed"
          class="narrow"
          placeholder="Narrow: title, subject, call word, kind"
          aria-label="Narrow the list"
        />
        <ul
          v-if="shown.length"
          class="rows"
          role="listbox"
          aria-label="Texts"
          tabindex="0"
          :aria-activedescendant="chosen ? `text-${chosen.name}` : undefined"
        >
          <li
            v-for="text in shown"
            :id="`text-${text.name}`"
            :key="text.name"
            class="row text"
            role="option"
            :aria-selected="text.name === chosen?.name"
            @click="select(text)"
            @dblclick="text.binned ? undefined : write(text)"
          >
            <span class="title">{{ text.title }}</span><span class="quiet small">{{ text.call }}</span
            ><span class="quiet small when">{{
              text.kind === 'message'
                ? text.lastUsed
                  ? `used ${whenInWords(text.lastUsed)}`
                  : 'not used yet'
                : KIND_WORD[text.kind]
            }}</span>
            <span class="quiet small subject">{{
              text.subject ||
              (text.kind === 'message' ? 'keeps the subject it answers' : `changed ${whenInWords(text.updatedAt)}`)
            }}</span>
          </li>
        </ul>
        <div v-else-if="loaded" class="empty">
          <p>{{ typed ? 'Nothing here has all these words.' : 'There is nothing here yet.' }}</p>
          <RouterLink v-if="!typed" to="/write">Start a text</RouterLink>
        </div>
      </section>
      <aside class="reading" aria-label="Reading">
        <template v-if="chosen?.binned"
          ><h2>{{ chosen.title }}</h2>
          <p class="quiet">In the bin.</p>
          <button @click="restore(chosen)">Restore</button></template
        >
        <template v-else-if="chosen && preview && reading">
          <div class="acts">
            <button v-if="chosen.kind === 'message'" class="main" @click="fill(chosen)">Fill</button
            ><button @click="write(chosen)">Write</button
            ><button class="plain" @click="router.push({ name: 'write', query: { copy: chosen.name } })">
              Start a copy</button
            ><button class="plain right" @click="bin(chosen)">Bin</button>
          </div>
          <div class="sheet page">
            <p v-if="preview.message.subject" class="mail-subject">{{ preview.message.subject }}</p>
            <ProofFrame class="frame" :fragment="preview.message.fragment" v-bind="preview.look" title="How it reads" />
          </div>
          <div class="about">
            <h2>Variables {{ preview.program.slots.length }}</h2>
            <ul class="variables">
              <li v-for="slot in preview.program.slots" :key="slot.index">
                <TypeMark :type="slot.variable.type" /> {{ slot.label || labelFromKey(slot.key) }}
                <span class="quiet small">{{
                  slot.variable.value ? 'worked out' : slot.variable.required ? 'required' : ''
                }}</span>
              </li>
            </ul>
            <h2>Needs</h2>
            <p class="small">
              {{
                reading.texts
                  .slice(1)
                  .map((text) => text.document.attrs.front.title)
                  .join(', ') || 'no other text'
              }}
            </p>
            <h2>Used in</h2>
            <p class="small">{{ reading.usedIn.map((text) => text.title).join(', ') || 'no other text' }}</p>
          </div>
        </template>
        <p v-else class="quiet">{{ chosen ? '' : 'Choose a text to read it here. Enter opens it in Write.' }}</p>
      </aside>
    </main>
    <footer class="foot">
      <span>{{ shown.length }} {{ shown.length === 1 ? 'text' : 'texts' }}</span
      ><NoticeLine />
    </footer>
  </div>
</template>

<style scoped>
.catalogue {
  display: flex;
  flex-direction: column;
}
main {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: 208px minmax(0, 1fr) 400px;
}
.kinds {
  border-right: 1px solid var(--hair);
  padding: 8px 0;
}
.kinds .row {
  display: flex;
  height: 32px;
  align-items: center;
}
.kinds .row[aria-current='true'] {
  font-weight: 600;
}
.list {
  border-right: 1px solid var(--hair);
  display: flex;
  flex-direction: column;
  min-height: 0;
}
.narrow {
  height: 40px !important;
  border: 0 !important;
  border-bottom: 1px solid var(--hair) !important;
  border-radius: 0;
  padding: 0 16px !important;
  background: transparent !important;
}
.narrow:focus-visible,
.rows:focus-visible {
  outline-offset: -2px;
}
.list .rows {
  overflow: auto;
  flex: 1;
}
.text {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 88px 104px;
  column-gap: 12px;
  height: 48px;
  padding: 5px 16px;
  cursor: pointer;
  align-items: center;
}
.title,
.subject {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.when {
  text-align: right;
}
.subject {
  grid-column: 1 / -1;
}
.reading {
  padding: 12px 16px;
  overflow: auto;
  display: flex;
  flex-direction: column;
  gap: 12px;
}
.acts {
  display: flex;
  gap: 8px;
}
.page {
  padding: 16px 20px;
  height: 400px;
  flex: none;
  display: flex;
  flex-direction: column;
  gap: 8px;
}
.mail-subject {
  font:
    600 0.875rem/1.25rem Arial,
    sans-serif;
}
.frame {
  flex: 1;
}
.about {
  display: grid;
  gap: 4px;
}
.about h2:not(:first-child) {
  margin-top: 8px;
}
.variables {
  list-style: none;
  margin: 0;
  padding: 0;
  font-size: 0.8125rem;
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 2px 12px;
}
.variables li {
  display: flex;
  gap: 6px;
  align-items: center;
  min-width: 0;
}
@media (max-width: 1099px) {
  main {
    grid-template-columns: 160px minmax(0, 1fr) 320px;
  }
  .text {
    grid-template-columns: minmax(0, 1fr) 88px;
  }
  .when {
    display: none;
  }
}
@media (max-width: 899px) {
  main {
    display: flex;
    flex-direction: column;
    overflow: auto;
  }
  .kinds {
    display: flex;
    border: 0;
    overflow-x: auto;
    flex: none;
    padding: 0;
  }
  .kinds .row {
    width: auto;
    gap: 6px;
  }
  .list {
    flex: none;
    max-height: 50vh;
    border: 0;
  }
  .reading {
    overflow: visible;
    flex: none;
  }
}
</style>
