import { describe, expect, it } from 'vitest'
import { highTriads } from '../../src/chords/highTriads.ts'
import { fretsText } from '../../src/chords/fretsText.ts'
import { soundsAsChord } from '../../src/chords/textbook.ts'
import { handFault } from '../../src/hand/grip/handRules.ts'
import { guitarSetup, pitchAt, setupOf, tuningById } from '../../src/instrument/index.ts'
import {
  bassPitchClass,
  chordPitchClasses,
  mod12,
  readChordSymbol,
  transposeChord,
  type ChordReading,
} from '../../src/music/index.ts'
import { tuneOfMusic, arrangeTune } from '../support/tunes.ts'

const chordOf = (symbol: string): ChordReading => {
  const read = readChordSymbol(symbol)
  if (read.kind !== 'chord') throw new Error(symbol)
  return read.chord
}

const frets = (symbol: string, setup = guitarSetup()) =>
  highTriads(chordOf(symbol), setup).map((h) => fretsText(h.frets))

describe('triads up the neck', () => {
  it('are those that players take over an open bass string (common practice, from memory)', () => {
    expect(frets('Dm')).toContain('x-x-0-7-6-5')
    expect(frets('D')).toContain('x-x-0-7-7-5')
    expect(frets('A')).toContain('x-0-x-6-5-5')
    expect(frets('Em')).toContain('0-x-x-9-8-7')
    // No open string is the root.
    expect(frets('Bb')).toEqual([])
    expect(frets('C/E')).not.toEqual([])
  })

  it('sound the chord whole over its bass, within a hand, in any tuning and behind any capo', () => {
    // All of them: how many have such triads must not hang on what is drawn.
    const setups = (['standard', 'dropD', 'openG'] as const).flatMap((tuning) =>
      [0, 1, 2, 3, 4, 5].map((fret) => setupOf('guitar', tuningById('guitar', tuning), { fret })),
    )
    const chords = ['A', 'Bb', 'B', 'C', 'D', 'E', 'F#', 'G'].flatMap((root) =>
      ['', 'm', '7', 'm7', 'maj7', 'sus4', 'dim', '6'].map((quality) => chordOf(root + quality)),
    )
    let found = 0
    for (const setup of setups)
      for (const chord of chords) {
        const sounding = transposeChord(chord, setup.capo[0]!, true)
        const tones = chordPitchClasses(sounding)
        for (const held of highTriads(chord, setup)) {
          found++
          expect(soundsAsChord(held.frets, chord, setup)).toBe(true)
          const midis = held.frets.flatMap((fret, i) =>
            fret === null ? [] : [pitchAt(setup, { string: i + 1, fret })],
          )
          expect(midis).toHaveLength(4)
          expect(mod12(Math.min(...midis))).toBe(bassPitchClass(sounding))
          const struck = new Set(midis.slice(0, 3).map(mod12))
          expect(struck.size).toBe(3)
          for (const tone of tones) {
            const spare = tone === tones[0] || tone === mod12(tones[0]! + 7)
            if (!spare) expect(struck).toContain(tone)
          }
          expect(handFault(setup, setup.player.spans, held.pressed)).toBeUndefined()
          expect(Math.min(...held.pressed.map((p) => p.fret))).toBeGreaterThanOrEqual(5)
        }
      }
    expect(found).toBeGreaterThan(400)
  })

  it('carry a high tune: the chord stands under it, not one tone of it', () => {
    // Joy to the World, first phrase, from memory (1839).
    const tune = tuneOfMusic('"D"d4 d3c|d4 A3B|"A"c3B A2G2|"D"F4 E4|"A"E4 "D"D4|', 'M:4/4\nL:1/8\nK:D')
    for (const level of [3, 5] as const) {
      const { json } = arrangeTune(tune, 'arpeggio', level)
      const high = json.notes.filter((n) => n.role !== 'melody' && n.start < 40320)
      // Third and fifth in turn, up there; not the third alone, over and over.
      const fingered = high.filter((n) => n.fret > 0)
      expect(new Set(fingered.map((n) => mod12(n.midi))), `level ${level}`).toEqual(new Set([6, 9]))
    }
  })
})
