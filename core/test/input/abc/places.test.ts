import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { guitarSetup, lastFret, pitchAt } from '../../../src/instrument/index.ts'
import { PlacesError, readAbc, scoreOfPlaces } from '../../../src/input/abc/index.ts'
import { plainPitch } from '../../../src/music/index.ts'
import { scoreFaults } from '../../edit/scoreFaults.ts'
import { structuralFaults } from '../../support/score.ts'
import { problemWords } from '../../support/words.ts'

const setup = guitarSetup()
const read = (music: string) =>
  readAbc(`X:1\nT:Placed\nM:4/4\nL:1/4\nQ:1/4=80\nK:C\n${music}\n`, () => 'tune')[0]!
function scored(music: string) {
  const { tune, places = new Map() } = read(music)
  return scoreOfPlaces(tune!, places, setup)
}
const played = (music: string) =>
  scored(music).arrangement.base.notes.map((n) => `${n.place.string}.${n.place.fret}:${n.left}`)
const refusal = (music: string) => {
  try {
    scored(music)
  } catch (error) {
    if (error instanceof PlacesError) return problemWords(error).what
    throw error
  }
  return undefined
}

describe('places over the notes of an ABC', () => {
  const CHORDS = '"C""^5.3:3+4.2:2"[CE] "^3.0"G "^2.1"c "^1.0"e | "Am""^5.0"A, "^4.2"E "^3.2"A "^2.1"c |]'

  it('are kept, with the fingers that are given; the others are found, and picking', () => {
    expect(played(CHORDS)).toEqual([
      '5.3:3',
      '4.2:2',
      '3.0:0',
      '2.1:1',
      '1.0:0',
      '5.0:0',
      '4.2:2',
      '3.2:3',
      '2.1:1',
    ])
    const score = scored(CHORDS)
    expect(score.arrangement.base.notes.every((n) => n.right !== 'none')).toBe(true)
    expect(score.arrangement.base.locks.filter((l) => l.field === 'left')).toHaveLength(2)
    expect(scoreFaults(score)).toEqual([])
    expect(structuralFaults(score)).toEqual([])
  })

  it('sound any number of semitones from what is written, the same for all', () => {
    const [first] = scored('"^2.8"g2 "^2.7"^f2|]').arrangement.base.notes
    expect(pitchAt(setup, first!.place)).toBe(67)
    expect(scored('"^1.8"g2 "^1.7"^f2|]').arrangement.transposed).toBe(-7)
  })

  it('that cannot be are refused with measure and place', () => {
    expect(refusal('"^2.1"c "^2.2"d |]')).toContain('measure 1: string 2, fret 2 does not sound')
    expect(refusal('"^2.1"c d2 z|"^2.3"d |]')).toContain('needs a place for each of its 1 pitches')
    expect(refusal('"^5.3"[CE]2 z2|]')).toContain('each of its 2 pitches, and has 1')
    expect(refusal('"^2.30"c4|]')).toContain('no fret 30 on string 2')
  })

  it('other annotations are none; a tune without places has none', () => {
    expect(read('"^slowly"c "_5.x"d |]').places!.size).toBe(0)
    expect(read('"^2.1"c "_2.3"d |]').places!.size).toBe(2)
  })

  it('whatever the places, they are those of the tab', () => {
    const place = fc
      .integer({ min: 1, max: 6 })
      .chain((string) =>
        fc.integer({ min: 0, max: Math.min(12, lastFret(setup, string)) }).map((fret) => ({ string, fret })),
      )
    fc.assert(
      fc.property(fc.array(place, { minLength: 1, maxLength: 4 }), (line) => {
        const music = line.map((p) => {
          const { step, alter, octave } = plainPitch(pitchAt(setup, p), false)
          const letter =
            octave >= 5 ? step.toLowerCase() + "'".repeat(octave - 5) : step + ','.repeat(4 - octave)
          return `"^${p.string}.${p.fret}"${['__', '_', '=', '^', '^^'][alter + 2]}${letter}`
        })
        const { base, transposed } = scored(`${music.join(' ')} |]`).arrangement
        expect(transposed).toBe(0)
        expect(base.notes.map((n) => n.place)).toEqual(line)
      }),
      { numRuns: 60 },
    )
  })
})
