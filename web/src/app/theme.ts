import { createTheme, type MantineColorsTuple } from '@mantine/core'

const plum: MantineColorsTuple = [
  '#f7eef5',
  '#ead9e6',
  '#d3b1cb',
  '#bb87af',
  '#a76597',
  '#9b5088',
  '#7d3d6d',
  '#5e2d52',
  '#4a2341',
  '#3a1f36',
]
const lamp: MantineColorsTuple = [
  '#fff6e3',
  '#fdebc8',
  '#f8d896',
  '#f2c879',
  '#eab14a',
  '#e4a02f',
  '#c98417',
  '#a0680f',
  '#7a4f0b',
  '#583807',
]

/** Evening light: plum, dusk, lamplight amber, fern, on paper and linen. */
export const theme = createTheme({
  fontFamily: "'Figtree Variable', system-ui, sans-serif",
  headings: { fontFamily: "'Fraunces Variable', Georgia, serif", fontWeight: '600' },
  fontFamilyMonospace: "'Fira Mono', monospace",
  primaryColor: 'plum',
  primaryShade: { light: 8, dark: 5 },
  colors: { plum, lamp },
  defaultRadius: 'md',
  cursorType: 'pointer',
  respectReducedMotion: true,
  components: {
    // A menu belongs to the stage that it is unfolded from, and holds items alone.
    Menu: {
      defaultProps: { withInitialFocusPlaceholder: false, portalProps: { target: '#stage' } },
    },
  },
})
