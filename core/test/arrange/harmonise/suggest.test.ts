import { Key } from 'tonal'
import { describe, expect, it } from 'vitest'
import { chordPitchClasses, midiOf, mod12, pitchClass } from '../../../src/music/index.ts'
import { melodyOf, timelineOf, type TuneDoc } from '../../../src/document/index.ts'
import { harmonise, harmoniseIn } from '../../../src/arrange/index.ts'
import { CORPUS, tuneOfMusic } from '../../support/tunes.ts'

const suggestHarmony = (tune: TuneDoc) => harmoniseIn(tune, 'family').chords

describe('suggested harmony', () => {
  it('uses the key’s own triads (tonal’s list), with the dominant of a minor key in major', () => {
    for (const tune of CORPUS) {
      const { key } = tune.measures[0]!
      if (key.mode !== 'major' && key.mode !== 'minor') continue
      const tonic = key.tonic.step
      const own =
        key.mode === 'major'
          ? Key.majorKey(tonic).triads
          : [...Key.minorKey(tonic).natural.triads, ...Key.minorKey(tonic).harmonic.triads]
      for (const c of suggestHarmony({ ...tune, chords: [] })) expect(own).toContain(c.symbol)
    }
  })

  it('starts where the first full measure does and ends on the tonic', () => {
    for (const tune of CORPUS) {
      const marks = suggestHarmony({ ...tune, chords: [] })
      const firstFull = tune.measures.find((m) => m.length >= m.nominal)!
      expect(marks[0]!.pos).toEqual({ measure: firstFull.id, tick: 0 })
      expect(marks.at(-1)!.parsed!.root).toEqual(tune.measures[0]!.key.tonic)
      expect(marks.every((m) => m.origin === 'suggested')).toBe(true)
    }
  })

  it('holds most of the melody in its chords', () => {
    let inside = 0
    let all = 0
    for (const tune of CORPUS) {
      const marks = suggestHarmony({ ...tune, chords: [] })
      const timeline = timelineOf(tune.measures)
      for (const note of melodyOf(tune, timeline)) {
        const mark = marks
          .filter((m) => timeline.starts[timeline.indexOf.get(m.pos.measure)!]! <= note.start)
          .at(-1)
        if (!mark) continue
        all += note.duration
        if (chordPitchClasses(mark.parsed!).includes(mod12(midiOf(note.pitch)))) inside += note.duration
      }
    }
    expect(inside / all).toBeGreaterThan(0.7)
  })

  it('is plain I, IV, V under a plain tune', () => {
    const tune = tuneOfMusic('CEGE|FAcA|GBdB|c4|]')
    expect(suggestHarmony({ ...tune, chords: [] }).map((c) => c.symbol)).toEqual(['C', 'F', 'G', 'C'])
  })

  it('gives three candidates, no two alike, each ending on the tonic and holding most of the melody', () => {
    for (const tune of CORPUS) {
      const three = harmonise({ ...tune, chords: [] })
      expect(three.map((c) => c.manner)).toEqual(['plain', 'family', 'moving'])
      const texts = three.map((c) => c.chords.map((m) => `${m.pos.measure}.${m.pos.tick}${m.symbol}`).join())
      expect(new Set(texts).size).toBe(3)
      for (const c of three) {
        expect(c.chords.at(-1)!.parsed!.root).toEqual(tune.measures[0]!.key.tonic)
        expect(c.chords.every((m) => m.origin === 'suggested')).toBe(true)
        expect(c.holds).toBeGreaterThan(0.55)
      }
    }
  })

  it('gives modal tunes their own neighbours: the chord under the tonic in dorian and mixolydian (common practice, no source)', () => {
    const dorian = tuneOfMusic('DAAB|dBAF|CEGE|D4|DAAB|dBAF|CEEC|D4|]', 'M:4/4\nL:1/4\nK:Ddor')
    const mixolydian = tuneOfMusic('DFAd|=cBAG|=CEGE|D4|]', 'M:4/4\nL:1/4\nK:Dmix')
    for (const [tune, under] of [
      [dorian, 'C'],
      [mixolydian, 'C'],
    ] as const)
      for (const c of harmonise({ ...tune, chords: [] }))
        expect(c.chords.map((m) => m.symbol)).toContain(under)
  })

  it('lets every borrowed dominant go where it wants to', () => {
    for (const tune of CORPUS) {
      const moving = harmoniseIn({ ...tune, chords: [] }, 'moving').chords
      moving.forEach((m, i) => {
        if (m.parsed!.quality !== '7' || i === moving.length - 1) return
        const down = mod12(pitchClass(m.parsed!.root) - pitchClass(moving[i + 1]!.parsed!.root))
        expect([7, 0]).toContain(down)
      })
    }
  })
})
