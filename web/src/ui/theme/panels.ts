/** Parts that divide the page, or show how far something is. */
import { inner, ring, SHADOW, SMALL } from './shared';

/** Tokens of tabs, splitters, bars of progress and the field of colours. */
export const panels = {
  tabs: {
    root: { transitionDuration: '0s' },
    tablist: { borderWidth: '0 0 1px 0', background: 'transparent', borderColor: '#D9D3C7' },
    tab: {
      background: 'transparent',
      hoverBackground: '{content.hover.background}',
      activeBackground: 'transparent',
      borderWidth: '0',
      borderColor: 'transparent',
      hoverBorderColor: 'transparent',
      activeBorderColor: 'transparent',
      color: '{text.muted.color}',
      hoverColor: '{text.color}',
      activeColor: '{text.color}',
      padding: '8px 7px',
      fontWeight: '400',
      margin: '0',
      gap: '4px',
      focusRing: inner,
    },
    tabpanel: { background: 'transparent', color: '{text.color}', padding: '0', focusRing: inner },
    navButton: {
      background: '{content.background}',
      color: '{text.muted.color}',
      hoverColor: '{text.color}',
      width: '28px',
      focusRing: inner,
      shadow: 'none',
    },
    activeBar: { height: '2px', bottom: '0', background: '{primary.color}' },
  },
  splitter: {
    root: { background: 'transparent', borderColor: '#D9D3C7', color: '{text.color}', transitionDuration: '0s' },
    gutter: { background: '{content.border.color}' },
    handle: { size: '7px', background: 'transparent', borderRadius: '0', focusRing: ring },
  },
  progressbar: {
    root: { background: '#D9D3C7', borderRadius: '3px', height: '6px' },
    value: { background: '{primary.color}' },
    label: { color: '{primary.contrast.color}', fontSize: SMALL, fontWeight: '400' },
  },
  colorpicker: {
    root: { transitionDuration: '0s' },
    preview: {
      width: '32px',
      height: '28px',
      borderRadius: '3px',
      focusRing: ring,
      focusBorderColor: '{form.field.border.color}',
    },
    panel: {
      shadow: SHADOW,
      borderRadius: '3px',
      background: '{content.background}',
      borderColor: '{content.border.color}',
    },
    handle: { color: '#FFFDF8' },
  },
};
