import { describe, expect, it } from 'vitest'
import { arranging, patternsFor, usualPattern, wholeTune } from '../../../src/arrange/index.ts'
import { setupOf, namedTunings } from '../../../src/instrument/index.ts'
import { finish } from '../../../src/turns.ts'
import { tuneOfMusic } from '../../support/tunes.ts'

describe('a mandolin behind a singer', () => {
  const tune = tuneOfMusic('"G"GBdB|"C"cege|"D7"dfaf|"G"g4|]')
  const setup = setupOf('mandolin', namedTunings('mandolin')[0]!.tuning)
  const notesAt = (level: 1 | 2 | 3) =>
    finish(arranging(tune, setup, wholeTune(tune, 'strum', level))).layer.notes

  it('chops from level 2 on: whole chords, answered by damped strokes', () => {
    expect(notesAt(1).some((n) => n.attack === 'muted')).toBe(false)
    for (const level of [2, 3] as const) {
      const notes = notesAt(level)
      expect(notes.some((n) => n.attack === 'muted' && n.pos.tick === 10_080)).toBe(true)
      const first = notes.filter((n) => n.pos.tick === 0 && n.pos.measure === notes[0]!.pos.measure)
      expect(first).toHaveLength(4)
    }
  })

  it('a guitar does not, unless it is asked to', () => {
    const metre = { num: 4, den: 4 }
    expect(usualPattern('strum', 2, metre).text).not.toContain('*')
    expect(usualPattern('strum', 2, metre, 4).text).toContain('*')
    expect(patternsFor('strum', metre).some((p) => p.chop)).toBe(true)
  })
})
