import { Key } from 'tonal'
import { describe, expect, it } from 'vitest'
import { chordPitchClasses, melodyOf, midiOf, mod12, timelineOf } from '../../src/index.ts'
import { CORPUS, tuneOfMusic } from '../support/tunes.ts'
import { suggestHarmony } from '../../src/harmony/suggestHarmony.ts'

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
})
