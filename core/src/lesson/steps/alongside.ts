import type { ArrangementDoc } from '../../document/arrangement.ts'
import { timelineOf } from '../../document/form/timeline.ts'
import type { TabNote } from '../../document/tab.ts'
import type { TuneDoc } from '../../document/tune.ts'
import { harmonyLine, segmentAt } from '../../arrange/plan/harmonyLine.ts'
import { pitchAt, type Setup } from '../../instrument/setup.ts'
import { chordText } from '../../music/harmony/chordSymbol.ts'
import { degreeIn } from '../../music/harmony/chordTones.ts'
import { intervalOf } from '../../music/pitch/interval.ts'
import { mod12, type Midi } from '../../music/pitch/pitch.ts'
import { beatLength } from '../../music/time/metre.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import type { Alongside } from './alongsideChoice.ts'

/** What the notes of a moment are in the chord over them. */
export interface StepHarmony {
  /** The chord as it is called: by its shape behind a capo. */
  readonly chord: string
  /** Degrees of the notes from the lowest string, as `1`, `b3`, `#11`; of a note with short notes before it all, in order. */
  readonly degrees: readonly (readonly string[])[]
  /** Number of the interval between two notes that are struck together: 3 a third, 6 a sixth. */
  readonly interval?: number
}

/** How long a note lasts, as written. */
export interface StepLength {
  readonly string: number
  readonly beats: number
}

/** Harmony and lengths of a moment. */
export interface StepAlongside {
  readonly harmony?: StepHarmony
  readonly lengths?: readonly StepLength[]
}

/** What is said alongside the notes of each moment of a tab, as far as it is wanted. */
export function alongsideOf(
  tune: TuneDoc,
  { setup, transposed }: Pick<ArrangementDoc, 'setup' | 'transposed'>,
  wanted: Alongside,
): (at: Ticks, measure: number, notes: readonly TabNote[]) => StepAlongside {
  if (wanted === 'none') return () => ({})
  const timeline = timelineOf(tune.measures)
  const segments = harmonyLine(tune, timeline, setup.capo[0]!, transposed)
  return (at, measure, notes) => {
    const sounding = notes.filter((n) => n.attack !== 'muted')
    if (sounding.length === 0) return {}
    const segment = segments[segmentAt(segments, at)]
    const chord = wanted === 'lengths' ? undefined : segment?.sounding
    const harmony =
      segment && chord
        ? {
            chord: segment.shape ? chordText(segment.shape) : segment.symbol,
            degrees: sounding.map((n) => pitchesOf(setup, n).map((midi) => degreeIn(chord, mod12(midi)))),
            ...intervalBetween(setup, sounding),
          }
        : undefined
    const beat = beatLength(tune.measures[measure]!.metre)
    const lengths =
      wanted === 'harmony'
        ? undefined
        : sounding.map((n) => ({ string: n.place.string, beats: n.dur.ticks / beat }))
    return { ...(harmony ? { harmony } : {}), ...(lengths ? { lengths } : {}) }
  }
}

const pitchesOf = (setup: Setup, { graces = [], place, bend = 0 }: TabNote): Midi[] => [
  ...graces.map((g) => pitchAt(setup, g.place)),
  pitchAt(setup, place) + bend,
]

function intervalBetween(setup: Setup, notes: readonly TabNote[]): Pick<StepHarmony, 'interval'> {
  const [low, high] = notes.map((n) => pitchesOf(setup, n).at(-1)!)
  if (notes.length !== 2 || low === undefined || high === undefined) return {}
  return { interval: intervalOf(high - low).number }
}
