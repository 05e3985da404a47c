import { handFault } from '../hand/grip/handRules.ts'
import { fingeringsOf } from '../hand/grip/fingering.ts'
import { openPitch, pitchAt, type Setup } from '../instrument/setup.ts'
import {
  bassPitchClass,
  chordPitchClasses,
  transposeChord,
  type ChordReading,
} from '../music/harmony/chordSymbol.ts'
import { mod12, pitchClass, type PitchClass } from '../music/pitch/pitch.ts'
import { heldShapeWith, type HeldShape } from './textbook.ts'

/** Lower down the shapes of the books serve; higher up a hand has the melody alone. Common practice, no source. */
const FRETS = { from: 5, to: 12 } as const

/** Frets between the fingers of a triad on three strings. */
const SPAN = 3

/** The three highest strings carry the triad, the others its bass. */
const TRIAD_STRINGS = [1, 2, 3] as const

/** Ways to finger a triad that are looked through for one without a barre, from which a finger can be lifted alone. */
const FINGERINGS = 6

/**
 * Triads on the three highest strings, up the neck, over the chord's bass on an open string: what a hand takes that
 * follows a high melody while the open string rings on. Each tone stands once; third and seventh are never left out.
 * @param shape as the hand behind the capo calls it
 * @returns none where no open low string is the chord's bass
 * @example highTriads(dMinor, guitarSetup()) // among them x-x-0-7-6-5: D under D, F and A
 */
export function highTriads(shape: ChordReading, setup: Setup): HeldShape[] {
  const sounding = transposeChord(shape, setup.capo[0]!, true)
  const bass = openBass(setup, bassPitchClass(sounding))
  const tones = chordPitchClasses(sounding)
  const root = pitchClass(sounding.root)
  const needed = tones.filter((pc) => pc !== root && pc !== mod12(root + 7))
  if (bass === undefined || needed.length > TRIAD_STRINGS.length) return []
  const found: HeldShape[] = []
  for (const frets of framesOf(setup, tones)) {
    const pcs = new Set(frets.map((fret, i) => pcAt(setup, i + 1, fret)))
    if (pcs.size < frets.length || needed.some((pc) => !pcs.has(pc))) continue
    const held = heldOver(bass, frets, setup)
    if (held) found.push(held)
  }
  return found
}

const pcAt = (setup: Setup, string: number, fret: number) => mod12(pitchAt(setup, { string, fret }))

/** The open string below the triad that sounds a pitch class, the highest where there are two. */
function openBass(setup: Setup, pc: PitchClass): number | undefined {
  for (let string = TRIAD_STRINGS.length + 1; string <= setup.instrument.strings; string++)
    if (mod12(openPitch(setup, string)) === pc) return string
  return undefined
}

/** Frets of the three highest strings that sound tones of a chord within a hand. */
function* framesOf(setup: Setup, tones: readonly PitchClass[]): Generator<readonly number[]> {
  const at = TRIAD_STRINGS.map((string) => {
    const frets: number[] = []
    for (let fret = FRETS.from; fret <= FRETS.to; fret++)
      if (tones.includes(pcAt(setup, string, fret))) frets.push(fret)
    return frets
  })
  for (const a of at[0]!)
    for (const b of at[1]!)
      for (const c of at[2]!) if (Math.max(a, b, c) - Math.min(a, b, c) <= SPAN) yield [a, b, c]
}

function heldOver(bass: number, triad: readonly number[], setup: Setup): HeldShape | undefined {
  const frets = Array.from({ length: setup.instrument.strings }, (_, i) =>
    i + 1 === bass ? 0 : (triad[i] ?? null),
  )
  const fingering = fingeringsOf(setup, frets, setup.player, FINGERINGS).find(({ fingers }) => {
    const down = fingers.filter((finger) => finger !== 0)
    return new Set(down).size === down.length
  })
  const held = fingering && heldShapeWith('', frets, fingering.fingers, false)
  return held && !handFault(setup, setup.player.spans, held.pressed) ? held : undefined
}
