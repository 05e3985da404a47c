import fc from 'fast-check'
import { groupBy } from 'es-toolkit'
import { describe, expect, it } from 'vitest'
import {
  beatLength,
  beatStarts,
  chordPitchClasses,
  mod12,
  pitchClass,
  readChordSymbol,
} from '../../../src/music/index.ts'
import { timelineOf, type Level, type TuneDoc } from '../../../src/document/index.ts'
import { arrangeTune, tuneOfMusic } from '../../support/tunes.ts'

/** Semitones over the root that each level may strike with it. Common practice, no source. */
const UPPER: Readonly<Record<Level, readonly number[]>> = {
  1: [7],
  2: [7, 9],
  3: [7, 9],
  4: [7, 9, 10],
  5: [7, 9, 10],
}
const LEVELS = [1, 2, 3, 4, 5] as const
const METRES = { '4/4': 'z4', '3/4': 'z3', '2/4': 'z2', '12/8': 'z6' } as const

/** Whole measures of one chord each; on the last the music comes to rest. */
const chordsOnly = fc
  .record({
    metre: fc.constantFrom(...(Object.keys(METRES) as (keyof typeof METRES)[])),
    chords: fc.array(fc.constantFrom('E', 'A', 'D', 'G', 'C', 'F', 'Bm', 'A7', 'Em', 'B7'), {
      minLength: 2,
      maxLength: 7,
    }),
  })
  .map(({ metre, chords }) => ({
    chords,
    tune: tuneOfMusic(
      `${chords.map((c) => `"${c}"${METRES[metre]}`).join('|')}|]`,
      `M:${metre}\nL:1/4\nQ:1/4=100\nK:C`,
    ),
  }))

const struckIn = (tune: TuneDoc, level: Level) => {
  const { json, report } = arrangeTune(tune, 'shuffle', level)
  return { report, byTime: groupBy(json.notes, (n) => n.start) }
}

describe('a shuffle of any chords in any metre', () => {
  it('strikes the root, and over it fifth, sixth or flat seventh as the level has them, from the fifth on', () => {
    fc.assert(
      fc.property(chordsOnly, fc.constantFrom(...LEVELS), ({ tune, chords }, level) => {
        const { report, byTime } = struckIn(tune, level)
        expect(report.structural).toBe(0)
        expect(report.rootsInBass).toBe(report.harmonyChanges)
        const { starts } = timelineOf(tune.measures)
        for (const [time, notes] of Object.entries(byTime)) {
          const m = starts.findLastIndex((s) => s <= Number(time))
          if (m === chords.length - 1) continue
          const read = readChordSymbol(chords[m]!)
          if (read.kind !== 'chord') throw new Error(chords[m])
          const [low, high, ...more] = [...notes].sort((a, b) => a.midi - b.midi)
          expect(more).toEqual([])
          expect(mod12(low!.midi)).toBe(pitchClass(read.chord.root))
          expect(UPPER[level]).toContain(high!.midi - low!.midi)
          const isNew = Number(time) === starts[m] && chords[m] !== chords[m - 1]
          if (isNew) expect(chordPitchClasses(read.chord)).toContain(mod12(high!.midi))
        }
      }),
      { numRuns: 40 },
    )
  })

  it('keeps its long and short on every beat from level 3 on; levels 4 and 5 push on at the end of two measures or of each', () => {
    fc.assert(
      fc.property(chordsOnly, fc.constantFrom(...LEVELS), ({ tune }, level) => {
        const { byTime } = struckIn(tune, level)
        const { starts } = timelineOf(tune.measures)
        tune.measures.slice(0, -1).forEach(({ metre }, m) => {
          const beat = beatLength(metre)
          const beats = beatStarts(metre)
          const every = level === 4 ? 2 : 1
          const pushes = level >= 4 && m % every === every - 1
          const third = beat / 3
          const wanted = beats.flatMap((at, i) => [
            at,
            ...(pushes && i === beats.length - 1 ? [at + third] : []),
            ...(level >= 3 ? [at + 2 * third] : []),
          ])
          const found = Object.keys(byTime)
            .map((t) => Number(t) - starts[m]!)
            .filter((t) => t >= 0 && t < beat * beats.length)
            .sort((a, b) => a - b)
          expect(found).toEqual(wanted)
        })
      }),
      { numRuns: 40 },
    )
  })
})
