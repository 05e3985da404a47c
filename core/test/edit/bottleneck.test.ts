import { describe, expect, it } from 'vitest'
import { setupOf, tuningById } from '../../src/instrument/index.ts'
import { type Score } from '../../src/document/index.ts'
import { applyEdit, type EditCommand } from '../../src/edit/index.ts'
import { cautionWords, lessonOf, replay, scriptText, USUAL_LESSON, wordsFor } from '../../src/lesson/index.ts'
import { CORPUS } from '../support/tunes.ts'
import { arrangedScore } from '../support/score.ts'
import { scoreOfText, textOf } from '../support/tabText.ts'
import { scoreFaults } from './scoreFaults.ts'

const SLIDE_TAB = [
  'Sill, bottleneck',
  'Tuning D G D G B D',
  '',
  'D|-5---/7~--5---|-0---3/5-----0-|',
  'B|-5---------5--|-0-----5{-14}--|',
  'G|--------------|---0-----------|',
  'D|-0-----0------|---------5\\----|',
  'G|--------------|-0-------------|',
  'D|--------------|---------------|',
]
const PLAIN_TAB = SLIDE_TAB.map((l) => l.replace(', bottleneck', '').replace('{-14}', '-----'))

const scoreFrom = (lines: readonly string[]) => scoreOfText(lines.join('\n'))
const run = (score: Required<Score>, edit: EditCommand): Required<Score> => {
  const done = applyEdit(score, edit)
  if (!done.ok) throw new Error(done.refusal.reason)
  return done.score as Required<Score>
}
const refusal = (score: Required<Score>, edit: EditCommand) => {
  const done = applyEdit(score, edit)
  return done.ok ? undefined : done.refusal
}
const stops = ({ arrangement: { base } }: Required<Score>) =>
  base.notes.map((n) =>
    `${n.place.string}.${n.place.fret} ${n.attack} ${n.left} ${n.place.offsetCents ?? ''}`.trim(),
  )
describe('a bottleneck in a given tab', () => {
  const score = scoreFrom(SLIDE_TAB)

  it('stops what is fretted where the head says so: one finger straight across, slides and all', () => {
    expect(score.arrangement.setup.tuning).toEqual(setupOf('guitar', tuningById('guitar', 'openG')).tuning)
    expect(stops(score)).toEqual([
      '4.0 pluck 0',
      '2.5 bottle 4',
      '1.5 bottle 4',
      '4.0 pluck 0',
      '1.7 slide 4',
      '1.5 bottle 4',
      '2.5 bottle 4',
      '5.0 pluck 0',
      '2.0 pluck 0',
      '1.0 pluck 0',
      '3.0 pluck 0',
      '1.3 bottle 4',
      '2.5 bottle 4 -14',
      '1.5 slide 4',
      '4.5 bottle 4',
      '1.0 pluck 0',
    ])
    // The bar lies over one fret, and keeps its strings as it slides.
    for (const grip of score.arrangement.base.grips)
      expect(new Set(grip.pressed.map((p) => p.fret)).size).toBeLessThanOrEqual(1)
    expect(scriptText(lessonOf(score.tune, score.arrangement, USUAL_LESSON).script)).toContain(
      'Slide the bottleneck, across strings 1 to 2, to fret 7.',
    )
    expect(scoreFaults(score)).toEqual([])
  })

  it('is printed so that it reads back: the bottleneck, cents, slides', () => {
    const text = textOf(score)
    expect(text).toMatch(/^LH {2}BB/m)
    expect(text).toContain('5{-14}')
    expect(stops(scoreOfText(text.replace(', bottleneck', '')))).toEqual(stops(score))
  })

  it('can be followed from the words alone, with the caution that goes with it', () => {
    const lesson = lessonOf(score.tune, score.arrangement, USUAL_LESSON)
    const words = wordsFor(USUAL_LESSON.speech)
    const followed = replay(scriptText(lesson.script), words)
    expect(followed.map((s) => s.notes.map((n) => [n.string, n.fret, n.attack, n.beside ?? '']))).toEqual(
      lesson.steps.map((s) => s.notes.map((n) => [n.string, n.fret, n.attack, n.beside ?? ''])),
    )
    expect(cautionWords(lesson).join()).toContain('Under the bottleneck press lightly')
    const fingered = lessonOf(scoreFrom(PLAIN_TAB).tune, scoreFrom(PLAIN_TAB).arrangement, USUAL_LESSON)
    expect(cautionWords(fingered).join()).not.toContain('bottleneck')
  })

  it('is written by hand for a note, and beside its fret; a finger cannot stand there', () => {
    const plain = scoreFrom(PLAIN_TAB)
    const note = plain.arrangement.base.notes.find((n) => n.place.string === 1 && n.place.fret === 5)!
    expect(refusal(plain, { do: 'offset', note: note.id, cents: -14 })).toMatchObject({
      reason: 'onlyBar',
      offer: { do: 'attack', attack: 'bottle' },
    })
    const under = run(plain, { do: 'attack', note: note.id, attack: 'bottle' })
    const at = (s: Required<Score>) => s.arrangement.base.notes.find((n) => n.id === note.id)!
    expect(at(under)).toMatchObject({ attack: 'bottle', left: 4 })
    const beside = run(under, { do: 'offset', note: note.id, cents: -80 })
    expect(at(beside).place.offsetCents).toBe(-50)
    expect(at(run(beside, { do: 'offset', note: note.id, cents: 0 })).place.offsetCents).toBeUndefined()
    expect(
      at(run(beside, { do: 'attack', note: note.id, attack: 'pluck' })).place.offsetCents,
    ).toBeUndefined()
    expect(scoreFaults(beside)).toEqual([])
    const open = plain.arrangement.base.notes.find((n) => n.place.fret === 0)!
    expect(refusal(plain, { do: 'attack', note: open.id, attack: 'bottle' })?.reason).toBe('notFretted')
  })
})

describe('the thumb over the neck', () => {
  it('is set on the lowest strings, for a hand that does so', () => {
    const over = arrangedScore(CORPUS[0]!, 'melody-bass', 2)
    const low = over.arrangement.base.notes.find((n) => n.place.string === 6 && n.place.fret > 0)!
    const high = over.arrangement.base.notes.find((n) => n.place.string <= 3 && n.place.fret > 0)!
    const hand = (thumbOver: boolean): Required<Score> => {
      const { setup } = over.arrangement
      const player = { ...setup.player, techniques: { ...setup.player.techniques, thumbOver } }
      return { ...over, arrangement: { ...over.arrangement, setup: { ...setup, player } } }
    }
    const thumb = (note: string): EditCommand => ({ do: 'left', note, finger: 'T' })
    expect(refusal(hand(false), thumb(low.id))?.reason).toBe('noThumb')
    expect(refusal(hand(true), thumb(high.id))?.reason).toBe('noThumb')
    const set = run(hand(true), thumb(low.id))
    expect(set.arrangement.base.notes.find((n) => n.id === low.id)!.left).toBe('T')
  })
})
