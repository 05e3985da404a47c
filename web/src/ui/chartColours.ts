import { useComputedColorScheme } from '@mantine/core'

/** Colours of tunes and tunings in charts, from the porch: plum, fern, rust, wood, dusk. */
const SERIES = {
  light: ['#5e2d52', '#4f7f4a', '#a6401f', '#7a4e33', '#3d5a80'],
  dark: ['#d3b1cb', '#8fb58a', '#f0926f', '#d0a884', '#8fb0d8'],
} as const

/** Ink and rules of a chart, and the colour of its so-manieth series, by the light of the page. */
export function useChartColours() {
  const scheme = useComputedColorScheme('light')
  const [ink, rule] = scheme === 'dark' ? ['#f1e5d3', '#6d5a68'] : ['#2a1a2c', '#b9a890']
  const seriesColour = (i: number): string => SERIES[scheme][i % SERIES[scheme].length]!
  return { ink, rule, seriesColour }
}
