import { present } from '../../invariant.ts'
import { mod12, pitchClass, plainName, type Midi, type NoteName, type PitchClass } from '../pitch/pitch.ts'
import type { ChordReading } from './chordSymbol.ts'
import { qualityIntervals, qualityText, readQuality } from './chordQuality.ts'
import { toneNeeds } from './chordTones.ts'

/** Qualities that a name may use, the plainest first. */
const NAMES = (
  ' m 7 m7 maj7 5 sus4 sus2 6 m6 dim aug dim7 m7b5 7sus4 add9 9 m9 7no3 6no3 maj7no3 maj9 69 mMaj7 madd9 11 m11 13 7b9 7#9 7b5 aug7 ' +
  'maj7#11 7#11 m69 maj13 13 9sus4 maj7#5 maj7b5 b5 m13 maj11 9b5 aug9 9#11 mMaj9 add11 7b13 no5 mno5'
)
  .split(' ')
  .map((text, rank) => {
    const parts = present(readQuality(text))
    const intervals = qualityIntervals(parts)
    const chord: ChordReading = { root: { step: 'C', alter: 0 }, quality: qualityText(parts), intervals }
    const needs = toneNeeds(chord)
    return {
      rank,
      quality: chord.quality,
      intervals,
      mask: maskOf(intervals),
      essential: needs.essential.map(maskOf),
    }
  })

/** Prices of a name: what is left out, a bass other than the root, a bass foreign to the chord. */
const LEFT_OUT = 9
const INVERSION = 7
const FOREIGN_BASS = 16

/** Roots are spelled as they are usually met when no key says otherwise. */
const USUAL_FLATS = new Set([3, 8, 10])

function maskOf(intervals: readonly number[]): number {
  return intervals.reduce((mask, i) => mask | (1 << mod12(i)), 0)
}

function rotated(mask: number, by: number): number {
  return ((mask >> by) | (mask << (12 - by))) & 0xfff
}

/**
 * Names what is heard, the plainest name first: with slash bass, and "no3" where there is no third. Empty for fewer
 * than two different notes.
 * @param pitches what sounds; the lowest is the bass
 * @param flats spells every root with flats; unset uses the usual spelling
 * @example nameChord([48, 52, 55, 60, 64]).map(chordText) // ['C', …]
 */
export function nameChord(pitches: readonly Midi[], flats?: boolean): ChordReading[] {
  const classes = new Set(pitches.map(mod12))
  if (classes.size < 2) return []
  const bass = mod12(Math.min(...pitches))
  const whole = maskOf([...classes])
  const found: { price: number; chord: ChordReading }[] = []
  for (const root of classes) {
    for (const name of fits(rotated(whole, root))) {
      const price = name.price + (root === bass ? 0 : INVERSION)
      found.push({ price, chord: chordFrom(root, name, root === bass ? undefined : bass, flats) })
    }
  }
  if (classes.size > 3) {
    const upper = whole & ~(1 << bass)
    for (const root of classes) {
      if (root === bass) continue
      for (const name of fits(rotated(upper, root)))
        found.push({ price: name.price + FOREIGN_BASS, chord: chordFrom(root, name, bass, flats) })
    }
  }
  const seen = new Set<string>()
  return found
    .sort((a, b) => a.price - b.price)
    .map((f) => f.chord)
    .filter((c) => {
      const key = `${pitchClass(c.root)} ${c.quality} ${c.bass ? pitchClass(c.bass) : ''}`
      return !seen.has(key) && Boolean(seen.add(key))
    })
}

interface Fit {
  readonly price: number
  readonly quality: string
  readonly intervals: readonly number[]
}

function fits(mask: number): Fit[] {
  const found: Fit[] = []
  if ((mask & 1) === 0) return found
  for (const name of NAMES) {
    if ((mask & ~name.mask) !== 0 || !name.essential.every((group) => (group & mask) !== 0)) continue
    let missing = 0
    for (const i of name.intervals) if ((mask & (1 << mod12(i))) === 0) missing++
    found.push({ price: name.rank + missing * LEFT_OUT, quality: name.quality, intervals: name.intervals })
  }
  return found
}

function chordFrom(root: PitchClass, fit: Fit, bass: PitchClass | undefined, flats?: boolean): ChordReading {
  const rootName = usualName(root, flats)
  const chord = { root: rootName, quality: fit.quality, intervals: fit.intervals }
  if (bass === undefined) return chord
  return { ...chord, bass: plainName(bass, flats ?? (rootName.alter < 0 || [5].includes(root))) }
}

function usualName(pc: PitchClass, flats?: boolean): NoteName {
  return plainName(pc, flats ?? USUAL_FLATS.has(pc))
}
