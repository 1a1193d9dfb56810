/** Old markers of the manuscript. What finds them is loaded where there may be some. */
import type { Editor } from '@tiptap/core';
import { mayHoldMarkers, type TextDocument } from '@vocabula/core';
import { computed, shallowRef, watch, type Ref } from 'vue';

import type { MarkerGroup } from './editor/operations/markers';

type Markers = typeof import('./editor/operations/markers');

/** Whether there may be any, which is quickly said: most texts have none. */
function mayHold({ state: { doc } }: Editor): boolean {
  let may = false;
  doc.descendants((node) => {
    may ||=
      node.marks.some(({ type }) => type.name === 'highlight') || (node.isText && mayHoldMarkers(node.text ?? ''));
    return !may;
  });
  return may;
}

/**
 * @param current the document, of which every state is looked through
 * @param found   hears once of those that the text has when they are first looked for
 */
export function useMarkers(
  editor: Editor,
  current: Readonly<Ref<TextDocument>>,
  found: (groups: readonly MarkerGroup[]) => void,
) {
  const loaded = shallowRef<Markers>();
  let loading: Promise<Markers> | undefined;
  /** What finds markers and turns them into variables. */
  const markerTools = (): Promise<Markers> =>
    (loading ??= import('./editor/operations/markers').then((tools) => {
      loaded.value = tools;
      found(markers.value);
      return tools;
    }));
  watch(
    current,
    () => {
      // Where it cannot be loaded now, it is tried again with the next change.
      if (!loading && mayHold(editor)) void markerTools().catch(() => (loading = undefined));
    },
    { immediate: true },
  );
  const markers = computed(() =>
    current.value && loaded.value && !editor.isDestroyed ? loaded.value.findMarkerGroups(editor.state.doc) : [],
  );
  return { markers, markerTools };
}
