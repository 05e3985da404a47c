import { describe, expect, it } from 'vitest'
import { wholeTune } from '@velvet-porch/core/arrange'
import { pairwise, SCHOOLS, setupFor } from '../src/corpus/conditions.ts'
import { arrangeFor, countsOf, NOTHING, added, type Counts } from '../src/corpus/measure.ts'
import { corpusTunes } from '../src/corpus/tunes.ts'

/**
 * Every pair of a style, level, instrument and tuning, capo, school and hand comes up at least once, each row with
 * another tune. The whole corpus is `npm run corpus`.
 */
const tunes = corpusTunes()
const rows = pairwise().map((condition, i) => ({ condition, tune: tunes[i % tunes.length]! }))

describe('a pairwise sample of styles, levels, instruments, tunings, capos, schools and hands', () => {
  const counted = new Map<string, Counts>()
  it.each(
    rows.map(({ condition, tune }, i) => [i, tune.title, Object.values(condition).join(', ')] as const),
  )('%i %s: %s', (i) => {
    const { condition, tune } = rows[i]!
    const setup = setupFor(condition, condition.hand)
    const school = SCHOOLS[condition.school]!
    const made = arrangeFor(tune, setup, wholeTune(tune, condition.style, condition.level, school))
    const counts = countsOf(setup, made)
    expect(made.report.findings.filter((f) => f.kind === 'hop')).toEqual([])
    expect(counts.structural).toBe(0)
    expect(counts.lessonsWrong).toBe(0)
    expect(counts.melodyKept).toBe(counts.melodyNotes)
    // Every missing root is one that no hand could have had.
    expect(counts.rootsImpossible).toBe(counts.harmonyChanges - counts.roots)
    if (school.strokes === 'alternate') expect(counts.strokesRepeated).toBe(0)
    const key = condition.school === 'repeats varied' ? 'varied' : 'alike'
    counted.set(key, added(counted.get(key) ?? NOTHING, counts))
  })

  it('plays measures that come again alike, and varies them where that is asked for', () => {
    const alike = counted.get('alike')!
    expect(alike.repeatedMeasures).toBeGreaterThan(60)
    expect(alike.repeatedUnlike).toBe(0)
    expect(counted.get('varied')!.repeatedUnlike).toBeGreaterThan(0)
  })
})

describe('styles by what makes them, over the whole corpus', () => {
  const over = (style: 'cross-string' | 'melody-bass', level: 1 | 3, school = 'usual') =>
    tunes
      .filter((_, i) => i % 4 === 0)
      .map((tune) => {
        const setup = setupFor({ style, level, instrument: 'guitar', tuning: 'standard', capo: 0, school })
        return countsOf(setup, arrangeFor(tune, setup, wholeTune(tune, style, level)))
      })
      .reduce(added, NOTHING)

  it('cross-string: at least 95 of 100 melody steps cross to another string and ring on', () => {
    const { crossings, crossingsRinging } = over('cross-string', 3)
    expect(crossings).toBeGreaterThan(200)
    expect(crossingsRinging / crossings).toBeGreaterThan(0.95)
    const plain = over('melody-bass', 3)
    expect(plain.crossingsRinging / plain.crossings).toBeLessThan(0.5)
  })

  it('cross-string: measures that come again are played alike, whatever follows them', () => {
    // The string of the last note is the one that what comes next would rather have free.
    const places = [
      { instrument: 'guitar', tuning: 'D A D G A D' },
      { instrument: 'guitar', tuning: 'open D' },
      { instrument: 'mandolin', tuning: 'standard' },
    ] as const
    const counts = places.flatMap((place) =>
      ([1, 4] as const).flatMap((level) =>
        tunes.slice(0, 9).map((tune) => {
          const condition = { style: 'cross-string', level, ...place, capo: 0, school: 'usual' } as const
          const setup = setupFor(condition)
          return countsOf(setup, arrangeFor(tune, setup, wholeTune(tune, 'cross-string', level)))
        }),
      ),
    )
    const all = counts.reduce(added, NOTHING)
    expect(all.repeatedMeasures).toBeGreaterThan(100)
    expect(all.repeatedUnlike).toBe(0)
  })

  it('melody and bass: the book’s fingers at 80 of 100 chord changes at level 1 (common practice, no source)', () => {
    const { textbookFingers, textbookChanges } = over('melody-bass', 1)
    expect(textbookChanges).toBeGreaterThan(60)
    expect(textbookFingers / textbookChanges).toBeGreaterThan(0.8)
  })
})
