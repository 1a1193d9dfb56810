/** Values that several parts of the library have in common, from the design notes. */

/** The ring around what has the focus. */
export const ring = { width: '2px', style: 'solid', color: '{primary.color}', offset: '2px', shadow: 'none' };
/** The same inside of what has no room around it. */
export const inner = { ...ring, offset: '-2px' };
/** Below what lies above the page. */
export const SHADOW = '0 8px 24px -16px rgb(32 38 46 / .25)';
/** The font sizes of controls. */
export const SMALL = '0.8125rem';
export const USUAL = '0.875rem';
const field = '{form.field.';
/** What the controls that hold a value have in common. */
export const control = {
  background: `${field}background}`,
  disabledBackground: `${field}disabled.background}`,
  filledBackground: `${field}background}`,
  filledHoverBackground: `${field}background}`,
  filledFocusBackground: `${field}background}`,
  borderColor: `${field}border.color}`,
  hoverBorderColor: `${field}border.color}`,
  focusBorderColor: `${field}border.color}`,
  invalidBorderColor: `${field}invalid.border.color}`,
  color: `${field}color}`,
  disabledColor: `${field}disabled.color}`,
  placeholderColor: `${field}placeholder.color}`,
  invalidPlaceholderColor: `${field}placeholder.color}`,
  shadow: 'none',
  paddingX: `${field}padding.x}`,
  paddingY: `${field}padding.y}`,
  borderRadius: `${field}border.radius}`,
  focusRing: ring,
  transitionDuration: '0s',
  sm: { fontSize: SMALL, paddingX: '8px', paddingY: '3px' },
  lg: { fontSize: USUAL, paddingX: '8px', paddingY: '7px' },
};
/** What opens below a control. */
export const overlay = {
  background: '{content.background}',
  borderColor: '{content.border.color}',
  borderRadius: '{content.border.radius}',
  color: '{content.color}',
  shadow: SHADOW,
};
export const option = {
  padding: '4px 12px',
  borderRadius: '0',
  color: '{text.color}',
  focusBackground: '{content.hover.background}',
  focusColor: '{text.color}',
  selectedBackground: '{highlight.background}',
  selectedColor: '{text.color}',
  selectedFocusBackground: '{highlight.background}',
  selectedFocusColor: '{text.color}',
};
export const optionGroup = {
  padding: '4px 12px',
  background: 'transparent',
  color: '{text.muted.color}',
  fontWeight: '400',
};
