// eslint-disable-next-line @typescript-eslint/triple-slash-reference -- types of a package without its own
/// <reference path="./stringPatterns.d.ts" />
import StringPatterns from 'abcjs/src/tablatures/instruments/string-patterns.js'
import { fretFromNut, GUITAR, guitarSetup, pitchAt, type Place } from '@velvet-porch/core/instrument'
import { wholeTune } from '@velvet-porch/core/arrange'
import { arrangeFor } from './corpus/measure.ts'
import { corpusTunes } from './corpus/tunes.ts'

/** Letters of the twelve pitch classes in ABC. */
const LETTERS = ['C', '^C', 'D', '^D', 'E', 'F', '^F', 'G', '^G', 'A', '^A', 'B']

/** A pitch in ABC, as guitars are written: an octave above what sounds. */
function abcOf(midi: number): string {
  const written = midi + 12
  const letter = LETTERS[written % 12]!
  const octave = Math.floor(written / 12) - 5
  return octave > 0 ? letter.toLowerCase() + "'".repeat(octave - 1) : letter + ','.repeat(-octave)
}

/** Where the notation library's plain tab puts a note: each note by itself, lowest fret first. */
function plainPlace(patterns: InstanceType<typeof StringPatterns>, midi: number): Place {
  patterns.measureAccidentals = {}
  const found = patterns.notesToNumber([{ name: abcOf(midi) }])
  const { str, num } = found.notes[0]!
  return { string: str + 1, fret: num }
}

interface PlacedNote extends Place {
  readonly start: number
  readonly duration: number
}

/** Way of the hand along the neck between fretted notes, in mm, and notes that are struck over before their time. */
function wayAndCuts(notes: readonly PlacedNote[]): { mm: number; cuts: number } {
  let mm = 0
  let cuts = 0
  let last: number | undefined
  const until = new Map<number, number>()
  for (const n of [...notes].sort((a, b) => a.start - b.start || b.string - a.string)) {
    if ((until.get(n.string) ?? 0) > n.start) cuts++
    until.set(n.string, n.start + n.duration)
    if (n.fret === 0) continue
    const at = fretFromNut(GUITAR.scaleLength, n.fret)
    if (last !== undefined) mm += Math.abs(at - last)
    last = at
  }
  return { mm, cuts }
}

/** Our places against the plain ones, on the same notes of the whole corpus. */
export function againstPlainTab(): {
  ours: { mm: number; cuts: number }
  plain: { mm: number; cuts: number }
} {
  const setup = guitarSetup()
  const sums = { ours: { mm: 0, cuts: 0 }, plain: { mm: 0, cuts: 0 } }
  for (const tune of corpusTunes()) {
    const { json } = arrangeFor(tune, setup, wholeTune(tune, 'melody-bass', 2))
    const patterns = new StringPatterns({
      tuning: ['E,', 'A,', 'D', 'G', 'B', 'e'],
      capo: 0,
      params: { highestNote: "a'" },
      linePitch: 3,
    })
    const plain = json.notes.map((n) => ({ ...n, ...plainPlace(patterns, n.midi) }))
    for (const n of plain)
      if (pitchAt(setup, n) !== n.midi) throw new Error(`the plain tab sounds another pitch: ${n.midi}`)
    for (const [side, notes] of [
      ['ours', json.notes],
      ['plain', plain],
    ] as const) {
      const { mm, cuts } = wayAndCuts(notes)
      sums[side].mm += mm
      sums[side].cuts += cuts
    }
  }
  return sums
}
