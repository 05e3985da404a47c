import type { Timeline } from '../../document/form/timeline.ts'
import type { Id } from '../../document/ids.ts'
import { saidString, type BassOrder } from '../../document/bassOrder.ts'
import type { RootRule } from '../../document/school.ts'
import type { Measure } from '../../document/tune.ts'
import { chordText } from '../../music/harmony/chordSymbol.ts'
import type { Midi, PitchClass } from '../../music/pitch/pitch.ts'
import { beatStarts, strongBeats, missingHead } from '../../music/time/metre.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import { endingAt, type Ending } from './endings.ts'
import type { HarmonySegment } from './harmonyLine.ts'
import type { StyleRules } from './styleRules.ts'

/**
 * A bass note to be played. `root` asks for the root (or slash bass), `alternate` for a tone of the chord, `rootless`
 * for one that is not the root, `passing` for the note that leads to the next root, `pedal` for the key's tonic or fifth, `part` for
 * the second voice of the source, `said` for a tone of the chord on the string that the teacher says.
 */
export interface PlannedBass {
  readonly start: Ticks
  readonly until: Ticks
  readonly kind: 'root' | 'alternate' | 'rootless' | 'passing' | 'pedal' | 'part' | 'said'
  /** True where the harmony changes here. */
  readonly change: boolean
  /** True where a missing root is a fault: the school asks for roots. */
  readonly firm: boolean
  /** True where the level below has a bass too: a higher level does not give it up for comfort. */
  readonly inherited: boolean
  /** Index of the harmony segment; −1 where the bass does not follow the harmony. */
  readonly segment: number
  /** The string that the teacher says. */
  readonly string?: number
  /** The note that leads on, for a passing bass. */
  readonly passing?: PitchClass
  /** The source's own note, for a part. */
  readonly part?: { readonly midi: Midi; readonly sourceId: Id }
}

export interface BassRules extends StyleRules {
  readonly root: RootRule
  readonly bassStrings?: readonly BassOrder[]
  /** What the level below plays. */
  readonly lower: BeatRules
}

/** A level-1 bass is struck again after this many measures of one chord: a plucked string has faded by then. */
const MEASURES_A_STRING_SINGS = 2

/**
 * The bass that a style asks for at a level. Every chord of the lead sheet gets its root where it starts.
 * @param rulesAt what is played in a measure; undefined for measures outside every region
 * @param junctions measures whose start is a join of the played order: a bass is never held into them
 * @param endings where the music comes to rest: the bass is struck there once, or belongs to the chord
 */
export function bassLine(
  measures: readonly Measure[],
  timeline: Timeline,
  harmony: readonly HarmonySegment[],
  rulesAt: (measure: number) => BassRules | undefined,
  junctions: ReadonlySet<number>,
  endings: readonly Ending[],
): PlannedBass[] {
  const onsets: Onset[] = []
  let current = -1
  measures.forEach((measure, i) => {
    const rules = rulesAt(i)
    const from = timeline.starts[i]!
    const end = from + measure.length
    while (current + 1 < harmony.length && harmony[current + 1]!.start <= from) current++
    if (!rules || rules.bass === 'none') return
    const grid = gridOf(measure, rules).map((t) => t + from)
    const starts = new Set<Ticks>(grid)
    const lower = new Set(gridOf(measure, rules.lower).map((t) => t + from))
    if (rules.pedal) {
      if (junctions.has(i)) starts.add(from)
      for (const start of [...starts].sort((a, b) => a - b))
        if (!endingAt(endings, start)) onsets.push({ ...PLAIN, start, rules, inherited: lower.has(start) })
      addEndings(from, end, rules)
      return
    }
    const ongoing = harmony[current]
    const struckHere =
      ongoing && (ongoing.start === from || junctions.has(i) || strikesAgain(rules, timeline, i, ongoing))
    if (struckHere) starts.add(from)
    let last = current
    while (last + 1 < harmony.length && harmony[last + 1]!.start < end) starts.add(harmony[++last]!.start)
    let segment = current
    for (const start of [...starts].filter((t) => t < end).sort((a, b) => a - b)) {
      while (segment < last && harmony[segment + 1]!.start <= start) segment++
      if (segment < 0 || !harmony[segment]!.shape || endingAt(endings, start)) continue
      const beat = grid.filter((t) => t <= start).length - 1
      const fresh = start === harmony[segment]!.start || (start === from && junctions.has(i))
      const below = start === harmony[segment]!.start ? rules.lower.bass !== 'none' : lower.has(start)
      onsets.push({ start, segment, rules, beat, beats: grid.length, fresh, inherited: below })
    }
    addEndings(from, end, rules)
  })
  /** Where no chord is struck at the end, its root is. */
  function addEndings(from: Ticks, end: Ticks, rules: BassRules): void {
    for (const { at, segment } of endings)
      if (at >= from && at < end && rules.ending === 'root')
        onsets.push({ ...PLAIN, start: at, segment, rules, inherited: rules.lower.bass !== 'none' })
  }
  const stops = [...junctions].map((m) => timeline.starts[m] ?? timeline.length).sort((a, b) => a - b)
  const isJoined = (at: Ticks) => stops.includes(at)
  let stop = 0
  let root = 0
  let chord = ''
  let nth = 0
  return onsets.map((onset, i): PlannedBass => {
    while (stop < stops.length && stops[stop]! <= onset.start) stop++
    const next = onsets[i + 1]?.start ?? timeline.length
    const limit = onset.segment < 0 ? timeline.length : harmony[onset.segment]!.end
    const rest = endings.find((e) => e.at > onset.start)?.at ?? timeline.length
    const until = Math.min(next, limit, rest, stops[stop] ?? timeline.length)
    if (onset.segment < 0)
      return {
        start: onset.start,
        until,
        kind: 'pedal',
        change: false,
        firm: false,
        inherited: onset.inherited,
        segment: -1,
      }
    if (onset.fresh) root = i
    const change = harmony[onset.segment]!.start === onset.start
    const { shape } = harmony[onset.segment]!
    nth = shape && chordText(shape) === chord && !isJoined(onset.start) ? nth + 1 : 0
    chord = shape ? chordText(shape) : ''
    const string = saidString(onset.rules.bassStrings, chord, nth)
    const kind = kindOf(onset, i - root, onset.beat - onsets[root]!.beat)
    return {
      start: onset.start,
      until,
      change,
      firm: onset.rules.root === 'always',
      inherited: onset.inherited,
      segment: onset.segment,
      ...(string === undefined
        ? { kind: onset.rules.root === 'never' ? ('rootless' as const) : kind }
        : { kind: 'said' as const, string }),
    }
  })
}

interface Onset {
  readonly start: Ticks
  readonly segment: number
  readonly rules: BassRules
  /** Place among the bass beats of the measure, and how many there are. */
  readonly beat: number
  readonly beats: number
  /** The first bass of its chord, or of a measure that is entered from more than one place. */
  readonly fresh: boolean
  readonly inherited: boolean
}

const PLAIN = { segment: -1, beat: 0, beats: 1, fresh: true } as const

type BeatRules = Pick<StyleRules, 'bass' | 'pedal'>

function gridOf(measure: Measure, rules: BeatRules): Ticks[] {
  const offset = missingHead(measure)
  return fullGrid(measure, rules)
    .map((t) => t - offset)
    .filter((t) => t >= 0 && t < measure.length)
}

/**
 * True where a bass on every beat would be three thumb notes in a row: there one bass comes first, and chords follow it.
 * Common practice, no source.
 */
export const inWaltzTime = ({ metre }: Pick<Measure, 'metre'>, { bass, pedal }: BeatRules): boolean =>
  bass === 'beats' && !pedal && beatStarts(metre).length === 3

function fullGrid(measure: Measure, rules: BeatRules): Ticks[] {
  const { metre } = measure
  if (rules.bass === 'measure' || inWaltzTime(measure, rules)) return [0]
  if (rules.bass === 'beats') return beatStarts(metre)
  return rules.bass === 'strong' ? strongBeats(metre) : []
}

function strikesAgain(
  rules: BassRules,
  timeline: Timeline,
  measure: number,
  ongoing: HarmonySegment,
): boolean {
  if (rules.bass !== 'chord') return false
  let held = 0
  for (let k = measure - 1; k >= 0 && timeline.starts[k]! >= ongoing.start; k--) held++
  return held > 0 && held % MEASURES_A_STRING_SINGS === 0
}

/**
 * Root on the first bass of a chord and of each measure; other tones between. With one bass a measure, measures
 * take turns.
 * @param since basses since the chord's first
 * @param beatsSince bass beats between the two, where both stand in one measure
 */
function kindOf(onset: Onset, since: number, beatsSince: number): PlannedBass['kind'] {
  if (!onset.rules.alternates || onset.fresh) return 'root'
  if (onset.beats <= 1) return since % 2 === 0 ? 'root' : 'alternate'
  if (onset.beats === 3) return onset.beat === 0 ? 'root' : 'alternate'
  const sameMeasure = since <= beatsSince
  return (sameMeasure ? beatsSince : onset.beat) % 2 === 0 ? 'root' : 'alternate'
}
