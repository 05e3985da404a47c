import { describe, expect, it } from 'vitest'
import { chordText } from '../../src/music/harmony/chordSymbol.ts'
import { shapeFrames } from '../../src/lesson/steps/shapeFrames.ts'
import { isStrummed } from '../../src/lesson/steps/struckFrom.ts'
import { lessonOf, USUAL_LESSON } from '../../src/lesson/index.ts'
import { handoutPieces, usualHandout } from '../../src/output/handout/index.ts'
import { arrangedScore } from '../support/score.ts'
import { CORPUS, tuneOf } from '../support/tunes.ts'

/** Two parts of our own; the second begins with the chord that the first ends on. */
const TWO_PARTS = tuneOf(
  'X:1\nT:Sill\nM:4/4\nL:1/4\nK:C\nP:Verse\n"C"cdec|"C"edcB|"F"f2"C"e2|"G7"d4|\nP:Chorus\n"G7"d2B2|"C"c4|"F"f4|"C"c4|]\n',
)

const printed = (style: 'arpeggio' | 'strum' | 'picking', counts: boolean, level: 2 | 3 = 2) => {
  const { tune, arrangement } = arrangedScore(TWO_PARTS, style, level)
  const handout = { ...usualHandout('t'), blocks: [{ id: 'f', kind: 'frames', counts } as const] }
  return handoutPieces(handout, lessonOf(tune, arrangement, USUAL_LESSON)).map((p) => p.html)
}

describe('shapes in playing order', () => {
  it('are one a change, part by part; a chord that goes on is one', () => {
    const { tune, arrangement } = arrangedScore(TWO_PARTS, 'arpeggio', 2)
    const parts = shapeFrames(tune, arrangement)
    expect(parts.map((p) => [p.name, p.frames.map((f) => chordText(f.chord)).join(' ')])).toEqual([
      ['Verse', 'C F C G7'],
      ['Chorus', 'G7 C F C'],
    ])
    expect(parts.flatMap((p) => p.frames.map((f) => f.measure))).toEqual([0, 2, 2, 3, 4, 5, 6, 7])
  })

  it('on every tune: in order, each with a shape that differs from the one before, and with what is struck on it', () => {
    for (const tune of CORPUS.slice(0, 6)) {
      const { arrangement } = arrangedScore(tune, 'arpeggio', 3)
      for (const { frames } of shapeFrames(tune, arrangement)) {
        frames.forEach((f, i) => {
          const last = frames[i - 1]
          if (!last) return
          expect(f.measure).toBeGreaterThanOrEqual(last.measure)
          expect([chordText(f.chord), f.held.frets]).not.toEqual([chordText(last.chord), last.held.frets])
        })
        for (const f of frames)
          for (const { strings } of f.struck) expect(strings).toEqual([...strings].sort((a, b) => b - a))
      }
    }
  })

  it('are printed part by part with string numbers, a pinch in brackets, counts on request', () => {
    const plain = printed('picking', false).join('')
    expect([...plain.matchAll(/<h2>(.*?)<\/h2>/g)].map((m) => m[1])).toEqual(['Verse', 'Chorus'])
    expect(plain.match(/<figure>/g)).toHaveLength(8)
    const patterns = [...plain.matchAll(/class="pattern">(.*?)</g)].map((m) => m[1]!)
    expect(patterns).toHaveLength(8)
    for (const p of patterns) expect(p).toMatch(/^(\d|\[\d( \d)+\])( \d| \[\d( \d)+\])*$/)
    expect(patterns.some((p) => p.includes('['))).toBe(true)
    const counted = printed('picking', true).join('')
    expect(counted.match(/class="pattern"/g)).toHaveLength(16)
    expect(counted).toContain('1, &#38; of 1')
  })

  it('say a strum once, in strokes and counts, and no rows of string numbers', () => {
    const html = printed('strum', true)
    const strums = html.join('').match(/<p class="strum">.*?<\/p>/g)!
    expect(new Set(strums).size).toBe(strums.length)
    const drawn = [...strums[0].matchAll(/aria-label="(\w+)".*?<small>(.*?)</g)].map((m) => `${m[2]} ${m[1]}`)
    expect(drawn.slice(0, 2)).toEqual(['1 downstroke', '2 downstroke'])
    expect(html.join('')).not.toContain('class="pattern"')
    const { tune, arrangement } = arrangedScore(TWO_PARTS, 'strum', 2)
    expect(shapeFrames(tune, arrangement).every((p) => p.frames.every((f) => isStrummed(f.struck)))).toBe(
      true,
    )
  })
})
