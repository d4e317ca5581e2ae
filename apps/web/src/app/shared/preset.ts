import { definePreset } from '@primeuix/themes';
import Aura from '@primeuix/themes/aura';

const zinc = {
  0: '#ffffff',
  50: '#f6f6f6',
  100: '#e8e9e9',
  200: '#d5d6d7',
  300: '#c1c3c5',
  400: '#a9abad',
  500: '#8f9193',
  600: '#5b5d5f',
  700: '#4a4c4e',
  800: '#2c2e30',
  900: '#161718',
  950: '#0b0c0c',
};

/** A message as a slip of paper with a coloured edge. */
function said(edge: string) {
  const button = { hoverBackground: '#e8e9e9', focusRing: { color: '#161718', shadow: 'none' } };
  return {
    background: '#ffffff',
    borderColor: edge,
    color: '#161718',
    detailColor: '#161718',
    shadow: '0 0 0 1px #161718',
    blur: '0',
    closeButton: button,
  };
}

/** The house's own look on PrimeNG's controls: square, hairlines, zinc and ink, no shadows, no round corners. */
export const zincPreset = definePreset(Aura, {
  primitive: { borderRadius: { none: '0', xs: '1px', sm: '2px', md: '2px', lg: '2px', xl: '2px' } },
  semantic: {
    transitionDuration: '0.08s',
    focusRing: { width: '2px', style: 'solid', color: '#161718', offset: '2px' },
    primary: {
      50: zinc[50],
      100: zinc[100],
      200: zinc[200],
      300: zinc[300],
      400: zinc[400],
      500: zinc[900],
      600: zinc[900],
      700: zinc[900],
      800: zinc[900],
      900: zinc[900],
      950: zinc[950],
    },
    colorScheme: {
      light: {
        surface: zinc,
        primary: { color: '#161718', contrastColor: '#ffffff', hoverColor: '#2c2e30', activeColor: '#2c2e30' },
        highlight: { background: '#e8e9e9', focusBackground: '#d5d6d7', color: '#161718', focusColor: '#161718' },
        formField: {
          borderColor: '#8f9193',
          hoverBorderColor: '#161718',
          focusBorderColor: '#161718',
          invalidBorderColor: '#b83016',
          shadow: 'none',
          placeholderColor: '#5b5d5f',
        },
        text: { color: '#161718', mutedColor: '#4a4c4e' },
        overlay: { select: { borderColor: '#161718' }, popover: { borderColor: '#161718' }, modal: { borderColor: '#161718' } },
      },
    },
    formField: { paddingX: '8px', paddingY: '5px' },
    overlay: {
      select: { shadow: 'none' },
      popover: { shadow: 'none' },
      modal: { padding: '18px', shadow: '0 8px 40px rgb(0 0 0 / 0.25)' },
    },
  },
  components: {
    slider: {
      track: { size: '2px', background: '#8f9193' },
      range: { background: '#161718' },
      handle: {
        width: '12px',
        height: '20px',
        borderRadius: '0',
        background: '#161718',
        hoverBackground: '#161718',
        content: {
          borderRadius: '0',
          width: '10px',
          height: '18px',
          background: '#161718',
          hoverBackground: '#161718',
          shadow: 'none',
        },
      },
    },
    dialog: { title: { fontSize: '20px', fontWeight: '720' } },
    toast: {
      root: { width: '24rem', borderRadius: '2px', borderWidth: '0 0 0 4px' },
      text: { gap: '2px' },
      summary: { fontWeight: '620', fontSize: '13px' },
      colorScheme: { light: { success: said('#2a6450'), info: said('#161718'), warn: said('#b83016'), error: said('#b83016') } },
    },
  },
});
