import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Score } from '../../src/document/index.ts'
import { applyEdit, chosenNotes, type Choosing, type EditCommand } from '../../src/edit/index.ts'
import { arrangedScore, structuralFaults } from '../support/score.ts'
import { CORPUS } from '../support/tunes.ts'

const score = arrangedScore(CORPUS[2]!, 'alternating-bass', 4)
const { tune, arrangement } = score
const last = tune.measures.length - 1
const chosen = (choosing: Choosing, from = 0, to = last) =>
  chosenNotes(tune, arrangement.base, from, to, choosing)

const ROLES = ['melody', 'harmony', 'bass', 'fill'] as const

describe('choosing notes', () => {
  it('by voice, and by string, each note of the measures is chosen once', () => {
    const measures = fc.tuple(fc.nat(last), fc.nat(last)).map(([a, b]) => [Math.min(a, b), Math.max(a, b)])
    fc.assert(
      fc.property(measures, (range) => {
        const [from, to] = range as [number, number]
        const ids = (list: readonly { readonly id: string }[]) => list.map((n) => n.id).sort()
        const all = ids(chosen({ by: 'all' }, from, to))
        expect(ids(ROLES.flatMap((role) => chosen({ by: 'voice', role }, from, to)))).toEqual(all)
        const strings = [1, 2, 3, 4, 5, 6]
        expect(ids(strings.flatMap((string) => chosen({ by: 'string', string }, from, to)))).toEqual(all)
        const within = new Set(tune.measures.slice(from, to + 1).map((m) => m.id))
        expect(all.length).toBe(arrangement.base.notes.filter((n) => within.has(n.pos.measure)).length)
      }),
    )
  })

  it('in the order of the page: by measure, moment, string', () => {
    const keys = chosen({ by: 'all' }).map((n) => [
      tune.measures.findIndex((m) => m.id === n.pos.measure),
      n.pos.tick,
      n.place.string,
    ])
    const sorted = [...keys].sort((a, b) => a[0]! - b[0]! || a[1]! - b[1]! || a[2]! - b[2]!)
    expect(keys).toEqual(sorted)
    expect(keys.length).toBeGreaterThan(30)
  })

  it('a whole voice can be taken out or marked, and the page stays sound', () => {
    const after = (edits: readonly EditCommand[]) =>
      edits.reduce<Score>((now, edit) => {
        const done = applyEdit(now, edit)
        if (!done.ok) throw new Error(done.refusal.reason)
        return done.score
      }, score) as Required<Score>
    const bass = chosen({ by: 'voice', role: 'bass' }, 1, 3)
    const without = after(bass.map((n) => ({ do: 'erase', note: n.id })))
    expect(chosenNotes(tune, without.arrangement.base, 1, 3, { by: 'voice', role: 'bass' })).toEqual([])
    expect(without.tune.events).toEqual(tune.events)
    expect(structuralFaults(without)).toEqual([])
    const marked = after(bass.map((n) => ({ do: 'mark', note: n.id, mark: 'optional', on: true })))
    const optional = marked.arrangement.base.notes.filter((n) => n.optional).map((n) => n.id)
    expect(new Set(optional)).toEqual(new Set(bass.map((n) => n.id)))
  })
})
