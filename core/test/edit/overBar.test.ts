import { describe, expect, it } from 'vitest'
import { ticksAt, timelineOf, type Score } from '../../src/document/index.ts'
import { applyEdit } from '../../src/edit/index.ts'
import { lessonOf, scriptText, USUAL_LESSON } from '../../src/lesson/index.ts'
import { WHOLE } from '../../src/music/index.ts'
import { staffOf } from '../../src/output/index.ts'
import { scoreOfText, textOf } from '../support/tabText.ts'
import { scoreFaults } from './scoreFaults.ts'

/** Start and length of each note in quarters, by string. */
const lengths = ({ tune, arrangement: { base } }: Required<Score>) =>
  base.notes.map((n) => {
    const at = ticksAt(timelineOf(tune.measures), n.pos)
    return `${n.place.string}: ${(4 * at) / WHOLE} ${(4 * n.dur.ticks) / WHOLE}`
  })

describe('a chord that is held over the bar line', () => {
  /** A chord that sounds on into a measure in which only its bass is struck again. */
  const HELD = `
   q  q  h     h     h
e|-0-----0----|=-----3---|
B|-1-----1----|=---------|
G|-------0----|=---------|
D|-------2----|=---------|
A|-3-----3----|3---------|
E|------------|----------|
`
  const score = scoreOfText(HELD)
  const plain = scoreOfText(HELD.replaceAll('=', '-'))

  it('is read: the melody is tied, the others last, and what is struck again begins anew', () => {
    expect(lengths(score)).toEqual(
      expect.arrayContaining(['1: 2 4', '2: 2 6', '3: 2 6', '4: 2 6', '5: 2 2', '5: 4 4', '1: 6 2']),
    )
    const tied = score.tune.events.find((e) => e.tieTo)!
    expect(score.tune.events.find((e) => e.id === tied.tieTo)).toMatchObject({ pitch: tied.pitch })
    expect(scoreFaults(score)).toEqual([])
    const [, second] = staffOf(score.tune, 0, score.arrangement.setup, score.arrangement.base.notes)
    expect(second!.lower.length).toBeGreaterThan(0)
    expect(scriptText(lessonOf(score.tune, score.arrangement, USUAL_LESSON).script)).toMatch(
      /Measure 2\n(.*\n)?1: .*Let ring on: string 4, 3, 2, 1\./,
    )
  })

  it('a fret in brackets behind the bar line says the same, where nobody plucks it', () => {
    const brackets = HELD.replace('|=-----3', '|(0)---3')
      .replace('|=---------|\nG', '|(1)-------|\nG')
      .replace('|=---------|\nD', '|(0)-------|\nD')
      .replace('|=---------|\nA', '|(2)-------|\nA')
    expect(lengths(scoreOfText(brackets))).toEqual(lengths(score))
    // Another fret, or one that is plucked, may be left out.
    const other = scoreOfText(
      HELD.replace('B|-1-----1----|=-', 'B|-1-----1----|(3)').replace('(3)---------|', '(3)-------|'),
    )
    expect(other.arrangement.base.notes.some((n) => n.optional && n.place.fret === 3)).toBe(true)
  })

  it('is printed so that it reads back', () => {
    const text = textOf(score)
    expect(text.split('\n').filter((l) => l.includes('=-'))).toHaveLength(4)
    expect(lengths(scoreOfText(text))).toEqual(lengths(score))
  })

  it('is held and let go by hand, note by note', () => {
    const low = plain.arrangement.base.notes.find((n) => n.place.string === 4)!
    const once = applyEdit(plain, { do: 'hold', note: low.id })
    expect(once.ok && lengths(once.score as Required<Score>)).toContain('4: 2 6')
    const twice = once.ok && applyEdit(once.score, { do: 'hold', note: low.id })
    expect(twice && twice.ok && lengths(twice.score as Required<Score>)).toContain('4: 2 2')
    const bass = plain.arrangement.base.notes.find((n) => n.place.string === 5 && n.pos.tick > 0)!
    const refused = applyEdit(plain, { do: 'hold', note: bass.id })
    expect(refused.ok ? undefined : refused.refusal.reason).toBe('stringTaken')
  })
})
