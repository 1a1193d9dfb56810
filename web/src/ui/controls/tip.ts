/** The library's tooltip, for the name of a button that shows only an icon, and for what an abbreviation means. */
import Tooltip from 'primevue/tooltip';
import type { Directive, DirectiveBinding } from 'vue';

/** Milliseconds the pointer rests before a name shows, so that crossing a bar of tools shows none. */
const PAUSE = 300;
type Hook = (el: HTMLElement, binding: DirectiveBinding, ...rest: unknown[]) => void;
const theirs = Tooltip as unknown as Record<'beforeMount' | 'mounted' | 'updated' | 'unmounted', Hook | undefined>;
const paused = (binding: DirectiveBinding): DirectiveBinding => ({
  ...binding,
  value: binding.value ? { value: binding.value, showDelay: PAUSE } : undefined,
});

/** `v-tip="words"`: shown on hover as the library does, and also when the element is come to by key. */
export const vTip = {
  ...(Tooltip as object),
  beforeMount: (el, binding, ...rest) => theirs.beforeMount?.(el, paused(binding), ...rest),
  mounted: (el, binding, ...rest) => {
    theirs.mounted?.(el, paused(binding), ...rest);
    el.addEventListener('focus', () => {
      if (el.matches(':focus-visible')) el.dispatchEvent(new MouseEvent('mouseenter'));
    });
    el.addEventListener('blur', () => el.dispatchEvent(new MouseEvent('mouseleave')));
  },
  updated: (el, binding, ...rest) => theirs.updated?.(el, paused(binding), ...rest),
} as Directive<HTMLElement, string | undefined>;
