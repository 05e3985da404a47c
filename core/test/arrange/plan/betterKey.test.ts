import { describe, expect, it } from 'vitest'
import { arranging, betterKey, wholeTune } from '../../../src/arrange/index.ts'
import type { Level, Style, TuneDoc } from '../../../src/document/index.ts'
import { guitarSetup, setupOf, STANDARD_TUNING, withShift } from '../../../src/instrument/index.ts'
import { finish } from '../../../src/turns.ts'
import { CORPUS, tuneOfMusic } from '../../support/tunes.ts'

const foundFor = (tune: TuneDoc, style: Style, level: Level) => {
  const setup = guitarSetup()
  const { plan } = finish(arranging(tune, setup, wholeTune(tune, style, level)))
  return betterKey(tune, setup, plan)
}

describe('a better key', () => {
  it('is proposed where a tune lies low under its chords, and keeps what it says: counted on the finished tab', () => {
    let proposed = 0
    for (const tune of CORPUS.slice(3, 9)) {
      const better = foundFor(tune, 'arpeggio', 3)
      if (!better) continue
      proposed++
      const setup = withShift(
        setupOf('guitar', STANDARD_TUNING, { fret: better.capo }),
        better.shift,
        better.octave,
      )
      const { layer } = finish(arranging(tune, setup, wholeTune(tune, 'arpeggio', 3)))
      const melody = layer.notes.filter((n) => n.role === 'melody')
      const onTop = melody.filter((n) => n.place.string <= 2).length
      expect(onTop / melody.length, tune.title).toBeGreaterThanOrEqual(0.9)
      expect(better.left).toBeLessThan(better.away)
    }
    expect(proposed).toBeGreaterThan(1)
  })

  it('at level 1 leads below fret 5', () => {
    const high = tuneOfMusic(
      '"Eb"G2"Bb"GF|"Cm"E2"Eb"B2|"Ab"cB"Bb7"BA|"Eb"G4|"Fm"c2"Bb"B2|"Eb"E4|]',
      'M:4/4\nL:1/4\nK:Eb',
    )
    const better = foundFor(high, 'melody-bass', 1)
    expect(better?.why).toBe('highFrets')
    const setup = withShift(
      setupOf('guitar', STANDARD_TUNING, { fret: better!.capo }),
      better!.shift,
      better!.octave,
    )
    const { layer } = finish(arranging(high, setup, wholeTune(high, 'melody-bass', 1)))
    const melody = layer.notes.filter((n) => n.role === 'melody')
    expect(melody.filter((n) => n.place.fret > 4).length).toBeLessThanOrEqual(better!.left)
  })

  it('is not sought where the tune lies well, or where its tab is given', () => {
    const tune = tuneOfMusic('"C"cdec|"G"dBdB|"C"c4|]')
    expect(foundFor(tune, 'arpeggio', 3)).toBeUndefined()
    const low = tuneOfMusic('"C"CDEC|"G"DB,G,B,|"C"C4|]')
    const setup = guitarSetup()
    const regions = wholeTune(low, 'arpeggio', 3).map((r) => ({ ...r, given: true as const }))
    const { plan } = finish(arranging(low, setup, regions))
    expect(betterKey(low, setup, plan)).toBeUndefined()
  })
})
