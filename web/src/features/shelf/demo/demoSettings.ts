import type { InstrumentKind, TuningId } from '@velvet-porch/core/instrument'
import {
  splitRegion,
  USUAL_SCHOOL,
  withChoice,
  type Level,
  type Region,
  type School,
  type Style,
  type TuneDoc,
} from '@velvet-porch/core/document'
import { wholeTune } from '@velvet-porch/core/arrange'

/** The song of the demo: words with chords. */
export const SONG_TITLE = 'Willow Ferry'

/** What the demo is called on the shelf. */
export const DEMO_SET = 'An Evening on the Porch'

/** How a demo tune is set. A second part is named by the section where it starts. */
export interface DemoSetting {
  readonly title: string
  readonly style: Style
  readonly level: Level
  readonly instrument?: InstrumentKind
  readonly tuning?: TuningId
  readonly capo?: number
  readonly school?: Partial<School>
  readonly then?: { readonly section: string; readonly style: Style; readonly level: Level }
}

export const DEMO_SETTINGS: readonly DemoSetting[] = [
  {
    title: "Lamplighter's Round",
    style: 'alternating-bass',
    level: 3,
    capo: 2,
    then: { section: 'Chorus', style: 'chord-melody', level: 3 },
  },
  { title: 'The Ferry at Dusk', style: 'arpeggio', level: 2 },
  { title: 'Cold Pump Handle', style: 'flatpicked-lead', level: 2, school: { strokes: 'alternate' } },
  { title: 'Three Spokes Short', style: 'cross-string', level: 3 },
  { title: 'Rain on the Bicycle Shop', style: 'drone', level: 3, tuning: 'dadgad' },
  { title: 'Two Chairs', style: 'melody-bass', level: 4, school: { parts: 'both' } },
  { title: 'Nightjar over the Weir', style: 'double-stops', level: 3, instrument: 'mandolin' },
  {
    title: 'Letters from the Lock House',
    style: 'picking',
    level: 3,
    then: { section: 'Chorus', style: 'strum', level: 3 },
  },
  { title: 'Freight Yard Shuffle', style: 'shuffle', level: 3 },
  { title: 'Siding at Sundown', style: 'bottleneck', level: 4, tuning: 'openG' },
]

/** The sections of a demo tune, each with its style and level. */
export function demoRegions(tune: TuneDoc, { style, level, school, then }: DemoSetting): Region[] {
  const whole = wholeTune(tune, style, level, school ? { ...USUAL_SCHOOL, ...school } : undefined)
  const at = then && tune.sections.find((s) => s.name === then.section)
  if (!then || !at) return whole
  return withChoice(splitRegion(tune, whole, at.measure), 1, { style: then.style, level: then.level })
}
