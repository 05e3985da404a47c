import { describe, expect, it } from 'vitest'
import { departures, type TuneDoc } from '../../../src/document/index.ts'
import { applyEdit, type EditCommand } from '../../../src/edit/index.ts'
import { CORPUS, tuneOf } from '../../support/tunes.ts'

const tune = tuneOf('X:1\nT:Sill\nM:3/4\nL:1/4\nK:G\n"G"GAB|"C"c2c|"D"dcB|"G"G3|"Em"EFG|"G"G3|]\nw: a b c\n')

function edited(from: TuneDoc, ...commands: EditCommand[]): TuneDoc {
  return commands.reduce((t, command) => {
    const done = applyEdit({ tune: t }, command)
    if (!done.ok) throw new Error(done.refusal.reason)
    return done.score.tune
  }, from)
}

const at = (measure: number, tick = 0) => ({ measure: tune.measures[measure]!.id, tick })

describe('departures from what came in', () => {
  it('are none from itself', () => {
    for (const t of [tune, ...CORPUS]) expect(departures(t, t)).toEqual([])
  })

  it('say of each measure what is otherwise', () => {
    const now = edited(
      tune,
      { do: 'pitch', at: at(0), pitch: { step: 'D', alter: 0, octave: 4 } },
      { do: 'chord', at: at(2), symbol: 'D7' },
      { do: 'word', at: at(0, 10080), text: 'oh' },
      { do: 'repeat', from: 4, to: 5, on: true },
    )
    expect(departures(tune, now)).toEqual([
      { number: 1, measure: 0, what: ['notes', 'words'] },
      { number: 3, measure: 2, what: ['chords'] },
      { number: 5, measure: 4, what: ['signs'] },
      { number: 6, measure: 5, what: ['signs'] },
    ])
  })

  it('know measures that came, went, or only moved', () => {
    const now = edited(tune, { do: 'insert', before: 2, count: 1 }, { do: 'delete', from: 5, to: 5 })
    expect(departures(tune, now)).toEqual([
      { number: 3, measure: 2, what: 'new' },
      { number: 5, what: 'gone' },
    ])
    const moved = edited(tune, { do: 'move', from: 4, to: 4, before: 1 })
    expect(departures(tune, moved).filter((d) => d.what === 'new' || d.what === 'gone')).toEqual([])
  })

  it('where a measure comes from is no departure', () => {
    expect(departures(tune, edited(tune, { do: 'provenance', from: 0, to: 3, provenance: 'heard' }))).toEqual(
      [],
    )
  })
})
