import { describe, expect, it } from 'vitest'
import type { Score } from '../../src/document/index.ts'
import { applyEdit, handRowEdits, readHandRow } from '../../src/edit/index.ts'
import { scoreOfText } from '../support/tabText.ts'

const SCORE = scoreOfText(
  'e|-----0---|-3-------|\nB|---1---1-|-----0---|\nG|-0-------|---0---0-|\nD|-2-------|---------|\nA|-3-------|---------|\nE|---------|-3-------|\n',
)
const notes = SCORE.arrangement.base.notes
const edits = (text: string, from = 0, to = from) =>
  handRowEdits(readHandRow(text)!, SCORE.tune, notes, { from, to })

describe('a row for one hand', () => {
  it('is told by its head', () => {
    expect(readHandRow('LH 3 0')).toEqual({ hand: 'left', words: ['3', '0'] })
    expect(readHandRow('rh: p im')).toEqual({ hand: 'right', words: ['p', 'im'] })
    expect(readHandRow('4: 0 2')).toBeUndefined()
  })

  it('gives the fretting fingers of each moment, from the lowest string; open strings have none', () => {
    // The bass chord has strings 5 and 4 stopped, then string 2 twice.
    const { edits: made, faults } = edits('LH 43 2 -')
    expect(faults).toEqual([])
    let score: Score = SCORE
    for (const edit of made) {
      const edited = applyEdit(score, edit)
      if (!edited.ok) throw new Error(edited.refusal.reason)
      score = edited.score
    }
    const left = (string: number, tick: number) =>
      score.arrangement!.base.notes.find(
        (n) => n.place.string === string && n.pos.tick === tick && n.pos.measure === 'm1',
      )?.left
    expect([left(5, 0), left(4, 0), left(2, 10_080)]).toEqual([4, 3, 2])
    expect(score.arrangement!.base.notes.length).toBe(notes.length)
  })

  it('gives the picking fingers, and one stroke to all notes of its moment', () => {
    const { edits: made, faults } = edits('RH d u m', 0)
    expect(faults).toEqual([])
    expect(made.map((e) => (e.do === 'right' ? e.sign : e.do))).toEqual(['down', 'down', 'down', 'up', 'm'])
  })

  it('goes on over marked measures', () => {
    expect(edits('RH pim i m a pa i', 0, 1).faults).toEqual([])
    expect(edits('RH pim i m a pa i', 0, 1).edits).toHaveLength(9)
  })

  it('says what is no finger, what has another number of notes, and where the moments end', () => {
    expect(edits('LH 35').faults).toEqual([{ kind: 'notFinger', text: '35', count: 2 }])
    expect(edits('LH 3').faults).toEqual([{ kind: 'otherCount', text: '3', count: 2 }])
    expect(edits('LH 32 1 1 1').faults).toEqual([{ kind: 'tooMany', text: '1', count: 3 }])
  })
})
