/** Hand-made markers in the manuscript, and turning them into variables and passages. */
import type { Editor } from '@tiptap/core';
import type { Node as PmNode } from '@tiptap/pm/model';
import type { Transaction } from '@tiptap/pm/state';
import {
  DEFAULT_LOCALE,
  findMarkers,
  firstOf,
  guessVariable,
  keyFromLabel,
  labelFromKey,
  writtenAlternatives,
  type Condition,
  type Front,
  type Marker,
  type TypeName,
  type Variable,
  valueType,
} from '@vocabula/core';
import { today } from '../../../ui/today';
import { guessFromWords } from '../../bar/guess';
import { penRuns } from './pens';
import { eachLine, type Range } from './places';
import { optionsFrom, replaceAll, setVariables, variablesOf } from './variables';
import { govern, targetOf } from './wrap';

/** Words that stay, under a condition: without what was written around them. */
interface Stretch extends Range {
  readonly inner: Range;
  readonly not: boolean;
  /** Of alternatives: which one, from 0. */
  readonly option?: number;
}
/** Markers of one wording, with what they would become. */
export interface MarkerGroup {
  readonly id: string;
  /** A value in their place, words that are there sometimes, or words of which one is kept. */
  readonly becomes: 'value' | 'optional' | 'alternatives';
  readonly text: string;
  /** What the marker says of itself; empty for blanks. */
  readonly words: string;
  readonly places: readonly Range[];
  readonly stretches: readonly Stretch[];
  readonly type: TypeName;
  readonly label: string;
  readonly options: readonly string[] | undefined;
  /** The form that says that it is a marker, and goes with it. */
  readonly sign?: 'highlight' | 'italic' | 'bold';
}
/** What is turned into variables; `from` names the field that fills it. */
export type TakenMarkers = Pick<
  MarkerGroup,
  'becomes' | 'places' | 'stretches' | 'type' | 'label' | 'options' | 'sign'
> & {
  readonly from?: string | undefined;
};

interface Line {
  readonly text: string;
  readonly at: (offset: number) => number;
}

/** All hand-made markers of a document, equal ones together. Rules are told apart by the word before them. */
export function findMarkerGroups(doc: PmNode): MarkerGroup[] {
  const lines: Line[] = [];
  eachLine(doc, (text, at) => void lines.push({ text, at }));
  const groups = new Map<string, MarkerGroup>();
  const add = (group: MarkerGroup): void => {
    const known = groups.get(group.id);
    const places = [...(known?.places ?? []), ...group.places];
    groups.set(group.id, { ...(known ?? group), places, stretches: [...(known?.stretches ?? []), ...group.stretches] });
  };
  for (const line of lines) for (const marker of findMarkers(line.text)) add(groupOf(line, marker));
  for (const group of emphasisedChoices(doc)) add(group);
  const written = [...groups.values()].flatMap(({ places }) => places);
  for (const group of highlightedGroups(doc, written)) add(group);
  writtenAlternatives(lines.map(({ text }) => text)).forEach((run, index) => {
    const stretches = run.flatMap(({ line, start, inner }, option): Stretch[] => {
      const { at } = lines[line] ?? {};
      if (!at) return [];
      const own = { from: at(inner.start), to: at(inner.end) };
      return [{ from: at(start), to: own.to, inner: own, not: false, option }];
    });
    const said = run.map(({ line, inner }) => firstOf(lines[line]?.text.slice(inner.start, inner.end) ?? '', 4));
    const base = { id: `alternatives ${index}`, becomes: 'alternatives', type: 'choice', words: '' } as const;
    add({ ...base, text: said.join(' / '), label: said.join(' or '), options: said, places: stretches, stretches });
  });
  return [...groups.values()];
}

/** Choices that are written out between asterisks, which pasting has read as what they say of form. */
function emphasisedChoices(doc: PmNode): MarkerGroup[] {
  const found: MarkerGroup[] = [];
  doc.descendants((node, pos) => {
    const sign = (['italic', 'bold'] as const).find((name) => node.marks.some(({ type }) => type.name === name));
    if (!node.isText || !sign) return;
    const text = `*${node.text ?? ''}*`;
    for (const marker of findMarkers(text))
      if (marker.kind === 'choose' && marker.start === 0 && marker.end === text.length)
        found.push({
          ...groupOf({ text, at: () => pos }, marker),
          places: [{ from: pos, to: pos + node.nodeSize }],
          sign,
        });
  });
  return found;
}

/** What is highlighted as people mark what changes from letter to letter, where it is no written marker. */
function highlightedGroups(doc: PmNode, written: readonly Range[]): MarkerGroup[] {
  const labels = new Map<string, string>();
  const { locale = DEFAULT_LOCALE } = (doc.attrs.front ?? {}) as Partial<Front>;
  return penRuns(doc)
    .filter(({ from, to }) => !written.some((place) => place.from < to && place.to > from))
    .map((run): MarkerGroup => {
      const guess = guessFromWords(run.text, { today: today(), locale });
      const [, figure, counts] = (guess.type === 'text' && /^(\d+) +(\p{L}+)$/u.exec(run.text)) || [];
      // Of what is counted the number changes, and its word goes with it.
      const text = figure ?? run.text;
      const { from } = run;
      const to = from + text.length;
      const id = `highlighted ${run.text.toLowerCase()}`;
      const meant = guessVariable({ kind: 'highlighted', start: 0, end: text.length, words: text }, '');
      const { type, label } = counts
        ? { type: 'number' as const, label: labelFromKey(counts) }
        : guess.type === 'text'
          ? meant
          : guess;
      // Two days are two variables, though each is a date.
      const taken = new Set([...labels].flatMap(([other, name]) => (other === id ? [] : [name])));
      const own = labels.get(id) ?? counted(label, taken);
      labels.set(id, own);
      const { options } = meant;
      return {
        ...{ id, text, words: text, type, label: own, options, places: [{ from, to }], stretches: [] },
        ...{ becomes: 'value', sign: 'highlight' },
      };
    });
}
/** A label that none has yet, with a number where it takes one. */
function counted(label: string, taken: ReadonlySet<string>): string {
  let count = 1;
  while (taken.has(count === 1 ? label : `${label} ${count}`)) count += 1;
  return count === 1 ? label : `${label} ${count}`;
}

function groupOf({ text, at }: Line, marker: Marker): MarkerGroup {
  const { kind, start, end, words, inner } = marker;
  const own = inner ? text.slice(inner.start, inner.end) : '';
  const { type, label, options } = guessVariable(marker, text.slice(0, start), own);
  const place = { from: at(start), to: at(end) };
  const said = words.toLowerCase().replace(/[\s_]+/g, ' ');
  const common = { type, label, options, words, text: text.slice(start, end), places: [place] };
  if (kind !== 'optional' || !inner)
    return { ...common, id: words ? said : `rule ${label}`, becomes: 'value', stretches: [] };
  const stretch = { ...place, inner: { from: at(inner.start), to: at(inner.end) }, not: marker.not ?? false };
  return { ...common, id: `sometimes ${said || own.toLowerCase()}`, becomes: 'optional', stretches: [stretch] };
}

/**
 * Turns markers into variables, and what they stand around into passages, in one step. A label that a variable of the
 * type has already joins it. @returns how many places there were
 */
export function convertMarkers(editor: Editor, groups: readonly TakenMarkers[]): number {
  const { tr, doc } = editor.state;
  const variables = [...variablesOf(doc)];
  const places: (Range & { name: string })[] = [];
  const stretches: (Stretch & { readonly condition: Condition })[] = [];
  for (const group of groups) {
    const variable = variableFor(group, variables);
    if (group.becomes === 'value') for (const place of group.places) places.push({ ...place, name: variable.key });
    for (const stretch of group.stretches) {
      const option = stretch.option === undefined ? undefined : variable.options?.[stretch.option]?.key;
      const is = option === undefined ? [] : [option];
      stretches.push({ ...stretch, condition: { of: variable.key, is, not: stretch.not, run: 0 } });
    }
  }
  for (const { sign, places: marked } of groups) {
    const form = sign && sign !== 'highlight' ? doc.type.schema.marks[sign] : undefined;
    if (form) for (const { from, to } of marked) tr.removeMark(from, to, form);
  }
  // The colour goes that said that something is a marker.
  const taken = groups.flatMap(({ places: marked }) => marked);
  for (const { from, to, whole } of penRuns(doc))
    if (taken.some((place) => place.from < to && place.to > from))
      tr.removeMark(whole.from, whole.to, doc.type.schema.marks.highlight);
  replaceAll(tr, places);
  // From the end, so that what stands before stays where it is.
  for (const stretch of stretches.toSorted((a, b) => b.from - a.from)) putUnder(tr, stretch);
  setVariables(tr, variables);
  editor.view.dispatch(tr.scrollIntoView());
  return places.length + stretches.length;
}

/** The variable that markers become: one that is there, or a new one, which is added. */
function variableFor({ becomes, type, label, options, from }: TakenMarkers, variables: Variable[]): Variable {
  const same = variables.find((each) => each.type === type && each.label?.toLowerCase() === label.toLowerCase());
  if (same && becomes !== 'alternatives') return same;
  const made: Variable = {
    ...{ key: keyFromLabel(label, new Set(variables.map(({ key }) => key))), type, label, required: true },
    ...valueType(type).initial,
    ...(type === 'choice' ? { options: optionsFrom(options ?? [label]) } : {}),
    ...(from === undefined ? {} : { from }),
  };
  variables.push(made);
  return made;
}

/** Takes what is written around some words away, and puts them under their condition. */
function putUnder(tr: Transaction, { from, to, inner, condition }: Stretch & { readonly condition: Condition }): void {
  const now = (pos: number): number => tr.mapping.map(pos);
  tr.delete(now(inner.to), now(to));
  tr.delete(now(from), now(inner.from));
  const target = targetOf(tr.doc, { from: now(from), to: now(inner.to) });
  if (target) govern(tr, target, condition);
}
