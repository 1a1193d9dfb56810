/** Tables of ordinary size. */
import { inner, option, overlay, ring } from './shared';

/** What stands above and below all rows. */
const edge = {
  background: 'transparent',
  borderColor: '#D9D3C7',
  color: '{text.color}',
  borderWidth: '0',
  padding: '4px 8px',
  sm: { padding: '4px 8px' },
  lg: { padding: '4px 8px' },
};
/** Cells: the first stands at the edge of the page. */
const cell = {
  borderColor: '#D9D3C7',
  padding: '4px 12px 4px 0',
  sm: { padding: '2px 8px 2px 0' },
  lg: { padding: '4px 12px 4px 0' },
};
/** Tokens of tables. */
export const datatable = {
  root: { transitionDuration: '0s', borderColor: '#D9D3C7' },
  filter: {
    inlineGap: '8px',
    overlaySelect: overlay,
    overlayPopover: { ...overlay, padding: '8px', gap: '8px' },
    rule: { borderColor: '#D9D3C7' },
    constraintList: { padding: '4px 0', gap: '0' },
    constraint: { ...option, separator: { borderColor: '#D9D3C7' } },
  },
  paginatorTop: { borderColor: '#D9D3C7', borderWidth: '0' },
  paginatorBottom: { borderColor: '#D9D3C7', borderWidth: '0' },
  rowToggleButton: {
    size: '24px',
    borderRadius: '3px',
    color: '{text.muted.color}',
    hoverColor: '{text.color}',
    hoverBackground: '{content.hover.background}',
    selectedHoverBackground: '{highlight.background}',
    selectedHoverColor: '{text.color}',
    focusRing: ring,
  },
  header: edge,
  headerCell: {
    background: 'transparent',
    hoverBackground: '{content.hover.background}',
    selectedBackground: '{highlight.background}',
    borderColor: '#D9D3C7',
    color: '{text.muted.color}',
    hoverColor: '{text.color}',
    selectedColor: '{text.color}',
    gap: '8px',
    padding: '0 12px 4px 0',
    focusRing: inner,
    sm: { padding: '0 8px 2px 0' },
    lg: { padding: '0 12px 4px 0' },
  },
  columnTitle: { fontWeight: '400' },
  row: {
    background: 'transparent',
    hoverBackground: '{content.hover.background}',
    selectedBackground: '{highlight.background}',
    color: '{text.color}',
    hoverColor: '{text.color}',
    selectedColor: '{text.color}',
    focusRing: inner,
    stripedBackground: 'transparent',
  },
  bodyCell: { ...cell, selectedBorderColor: '#D9D3C7' },
  footerCell: { ...cell, background: 'transparent', color: '{text.color}' },
  columnFooter: { fontWeight: '400' },
  footer: edge,
  dropPoint: { color: '{primary.color}' },
  columnResizer: { width: '8px' },
  resizeIndicator: { width: '1px', color: '{primary.color}' },
  sortIcon: { color: '{text.muted.color}', hoverColor: '{text.color}', size: '12px' },
  loadingIcon: { size: '1rem' },
};
