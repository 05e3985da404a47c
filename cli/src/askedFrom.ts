import {
  STYLES,
  toTaste,
  type Level,
  type Region,
  type School,
  type Style,
  type TuneDoc,
} from '@velvet-porch/core/document'
import { songRegions, wholeTune } from '@velvet-porch/core/arrange'
import type { Setup } from '@velvet-porch/core/instrument'
import { MELODY_STYLE, playedSetupFrom, SONG_STYLE, type ArrangeValues } from './options.ts'
import { schoolFrom } from './schoolFrom.ts'
import { tasteFrom } from './tasteFrom.ts'
import type { TuneRead } from './tuneFrom.ts'
import { oneOf, wholeNumber } from './usage.ts'

/** What is to be arranged, as the options ask for it. */
export interface Asked {
  readonly style: Style
  readonly level: Level
  readonly school: School
  readonly setup: Setup
  /** One section over the whole of a tune. */
  readonly regions: (tune: TuneDoc) => readonly Region[]
}

/** Style, level, school and setup of the options; throws a usage error that names what is wrong and the way out. */
export function askedFrom(values: ArrangeValues, { tune, song }: Pick<TuneRead, 'tune' | 'song'>): Asked {
  const silent = tune.events.every((e) => !e.pitch)
  const style = oneOf(values.style ?? (silent ? SONG_STYLE : MELODY_STYLE), STYLES, 'style')
  const level = wholeNumber(values.level, 1, 5, 'level') as Level
  const setup = playedSetupFrom(values, song?.capo ?? 0)
  const school = schoolFrom(values.school)
  const taste = values.taste === undefined ? undefined : tasteFrom(values.taste, setup)
  const plain = (of: TuneDoc) =>
    song && values.style === undefined
      ? songRegions(of, song.strum).map((r) => ({ ...r, level, school }))
      : wholeTune(of, style, level, school)
  const regions = (of: TuneDoc) => toTaste(plain(of), taste)
  return { style, level, school, setup, regions }
}
