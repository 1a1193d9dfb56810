/** The component library's look: every value from the design notes, no shipped preset. */
import { button } from './buttons';
import { datatable } from './datatable';
import { datepicker } from './datepicker';
import { fields } from './fields';
import { overlays } from './overlays';
import { panels } from './panels';
import { ring, SMALL, USUAL } from './shared';

export const preset = {
  // The one primitive that a part asks for by its name: the corner of a splitter's handle.
  primitive: { borderRadius: { md: '3px' } },
  semantic: {
    transitionDuration: '0s',
    focusRing: ring,
    disabledOpacity: '1',
    iconSize: '1rem',
    anchorGutter: '4px',
    primary: { color: '#1E6E66', contrastColor: '#FFFDF8', hoverColor: '#174F49', activeColor: '#174F49' },
    highlight: { background: '#DCE9E6', focusBackground: '#DCE9E6', color: '#20262E', focusColor: '#20262E' },
    formField: {
      paddingX: '8px',
      paddingY: '5px',
      borderRadius: '3px',
      background: '#FFFDF8',
      disabledBackground: 'transparent',
      borderColor: '#857D6E',
      invalidBorderColor: '#B83A26',
      color: '#20262E',
      disabledColor: '#5D6470',
      placeholderColor: '#5D6470',
      iconColor: '#5D6470',
      focusRing: ring,
      transitionDuration: '0s',
      sm: { fontSize: SMALL, paddingX: '8px', paddingY: '3px' },
      lg: { fontSize: USUAL, paddingX: '8px', paddingY: '7px' },
    },
    text: { color: '#20262E', mutedColor: '#5D6470', hoverColor: '#20262E', hoverMutedColor: '#5D6470' },
    content: {
      background: '#FFFDF8',
      borderColor: '#857D6E',
      color: '#20262E',
      hoverBackground: '#EDE8DD',
      hoverColor: '#20262E',
      borderRadius: '3px',
    },
    mask: { background: 'rgb(32 38 46 / 0.35)', color: '#20262E', transitionDuration: '0s' },
  },
  components: { ...fields, ...overlays, ...panels, button, datatable, datepicker },
} as const;
