/** Parts that lie above the page. */
import { overlay, SHADOW } from './shared';

/** Tokens of menus, popovers and dialogs. */
export const overlays = {
  menu: {
    root: { ...overlay, transitionDuration: '0s' },
    list: { padding: '4px 0', gap: '0' },
    item: {
      padding: '4px 12px',
      borderRadius: '0',
      gap: '8px',
      color: '{text.color}',
      focusBackground: '{content.hover.background}',
      focusColor: '{text.color}',
      icon: { color: '{text.muted.color}', focusColor: '{text.color}' },
    },
    submenuLabel: { padding: '4px 12px', fontWeight: '400', background: 'transparent', color: '{text.muted.color}' },
    separator: { borderColor: '#D9D3C7' },
  },
  popover: {
    root: { ...overlay, gutter: '4px', arrowOffset: '16px', arrowLeft: '16px' },
    content: { padding: '8px' },
  },
  tooltip: {
    root: {
      maxWidth: '240px',
      gutter: '6px',
      shadow: 'none',
      padding: '2px 8px',
      borderRadius: '3px',
      background: '#20262E',
      color: '#FFFDF8',
    },
  },
  dialog: {
    root: { background: '#FFFDF8', borderColor: '#857D6E', color: '#20262E', borderRadius: '0', shadow: SHADOW },
    header: { padding: '16px 24px 8px', gap: '8px' },
    title: { fontSize: '1.125rem', fontWeight: '500' },
    content: { padding: '0 24px 16px' },
    footer: { padding: '0 24px 24px', gap: '12px' },
  },
};
