/** The desk: manuscript, proof and tray, and what moves between them. */
import type { Finding, TextDocument, Value } from '@vocabula/core';
import type { CheckpointReason } from '@vocabula/contract';
import { storeToRefs } from 'pinia';
import { computed, onMounted, provide, ref, triggerRef } from 'vue';
import { useRoute } from 'vue-router';
import { api } from '../../api/client';
import { useHouse } from '../../ui/house';
import { useMe } from '../../ui/me';
import { useNotice } from '../../ui/notice';
import { useTexts } from '../../ui/stores/lists';
import { applyRepair } from '../editor/operations/repair';
import type { TakenMarkers } from '../editor/operations/markers';
import { useProof } from '../proof/useProof';
import { useManuscript } from '../useManuscript';
import type { useWorkingCopy } from '../useWorkingCopy';
import { useStanding } from '../../versions/useStanding';
import type { Making } from './making';
import type { FrontField } from './tabs';
import { useTrayTab } from './useTrayTab';
import { useAssets } from './useAssets';
import { useBlockInPlace } from '../block/useBlockInPlace';
import { useBlocks } from './useBlocks';
import { useDeskKeys } from './useDeskKeys';
import { FIELDS, useFields } from './useFields';
import { useGoing } from './useGoing';
import { useInsertable } from './useInsertable';
import { useInserting } from './useInserting';
import { usePlaceKept } from './usePlaceKept';
import { usePassages } from './usePassages';
import { usePreviews } from './usePreviews';
import { useRemarks } from './useRemarks';
import { useSignOff } from './useSignOff';
import { useValueLabels } from './useValueLabels';
import { useVariables } from './useVariables';

// eslint-disable-next-line max-lines-per-function -- puts the parts of the desk together, each of others
export function useDesk(copy: ReturnType<typeof useWorkingCopy>, document: TextDocument) {
  const notice = useNotice();
  const route = useRoute();
  const me = useMe();
  const house = useHouse();
  const textStore = useTexts();
  const { list: texts } = storeToRefs(textStore);
  const { tab, shut, showChosen, goBack } = useTrayTab();
  const showingValues = ref(false);
  /** Counts how often the outline was asked for by its key. */
  const outlineAsked = ref(0);
  /** The option whose wording is being looked at. */
  const openOption = ref<string>();
  const own = copy.name.value;

  const manuscript = useManuscript(document, {
    changed(next, pasted) {
      // A desk that is being cleared for another text must not write into that one.
      if (copy.name.value !== own) return;
      copy.changed(next);
      if (pasted) void tellPasted();
    },
    acted: (editor, transaction) => fields?.acted(editor, transaction),
    focused: (editor) => fields?.enter(editor),
    escaped() {
      if (!inserting.bar.value) return goBack();
      inserting.leave();
      return true;
    },
    stays: () => tellStays(),
    // Of an old letter that was brought here, its markers are what is to be done first. In a template that has variables,
    // what is highlighted may be meant so.
    markersFound(groups) {
      const isNew = variables.value.length === 0;
      if (tab.value === 'variables' && groups.some(({ sign }) => isNew || sign !== 'highlight')) tab.value = 'markers';
    },
    chose: showChosen,
    pressedTwice: (pos) => void inPlace.open(pos),
    pasting: {
      known: (name) =>
        name.includes('.') ||
        variables.value.some(({ key }) => key === name) ||
        texts.value.some((text) => text.name === name),
      keepImage: (file, name) => assets.keepImage(file, name),
      say: (words) => notice.fail(new Error(words)),
      imagesCame: () => void (tab.value = 'chosen'),
      colours: () => house.house.style.colours,
    },
  });
  const { editor, variables, chosen } = manuscript;
  const fields = useFields(editor, { braces: () => inserting.openList(), moved: () => inserting.follow() });
  provide(FIELDS, fields);
  const undo = (): void => fields.undo();
  const { signOff, takeSignOff, offerSignOff } = useSignOff(manuscript, undo);
  usePlaceKept(editor, own);

  const proof = useProof(copy.name, manuscript.current);
  const { values } = proof;
  const valueOf = (key: string): Value | undefined => values.value.get(key)?.value;
  const answer = (key: string, value: unknown): void => {
    proof.answers.value = { ...proof.answers.value, [key]: value };
  };
  const blanks = computed(() => proof.message.value?.blanks ?? []);

  const remarks = useRemarks(editor, copy.name);
  const standing = useStanding();
  const assets = useAssets(editor, undo);
  const blocks = useBlocks(editor, undo, loadTexts);
  const inPlace = useBlockInPlace(editor, texts);
  const inserting = useInserting({
    fields: () => fields,
    line: () => fields.line.value,
    beat: fields.beat,
    copyBlock: blocks.copy,
    undo,
  });
  const tray = useVariables(editor, undo);
  const passages = usePassages({
    editor,
    brackets: manuscript.brackets,
    chosen,
    variables,
    rest: manuscript.rest,
    valueOf,
    answer,
    inPlace,
    undo,
    settle: manuscript.settle,
  });
  const going = useGoing({
    editor,
    findings: proof.findings,
    blanks,
    uses: manuscript.uses,
    openVariable(key, option) {
      tab.value = 'variables';
      tray.open.value = key;
      openOption.value = option;
    },
    openVariableIs: () => tray.open.value,
    isDeclared: (key) => variables.value.some((each) => each.key === key),
    showFindings: () => void (tab.value = 'findings'),
  });
  const previews = usePreviews({
    locale: () => manuscript.front.value.locale ?? house.house.locale ?? 'en-GB',
    valueOf,
    words: (name) => values.value.get(name)?.words,
    input: () => ({ recipient: proof.recipient.value, sender: me.fields(), answers: proof.answers.value }),
    house: () => house.house,
    recipient: proof.recipient,
  });

  const { facts, insertable } = useInsertable({ manuscript, fields, proof, texts, own });
  useValueLabels(manuscript, proof, facts, showingValues);

  const tellStays = (): void => notice.say('The bracket stays. Remove it in the outline (F6, u) or in the tray.');
  function onMake(making: Making): void {
    inserting.makeOf(making);
    manuscript.settle();
    tab.value = making.what === 'variable' ? 'variables' : 'chosen';
    if (making.what === 'variable') tray.open.value = undefined;
  }
  async function onConvert(groups: readonly TakenMarkers[]): Promise<void> {
    await checkpoint('conversion');
    const { convertMarkers } = await manuscript.markerTools();
    const count = convertMarkers(editor, groups);
    const many = groups.length === 1 ? 'variable' : 'variables';
    notice.say(`${groups.length} ${many} in ${count} ${count === 1 ? 'place' : 'places'}.`, undo);
    tab.value = 'variables';
  }
  function onRepair({ repair }: Finding): void {
    if (repair && applyRepair(editor, repair)) notice.say(`${repair.label}: done.`, undo);
  }
  async function tellPasted(): Promise<void> {
    if (signOff.value.length > 0) offerSignOff();
    await manuscript.markerTools();
    const count = manuscript.markers.value.length;
    if (count > 0) tab.value = 'markers';
    if (count > 0 && signOff.value.length === 0)
      notice.say(`${count} ${count === 1 ? 'marker' : 'markers'} found in what was pasted.`);
  }
  /** Sets an attribute of the front matter; what is empty is taken out, except the title. */
  function setFront(name: FrontField, value: string): void {
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
  /** Keeps the state before something large is done, so that it can be gone back to. Without a connection there is none. */
  async function checkpoint(reason: CheckpointReason): Promise<void> {
    await keep();
    await api.checkpoint(own, reason).catch(() => undefined);
  }
  async function loadTexts(): Promise<void> {
    await textStore.load();
  }

  onMounted(async () => {
    try {
      await Promise.all([proof.load(), loadTexts(), remarks.load(), standing.load(own)]);
      triggerRef(manuscript.current);
      // An address may ask for a place of the manuscript, as those of proofs do.
      if (/^\d+(\.\d+)*$/.test(String(route.query.at ?? '')))
        going.showPath(String(route.query.at).split('.').map(Number));
    } catch (problem) {
      notice.fail(problem);
    }
  });
  useDeskKeys({ manuscript, fields, proof, inserting, going, passages, tab, outlineAsked, showingValues });

  return {
    copy,
    manuscript,
    fields,
    proof,
    texts,
    tab,
    shut,
    showChosen,
    goBack,
    openOption,
    outlineAsked,
    showingValues,
    inserting,
    insertable,
    tray,
    passages,
    blocks,
    inPlace,
    assets,
    going,
    previews,
    valueOf,
    answer,
    blanks,
    undo,
    tellStays,
    signOff,
    takeSignOff,
    onMake,
    onConvert,
    onRepair,
    setFront,
    keep,
    checkpoint,
    remarks,
    standing,
  };
}

export type Desk = ReturnType<typeof useDesk>;
