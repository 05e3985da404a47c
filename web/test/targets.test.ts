import type { Score } from '@velvet-porch/core/document'
import { applyEdit, type EditCommand } from '@velvet-porch/core/edit'
import { describe, expect, it } from 'vitest'
import { choicesOf } from '../src/score/edit/choices.ts'
import { targetNotes } from '../src/score/edit/targets.ts'
import { soundEdits, soundsSo } from '../src/score/edit/noteEdits.ts'
import { restringEdits } from '../src/score/edit/restring.ts'
import { arrangementFor, tuneOf } from './support.ts'

const tune = tuneOf('"D"dedc|"G"B2"A"c2|"D"d4|]', 'gate', 'M:4/4\nL:1/4\nK:D')
const score: Required<Score> = { tune, arrangement: arrangementFor(tune, 3) }

const ids = (list: readonly { readonly id: string }[]) => list.map((n) => n.id)

function after(from: Required<Score>, edits: readonly EditCommand[]): Required<Score> {
  return edits.reduce((now, edit) => {
    const done = applyEdit(now, edit)
    if (!done.ok) throw new Error(`${edit.do} refused: ${done.refusal.reason}`)
    return done.score as Required<Score>
  }, from)
}

describe('what the note tools change', () => {
  const first = score.arrangement.base.notes.find((n) => n.role === 'melody')!
  const cell = { measure: 0, tick: first.pos.tick, string: first.place.string }

  it('is the note under the cursor, or nothing', () => {
    const meaning = { cell, choosing: undefined, marked: { from: 0, to: 2 } }
    expect(ids(targetNotes(score, meaning))).toEqual([first.id])
    expect(targetNotes(score, { ...meaning, cell: { ...cell, tick: 17 } })).toEqual([])
    expect(targetNotes(score, { ...meaning, cell: undefined })).toEqual([])
  })

  it('is a voice of the marked measures, of the pen’s measure where none is marked', () => {
    const melody = { by: 'voice', role: 'melody' } as const
    const count = (marked?: { from: number; to: number }) =>
      targetNotes(score, { cell, choosing: melody, marked }).length
    expect(count({ from: 0, to: 1 })).toBe(6)
    expect(count({ from: 1, to: 2 })).toBe(3)
    expect(count()).toBe(4)
    expect(targetNotes(score, { cell: undefined, choosing: melody, marked: undefined })).toEqual([])
  })

  it('each choice has a key of its own', () => {
    const choices = choicesOf(6)
    expect(new Set(choices.map((c) => c.keys)).size).toBe(choices.length)
    expect(choices).toHaveLength(2 + 4 + 6)
  })

  it('several notes are sounded so, and all plainly again once all are', () => {
    const melody = score.arrangement.base.notes.filter((n) => n.role === 'melody').slice(0, 4)
    const one = after(score, soundEdits(melody.slice(0, 1), 'accent'))
    const now = (s: Required<Score>) =>
      melody.map((n) => s.arrangement.base.notes.find((x) => x.id === n.id)!)
    const all = after(one, soundEdits(now(one), 'accent'))
    expect(now(all).every((n) => soundsSo(n, 'accent'))).toBe(true)
    const none = after(all, soundEdits(now(all), 'accent'))
    expect(now(none).some((n) => soundsSo(n, 'accent'))).toBe(false)
  })

  it('notes of one moment go to the next strings without meeting', () => {
    // Two notes at once on neighbouring strings, both able to go down one: the lower one goes first.
    const notes = [
      { id: 'a', place: { string: 2, fret: 5 } },
      { id: 'b', place: { string: 3, fret: 5 } },
    ] as never
    expect(restringEdits(notes, 1).map((e) => 'note' in e && e.note)).toEqual(['b', 'a'])
    expect(restringEdits(notes, -1).map((e) => 'note' in e && e.note)).toEqual(['a', 'b'])
  })
})
