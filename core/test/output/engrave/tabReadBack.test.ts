import { describe, expect, it } from 'vitest'
import { WHOLE } from '../../../src/music/index.ts'
import { guitarSetup, setupOf, tuningById, type Setup } from '../../../src/instrument/index.ts'
import {
  LEVELS,
  STYLES,
  type Level,
  type Measure,
  type Score,
  type Style,
  type TabNote,
} from '../../../src/document/index.ts'
import { refusalOf } from '../../../src/arrange/index.ts'
import {
  tabSystems,
  USUAL_PAPER_LAYERS,
  type PaperLayers,
  type TabSystem,
} from '../../../src/output/handout/index.ts'
import { arrangedScore } from '../../support/score.ts'
import { measureParts, svgMarks, type SvgMark } from '../../support/svgMarks.ts'
import { CORPUS, tuneOf } from '../../support/tunes.ts'

/** Lines of the tab stand so far apart; digits hang a little under the middle of theirs. */
const GAP = 12
const DIGIT = 4.2

const ALL: PaperLayers = { ...USUAL_PAPER_LAYERS, counts: true, strings: true }

const printed = ({ tune, arrangement }: Required<Score>, width = 688, layers = ALL): TabSystem[] =>
  tabSystems(tune, arrangement, { width, layers, naming: 'letters' })

/** What stands over one another in a measure, from left to right: each column with its frets by string. */
interface Column {
  readonly x: number
  readonly frets: readonly (SvgMark & { readonly string: number })[]
}

function columnsOf(marks: readonly SvgMark[], top: number): Column[] {
  const frets = marks
    .filter((m) => m.name === 'text' && /^fr\b/.test(m.kind))
    .map((m) => ({ ...m, string: Math.round((m.y - DIGIT - top) / GAP) + 1 }))
  const xs = [...new Set(frets.map((f) => f.x))].sort((a, b) => a - b)
  return xs.map((x) => ({
    x,
    frets: frets.filter((f) => f.x === x).sort((a, b) => b.string - a.string),
  }))
}

/** Notes of a measure by their moments, the lowest string first. */
function momentsOf(notes: readonly TabNote[], measure: Measure): TabNote[][] {
  const own = notes.filter((n) => n.pos.measure === measure.id)
  const ticks = [...new Set(own.map((n) => n.pos.tick))].sort((a, b) => a - b)
  return ticks.map((t) => own.filter((n) => n.pos.tick === t).sort((a, b) => b.place.string - a.place.string))
}

const fretOf = (n: TabNote): string => {
  const { fret, harmonic, artificial } = n.place
  const plain = artificial ? `${fret}‹${fret + 12}›` : harmonic ? `‹${fret}›` : String(fret)
  const text = n.attack === 'muted' ? '×' : plain
  return n.optional ? `(${text})` : text
}

const setupFor = (style: Style): Setup =>
  style === 'bottleneck' ? setupOf('guitar', tuningById('guitar', 'openG')) : guitarSetup()

const cases = STYLES.flatMap((style, i) =>
  [2, 4].map((k): [Style, Level] => [style, LEVELS[(i + k) % 5]!]),
).filter(([style, level]) => !refusalOf(style, level, setupFor(style).instrument))

describe('a printed tab read back from where its digits stand', () => {
  it.each(cases)('%s, level %i: strings, frets, fingers and picking, column by column', (style, level) => {
    const score = arrangedScore(CORPUS[STYLES.indexOf(style) % 6]!, style, level, setupFor(style))
    const { tune, arrangement } = score
    for (const system of printed(score))
      for (const [index, body] of measureParts(system.svg)) {
        const marks = svgMarks(body)
        const columns = columnsOf(marks, system.top)
        const moments = momentsOf(arrangement.base.notes, tune.measures[index]!)
        const where = `${tune.title}, measure ${index}`
        expect(columns.length, where).toBe(moments.length)
        columns.forEach(({ x, frets }, c) => {
          const notes = moments[c]!
          expect(frets.map((f) => [f.string, f.text])).toEqual(notes.map((n) => [n.place.string, fretOf(n)]))
          // The finger stands on the upper right of its digit, and no other digit between.
          frets.forEach((f, i) => {
            const { left, attack } = notes[i]!
            const finger = marks.find(
              (m) => m.kind === 'fi' && Math.abs(m.y - (f.y - DIGIT - 2)) < 0.01 && m.x > x && m.x < x + 24,
            )
            if (left !== 0 && attack !== 'bottle') expect(finger?.text, where).toBe(String(left))
          })
          const picks = marks.filter((m) => m.kind === 'pk' && m.x === x).map((m) => m.text)
          const fingers = [...new Set(notes.map((n) => n.right))].filter((r) => 'ima'.includes(r))
          expect(picks.join('').split('').sort()).toEqual(
            [...fingers, ...(notes.some((n) => n.right === 'p') ? ['p'] : [])].sort(),
          )
          const strings = marks.filter((m) => m.kind === 'ct' && m.x === x).map((m) => m.text)
          expect(strings).toContain(notes.map((n) => n.place.string).join('\u2009'))
        })
      }
  })

  it('nothing overlaps, nothing leaves the paper, whatever its width', () => {
    const score = arrangedScore(CORPUS[2]!, 'arpeggio', 5)
    for (const width of [320, 480, 688, 1100])
      for (const system of printed(score, width)) {
        expect(system.width).toBeLessThanOrEqual(width + 0.5)
        let last = -Infinity
        for (const [, body] of measureParts(system.svg)) {
          const marks = svgMarks(body)
          for (const { x, frets } of columnsOf(marks, system.top)) {
            // Two digits and a finger need this much.
            expect(x - last).toBeGreaterThan(9)
            last = x
            for (const f of frets) {
              expect(f.string).toBeGreaterThanOrEqual(1)
              expect(f.string).toBeLessThanOrEqual(6)
            }
          }
          for (const m of marks)
            if (m.name === 'text') {
              expect(m.y).toBeGreaterThan(0)
              expect(m.y).toBeLessThanOrEqual(system.height)
              expect(m.x).toBeLessThanOrEqual(system.width)
            }
        }
      }
  })

  it('arrivals have their sign: a letter over a slur, a line for a slide', () => {
    const slurred = tuneOf('X:1\nT:S\nM:4/4\nL:1/4\nQ:1/4=90\nK:D\n"D"(de)(fg)|(gf)(ed)|(fa)(gf)|d4|]\n')
    const score = arrangedScore(slurred, 'flatpicked-lead', 2)
    const { spans } = score.arrangement.base
    expect(new Set(spans.map((s) => s.kind)).size).toBeGreaterThan(1)
    const marks = printed(score).flatMap((s) => svgMarks(s.svg))
    const letters = marks.filter((m) => m.kind === 'fi' && /^[hpr]$/.test(m.text)).map((m) => m.text)
    const wanted = { hammer: 'h', pull: 'p', release: 'r' } as Readonly<Record<string, string>>
    expect(letters.sort()).toEqual(spans.flatMap((s) => wanted[s.kind] ?? []).sort())
    const lines = marks.filter((m) => m.kind === 'jo' && /^M[\d.]+ [\d.]+L[\d.]+ [\d.]+$/.test(m.path))
    expect(lines).toHaveLength(spans.filter((s) => s.kind === 'slide').length)
    // A slide up goes up: its line ends higher than it begins.
    const fret = (id: string) => score.arrangement.base.notes.find((n) => n.id === id)!.place.fret
    const up = lines.filter((l) => {
      const [, from, to] = /^M[\d.]+ ([\d.]+)L[\d.]+ ([\d.]+)$/.exec(l.path)!
      return Number(to) < Number(from)
    })
    const upward = spans.filter((s) => s.kind === 'slide' && fret(s.to) > fret(s.from))
    expect(up).toHaveLength(upward.length)
  })

  it('layers that are switched off leave nothing of theirs', () => {
    const score = arrangedScore(CORPUS[1]!, 'alternating-bass', 3)
    const none: PaperLayers = {
      chords: 'none',
      fingers: false,
      picking: false,
      counts: false,
      strings: false,
      rhythm: false,
      lyrics: false,
    }
    const kinds = (layers: PaperLayers) =>
      new Set(printed(score, 688, layers).flatMap((s) => svgMarks(s.svg).map((m) => m.kind)))
    for (const kind of ['ch', 'pk', 'ct', 'st', 'bm', 'ly']) expect(kinds(none)).not.toContain(kind)
    for (const kind of ['ch', 'pk', 'ct', 'st', 'bm']) expect(kinds(ALL)).toContain(kind)
    const height = (layers: PaperLayers) => printed(score, 688, layers)[0]!.height
    expect(height(none)).toBeLessThan(height(ALL))
  })
})

/** Places are written to the hundredth. */
const near = (a: number, b: number): boolean => Math.abs(a - b) < 0.02

/** One rhythmic value as it stands under the tab: from its stem, its beams or flags, its dot. */
function valueAt(x: number, marks: readonly SvgMark[]): number {
  const stem = marks.find((m) => m.kind === 'st' && near(Number(/^M([\d.]+) /.exec(m.path)![1]), x))
  if (!stem) return WHOLE
  const [, from, to] = /^M[\d.]+ ([\d.]+)V([\d.]+)$/.exec(stem.path)!
  const short = Number(to) - Number(from) < 10
  const levels = new Set(
    marks.flatMap((m) => {
      const beam = m.kind === 'bm' ? /^M([\d.]+) ([\d.]+)H([\d.]+)$/.exec(m.path) : null
      if (!beam) return []
      const [left, right] = [Number(beam[1]), Number(beam[3])].sort((a, b) => a - b)
      return left! <= x + 0.02 && x - 0.02 <= right! ? [beam[2]] : []
    }),
  ).size
  const plain = short ? WHOLE / 2 : WHOLE / 4 / 2 ** levels
  const dots = marks.filter((m) => m.kind === 'do' && near(m.x, x + 4)).length
  return dots > 0 ? plain * 1.5 : plain
}

describe('the rhythm under a printed tab', () => {
  const only: PaperLayers = { ...USUAL_PAPER_LAYERS, fingers: false, picking: false, chords: 'none' }

  it('read from stems, beams, flags and dots, the values of a measure last from its first note to its end', () => {
    let read = 0
    for (const tune of CORPUS.slice(0, 8)) {
      const score = arrangedScore(tune, 'melody-bass', 3)
      for (const system of printed(score, 688, only))
        for (const [index, body] of measureParts(system.svg)) {
          const marks = svgMarks(body)
          const m = score.tune.measures[index]!
          const moments = momentsOf(score.arrangement.base.notes, m)
          const first = moments[0]?.[0]!.pos.tick
          if (first === undefined) continue
          // What no single value lasts is written by the next that does: checked below.
          const lengths = moments.map((n, i) => (moments[i + 1]?.[0]!.pos.tick ?? m.length) - n[0]!.pos.tick)
          const single = (ticks: number) =>
            [1, 2, 4, 8, 16, 32].some((b) => ticks === WHOLE / b || ticks === (WHOLE / b) * 1.5)
          if (!lengths.every(single)) continue
          const values = columnsOf(marks, system.top).map(({ x }) => valueAt(x, marks))
          expect(values, `${tune.title}, measure ${index}`).toEqual(lengths)
          expect(values.reduce((a, b) => a + b, 0)).toBe(m.length - first)
          read++
        }
    }
    expect(read).toBeGreaterThan(60)
  })

  it.each([
    ['4/4', '1/8', 'c4 d2 e2|'],
    ['4/4', '1/8', 'c3d e4|'],
    ['4/4', '1/4', 'c/d/e/f/ g2|'],
    ['4/4', '1/16', 'cdef g2a2 c3d e4|'],
    ['2/4', '1/8', 'c3d|'],
    ['3/4', '1/4', 'c>d e|'],
    ['6/8', '1/8', 'c2d e3|'],
  ])('%s in %s, %s: as written', (metre, unit, music) => {
    const score = arrangedScore(
      tuneOf(`X:1\nT:R\nM:${metre}\nL:${unit}\nK:C\n"C"${music}]\n`),
      'flatpicked-lead',
      1,
    )
    const [system] = printed(score, 688, only)
    const marks = svgMarks(system!.svg)
    const values = columnsOf(marks, system!.top).map(({ x }) => valueAt(x, marks))
    expect(values).toEqual(score.tune.events.filter((e) => e.pitch).map((e) => e.dur.ticks))
  })

  it('three in the time of two have their figure', () => {
    const score = arrangedScore(
      tuneOf('X:1\nT:T\nM:4/4\nL:1/8\nK:C\n"C"(3cde (3fed c4|]\n'),
      'flatpicked-lead',
      1,
    )
    const [system] = printed(score, 688, only)
    const figures = svgMarks(system!.svg).filter((m) => m.kind === 'fi' && m.text === '3')
    expect(figures.length).toBeGreaterThan(0)
  })
})
