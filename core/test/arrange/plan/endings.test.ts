import { describe, expect, it } from 'vitest'
import { bassPitchClass, readChordSymbol } from '../../../src/music/index.ts'
import { SOLO_STYLES, type Level, type Style } from '../../../src/document/index.ts'
import { arranging, refusalOf, wholeTune } from '../../../src/arrange/index.ts'
import { audit } from '../../../src/audit/index.ts'
import { finishedTabOf } from '../../../src/output/index.ts'
import { measureLock } from '../../../src/edit/index.ts'
import { GUITAR, guitarSetup } from '../../../src/instrument/index.ts'
import { finish } from '../../../src/turns.ts'
import { arrangedScore } from '../../support/score.ts'
import type { TabJson } from '../../../src/output/index.ts'
import { arrangeTune, CORPUS, tuneOfMusic } from '../../support/tunes.ts'

/** All that is struck from a time on, by time. */
function onsetsFrom({ notes }: TabJson, from: number): TabJson['notes'][] {
  const times = [...new Set(notes.map((n) => n.start))].filter((t) => t >= from).sort((a, b) => a - b)
  return times.map((t) => notes.filter((n) => n.start === t))
}

const last = <T>(list: readonly T[]): T => list[list.length - 1]!

describe('a tune comes to rest', () => {
  const tunes = CORPUS.filter((t) => t.chords.length > 0).slice(0, 2)
  const cases = SOLO_STYLES.flatMap((style) =>
    ([1, 3, 5] as const).map((level): readonly [Style, Level] => [style, level]),
  ).filter(([style, level]) => !refusalOf(style, level, GUITAR))

  it.each(cases)('%s, level %i: on its last melody note, with nothing after it', (style, level) => {
    for (const tune of tunes) {
      const { json } = arrangeTune(tune, style, level)
      const end = last(json.source).start
      expect(onsetsFrom(json, end)).toHaveLength(1)
    }
  })

  it('from level 2 on with the root below the chord', () => {
    for (const tune of tunes)
      for (const style of ['melody-bass', 'arpeggio', 'chord-melody'] as const) {
        const { json } = arrangeTune(tune, style, 3)
        const struck = last(onsetsFrom(json, 0))
        const lowest = struck.reduce((a, b) => (b.midi < a.midi ? b : a))
        const chord = readChordSymbol(last(json.chords).sounding)
        expect(struck.length, tune.title).toBeGreaterThanOrEqual(3)
        expect(chord.kind === 'chord' && lowest.midi % 12 === bassPitchClass(chord.chord)).toBe(true)
        expect(lowest.string).toBeGreaterThanOrEqual(4)
      }
  })

  it('so does a section that ends on the tonic; one that ends elsewhere goes on', () => {
    const { plan } = arrangeTune(
      tuneOfMusic('P:A\n"C"cdef|"C"e2c2||\nP:B\n"F"fagf|"G"g2d2||\nP:C\n"C"cege|"C"c4|]'),
      'alternating-bass',
      3,
    )
    const resting = plan.inner.filter((w) => w.rests).map((w) => w.start / 10_080)
    // The last notes of the first and of the last section.
    expect(resting).toEqual([6, 20])
    const struckAfter = plan.bass.filter((b) => b.start / 10_080 >= 6 && b.start / 10_080 < 8)
    expect(struckAfter).toEqual([])
    expect(plan.bass.some((b) => b.start / 10_080 === 15)).toBe(true)
  })
})

describe('a tune that ends low', () => {
  // The last note is the lowest root that there is: no chord has room beneath it.
  const low = tuneOfMusic('"D"A2F2|"A7"E2G2|"D"A2F2|"D"D4|]', 'M:4/4\nL:1/4\nQ:1/4=90\nK:D')

  it.each([
    ['melody-bass', 3, 3],
    ['flatpicked-lead', 3, 3],
    ['alternating-bass', 5, 4],
  ] as const)(
    '%s, level %i: the chord is struck over its last note, %i notes at least',
    (style, level, least) => {
      const { json, report } = arrangeTune(low, style, level)
      const end = Math.max(...json.notes.map((n) => n.start))
      const last = json.notes.filter((n) => n.start === end)
      expect(last.length).toBeGreaterThanOrEqual(least)
      expect(new Set(last.map((n) => n.midi % 12))).toEqual(new Set([2, 6, 9]))
      expect(Math.min(...last.map((n) => n.midi)) % 12).toBe(2)
      expect(report.structural).toBe(0)
      expect(report.melodyKept).toBe(report.melodyNotes)
    },
  )

  it.each([
    ['A', '"A"c2e2|"E7"d2B2|"A"c2e2|"A"A,4|]'],
    ['Bb', '"Bb"d2f2|"F7"e2c2|"Bb"d2f2|"Bb"B,4|]'],
    ['Eb', '"Eb"G2B2|"Bb7"A2F2|"Eb"G2B2|"Eb"E4|]'],
  ])(
    'in %s has its root low on the neck and the chord over it, not a thick one high up the low strings',
    (key, music) => {
      for (const style of ['melody-bass', 'arpeggio', 'chord-melody'] as const)
        for (const level of [3, 5] as const) {
          const { json, report } = arrangeTune(
            tuneOfMusic(music, `M:4/4\nL:1/4\nQ:1/4=90\nK:${key}`),
            style,
            level,
          )
          const struck = last(onsetsFrom(json, 0))
          const root = struck.reduce((a, b) => (b.midi < a.midi ? b : a))
          expect(root.fret, `${style} ${level}`).toBeLessThanOrEqual(4)
          expect(struck.length).toBeGreaterThanOrEqual(level === 3 ? 3 : 4)
          expect(report.structural).toBe(0)
        }
    },
  )

  it('sounds like the section before it that ends on the same note', () => {
    const tune = tuneOfMusic('P:A\n"A"c2e2|"A"A,4||\nP:B\n"D"d2f2|"A"A,4|]', 'M:4/4\nL:1/4\nQ:1/4=90\nK:A')
    const { json } = arrangeTune(tune, 'melody-bass', 3)
    const at = (measure: number) =>
      json.notes.filter((n) => n.measure === measure).map((n) => [n.string, n.fret, n.leftFinger])
    expect(at(3)).toEqual(at(1))
    const roots = [1, 3].map((m) => json.notes.filter((n) => n.measure === m).map((n) => n.fret))
    for (const frets of roots) expect(Math.max(...frets)).toBeLessThanOrEqual(4)
  })

  it('keeps that chord in a measure that is locked, whatever the style becomes', () => {
    const { arrangement } = arrangedScore(low, 'melody-bass', 3)
    const layer = arrangement.base
    const measure = low.measures.at(-1)!.id
    const lock = measureLock(low, arrangement, measure, 'l')
    const { layer: again } = finish(
      arranging(low, guitarSetup(), wholeTune(low, 'drone', 2), { locks: [lock] }),
    )
    const placed = (notes: typeof layer.notes) =>
      notes.filter((n) => n.pos.measure === measure).map((n) => [n.id, n.place, n.left])
    expect(placed(layer.notes).length).toBeGreaterThanOrEqual(3)
    expect(placed(again.notes)).toEqual(placed(layer.notes))
  })

  it('is left alone at the easy levels', () => {
    const { json } = arrangeTune(low, 'melody-bass', 1)
    const end = Math.max(...json.notes.map((n) => n.start))
    expect(json.notes.filter((n) => n.start === end).length).toBeLessThan(3)
  })

  it('anywhere else the audit still hears a note that lies over the melody', () => {
    const { json } = arrangeTune(low, 'melody-bass', 3)
    const first = json.notes.find((n) => n.role === 'melody')!
    const over = { ...first, role: 'fill' as const, string: 1, fret: 10, midi: 74, rightFinger: 'a' as const }
    const planted = audit(finishedTabOf({ ...json, notes: [...json.notes, over] }))
    expect(planted.findings.map((f) => f.kind)).toContain('melodyMasked')
  })
})
