/** Hand-made markers in the manuscript, and turning them into variables. */
import type { Editor } from '@tiptap/core';
import type { Node as PmNode } from '@tiptap/pm/model';
import {
  findMarkers,
  guessVariable,
  keyFromLabel,
  type Marker,
  type MarkerKind,
  type TypeName,
  valueType,
} from '@vocabula/core';
import { eachLine, type Range } from './places';
import { optionsFrom, replaceAll, setVariables, variablesOf } from './variables';

/** Markers of one wording, with what they would become. */
export interface MarkerGroup {
  readonly id: string;
  readonly kind: MarkerKind;
  readonly text: string;
  readonly places: readonly Range[];
  readonly type: TypeName;
  readonly label: string;
  readonly options: readonly string[] | undefined;
}

/** All hand-made markers of a document, equal ones together. Rules are told apart by the word before them. */
export function findMarkerGroups(doc: PmNode): MarkerGroup[] {
  const groups = new Map<
    string,
    { marker: Marker; text: string; guess: ReturnType<typeof guessVariable>; places: Range[] }
  >();
  eachLine(doc, (text, at) => {
    for (const marker of findMarkers(text)) {
      const guess = guessVariable(marker, text.slice(0, marker.start));
      const id = marker.words ? marker.words.toLowerCase().replace(/[\s_]+/g, ' ') : `rule ${guess.label}`;
      const group = groups.get(id) ?? { marker, text: text.slice(marker.start, marker.end), guess, places: [] };
      group.places.push({ from: at(marker.start), to: at(marker.end) });
      groups.set(id, group);
    }
  });
  return [...groups.entries()].map(([id, { marker, text, guess, places }]) => ({
    id,
    kind: marker.kind,
    text,
    places,
    type: guess.type,
    label: guess.label,
    options: guess.options,
  }));
}

/** Turns markers into variables in one step. A label that a variable of the type has already joins it. */
export function convertMarkers(
  editor: Editor,
  groups: readonly Pick<MarkerGroup, 'places' | 'type' | 'label' | 'options'>[],
): number {
  const { tr, doc } = editor.state;
  const variables = [...variablesOf(doc)];
  const taken = new Set(variables.map((variable) => variable.key));
  const places: (Range & { name: string })[] = [];
  for (const group of groups) {
    let variable = variables.find(
      (each) => each.type === group.type && each.label?.toLowerCase() === group.label.toLowerCase(),
    );
    if (!variable) {
      const key = keyFromLabel(group.label, taken);
      taken.add(key);
      const options = group.type === 'choice' ? optionsFrom(group.options ?? [group.label]) : undefined;
      variable = {
        key,
        type: group.type,
        label: group.label,
        required: true,
        ...valueType(group.type).initial,
        ...(options ? { options } : {}),
      };
      variables.push(variable);
    }
    for (const place of group.places) places.push({ ...place, name: variable.key });
  }
  replaceAll(tr, places);
  setVariables(tr, variables);
  editor.view.dispatch(tr.scrollIntoView());
  return places.length;
}
