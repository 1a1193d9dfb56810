/** Parts that hold a value. */
import { control, option, optionGroup, overlay, ring } from './shared';

/** A box that is ticked, square or round. */
const box = {
  width: '18px',
  height: '18px',
  background: '{form.field.background}',
  checkedBackground: '{primary.color}',
  checkedHoverBackground: '{primary.active.color}',
  disabledBackground: 'transparent',
  filledBackground: '{form.field.background}',
  borderColor: '{form.field.border.color}',
  hoverBorderColor: '{form.field.border.color}',
  focusBorderColor: '{form.field.border.color}',
  checkedBorderColor: '{primary.color}',
  checkedHoverBorderColor: '{primary.active.color}',
  checkedFocusBorderColor: '{primary.color}',
  checkedDisabledBorderColor: '{form.field.border.color}',
  invalidBorderColor: '{form.field.invalid.border.color}',
  shadow: 'none',
  focusRing: ring,
  transitionDuration: '0s',
  sm: { width: '16px', height: '16px' },
  lg: { width: '18px', height: '18px' },
};
const mark = {
  size: '12px',
  color: '{primary.contrast.color}',
  checkedColor: '{primary.contrast.color}',
  checkedHoverColor: '{primary.contrast.color}',
  disabledColor: '{text.muted.color}',
  sm: { size: '10px' },
  lg: { size: '12px' },
};

/** Tokens of text fields, selects, ticks and radio buttons. */
export const fields = {
  inputtext: { root: control },
  textarea: { root: control },
  select: {
    root: control,
    dropdown: { width: '28px', color: '{text.muted.color}' },
    overlay,
    list: { padding: '4px 0', gap: '0', header: { padding: '8px' } },
    option,
    optionGroup,
    clearIcon: { color: '{text.muted.color}' },
    checkmark: { color: '{primary.color}', gutterStart: '-4px', gutterEnd: '8px' },
    emptyMessage: { padding: '4px 12px' },
  },
  virtualscroller: {
    loader: { mask: { background: '#FFFDF8', color: '{text.muted.color}' }, icon: { size: '1rem' } },
  },
  checkbox: { root: { ...box, borderRadius: '3px' }, icon: mark },
  radiobutton: { root: box, icon: mark },
};
