import { autoUpdate, flip, offset, shift, useFloating, type VirtualElement } from '@floating-ui/vue';
import { computed, type CSSProperties, type ComputedRef, type Ref } from 'vue';

/** A place of the window, in pixels: below it something opens. */
export interface Point {
  readonly left: number;
  readonly top: number;
}
/** How far from its point, and from the window's edges, it stands, in pixels. */
const GAP = 6;
const EDGE = 8;

/**
 * Where something stands that opens at the caret or at a place of a message: below its point, above it where there is no
 * room, and never over an edge of the window. It follows when the window or its own size changes.
 * @param point - the lower left of what it belongs to
 * @returns its style
 */
export function useAtPoint(element: Ref<HTMLElement | null>, point: () => Point): ComputedRef<CSSProperties> {
  const reference = computed((): VirtualElement => {
    const { left, top } = point();
    return { getBoundingClientRect: () => new DOMRect(left, top, 0, 0) };
  });
  const { floatingStyles } = useFloating(reference, element, {
    strategy: 'fixed',
    placement: 'bottom-start',
    transform: false,
    middleware: [offset(GAP), flip({ padding: EDGE }), shift({ padding: EDGE, crossAxis: true })],
    whileElementsMounted: autoUpdate,
  });
  return floatingStyles as ComputedRef<CSSProperties>;
}
