import { groupBy } from 'es-toolkit'
import { describe, expect, it } from 'vitest'
import { arranging, wholeTune } from '../../../src/arrange/index.ts'
import { ticksAt, type Level } from '../../../src/document/index.ts'
import { guitarSetup, pitchAt } from '../../../src/instrument/index.ts'
import { finish } from '../../../src/turns.ts'
import { tuneOfMusic } from '../../support/tunes.ts'

/** A tune on the bass strings with a long note at the end of each phrase. */
const LOW = tuneOfMusic('"C"E,F,G,A,|"C"C,4|"G7"D,E,D,B,,|"C"C,4|"F"F,4|"C"E,F,E,D,|"C"C,4|]')

describe('the answers of a flat pick over a low tune', () => {
  const setup = guitarSetup()
  const arranged = (level: Level) => {
    const { plan, layer } = finish(arranging(LOW, setup, wholeTune(LOW, 'flatpicked-lead', level)))
    const notes = layer.notes.map((n) => ({
      start: ticksAt(plan.timeline, n.pos),
      length: n.dur.ticks,
      role: n.role,
      string: n.place.string,
      midi: pitchAt(setup, n.place),
    }))
    return { notes, last: Math.max(...notes.map((n) => n.start)) }
  }

  it.each([2, 3, 4, 5] as const)(
    'lie above the note that is held and are gone before the next one (level %i)',
    (level) => {
      const { notes, last } = arranged(level)
      const melody = notes.filter((n) => n.role === 'melody')
      const strokes = notes.filter((n) => n.start < last && !melody.some((m) => m.start === n.start))
      expect(strokes.length).toBeGreaterThan(0)
      for (const n of strokes) {
        const held = melody.findLast((m) => m.start < n.start)!
        if (held.string < 3) continue
        expect(n.string).toBeLessThan(held.string)
        expect(n.midi).toBeGreaterThan(held.midi)
        const next = melody.find((m) => m.start > n.start)
        if (next) expect(n.start + n.length).toBeLessThanOrEqual(next.start)
      }
    },
  )

  it('go over neighbouring strings, two or more of them', () => {
    const { notes, last } = arranged(3)
    const starts = new Set(notes.filter((n) => n.role === 'melody').map((n) => n.start))
    const strokes = groupBy(
      notes.filter((n) => n.start < last && !starts.has(n.start)),
      (n) => n.start,
    )
    expect(Object.keys(strokes).length).toBeGreaterThan(2)
    for (const stroke of Object.values(strokes)) {
      const strings = stroke.map((n) => n.string).sort((a, b) => a - b)
      expect(strings.length).toBeGreaterThan(1)
      expect(strings.at(-1)! - strings[0]!).toBe(strings.length - 1)
    }
  })
})
