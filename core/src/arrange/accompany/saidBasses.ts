import { saidString, type BassOrder } from '../../document/bassOrder.ts'
import { hasFinger, pressedOf } from '../../hand/grip/pressed.ts'
import { handFault } from '../../hand/grip/handRules.ts'
import { present } from '../../invariant.ts'
import { pitchAt, type Place, type Setup } from '../../instrument/setup.ts'
import { chordPitchClasses, chordText, type ChordReading } from '../../music/harmony/chordSymbol.ts'
import { mod12, pitchClass } from '../../music/pitch/pitch.ts'
import type { AccompanyOnset, HeldHand, Sounded } from './onset.ts'
import type { HeldHarmony } from './patternOnsets.ts'
import type { AccompanyRemark } from './remark.ts'

/** A bass is no higher than here, where a finger has to move for it. */
const HIGHEST_FRET = 5

/**
 * The plucked basses of an accompaniment on the strings that the teacher says for their chords, in that order from where a chord begins. A
 * string that the shape leaves out is played by the finger that lies beside its fifth or root, else open. What no hand has stays
 * as the pattern has it, with a remark.
 */
export function saidBasses(
  { setup, harmony }: HeldHarmony,
  onsets: readonly AccompanyOnset[],
  orders: readonly BassOrder[],
): { readonly onsets: readonly AccompanyOnset[]; readonly remarks: readonly AccompanyRemark[] } {
  const remarks: AccompanyRemark[] = []
  let chord = ''
  let nth = 0
  const said = onsets.map((onset) => {
    const { shape, sounding } = harmony[onset.segment] ?? {}
    const bass = onset.sounds.find((s) => s.role === 'bass' && s.attack === 'pluck')
    if (!shape || !sounding || !bass) return onset
    nth = chordText(shape) === chord ? nth + 1 : 0
    chord = chordText(shape)
    const string = saidString(orders, chord, nth)
    if (string === undefined || string === bass.place.string) return onset
    const moved = bassOn(setup, onset, bass, string, sounding)
    if (!moved)
      remarks.push({
        kind: 'mutedString',
        measure: onset.measure,
        chord,
        from: string,
        to: bass.place.string,
      })
    return moved ?? onset
  })
  return { onsets: said, remarks }
}

/** An onset with its bass on another string; undefined where the hand cannot have it. */
function bassOn(
  setup: Setup,
  onset: AccompanyOnset,
  bass: Sounded,
  string: number,
  chord: ChordReading,
): AccompanyOnset | undefined {
  const others = onset.sounds.filter((s) => s !== bass)
  // The string may be plucked already, or lie over what is to sound above it.
  const place = onset.hand.pressed.find((p) => p.string === string)
  const tones = chordPitchClasses(chord)
  const pitchClassAt = (fret: number) => mod12(pitchAt(setup, { string, fret }))
  const isFirm = (fret: number) => [0, 7].includes(mod12(pitchClassAt(fret) - pitchClass(chord.root)))
  const sounded = (at: Place, finger: Sounded['finger'], hand: HeldHand): AccompanyOnset | undefined => {
    const kept = others.filter((s) => s.place.string !== string)
    const low = pitchAt(setup, at)
    if (kept.some((s) => s.attack !== 'muted' && pitchAt(setup, s.place) < low)) return undefined
    return { ...onset, sounds: [{ ...bass, place: at, finger }, ...kept], hand }
  }
  if (place) return sounded({ string, fret: place.fret }, place.finger, onset.hand)
  if (isFirm(0)) return sounded({ string, fret: 0 }, 0, onset.hand)
  for (let fret = 1; fret <= HIGHEST_FRET; fret++) {
    const mover = onset.hand.pressed.find((p) => p.fret === fret && Math.abs(p.string - string) === 1)
    if (!isFirm(fret) || !mover || others.some((s) => s.place.string === mover.string)) continue
    const pressed = [
      ...onset.hand.pressed.filter((p) => p !== mover),
      { string, fret, finger: present(mover).finger },
    ]
    const held = pressedOf(pressed)
    if (handFault(setup, setup.player.spans, held)) continue
    if (!held.every((p) => hasFinger(setup.player.techniques, p.finger))) continue
    return sounded({ string, fret }, mover.finger, { ...onset.hand, pressed })
  }
  return tones.includes(pitchClassAt(0)) ? sounded({ string, fret: 0 }, 0, onset.hand) : undefined
}
