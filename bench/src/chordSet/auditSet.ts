import { chordPitchClasses, mod12, pitchClass, toneNeeds } from '@velvet-porch/core/music'
import { guitarSetup, pitchAt } from '@velvet-porch/core/instrument'
import type { SetPosition } from './chordSet.ts'
import { chordOf } from './suffixes.ts'

/** Why a position of the set is no measure for the shape finder. */
export interface Excluded {
  readonly position: SetPosition
  readonly reason: string
}

/**
 * Audits the set before it is used as a measure: a position must sound what its frets say, no foreign tone, every
 * tone without which the chord is another one, and have a finger on every fretted string and on no other.
 */
export function auditChordSet(positions: readonly SetPosition[]): {
  readonly sound: SetPosition[]
  readonly excluded: Excluded[]
} {
  const setup = guitarSetup()
  const sound: SetPosition[] = []
  const excluded: Excluded[] = []
  for (const position of positions) {
    const reason = faultOf(position)
    if (reason) excluded.push({ position, reason })
    else sound.push(position)
  }
  return { sound, excluded }

  function faultOf(position: SetPosition): string | undefined {
    const chord = chordOf(position)
    if (!chord) return `"${position.suffix}" is no chord name in use`
    const midi = position.frets
      .flatMap((fret, i) => (fret === null ? [] : [pitchAt(setup, { string: i + 1, fret })]))
      .reverse()
    if (midi.join() !== position.midi.join()) return 'its listed pitches are not those of its frets'
    const classes = new Set(midi.map(mod12))
    const needs = toneNeeds(chord)
    const root = pitchClass(chord.root)
    const tones = [...chordPitchClasses(chord), ...needs.admitted.map((i) => mod12(root + i))]
    const foreign = [...classes].filter((pc) => !tones.includes(pc))
    if (foreign.length) return `sounds ${foreign.length} tone(s) foreign to the chord`
    const lacking = needs.essential.filter((group) => !group.some((i) => classes.has(mod12(root + i))))
    if (lacking.length) return `lacks ${lacking.length} tone(s) that make the chord`
    if (chord.bass && mod12(midi[0]!) !== pitchClass(chord.bass))
      return 'the slash bass is not its lowest note'
    return undefined
  }
}

/** True when a position has exactly one finger on each fretted string, none crossing, none on two frets. */
export function fingersMakeSense(position: SetPosition): boolean {
  const at = new Map<number, number>()
  for (const [i, fret] of position.frets.entries()) {
    const finger = Number(position.fingers[i])
    if ((fret ?? 0) > 0 !== finger > 0) return false
    if (!fret) continue
    if ((at.get(finger) ?? fret) !== fret) return false
    at.set(finger, fret)
  }
  const sorted = [...at].sort((a, b) => a[0] - b[0])
  return sorted.every(([, fret], i) => i === 0 || fret >= sorted[i - 1]![1])
}
