import { describe, expect, it } from 'vitest'
import type { Score } from '../../src/document/index.ts'
import { applyEdit, type EditCommand } from '../../src/edit/index.ts'
import { arrangedScore } from '../support/score.ts'
import { scoreOfPassage } from '../support/passage.ts'
import { PASSAGES } from '../arrange/manual/passages.ts'
import { CORPUS } from '../support/tunes.ts'

const edited = (score: Required<Score>, edit: EditCommand): Required<Score> | undefined => {
  const made = applyEdit(score, edit)
  return made.ok ? (made.score as Required<Score>) : undefined
}

/** Other notes whose finger is another one after an edit. */
function changedFingers(before: Required<Score>, after: Required<Score>, note: string): string[] {
  const was = new Map(before.arrangement.base.notes.map((n) => [n.id, n]))
  return after.arrangement.base.notes
    .filter((n) => n.id !== note && was.has(n.id) && was.get(n.id)!.left !== n.left)
    .map((n) => n.id)
}

describe('one note corrected by hand', () => {
  // Traditional tunes, long out of copyright, from memory.
  it.each([
    [0, 'alternating-bass'],
    [2, 'arpeggio'],
    [4, 'melody-bass'],
  ] as const)('of tune %i in %s changes that note: all others keep their fingers', (tune, style) => {
    const score = arrangedScore(CORPUS[tune]!, style, 3)
    let edits = 0
    for (const note of score.arrangement.base.notes.filter((n) => n.role === 'bass').slice(0, 10)) {
      const { string, fret } = note.place
      const other = fret === 0 ? 2 : fret > 1 ? fret - 1 : 3
      const after = edited(score, {
        do: 'fret',
        at: note.pos,
        string,
        fret: other,
        ticks: note.dur.ticks,
        role: note.role,
      })
      if (!after) continue
      edits++
      expect(changedFingers(score, after, note.id)).toEqual([])
      expect(after.arrangement.base.notes.find((n) => n.id === note.id)!.place).toEqual({
        string,
        fret: other,
      })
    }
    expect(edits).toBeGreaterThan(5)
  })

  it('in a held shape moves the finger that has to move; the rest of the shape stays down', () => {
    const score = scoreOfPassage(PASSAGES.find((p) => p.name === 'C, thumb first')!)
    const bass = score.arrangement.base.notes.find((n) => n.place.string === 5)!
    const after = edited(score, {
      do: 'fret',
      at: bass.pos,
      string: 5,
      fret: 2,
      ticks: bass.dur.ticks,
      role: bass.role,
    })!
    expect(changedFingers(score, after, bass.id)).toEqual([])
    const down = after.arrangement.base.grips.map((g) =>
      g.pressed.map((p) => `${p.string}.${p.fret}=${p.finger}`),
    )
    // The index finger lies on string 2 in every grip, the middle finger on string 4 but where it is needed elsewhere.
    for (const grip of down) expect(grip).toContain('2.1=1')
    expect(down.slice(1).every((grip) => grip.includes('4.2=2'))).toBe(true)
  })
})
