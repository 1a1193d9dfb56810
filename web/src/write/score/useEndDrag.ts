import { shallowRef } from 'vue';
import type { Passages } from '../desk/usePassages';
import type { Manuscript } from '../useManuscript';
import type { Bracket } from '../editor/brackets';
import type { End } from '../editor/operations/ends';
import { boundariesOf, type Boundary } from './measure';

/** An end of a bracket that is being dragged, and where it would go. */
interface DraggedEnd {
  readonly bracket: Bracket;
  readonly end: End;
  readonly to: Boundary;
  /** Pixels from the top of the sheet. */
  readonly top: number;
}

/** Dragging the ends of brackets to another boundary between blocks. */
export function useEndDrag(
  editor: Manuscript['editor'],
  { moveEnd }: Pick<Passages, 'moveEnd'>,
  sheet: () => HTMLElement | null,
) {
  const dragging = shallowRef<DraggedEnd>();
  function drag(event: PointerEvent, bracket: Bracket, end: End): void {
    const handle = event.currentTarget as Element;
    const boundaries = boundariesOf(editor, bracket, end);
    const origin = sheet()?.getBoundingClientRect().top ?? 0;
    if (boundaries.length === 0) return;
    handle.setPointerCapture(event.pointerId);
    const move = ({ clientY }: PointerEvent): void => {
      const to = boundaries.reduce((best, each) =>
        Math.abs(each.y - clientY) < Math.abs(best.y - clientY) ? each : best,
      );
      dragging.value = { bracket, end, to, top: to.y - origin };
    };
    const up = (): void => {
      handle.removeEventListener('pointermove', move as EventListener);
      const { to } = dragging.value ?? {};
      dragging.value = undefined;
      if (to && to.by !== 0) moveEnd(bracket, end, to.by);
    };
    handle.addEventListener('pointermove', move as EventListener);
    handle.addEventListener('pointerup', up, { once: true });
  }
  return { dragging, drag };
}
