/** Stretches of the manuscript that are pointed out: hand-made markers, what was searched for, what remarks hang on. */
import { Extension } from '@tiptap/core';
import { findMarkers } from '@vocabula/core';
import type { Node as PmNode } from '@tiptap/pm/model';
import { Plugin, PluginKey, type EditorState, type Transaction } from '@tiptap/pm/state';
import { Decoration, DecorationSet } from '@tiptap/pm/view';
import { eachLine, type Range } from '../operations/places';

const markers = new PluginKey<DecorationSet>('markers');
const pointed = new PluginKey<DecorationSet>('pointed');
const remarked = new PluginKey<DecorationSet>('remarked');

/** The markers of the lines in a stretch. */
function markersIn(doc: PmNode, from: number, to: number): Decoration[] {
  const found: Decoration[] = [];
  eachLine(
    doc,
    (text, at) => {
      for (const { start, end } of findMarkers(text))
        found.push(Decoration.inline(at(start), at(end), { class: 'marker' }));
    },
    { from, to },
  );
  return found;
}

/** The stretch of the new document that a transaction changed, to the ends of its lines. */
function changedLines(tr: Transaction): Range | undefined {
  let [from, to] = [Infinity, -Infinity];
  tr.mapping.maps.forEach((map, index) => {
    map.forEach((_oldStart, _oldEnd, start, end) => {
      const rest = tr.mapping.slice(index + 1);
      from = Math.min(from, rest.map(start, -1));
      to = Math.max(to, rest.map(end, 1));
    });
  });
  if (from > to) return undefined;
  const [$from, $to] = [
    tr.doc.resolve(Math.min(from, tr.doc.content.size)),
    tr.doc.resolve(Math.min(to, tr.doc.content.size)),
  ];
  return {
    from: $from.parent.isTextblock ? $from.start() : from,
    to: $to.parent.isTextblock ? $to.end() : to,
  };
}

/** Shows the words that remarks hang on, in place of those before. */
export const remark = (state: EditorState, ranges: readonly Range[]): Transaction =>
  state.tr.setMeta('addToHistory', false).setMeta(
    remarked,
    ranges.map(({ from, to }) => Decoration.inline(from, to, { class: 'remarked' })),
  );

/** A plugin that shows what a transaction hands to it, and lets it move with the words. */
const shown = (key: PluginKey<DecorationSet>): Plugin<DecorationSet> =>
  new Plugin<DecorationSet>({
    key,
    state: {
      init: () => DecorationSet.empty,
      apply(tr, set) {
        const now = tr.getMeta(key) as Decoration[] | undefined;
        return now ? DecorationSet.create(tr.doc, now) : tr.docChanged ? set.map(tr.mapping, tr.doc) : set;
      },
    },
    props: { decorations: (state) => key.getState(state) },
  });

/** Points stretches out, in place of those before. */
export const point = (state: EditorState, ranges: readonly Range[], current = -1): Transaction =>
  state.tr.setMeta('addToHistory', false).setMeta(
    pointed,
    ranges.map(({ from, to }, index) =>
      Decoration.inline(from, to, { class: index === current ? 'pointed now' : 'pointed' }),
    ),
  );

export const Found = Extension.create({
  name: 'found',
  addProseMirrorPlugins: () => [
    new Plugin<DecorationSet>({
      key: markers,
      state: {
        init: (_config, { doc }) => DecorationSet.create(doc, markersIn(doc, 0, doc.content.size)),
        apply(tr, set) {
          if (!tr.docChanged) return set;
          const lines = changedLines(tr);
          const moved = set.map(tr.mapping, tr.doc);
          if (!lines) return moved;
          // Only lines that changed are read again.
          return moved.remove(moved.find(lines.from, lines.to)).add(tr.doc, markersIn(tr.doc, lines.from, lines.to));
        },
      },
      props: { decorations: (state) => markers.getState(state) },
    }),
    shown(pointed),
    shown(remarked),
  ],
});
