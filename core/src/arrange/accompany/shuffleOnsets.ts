import { present } from '../../invariant.ts'
import type { Timeline } from '../../document/form/timeline.ts'
import { chordText } from '../../music/harmony/chordSymbol.ts'
import type { Level } from '../../document/style.ts'
import type { PressedPlace } from '../../document/tab.ts'
import type { RootRule } from '../../document/school.ts'
import type { Measure } from '../../document/tune.ts'
import { pitchClass } from '../../music/pitch/pitch.ts'
import { segmentAt } from '../plan/harmonyLine.ts'
import { beatLength, missingHead } from '../../music/time/metre.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import type { AccompanyOnset, Sounded } from './onset.ts'
import { handOf, type HeldHarmony } from './patternOnsets.ts'
import type { AccompanyRemark } from './remark.ts'
import { shufflePair, type HeldPlace, type ShufflePair } from './shufflePair.ts'
import { struckStrings } from './struckStrings.ts'

/**
 * What a shuffle plays on each beat by level: root with fifth on every beat (1), fifth and sixth in turn (2), each
 * struck twice in the long-short of a third-divided beat (3), with the flat seventh at the top of the wave (4, 5). The last beat
 * of every second (4) or every (5) measure pushes on with all three of its thirds.
 */
const WAVES: Readonly<Record<Level, Wave>> = {
  1: { wave: ['fifth'], twice: false },
  2: { wave: ['fifth', 'sixth'], twice: false },
  3: { wave: ['fifth', 'sixth'], twice: true },
  4: { wave: ['fifth', 'sixth', 'seventh', 'sixth'], twice: true, pushes: 2 },
  5: { wave: ['fifth', 'sixth', 'seventh', 'sixth'], twice: true, pushes: 1 },
}

interface Wave {
  readonly wave: readonly Upper[]
  readonly twice: boolean
  /** Every so many measures the last beat is struck three times; absent: never. */
  readonly pushes?: number
}

type Upper = 'fifth' | 'sixth' | 'seventh'

/** The root with fifth and sixth in turn over a measure, beat by beat; a new chord begins with its fifth. */
export function shuffleOnsets(
  { setup, harmony, shapes }: HeldHarmony,
  timeline: Timeline,
  { index, measure }: { readonly index: number; readonly measure: Measure },
  level: Level,
  root: RootRule,
): { onsets: AccompanyOnset[]; remarks: AccompanyRemark[] } {
  const { wave, twice, pushes } = WAVES[level]
  const from = timeline.starts[index]!
  const beat = beatLength(measure.metre)
  const offset = missingHead(measure)
  const onsets: AccompanyOnset[] = []
  const remarks: AccompanyRemark[] = []
  const times: { at: Ticks; nth: number }[] = []
  for (let nth = 0; nth * beat < measure.nominal; nth++) {
    times.push({ at: nth * beat - offset, nth })
    // The second stroke falls on the last third of the beat, in every metre: long, short.
    if (twice) times.push({ at: nth * beat + (2 * beat) / 3 - offset, nth })
    const isLast = (nth + 1) * beat >= measure.nominal
    if (pushes && isLast && index % pushes === pushes - 1)
      times.push({ at: nth * beat + beat / 3 - offset, nth })
  }
  if (root === 'always')
    for (const { start, shape } of harmony) {
      const at = start - from
      if (shape && at >= 0 && at < measure.length && !times.some((t) => t.at === at))
        times.push({ at, nth: Math.floor((at + offset) / beat) })
    }
  for (const { at, nth } of times.sort((a, b) => a.at - b.at)) {
    if (at < 0 || at >= measure.length || !Number.isInteger(at)) continue
    const start = from + at
    const segment = segmentAt(harmony, start)
    const chord = harmony[segment]?.sounding
    if (!chord) continue
    const name = chordText(present(harmony[segment]!.shape))
    const pair = shufflePair(setup, pitchClass(chord.root), wave.includes('sixth'))
    const held = { start, measure: index, segment, accent: false, palm: false }
    const since = Math.floor((Math.max(0, harmony[segment]!.start - from) + offset) / beat)
    if (pair) onsets.push({ ...held, ...played(pair, wave[(nth - since) % wave.length]!, name) })
    else {
      const shape = shapes.get(segment)
      if (at === 0 || start === harmony[segment]!.start)
        remarks.push({ kind: 'noShuffle', measure: index, chord: name })
      if (!shape) continue
      const { swept } = struckStrings(
        setup,
        { frets: shape.frets, chord },
        { strings: [], sweep: { direction: 'down', over: 'all', muted: false }, accent: false, palm: false },
      )
      onsets.push({
        ...held,
        stroke: 'down',
        sounds: swept.map(({ place }, i): Sounded => ({
          place,
          finger: shape.fingers[place.string - 1]!,
          role: i === 0 ? 'bass' : 'harmony',
          attack: 'brush',
          optional: false,
        })),
        hand: handOf(shape, name),
      })
    }
  }
  return { onsets, remarks }
}

function played(pair: ShufflePair, upper: Upper, shape: string): Pick<AccompanyOnset, 'sounds' | 'hand'> {
  const above = pair[upper] ?? pair.sixth ?? pair.fifth
  const sound = ({ place, finger }: HeldPlace, role: 'bass' | 'harmony'): Sounded => ({
    place,
    finger,
    role,
    attack: 'pluck',
    optional: false,
  })
  // The fifth's finger stays down under the sixth.
  const stays = above === pair.fifth || pair.fifth.finger === above.finger ? [] : [pair.fifth]
  const pressed = [pair.root, ...stays, above].flatMap(({ place, finger }): PressedPlace[] =>
    finger === 0 ? [] : [{ string: place.string, fret: place.fret, finger }],
  )
  return { sounds: [sound(pair.root, 'bass'), sound(above, 'harmony')], hand: { pressed, shape } }
}
