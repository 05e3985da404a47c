import { describe, expect, it } from 'vitest'
import { makePlan, refusalOf, wholeTune } from '../../../src/arrange/index.ts'
import { LEVELS, SOLO_STYLES, type Level, type Region, type TuneDoc } from '../../../src/document/index.ts'
import { guitarSetup } from '../../../src/instrument/index.ts'
import { CORPUS, tuneOf } from '../../support/tunes.ts'

const setup = guitarSetup()

/** Everything that is planned besides the melody: when, and what. */
function voices(tune: TuneDoc, regions: readonly Region[]): string[] {
  const made = makePlan(tune, setup, regions)
  if (!made.ok) throw new Error(`${tune.title} does not fit`)
  return [
    ...made.plan.bass.map((b) => `${b.start} bass ${b.kind}`),
    ...made.plan.inner.map((w) => `${w.start} ${w.kind} ${w.voices} ${w.second.length}`),
  ].sort()
}

/** A reel without a long note: nothing to be filled, no beat to be answered. */
const FULL_OF_NOTES = tuneOf('K:G\nM:4/4\nL:1/8\n"G"GABc dBGB|"C"cdef "D"fdAF|"G"GBdB cABG|"D"FAdA "G"GBdB|]')

describe('a level that finds no room for what it adds', () => {
  it('plays its next device: no level of a figure or a flat pick is planned as the one below', () => {
    for (const style of ['flatpicked-lead', 'cross-string', 'arpeggio', 'melody-bass'] as const)
      for (const level of [2, 3, 4, 5] as const) {
        const [own, below] = [level, level - 1].map((l) =>
          voices(FULL_OF_NOTES, wholeTune(FULL_OF_NOTES, style, l as Level)),
        )
        // Ringing lines without a bass differ in nothing else up to here.
        if (style === 'cross-string' && level === 2) continue
        expect(own, `${style} ${level}`).not.toEqual(below)
      }
  })

  it('is as its rules say wherever it has room: what is planned below stays under it', () => {
    for (const tune of CORPUS.slice(0, 8))
      for (const style of SOLO_STYLES)
        for (const level of LEVELS.filter((l) => l > 1 && !refusalOf(style, l, setup.instrument))) {
          if (refusalOf(style, (level - 1) as Level, setup.instrument)) continue
          const count = (l: Level) => voices(tune, wholeTune(tune, style, l)).length
          expect(count(level), `${tune.title}, ${style} ${level}`).toBeGreaterThanOrEqual(
            0.8 * count((level - 1) as Level),
          )
        }
  })

  it('is not done to an easier version, which is poor on purpose', () => {
    const of = (level: Level) =>
      voices(
        FULL_OF_NOTES,
        wholeTune(FULL_OF_NOTES, 'flatpicked-lead', level).map((r) => ({
          ...r,
          without: ['fills'] as const,
        })),
      )
    expect(of(5)).toEqual(of(4))
  })
})
