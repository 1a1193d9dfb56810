/** The desk: manuscript, proof and tray, and what moves between them. */
import type { Selection } from '@tiptap/pm/state';
import type { Finding, Condition, TextDocument, Variable } from '@vocabula/core';
import type { TextSummary } from '@vocabula/contract';
import { computed, onBeforeUnmount, onMounted, ref, triggerRef, watch } from 'vue';
import { api } from '../api/client';
import { keyOf } from '../ui/keys';
import { libraryVersion } from '../ui/library';
import { useMe } from '../ui/me';
import { useNotice } from '../ui/notice';
import {
  applyRepair,
  changeVariable,
  newVariable,
  positionOf,
  removeVariable,
  selectNode,
  setVariables,
  unwrap,
  type MarkerGroup,
} from './editor/operations';
import { labels } from './editor/views';
import type { Insertable, Insertion } from './insertions';
import type { Making } from './SelectionBar.vue';
import { useManuscript } from './useManuscript';
import { useProof } from './proof/useProof';
import type { useWorkingCopy } from './useWorkingCopy';
import { convert, insert, make, nextPlace } from './useWriting';

export type Tab = 'Variables' | 'Passage' | 'Findings' | 'Markers';
interface Place {
  left: number;
  top: number;
}

export function useDesk(copy: ReturnType<typeof useWorkingCopy>, document: TextDocument) {
  const notice = useNotice();
  const me = useMe();
  const texts = ref<TextSummary[]>([]);
  const tab = ref<Tab>('Variables');
  const openVariable = ref<string>();
  const finding = ref(-1);
  const showingValues = ref(false);
  const list = ref<Place>();
  const bar = ref<Place & { focus: boolean }>();

  /** The selection whose bar was closed: it does not open by itself again until something else is selected. */
  let dismissed: Selection | undefined;

  const own = copy.name.value;

  const manuscript = useManuscript(document, {
    changed(next, pasted) {
      // A desk that is being cleared for another text must not write into that one.
      if (copy.name.value !== own) return;
      copy.changed(next);
      const count = pasted ? manuscript.markers.value.length : 0;
      if (count === 0) return;
      tab.value = 'Markers';
      notice.say(`${count} ${count === 1 ? 'marker' : 'markers'} found in what was pasted.`);
    },
    braces: openList,
    moved: placeBar,
    escaped() {
      if (!bar.value) return false;
      leave();
      return true;
    },
  });
  const { editor, variables, chosen } = manuscript;
  const proof = useProof(copy.name, manuscript.current);
  const { values } = proof;
  const insertable = computed<Insertable>(() => ({
    variables: variables.value,
    fields: [
      ...(proof.set.value?.columns ?? [{ key: 'first_name' }, { key: 'email' }]).map(({ key }) => `recipient.${key}`),
      ...Object.keys(me.fields()).map((key) => `sender.${key}`),
    ],
    texts: texts.value,
    own,
    inBody: manuscript.inBody.value,
  }));
  const chosenHolds = computed(() => (chosen.value ? holds(chosen.value.condition) : undefined));
  const blanks = computed(() => proof.message.value?.blanks ?? []);

  watch(
    [variables, values, showingValues, proof.slots, libraryVersion],
    () => {
      const brought = proof.slots.value.map((slot) => slot.variable);
      labels.set(
        [...variables.value, ...brought.filter((each) => !variables.value.some((own) => own.key === each.key))],
        showingValues.value ? (name) => values.value.get(name) : undefined,
      );
      labels.refresh();
    },
    { immediate: true },
  );

  /** Whether a condition holds for the current recipient; undefined where that cannot be told yet. */
  function holds(condition: Condition): boolean | undefined {
    const value = values.value.get(`raw ${condition.of}`);
    if (value === undefined) return condition.not;
    const yes =
      condition.is.length > 0 ? condition.is.some((key) => value.split('\n').includes(key)) : value === 'true';
    return yes !== condition.not;
  }

  // — the insert list and the selection's bar —

  function caretBox(): Place {
    const box = editor.view.coordsAtPos(editor.state.selection.from);
    return {
      left: Math.max(8, Math.min(box.left, innerWidth - 380)),
      top: Math.max(8, Math.min(box.bottom + 6, innerHeight - 340)),
    };
  }
  function openList(): void {
    bar.value = undefined;
    list.value = caretBox();
  }
  /** The bar stands by the selection as soon as there is one; `Alt Enter` takes the keys to it. */
  function placeBar(): void {
    if (list.value) return;
    if (dismissed && !dismissed.eq(editor.state.selection)) dismissed = undefined;
    if (!manuscript.wordsSelected.value) bar.value = undefined;
    else if (!bar.value?.focus && !dismissed) bar.value = { ...caretBox(), focus: false };
  }
  function leave(): void {
    if (bar.value) dismissed = editor.state.selection;
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
    notice.say(make(editor, making), undo);
    editor.commands.focus();
    tab.value = making.what === 'variable' || making.what === 'pick-one' ? 'Variables' : 'Passage';
  }
  function onConvert(groups: MarkerGroup[]): void {
    notice.say(convert(editor, groups), undo);
    tab.value = 'Variables';
  }

  // — going to places —

  function show(place: { from: number; to: number }): void {
    editor.chain().focus().setTextSelection(place).scrollIntoView().run();
  }
  /** Puts the caret into the node that a place of the proof came from. */
  function showPath(path: readonly number[]): void {
    const pos = positionOf(editor, path);
    if (pos !== undefined) show({ from: pos + 1, to: pos + 1 });
  }
  function showVariable(key: string): void {
    tab.value = 'Variables';
    openVariable.value = key;
  }
  function showFinding(index: number): void {
    const all = proof.findings.value;
    finding.value = (index + all.length) % Math.max(1, all.length);
    tab.value = 'Findings';
    const one = all[finding.value];
    if (!one) return;
    const { variable, path, text, offset = 0, length } = one.place;
    if (variable && variables.value.some((each) => each.key === variable)) return showVariable(variable);
    const pos = path && !text ? positionOf(editor, path) : undefined;
    if (pos === undefined) return;
    show(length === undefined ? { from: pos + 1, to: pos + 1 } : { from: pos + offset, to: pos + offset + length });
  }
  function stepTo(key: string): void {
    const pos = nextPlace(editor, key);
    if (pos !== undefined) selectNode(editor, pos);
  }
  function nextBlank(back: boolean): void {
    const now = blanks.value.indexOf(openVariable.value ?? '');
    const count = blanks.value.length;
    const next = blanks.value[(now + (back ? -1 : 1) + count) % Math.max(1, count)];
    if (!next) return;
    showVariable(next);
    stepTo(next);
  }

  // — changes that the tray makes —

  const undo = (): void => void editor.commands.undo();
  function onRepair({ repair }: Finding): void {
    if (!repair || !applyRepair(editor, repair)) return;
    notice.say(`${repair.label}: done.`, undo);
  }
  function governAnew(condition: Condition): void {
    const at = chosen.value;
    if (!at) return;
    const { tr, schema } = editor.state;
    if (at.kind === 'passage') tr.setNodeMarkup(at.pos, undefined, condition);
    else if (schema.marks.phrase)
      tr.removeMark(at.from, at.to, at.mark).addMark(at.from, at.to, schema.marks.phrase.create(condition));
    editor.view.dispatch(tr);
  }
  function takeBracketOff(): void {
    const at = chosen.value;
    if (!at) return;
    if (at.kind === 'passage') unwrap(editor, at.pos);
    else editor.view.dispatch(editor.state.tr.removeMark(at.from, at.to, at.mark));
    notice.say('The bracket is off; the words stay.', undo);
  }
  /** Answers what governs the chosen passage, in the proof only. */
  function tryOut(value: unknown): void {
    const condition = chosen.value?.condition;
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
    notice.say(`“${variable.label ?? variable.key}” is taken out.`, undo);
  }
  const change = (key: string, how: (variable: Variable) => Variable): void => changeVariable(editor, key, how);
  /** Sets an attribute of the front matter; what is empty is taken out, except the title. */
  function setFront(name: 'title' | 'call' | 'purpose' | 'signature' | 'locale', value: string): void {
    const { [name]: old, ...others } = manuscript.front.value;
    const given = value.trim() || (name === 'title' ? old : undefined);
    editor.view.dispatch(
      editor.state.tr.setDocAttribute('front', given === undefined ? others : { ...others, [name]: given }),
    );
  }

  /** Sends what was typed last to be kept. */
  async function keep(): Promise<void> {
    manuscript.settle();
    await copy.flush();
  }

  function onKey(event: KeyboardEvent): void {
    const key = keyOf(event);
    if (!key || key.id === 'call') return;
    event.preventDefault();
    if (key.id === 'insert') {
      if (manuscript.wordsSelected.value) bar.value = { ...caretBox(), focus: true };
      else openList();
    } else if (key.id === 'recipient') proof.step(key.back ? -1 : 1);
    else if (key.id === 'finding') showFinding(finding.value + (key.back ? -1 : 1));
    else if (key.id === 'blank') nextBlank(key.back);
  }
  onMounted(async () => {
    window.addEventListener('keydown', onKey);
    try {
      await Promise.all([proof.load(), api.texts().then((all) => (texts.value = all))]);
      triggerRef(manuscript.current);
    } catch (problem) {
      notice.fail(problem);
    }
  });
  onBeforeUnmount(() => window.removeEventListener('keydown', onKey));

  return {
    copy,
    manuscript,
    proof,
    texts,
    tab,
    openVariable,
    finding,
    showingValues,
    list,
    bar,
    values,
    insertable,
    chosenHolds,
    blanks,
    openList,
    leave,
    onInsert,
    onMake,
    onConvert,
    show,
    showPath,
    showVariable,
    showFinding,
    stepTo,
    onRepair,
    governAnew,
    takeBracketOff,
    tryOut,
    addVariable,
    remove,
    change,
    setFront,
    keep,
  };
}

export type Desk = ReturnType<typeof useDesk>;
