import type { DraggableEvent } from 'vue-draggable-plus';
import { onScopeDispose, ref, watch, type Ref } from 'vue';

/**
 * Makes the children of a list sortable by dragging with mouse, pen or finger. Keys are up to the component.
 * The library is loaded with the first list that needs it.
 * @param move - called with the old and the new index; the component reorders its data
 */
export function useReorder(
  list: Ref<HTMLElement | null>,
  move: (from: number, to: number) => unknown,
  options: { readonly handle?: string } = {},
): void {
  let stop: (() => void) | undefined;
  const settle = ({ from, item, oldIndex = 0, newIndex = 0 }: DraggableEvent<unknown>): void => {
    // The data decides the order: the element is put back, and Vue moves it when the data changed.
    item.remove();
    from.insertBefore(item, from.children[oldIndex] ?? null);
    if (oldIndex !== newIndex) move(oldIndex, newIndex);
  };
  watch(
    list,
    async (element) => {
      stop?.();
      stop = undefined;
      if (!element) return;
      const { useDraggable } = await import('vue-draggable-plus');
      if (list.value !== element) return;
      const { start, destroy } = useDraggable(element, ref<unknown[]>([]), {
        immediate: false,
        animation: 120,
        ghostClass: 'dragged',
        customUpdate: settle,
        ...options,
      });
      start(element);
      stop = destroy;
    },
    { immediate: true, flush: 'post' },
  );
  onScopeDispose(() => stop?.());
}
