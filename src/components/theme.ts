import { Button, createTheme, NativeSelect, TextInput, type MantineColorsTuple } from '@mantine/core';

const ink: MantineColorsTuple = [
  '#f4efe4',
  '#e6dfd0',
  '#d9d0be',
  '#b9b2a3',
  '#8f8778',
  '#665e51',
  '#4a443b',
  '#3a352e',
  '#2a2622',
  '#1a1714',
];
const ochre: MantineColorsTuple = [
  '#fbf1da',
  '#f5e3bb',
  '#ebcb8b',
  '#e0b25b',
  '#d0953a',
  '#b4761a',
  '#9c6514',
  '#8f5c10',
  '#74490b',
  '#563507',
];

/** Letterpress ledger: paper, ink and ochre; square corners, no shadows but on what floats. */
export const theme = createTheme({
  fontFamily: 'var(--font-words)',
  headings: { fontFamily: 'var(--font-title)', fontWeight: '500' },
  primaryColor: 'ink',
  primaryShade: { light: 8, dark: 1 },
  colors: { ink, ochre },
  black: '#2a2622',
  defaultRadius: 3,
  fontSizes: { xs: '12px', sm: '13px', md: '14px', lg: '16px', xl: '20px' },
  components: {
    Button: Button.extend({ defaultProps: { size: 'compact-sm', variant: 'default' } }),
    TextInput: TextInput.extend({ defaultProps: { size: 'xs' } }),
    NativeSelect: NativeSelect.extend({ defaultProps: { size: 'xs' } }),
    // Written out, not by `Modal.extend`, which would load it with the first screen.
    Modal: {
      defaultProps: {
        centered: true,
        closeButtonProps: { 'aria-label': 'Close' },
        radius: 4,
        overlayProps: { backgroundOpacity: 0.35 },
        transitionProps: { duration: 0 },
      },
    },
  },
});
