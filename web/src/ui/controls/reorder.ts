import type { DraggableEvent } from 'vue-draggable-plus';
import { onScopeDispose, ref, watch, type Ref } from 'vue';

/**
 * Lets the children of a list be put into another order by dragging, with mouse, pen or finger. Keys are the place's own.
 * The library is loaded with the first list that needs it.
 * @param move - puts one at another place, both counted from 0; the list shows the new order when its data has it
 */
export function useReorder(
  list: Ref<HTMLElement | null>,
  move: (from: number, to: number) => unknown,
  options: { readonly handle?: string } = {},
): void {
  let stop: (() => void) | undefined;
  const settle = ({ from, item, oldIndex = 0, newIndex = 0 }: DraggableEvent<unknown>): void => {
    // What shows is the data's, not the pointer's: the element goes back, and the data moves.
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
