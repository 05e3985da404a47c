import { Interval } from 'tonal'
import { describe, expect, it } from 'vitest'
import { intervalOf, keyOf, midiOf, mod12, type Pitch } from '../../../src/music/index.ts'
import { secondVoices } from '../../../src/arrange/plan/doubleStop.ts'
import { chord } from '../../support/chords.ts'

const C = keyOf({ step: 'C', alter: 0 }, 'major')
const Am = keyOf({ step: 'A', alter: 0 }, 'minor')
const midi = (step: Pitch['step'], octave: number, alter = 0) => midiOf({ step, alter, octave })
const best = (list: ReturnType<typeof secondVoices>) => [...list].sort((a, b) => a.price - b.price)[0]!

describe('the second voice of a double stop', () => {
  it('is a third or sixth of the scale, below or above, as the chord has it', () => {
    // E over C: a third below is C, a sixth below G; a third above G, a sixth above C.
    const below = secondVoices(midi('E', 5), C, chord('C'), 'below')
    expect(below.filter((v) => v.price === 0).map((v) => v.midi)).toEqual([midi('C', 5), midi('G', 4)])
    const above = secondVoices(midi('E', 5), C, chord('C'), 'above')
    expect(above.filter((v) => v.price === 0).map((v) => v.midi)).toEqual([midi('G', 5), midi('C', 6)])
  })

  it('takes the chord’s own form of a step: the raised seventh of minor under its dominant', () => {
    const under = secondVoices(midi('B', 4), Am, chord('E'), 'below')
    expect(under.map((v) => v.midi)).toContain(midi('G', 4, 1))
    expect(under.map((v) => v.midi)).not.toContain(midi('G', 4))
  })

  it('does not clash under a tone of the chord: D over G takes B or G before F', () => {
    const g = secondVoices(midi('D', 5), C, chord('G'), 'below')
    expect([7, 11]).toContain(mod12(best(g).midi))
    const clash = g.find((v) => mod12(v.midi) === 5)
    expect(clash === undefined || clash.price > best(g).price + 1).toBe(true)
  })

  it('a note outside the scale takes chord tones a third or sixth away', () => {
    const found = secondVoices(midi('C', 5, 1), C, chord('A7'), 'below')
    for (const v of found)
      expect(['3M', '3m', '6M', '6m']).toContain(Interval.fromSemitones(midi('C', 5, 1) - v.midi))
    expect(found.length).toBeGreaterThan(0)
  })

  it('intervals are named as tonal names them', () => {
    const quality = { P: 'perfect', M: 'major', m: 'minor', A: 'tritone', d: 'tritone' } as const
    for (let semitones = 0; semitones <= 12; semitones++) {
      const name = Interval.fromSemitones(semitones)
      const { num, q } = Interval.get(name) as unknown as { num: number; q: keyof typeof quality }
      const own = intervalOf(-semitones)
      if (semitones === 6) expect(own.quality).toBe('tritone')
      else expect(own).toEqual({ number: num, quality: quality[q] })
    }
  })
})
