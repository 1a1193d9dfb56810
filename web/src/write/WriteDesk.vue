<script setup lang="ts">
/** One text on the desk. */
import { Editor } from '@tiptap/core';
import { normalise, type Condition, type Finding, type Kind, type TextDocument, type Variable } from '@vocabula/core';
import type { TextSummary } from '@vocabula/contract';
import {
  computed,
  defineAsyncComponent,
  onBeforeUnmount,
  onMounted,
  ref,
  shallowRef,
  triggerRef,
  useTemplateRef,
  watch,
} from 'vue';
import { api } from '../api/client';
import NoticeLine from '../ui/NoticeLine.vue';
import { keyOf } from '../ui/keys';
import { useMe } from '../ui/me';
import { useNotice } from '../ui/notice';
import {
  changeVariable,
  findMarkerGroups,
  findWords,
  newVariable,
  removeBefore,
  removeVariable,
  selectNode,
  setVariables,
  unwrap,
  variablesOf,
  type MarkerGroup,
} from './editor/operations';
import { extensions } from './editor/schema';
import { labels } from './editor/views';
import FindingsTray from './FindingsTray.vue';
import InsertList, { type Insertion } from './InsertList.vue';
import MarkersPanel from './MarkersPanel.vue';
import PassageTray from './PassageTray.vue';
import ProofPane from './ProofPane.vue';
import SelectionBar, { type Making } from './SelectionBar.vue';
import TheManuscript from './TheManuscript.vue';
import TheScore from './TheScore.vue';
import ToolBar from './ToolBar.vue';
import VariablesTray from './VariablesTray.vue';
import { caretPath, caretPlace, pathInWords, passageAt, wordCount } from './caret';
import { useProof } from './useProof';
import type { useWorkingCopy } from './useWorkingCopy';
import { convert, countPlaces, insert, make, nextPlace, positionOf } from './useWriting';
import { currentValues } from './values';

const ConflictDialog = defineAsyncComponent(() => import('./ConflictDialog.vue'));
const props = defineProps<{ copy: ReturnType<typeof useWorkingCopy>; document: TextDocument }>();
const notice = useNotice();
const me = useMe();
const sheet = useTemplateRef<HTMLElement>('sheet');
const current = shallowRef<TextDocument>(props.document);
const proof = useProof(props.copy.name, current);
const beat = ref(0);
const texts = ref<TextSummary[]>([]);
const tab = ref<'Variables' | 'Passage' | 'Findings' | 'Markers'>('Variables');
const openVariable = ref<string>();
const finding = ref(-1);
const more = ref(false);
const showingValues = ref(false);
const list = ref<{ left: number; top: number }>();
const bar = ref<{ left: number; top: number; focus: boolean }>();
const kind = computed<Kind>(() => current.value.attrs.front.kind);
const part = ref<'manuscript' | 'proof'>('manuscript');

const editor = new Editor({
  extensions,
  content: props.document as never,
  editorProps: {
    attributes: { 'aria-label': 'Manuscript', role: 'textbox', 'aria-multiline': 'true' },
    // An address pasted over selected words makes a link of them.
    handlePaste(view, event) {
      const text = event.clipboardData?.getData('text/plain').trim() ?? '';
      const { empty, from, to } = view.state.selection;
      if (empty || !/^(?:https?:\/\/|mailto:|tel:)\S+$/.test(text)) return false;
      const link = view.state.schema.marks.link?.create({ href: text });
      if (!link) return false;
      view.dispatch(view.state.tr.addMark(from, to, link));
      return true;
    },
  },
  onTransaction({ transaction }) {
    beat.value += 1;
    if (transaction.docChanged) documentChanged(transaction.getMeta('paste') === true);
    placeBar();
  },
});

function documentChanged(pasted: boolean): void {
  current.value = normalise(editor.getJSON() as unknown as TextDocument);
  props.copy.changed(current.value);
  const { $from, empty } = editor.state.selection;
  if (
    empty &&
    $from.parent.textBetween(0, $from.parentOffset, undefined, '\uFFFC').endsWith('{{') &&
    $from.parent.type.name !== 'codeBlock'
  ) {
    queueMicrotask(() => {
      removeBefore(editor, 2);
      openList();
    });
  }
  if (pasted && findMarkerGroups(editor.state.doc).length > 0) {
    tab.value = 'Markers';
    notice.say(
      `${markers.value.length} ${markers.value.length === 1 ? 'marker' : 'markers'} found in what was pasted.`,
    );
  }
}
const variables = computed<readonly Variable[]>(() => (beat.value >= 0 ? variablesOf(editor.state.doc) : []));
const markers = computed<MarkerGroup[]>(() => (current.value ? findMarkerGroups(editor.state.doc) : []));
const places = computed(() => (current.value ? countPlaces(editor) : new Map<string, number>()));
const values = computed(() =>
  currentValues(proof.program.value, proof.recipient.value, me.fields(), proof.answers.value),
);
const chosen = computed(() => (beat.value >= 0 ? passageAt(editor) : undefined));
const chosenHolds = computed(() => (chosen.value ? holds(chosen.value.condition) : undefined));
const path = computed(() => (beat.value >= 0 ? pathInWords(editor, variables.value) : ''));
const words = computed(() => wordCount(current.value));
const fields = computed(() => [
  ...(proof.set.value?.columns ?? [{ key: 'first_name' }, { key: 'email' }]).map((column) => `recipient.${column.key}`),
  ...Object.keys(me.fields()).map((key) => `sender.${key}`),
]);
const selectionWords = computed(() =>
  beat.value >= 0 ? editor.state.doc.textBetween(editor.state.selection.from, editor.state.selection.to, ' ') : '',
);
const oneLine = computed(
  () => beat.value >= 0 && editor.state.selection.$from.parent === editor.state.selection.$to.parent,
);
const inBody = computed(() => beat.value >= 0 && caretPath(editor)[0] === editor.state.doc.childCount - 1);

watch(
  [variables, values, showingValues, () => proof.program.value?.texts.join()],
  () => {
    const brought = (proof.program.value?.slots ?? []).map((slot) => slot.variable);
    labels.set(
      [...variables.value, ...brought.filter((each) => !variables.value.some((own) => own.key === each.key))],
      showingValues.value ? (name) => values.value.get(name) : undefined,
    );
    labels.refresh();
  },
  { immediate: true },
);

function holds(condition: Condition): boolean | undefined {
  const value = values.value.get(`raw ${condition.of}`);
  if (value === undefined) return condition.not;
  const yes = condition.is.length > 0 ? condition.is.some((key) => value.split('\n').includes(key)) : value === 'true';
  return yes !== condition.not;
}
function caretBox(): { left: number; top: number } {
  const box = editor.view.coordsAtPos(editor.state.selection.from);
  return { left: Math.min(box.left, innerWidth - 380), top: Math.min(box.bottom + 6, innerHeight - 340) };
}
function openList(): void {
  bar.value = undefined;
  list.value = caretBox();
}
/** The bar stands by the selection as soon as there is one; `Alt Enter` takes the keys to it. */
function placeBar(): void {
  if (list.value) return;
  const { empty, from, to } = editor.state.selection;
  const isText =
    !empty && editor.state.doc.textBetween(from, to, ' ').trim() !== '' && !('node' in editor.state.selection);
  if (!isText) bar.value = undefined;
  else if (!bar.value?.focus) bar.value = { ...caretBox(), focus: false };
}
function leave(): void {
  list.value = undefined;
  bar.value = undefined;
  editor.commands.focus();
}
function onInsert(insertion: Insertion): void {
  list.value = undefined;
  editor.commands.focus();
  insert(editor, insertion);
  editor.commands.focus();
}
function onMake(making: Making): void {
  bar.value = undefined;
  notice.say(make(editor, making), () => void editor.commands.undo());
  editor.commands.focus();
  tab.value = making.what === 'variable' || making.what === 'pick-one' ? 'Variables' : 'Passage';
}
function onConvert(groups: MarkerGroup[]): void {
  notice.say(convert(editor, groups), () => void editor.commands.undo());
  tab.value = 'Variables';
}
function showPlace(place: { from: number; to: number }): void {
  editor.chain().focus().setTextSelection(place).scrollIntoView().run();
}
function showFinding(index: number): void {
  const all = proof.findings.value;
  finding.value = (index + all.length) % Math.max(1, all.length);
  const one = all[finding.value];
  tab.value = 'Findings';
  if (!one) return;
  if (one.place.variable && variables.value.some((variable) => variable.key === one.place.variable)) {
    tab.value = 'Variables';
    openVariable.value = one.place.variable;
    return;
  }
  const pos = one.place.path && !one.place.text ? positionOf(editor, one.place.path) : undefined;
  if (pos === undefined) return;
  const from = pos + (one.place.offset ?? 0);
  editor
    .chain()
    .focus()
    .setTextSelection(one.place.length === undefined ? pos + 1 : { from, to: from + one.place.length })
    .scrollIntoView()
    .run();
}
function onRepair({ repair }: Finding): void {
  const pos = repair && positionOf(editor, repair.path);
  if (!repair || pos === undefined) return;
  editor.view.dispatch(
    editor.state.tr.insertText(repair.insert, pos + repair.offset, pos + repair.offset + repair.length),
  );
  notice.say(`${repair.label}: done.`, () => void editor.commands.undo());
}
function nextBlank(back: boolean): void {
  const blanks = proof.message.value?.blanks ?? [];
  const now = blanks.indexOf(openVariable.value ?? '');
  const next = blanks[(now + (back ? -1 : 1) + blanks.length) % Math.max(1, blanks.length)];
  if (!next) return;
  tab.value = 'Variables';
  openVariable.value = next;
  const pos = nextPlace(editor, next);
  if (pos !== undefined) selectNode(editor, pos);
}
function stepTo(key: string): void {
  const pos = nextPlace(editor, key);
  if (pos !== undefined) selectNode(editor, pos);
}
function governAnew(condition: Condition): void {
  const at = chosen.value;
  if (!at) return;
  const { tr, schema } = editor.state;
  if (at.kind === 'passage') tr.setNodeMarkup(at.pos, undefined, condition);
  else if (schema.marks.phrase && at.mark)
    tr.removeMark(at.from, at.to, at.mark).addMark(at.from, at.to, schema.marks.phrase.create(condition));
  editor.view.dispatch(tr);
}
function takeBracketOff(): void {
  const at = chosen.value;
  if (!at) return;
  if (at.kind === 'passage') unwrap(editor, at.pos);
  else if (at.mark) editor.view.dispatch(editor.state.tr.removeMark(at.from, at.to, at.mark));
  notice.say('The bracket is off; the words stay.', () => void editor.commands.undo());
}
function answerFor(condition: Condition | undefined, value: unknown): void {
  if (condition) proof.answers.value = { ...proof.answers.value, [condition.of]: value };
}
function addVariable(): void {
  const variable = newVariable(editor.state.doc, 'New variable', 'text', { required: true });
  editor.view.dispatch(setVariables(editor.state.tr, [...variables.value, variable]));
  openVariable.value = variable.key;
}
function remove(variable: Variable): void {
  removeVariable(editor, variable);
  openVariable.value = undefined;
  notice.say(`“${variable.label ?? variable.key}” is taken out.`, () => void editor.commands.undo());
}
function setFront(name: 'title' | 'call' | 'purpose' | 'signature' | 'locale', value: string): void {
  const { [name]: _old, ...front } = editor.state.doc.attrs.front as TextDocument['attrs']['front'];
  const next = {
    ...front,
    ...(value.trim() === '' && name !== 'title' ? {} : { [name]: value.trim() || current.value.attrs.front.title }),
  };
  editor.view.dispatch(editor.state.tr.setDocAttribute('front', next));
}
async function settle(choice: 'mine' | 'theirs'): Promise<void> {
  try {
    const other = await props.copy.settle(choice);
    notice.say(`The other text is kept as “${other}”.`);
    if (choice === 'theirs') location.reload();
  } catch (problem) {
    notice.fail(problem);
  }
}
function onKey(event: KeyboardEvent): void {
  const key = keyOf(event);
  if (!key || key.id === 'call') return;
  event.preventDefault();
  if (key.id === 'insert') {
    if (editor.state.selection.empty || 'node' in editor.state.selection) openList();
    else bar.value = { ...caretBox(), focus: true };
  } else if (key.id === 'recipient') proof.step(key.back ? -1 : 1);
  else if (key.id === 'finding') showFinding(finding.value + (key.back ? -1 : 1));
  else if (key.id === 'blank') nextBlank(key.back);
}
const blanks = computed(() => proof.message.value?.blanks.length ?? 0);
const level = computed(() => (beat.value >= 0 ? caretPlace(editor) : undefined));

onMounted(async () => {
  window.addEventListener('keydown', onKey);
  try {
    await Promise.all([proof.load(), api.texts().then((all) => (texts.value = all))]);
    triggerRef(current);
  } catch (problem) {
    notice.fail(problem);
  }
});
onBeforeUnmount(() => {
  window.removeEventListener('keydown', onKey);
  editor.destroy();
});
const front = computed(() => current.value.attrs.front);
const signatures = computed(() => texts.value.filter((text) => text.kind === 'signature' && !text.binned));
</script>

<template>
  <header class="head">
    <h1>
      <input
        class="title"
        :value="front.title"
        aria-label="Title"
        @change="setFront('title', ($event.target as HTMLInputElement).value)"
      />
    </h1>
    <span class="quiet small state" :class="{ error: copy.failed.value }" role="status">{{ copy.state.value }}</span>
    <details class="about right">
      <summary class="small">Call word, kind of mail, signature</summary>
      <div class="sheet about-sheet">
        <label class="field"
          ><span>Call word</span
          ><input
            :value="front.call ?? ''"
            maxlength="30"
            @change="setFront('call', ($event.target as HTMLInputElement).value.toLowerCase())"
        /></label>
        <label v-if="kind === 'message'" class="field"
          ><span>Sent as</span
          ><select
            :value="front.purpose ?? 'new'"
            @change="setFront('purpose', ($event.target as HTMLSelectElement).value)"
          >
            <option value="new">new message</option>
            <option value="reply">reply</option>
            <option value="invitation">invitation</option>
          </select></label
        >
        <label v-if="kind === 'message'" class="field"
          ><span>Signature</span
          ><select
            :value="front.signature ?? ''"
            @change="setFront('signature', ($event.target as HTMLSelectElement).value)"
          >
            <option value="">the sender’s own</option>
            <option value="none">none</option>
            <option v-for="text in signatures" :key="text.name" :value="text.name">{{ text.title }}</option>
          </select></label
        >
        <label class="field"
          ><span>Language</span
          ><input
            :value="front.locale ?? ''"
            placeholder="en-GB"
            @change="setFront('locale', ($event.target as HTMLInputElement).value)"
        /></label>
        <a class="small" :href="`/api/texts/${copy.name.value}/file`" download>Save as a file</a>
      </div>
    </details>
    <RouterLink
      v-if="kind === 'message'"
      v-slot="{ navigate }"
      :to="{ name: 'filling', params: { id: 'new' }, query: { template: copy.name.value } }"
      custom
      ><button @click="copy.flush().then(() => navigate())">Fill</button></RouterLink
    >
  </header>
  <nav class="parts" aria-label="Parts">
    <button
      v-for="each in ['manuscript', 'proof'] as const"
      :key="each"
      class="plain"
      :aria-pressed="part === each"
      @click="part = each"
    >
      {{ each === 'manuscript' ? 'Manuscript' : 'Proof and tray' }}
    </button>
  </nav>
  <div class="desk" :class="part">
    <main class="left">
      <ToolBar :editor="editor" @insert="openList" @markers="tab = 'Markers'" />
      <div class="table">
        <TheScore :editor="editor" :sheet="sheet" @choose="tab = 'Passage'" />
        <article ref="sheet" class="sheet page">
          <button v-if="kind === 'message'" class="plain small more" :aria-expanded="more" @click="more = !more">
            Cc, Bcc, reply-to {{ more ? '▾' : '▸' }}
          </button>
          <TheManuscript :editor="editor" :kind="kind" :more="more" />
        </article>
      </div>
    </main>
    <aside class="pane">
      <ProofPane
        :proof="proof"
        :level="level"
        @pick="
          (at) => {
            const pos = positionOf(editor, at);
            if (pos !== undefined)
              editor
                .chain()
                .focus()
                .setTextSelection(pos + 1)
                .scrollIntoView()
                .run();
          }
        "
        @blank="
          (key) => {
            tab = 'Variables';
            openVariable = key;
          }
        "
      />
      <section class="tray" aria-label="Tray">
        <div class="tabs" role="tablist">
          <button
            v-for="[name, count] in [
              ['Variables', variables.length],
              ['Passage', undefined],
              ['Findings', proof.findings.value.length],
              ['Markers', markers.length],
            ] as const"
            :key="name"
            class="plain"
            role="tab"
            :aria-selected="tab === name"
            @click="tab = name"
          >
            {{ name }} <span v-if="count !== undefined">{{ count }}</span>
          </button>
          <label class="right small values"><input v-model="showingValues" type="checkbox" /> values</label>
        </div>
        <div class="tray-body">
          <VariablesTray
            v-if="tab === 'Variables'"
            v-model:open="openVariable"
            :variables="variables"
            :program="proof.program.value"
            :places="places"
            :values="values"
            @change="(key, change) => changeVariable(editor, key, change)"
            @remove="remove"
            @add="addVariable"
            @step="stepTo"
          />
          <PassageTray
            v-else-if="tab === 'Passage'"
            :condition="chosen?.condition"
            :variables="variables"
            :holds="chosenHolds"
            @change="governAnew"
            @unwrap="takeBracketOff"
            @tick="answerFor(chosen?.condition, $event)"
          />
          <FindingsTray
            v-else-if="tab === 'Findings'"
            :findings="proof.findings.value"
            :current="finding"
            @show="showFinding"
            @repair="onRepair"
          />
          <MarkersPanel v-else :groups="markers" @convert="onConvert" @show="showPlace" />
        </div>
      </section>
    </aside>
  </div>
  <footer class="foot">
    <NoticeLine v-if="notice.current" />
    <template v-else
      ><span class="path">{{ path }}</span
      ><span>{{ words }} words</span
      ><span>{{ blanks }} {{ blanks === 1 ? 'blank' : 'blanks' }} for this recipient <kbd>F2</kbd></span
      ><span
        >{{ proof.findings.value.length }} {{ proof.findings.value.length === 1 ? 'finding' : 'findings' }}
        <kbd>F8</kbd></span
      ></template
    >
    <span class="right">next recipient <kbd>F9</kbd></span>
  </footer>
  <InsertList
    v-if="list"
    :variables="variables"
    :fields="fields"
    :texts="texts"
    :own="copy.name.value"
    :in-body="inBody"
    :place="list"
    @choose="onInsert"
    @close="leave"
  />
  <SelectionBar
    v-if="bar"
    :key="String(bar.focus)"
    :words="selectionWords"
    :places="findWords(editor.state.doc, selectionWords).length"
    :in-body="inBody"
    :one-line="oneLine"
    :variables="variables"
    :at="bar"
    :focus="bar.focus"
    @make="onMake"
    @close="leave"
  />
  <ConflictDialog v-if="copy.conflict.value" :conflict="copy.conflict.value" @settle="settle" />
</template>

<style scoped>
.title {
  font: 500 1.125rem/1.5rem var(--serif);
  border-color: transparent !important;
  background: transparent !important;
  padding: 2px 4px !important;
  margin-left: -4px;
  width: auto !important;
  field-sizing: content;
  max-width: 420px;
  text-overflow: ellipsis;
}
.title:hover {
  border-color: var(--edge) !important;
}
.state.error {
  color: var(--error);
}
.about {
  position: relative;
}
.about summary {
  cursor: pointer;
  color: var(--quiet);
}
.about-sheet {
  position: absolute;
  right: 0;
  top: 28px;
  width: 280px;
  padding: 16px;
  display: grid;
  gap: 12px;
  z-index: 8;
}
.desk {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 432px;
}
.left {
  display: flex;
  flex-direction: column;
  min-width: 0;
  min-height: 0;
}
.table {
  flex: 1;
  overflow: auto;
  display: flex;
  padding: 16px 16px 48px;
  align-items: flex-start;
}
.page {
  position: relative;
  width: 576px;
  min-height: 100%;
  padding: 18px 27px;
  flex: 0 1 auto;
  min-width: 0;
}
.more {
  position: absolute;
  right: 20px;
  top: 20px;
  height: 22px;
  color: var(--quiet);
  z-index: 1;
}
.pane {
  border-left: 1px solid var(--hair);
  display: flex;
  flex-direction: column;
  min-height: 0;
}
.tray {
  height: 40%;
  border-top: 1px solid var(--edge);
  display: flex;
  flex-direction: column;
  flex: none;
  min-height: 0;
}
.tabs {
  display: flex;
  align-items: center;
  gap: 2px;
  padding: 0 8px;
  border-bottom: 1px solid var(--hair);
  height: 36px;
  flex: none;
  font-size: 0.8125rem;
  color: var(--quiet);
}
.tabs [aria-selected='true'] {
  color: var(--ink);
  font-weight: 600;
  box-shadow: inset 0 -2px var(--action);
  border-radius: 0;
}
.tabs button {
  height: 36px;
  gap: 4px;
}
.values {
  white-space: nowrap;
}
.tabs {
  overflow-x: auto;
}
.tray-body {
  overflow: auto;
  flex: 1;
}
.path {
  overflow: hidden;
  text-overflow: ellipsis;
  max-width: 40%;
}
.parts {
  display: none;
}
@media (min-width: 1100px) and (max-width: 1279px) {
  .desk {
    grid-template-columns: minmax(0, 1fr) 380px;
  }
}
@media (min-width: 900px) and (max-width: 1099px) {
  .desk {
    grid-template-columns: minmax(0, 1fr);
    grid-template-rows: minmax(0, 55%) minmax(0, 45%);
  }
  .pane {
    border-left: 0;
    border-top: 1px solid var(--edge);
    display: grid;
    grid-template-columns: 1fr 1fr;
  }
  .tray {
    height: auto;
    border-top: 0;
    border-left: 1px solid var(--hair);
  }
}
@media (max-width: 899px) {
  .parts {
    display: flex;
    border-bottom: 1px solid var(--hair);
    padding: 0 8px;
  }
  .parts [aria-pressed='true'] {
    font-weight: 600;
    box-shadow: inset 0 -3px var(--action);
  }
  .desk {
    grid-template-columns: minmax(0, 1fr);
  }
  .desk.manuscript .pane,
  .desk.proof .left {
    display: none;
  }
  .table {
    padding: 12px 8px;
  }
  .page {
    padding: 16px;
  }
  .about {
    display: none;
  }
  .foot {
    overflow-x: auto;
  }
}
</style>
