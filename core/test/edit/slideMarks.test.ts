import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { lastFret, pitchAt } from '../../src/instrument/index.ts'
import {
  SLIDE_MARKS,
  slideEnd,
  timelineOf,
  unfold,
  type Score,
  type SlideMark,
} from '../../src/document/index.ts'
import { applyEdit, type EditCommand } from '../../src/edit/index.ts'
import { lessonOf, scriptText, USUAL_LESSON } from '../../src/lesson/index.ts'
import { hertz } from '../../src/music/index.ts'
import { scoreOf } from '../../src/output/sound/index.ts'
import { structuralFaults } from '../support/score.ts'
import { scoreOfText, textOf } from '../support/tabText.ts'
import { scoreFaults } from './scoreFaults.ts'

const onString1 = (row: string, second = '-'.repeat(row.length)) =>
  scoreOfText(
    [`e|${row}|`, `B|${second}|`, ...['G', 'D', 'A', 'E'].map((n) => `${n}|${'-'.repeat(row.length)}|`)].join(
      '\n',
    ),
  )
const slidesOf = ({ arrangement: { base } }: Required<Score>) =>
  base.notes.map((n) => SLIDE_MARKS.filter((m) => n[m]).join() || n.attack)
const run = (score: Score, edit: EditCommand): Required<Score> => {
  const done = applyEdit(score, edit)
  if (!done.ok) throw new Error(done.refusal.reason)
  return done.score as Required<Score>
}
const mark = (score: Required<Score>, index: number, which: SlideMark, on = true): EditCommand => ({
  do: 'mark',
  note: score.arrangement.base.notes[index]!.id,
  mark: which,
  on,
})

describe('slides from and to nowhere in a pasted tab', () => {
  it('are told from slides between two frets', () => {
    expect(slidesOf(onString1('-5-/7---7-\\5-'))).toEqual(['pluck', 'slide', 'pluck', 'slide'])
    expect(slidesOf(onString1('-/7-------\\5-', '------3------'))).toEqual([
      'slideFromBelow',
      'pluck',
      'slideFromAbove',
    ])
    expect(slidesOf(onString1('-7/---5\\----'))).toEqual(['slideOffUp', 'slideOffDown'])
    // The way is wrong for a slide from the fret before.
    expect(slidesOf(onString1('-7--/5------'))).toEqual(['pluck', 'slideFromBelow'])
    // Another string sounds in between: from nowhere, unless the first fret says where it goes.
    expect(slidesOf(onString1('-5------/7--', '----5-------'))).toEqual(['pluck', 'pluck', 'slideFromBelow'])
    expect(slidesOf(onString1('-5/-----/7--', '----5-------'))).toEqual(['pluck', 'pluck', 'slide'])
  })

  it('need neck on that side: an open string is only plucked', () => {
    expect(slidesOf(onString1('-/0---1\\----'))).toEqual(['pluck', 'pluck'])
    expect(slidesOf(onString1('-/1---------'))).toEqual(['pluck'])
  })

  it('are printed so that they read back, with every mix of slides and strings between', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            string: fc.integer({ min: 1, max: 3 }),
            fret: fc.integer({ min: 3, max: 12 }),
            slide: fc.constantFrom(undefined, ...SLIDE_MARKS),
          }),
          { minLength: 2, maxLength: 8 },
        ),
        (steps) => {
          const width = 4 * steps.length
          const rows = [1, 2, 3, 4, 5, 6].map((string) =>
            steps
              .map((s) => (s.string === string ? `--${s.fret}`.padEnd(4, '-') : '----'))
              .join('')
              .padEnd(width, '-'),
          )
          let score = scoreOfText(rows.map((row, i) => `${'eBGDAE'[i]}|${row}|`).join('\n'))
          steps.forEach((s, i) => {
            if (s.slide) score = run(score, mark(score, i, s.slide))
          })
          const text = textOf(score)
          const back = scoreOfText(text)
          expect(slidesOf(back), text).toEqual(slidesOf(score))
          expect(back.arrangement.base.notes.map((n) => [n.left, n.right])).toEqual(
            score.arrangement.base.notes.map((n) => [n.left, n.right]),
          )
        },
      ),
      { numRuns: 60 },
    )
  })
})

describe('a slide written by hand', () => {
  const plain = onString1('-5---7---0--')

  it('is on the note, in the words, without a fault; the other way takes its place', () => {
    let score = run(plain, mark(plain, 1, 'slideFromBelow'))
    score = run(score, mark(score, 1, 'slideOffDown'))
    expect(slidesOf(score)[1]).toBe('slideFromBelow,slideOffDown')
    expect(scoreFaults(score)).toEqual([])
    expect(structuralFaults(score)).toEqual([])
    expect(scriptText(lessonOf(score.tune, score.arrangement, USUAL_LESSON).script)).toContain(
      'slid into from below, slid off downwards',
    )
    score = run(score, mark(score, 1, 'slideFromAbove'))
    expect(slidesOf(score)[1]).toBe('slideFromAbove,slideOffDown')
    score = run(score, mark(score, 1, 'slideOffDown', false))
    expect(slidesOf(score)[1]).toBe('slideFromAbove')
    expect(scoreFaults(score)).toEqual([])
  })

  it('is refused where no finger presses, and goes when its note moves to an open string', () => {
    const open = applyEdit(plain, mark(plain, 2, 'slideOffUp'))
    expect(open.ok ? undefined : open.refusal.reason).toBe('notFretted')
    const slid = run(plain, mark(plain, 0, 'slideFromBelow'))
    const note = slid.arrangement.base.notes[0]!
    const moved = run(slid, {
      do: 'fret',
      at: note.pos,
      string: 1,
      fret: 0,
      ticks: note.dur.ticks,
      role: 'melody',
    })
    expect(slidesOf(moved)[0]).toBe('pluck')
    const low = run(plain, {
      do: 'fret',
      at: note.pos,
      string: 1,
      fret: 1,
      ticks: note.dur.ticks,
      role: 'melody',
    })
    const refused = applyEdit(low, mark(low, 0, 'slideFromBelow'))
    expect(refused.ok ? undefined : refused.refusal).toMatchObject({
      reason: 'noSlide',
      offer: { mark: 'slideFromAbove' },
    })
  })

  it('is heard: plucked two frets away and gone to its pitch; at the end it goes off and dies', () => {
    for (const which of SLIDE_MARKS) {
      const { tune, arrangement } = run(plain, mark(plain, 1, which))
      const { setup, base } = arrangement
      const play = scoreOf(tune, setup, base, timelineOf(tune.measures), unfold(tune.measures))
      const own = hertz(pitchAt(setup, { string: 1, fret: 7 }))
      const away = hertz(pitchAt(setup, { string: 1, fret: slideEnd(which, 7, lastFret(setup, 1)) }))
      const heard = play.notes.filter((n) => [own, away].some((h) => Math.abs(h - n.hertz) < 0.01))
      const pitches = heard.map((n) => Math.round(n.hertz))
      // Fret 5 is struck before it too.
      const last = pitches.slice(-2)
      expect(last, which).toEqual(
        which.startsWith('slideFrom')
          ? [Math.round(away), Math.round(own)]
          : [Math.round(own), Math.round(away)],
      )
      expect(heard.at(-1)!.arrival).toBe('slide')
      expect(heard.at(-2)!.until).toBeLessThanOrEqual(heard.at(-1)!.at)
    }
  })
})
