import { describe, expect, it } from 'vitest'
import { QUARTER } from '../../../src/music/index.ts'
import { guitarSetup } from '../../../src/instrument/index.ts'
import type { Level, Style } from '../../../src/document/index.ts'
import { makePlan, wholeTune } from '../../../src/arrange/index.ts'
import { CORPUS, tuneOfMusic } from '../../support/tunes.ts'

function planOf(music: string, style: Style, level: Level, head?: string) {
  const tune = tuneOfMusic(music, head)
  const planned = makePlan(tune, guitarSetup(), wholeTune(tune, style, level))
  if (!planned.ok) throw new Error('does not fit')
  return planned.plan
}

/** Basses as `beat:kind`, beats in quarters from the start. */
const basses = (...args: Parameters<typeof planOf>) =>
  planOf(...args).bass.map((b) => `${b.start / QUARTER}:${b.kind[0]}`)

describe('the bass line of each style and level', () => {
  it('level 1: one a chord, struck again after two measures of it', () => {
    expect(basses('"C"c4|c4|c4|"G"B4|]', 'melody-bass', 1)).toEqual(['0:r', '8:r', '12:r'])
    expect(basses('"C"c2"G"B2|"C"c4|]', 'alternating-bass', 1)).toEqual(['0:r', '2:r', '4:r'])
  })

  it('level 2: strong beats, and wherever the harmony changes', () => {
    expect(basses('"C"c4|c"G"B3|z4|]', 'melody-bass', 2)).toEqual(['0:r', '2:r', '4:r'])
    expect(basses('"C"c4|c"G"B3|B4|]', 'melody-bass', 2)).toEqual(['0:r', '2:r', '4:r', '5:r', '6:r'])
    expect(basses('"C"c4|"G"B4|B4|]', 'alternating-bass', 1)).toEqual(['0:r', '2:a', '4:r', '6:a', '8:r'])
  })

  it('level 3: melody and bass alternates on strong beats, alternating bass on every beat', () => {
    expect(basses('"C"c4|c4|c4|]', 'melody-bass', 3)).toEqual(['0:r', '2:a', '4:r', '6:a'])
    expect(basses('"C"c4|c4|c4|]', 'alternating-bass', 3)).toEqual([
      '0:r',
      '1:a',
      '2:r',
      '3:a',
      '4:r',
      '5:a',
      '6:r',
      '7:a',
    ])
  })

  it('a waltz: one bass a measure, which take turns; chords answer it', () => {
    const head = 'M:3/4\nL:1/4\nQ:1/4=100\nK:C'
    expect(basses('"C"c3|e3|g3|c3|]', 'alternating-bass', 3, head)).toEqual(['0:r', '3:a', '6:r'])
    // A measure that comes again is played as it was.
    expect(basses('"C"c3|e3|e3|c3|]', 'alternating-bass', 3, head)).toEqual(['0:r', '3:a', '6:a'])
    const plan = planOf('"C"c3|eez|g3|c3|]', 'alternating-bass', 3, head)
    const quarter = (t: number) => t / 10_080
    expect(plan.inner.filter((w) => w.kind === 'fill').map((w) => quarter(w.start))).toEqual([
      0, 1, 2, 3, 4, 5, 6, 7, 8,
    ])
  })

  it('a jig has two basses a measure', () => {
    expect(basses('"C"ccc ccc|c6|]', 'alternating-bass', 3, 'M:6/8\nL:1/8\nQ:3/8=90\nK:C')).toEqual([
      '0:r',
      '1.5:a',
    ])
  })

  it('a chord in mid-measure starts again with its root', () => {
    expect(basses('"C"c2"F"c2|c4|]', 'alternating-bass', 3)).toEqual(['0:r', '1:a', '2:r', '3:a'])
  })

  it('no bass under a pickup without a chord, under N.C. or an unknown symbol', () => {
    expect(basses('G|"C"c4|"N.C."c4|"Hwat"c4|]', 'alternating-bass', 3)).toEqual(['1:r', '2:a', '3:r', '4:a'])
  })

  it('is never held over a join of the played order', () => {
    const plan = planOf('"C"c4|:c4|c4:|c4|]', 'melody-bass', 1)
    for (const b of plan.bass) {
      for (const j of plan.junctions) {
        for (const edge of [plan.timeline.starts[j.to]!, plan.timeline.starts[j.from + 1]!]) {
          expect(b.start < edge && b.until > edge).toBe(false)
        }
      }
    }
  })

  it('no bass begins before the one before it ends, on the whole corpus', () => {
    for (const tune of CORPUS) {
      for (const level of [1, 2, 3] as const) {
        const planned = makePlan(tune, guitarSetup(), wholeTune(tune, 'alternating-bass', level))
        if (!planned.ok) throw new Error(tune.title)
        const { bass } = planned.plan
        bass.forEach((b, i) => {
          expect(b.until).toBeGreaterThan(b.start)
          expect(b.until).toBeLessThanOrEqual(bass[i + 1]?.start ?? Infinity)
        })
      }
    }
  })
})

describe('slices', () => {
  it('cover the tune from the first onset to the end without a gap', () => {
    for (const tune of CORPUS) {
      const planned = makePlan(tune, guitarSetup(), wholeTune(tune, 'alternating-bass', 3))
      if (!planned.ok) throw new Error(tune.title)
      const { slices, timeline, melody } = planned.plan
      slices.forEach((s, i) => expect(s.end).toBe(slices[i + 1]?.start ?? timeline.length))
      expect(slices.filter((s) => s.melodyOnset)).toHaveLength(melody.length)
      for (const s of slices) {
        const note = melody[s.melody]
        if (note) expect(note.start <= s.start && note.start + note.duration > s.start).toBe(true)
      }
    }
  })

  it('know the seconds since the slice before, also after a change of tempo', () => {
    const plan = planOf('"C"cd|[Q:1/4=60]ef|]', 'melody-bass', 1, 'M:2/4\nL:1/4\nQ:1/4=120\nK:C')
    expect(plan.slices.map((s) => s.seconds)).toEqual([0.5, 0.5, 1, 1])
  })
})

describe('the octave', () => {
  const transposed = (music: string, capo = 0) => {
    const tune = tuneOfMusic(music)
    const planned = makePlan(tune, guitarSetup(capo), wholeTune(tune, 'melody-bass', 1))
    return planned.ok ? planned.plan.transposed : planned.register
  }

  it('brings high and low tunes between the open third string and the fifth fret of the first', () => {
    expect(transposed("c'4|d'4|]")).toBe(-24)
    expect(transposed('c4|e4|]')).toBe(-12)
    expect(transposed('E4|G4|]')).toBe(0)
    expect(transposed('C,,4|E,,4|]')).toBe(24)
  })

  it('follows the capo', () => {
    expect(transposed('D4|E4|]', 0)).toBe(0)
    expect(transposed('G,4|A,4|]', 7)).toBe(12)
  })

  it('names what does not fit: the note farthest from the rest', () => {
    expect(transposed("CDEF|G,,,,4|cdef|c'''''4|")).toMatchObject({ ok: false, reason: 'wide' })
  })
})
