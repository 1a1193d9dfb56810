/** Buttons: the one act of a place, usual ones, and plain ones. */
import { ring, SMALL, USUAL } from './shared';

const plainButton = {
  hoverBackground: '{content.hover.background}',
  activeBackground: '{content.hover.background}',
  borderColor: '{form.field.border.color}',
  color: '{text.color}',
};
/** A button that is not the one act of its place, whatever the library calls its severity. */
const usualButton = {
  background: 'transparent',
  hoverBackground: '{content.hover.background}',
  activeBackground: '{content.hover.background}',
  borderColor: '{form.field.border.color}',
  hoverBorderColor: '{form.field.border.color}',
  activeBorderColor: '{form.field.border.color}',
  color: '{text.color}',
  hoverColor: '{text.color}',
  activeColor: '{text.color}',
  focusRing: { color: '{primary.color}', shadow: 'none' },
};
const plainButtons = {
  primary: plainButton,
  secondary: plainButton,
  success: plainButton,
  info: plainButton,
  warn: plainButton,
  help: plainButton,
  danger: plainButton,
  contrast: plainButton,
  plain: plainButton,
};

/** Tokens of buttons. */
export const button = {
  root: {
    borderRadius: '3px',
    roundedBorderRadius: '3px',
    gap: '8px',
    paddingX: '12px',
    paddingY: '5px',
    iconOnlyWidth: '32px',
    label: { fontWeight: '400' },
    raisedShadow: 'none',
    focusRing: ring,
    badgeSize: '1rem',
    transitionDuration: '0s',
    sm: { fontSize: SMALL, paddingX: '8px', paddingY: '3px', iconOnlyWidth: '28px' },
    lg: { fontSize: USUAL, paddingX: '12px', paddingY: '7px', iconOnlyWidth: '36px' },
    primary: {
      background: '{primary.color}',
      hoverBackground: '{primary.hover.color}',
      activeBackground: '{primary.active.color}',
      borderColor: '{primary.color}',
      hoverBorderColor: '{primary.hover.color}',
      activeBorderColor: '{primary.active.color}',
      color: '{primary.contrast.color}',
      hoverColor: '{primary.contrast.color}',
      activeColor: '{primary.contrast.color}',
      focusRing: { color: '{primary.color}', shadow: 'none' },
    },
    secondary: usualButton,
    success: usualButton,
    info: usualButton,
    warn: usualButton,
    help: usualButton,
    danger: usualButton,
    contrast: usualButton,
  },
  outlined: plainButtons,
  text: plainButtons,
  link: { color: '{primary.color}', hoverColor: '{primary.active.color}', activeColor: '{primary.active.color}' },
};
