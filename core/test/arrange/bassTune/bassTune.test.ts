import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { arranging, wholeTune } from '../../../src/arrange/index.ts'
import { audit, STRUCTURAL } from '../../../src/audit/index.ts'
import { LEVELS, type Level, type Region, type TuneDoc } from '../../../src/document/index.ts'
import { guitarSetup, setupOf, tuningById, type Setup } from '../../../src/instrument/index.ts'
import { chordPitchClasses, mod12, readChordSymbol } from '../../../src/music/index.ts'
import { finishedTabOf, tabJson, type TabJson } from '../../../src/output/index.ts'
import { finish } from '../../../src/turns.ts'
import { CORPUS, tuneOf, tuneOfMusic } from '../../support/tunes.ts'

function inTheBass(
  tune: TuneDoc,
  level: Level,
  setup: Setup = guitarSetup(),
  regions: readonly Region[] = wholeTune(tune, 'bass-tune', level),
) {
  const arranged = finish(arranging(tune, setup, regions))
  const json = tabJson(tune, setup, arranged.plan, arranged.layer, [], 0)
  return { json, report: audit(finishedTabOf(json)) }
}

const CHORDED = CORPUS.filter((t) => t.chords.length > 0)
/** In C, within a tenth: as tunes for this style are chosen. Made up for this test. */
const PLAIN = tuneOf(
  'X:1\nT:Low Gate\nM:4/4\nL:1/4\nQ:1/4=100\nK:C\n"C"C E G E|"F"F2 A2|"G7"G F D B,|"C"C4|"C"E C E G|"F"A4|"G7"D E F D|"C"C4|]\n',
)
/** Written high, as singers have it: it goes down an octave. */
const HIGH = tuneOf(
  'X:1\nT:High Gate\nM:4/4\nL:1/4\nQ:1/4=100\nK:C\n"C"c e g e|"F"f2 a2|"G7"g f d B|"C"c4|]\n',
)

const brushes = ({ notes }: TabJson) => notes.filter((n) => n.technique === 'brush')
const startsOf = (notes: TabJson['notes']) => [...new Set(notes.map((n) => n.start / 10_080))]

describe('a tune in the bass', () => {
  it('keeps every note of every tune, at every level, in other tunings and behind a capo, without a fault', () => {
    const setups = [
      guitarSetup(),
      guitarSetup(3),
      { ...guitarSetup(), tuning: tuningById('guitar', 'openD') },
    ]
    for (const tune of CHORDED)
      LEVELS.forEach((level, i) => {
        const { report } = inTheBass(tune, level, setups[i % setups.length])
        expect(report.melodyKept, tune.title).toBe(report.melodyNotes)
        expect(report.findings.filter((f) => STRUCTURAL.has(f.kind))).toEqual([])
      })
  })

  it('lies on the low strings, an octave lower where it is written high', () => {
    for (const tune of [PLAIN, HIGH]) {
      const { json } = inTheBass(tune, 3)
      const melody = json.notes.filter((n) => n.role === 'melody')
      expect(melody.filter((n) => n.string >= 3).length / melody.length).toBeGreaterThan(0.95)
    }
    expect(inTheBass(HIGH, 3).json.transposed).toBe(-24)
    expect(inTheBass(PLAIN, 3).json.transposed).toBe(-12)
  })

  it('is the thumb’s, alone or with its chord, wherever no bass lies under it', () => {
    for (const tune of CHORDED.slice(0, 6)) {
      const { notes } = inTheBass(tune, 5).json
      for (const n of notes.filter((n) => n.role === 'melody' && n.technique !== 'hammerOn')) {
        const lower = notes.some((o) => o.start === n.start && o.string > n.string)
        if (!lower && n.rightFinger !== null) expect(n.rightFinger, `${tune.title} ${n.start}`).toBe('p')
      }
    }
  })

  it('brushes tones of the chord, on neighbouring strings above the note that sounds, and none that bites with it', () => {
    fc.assert(
      fc.property(fc.constantFrom(...CHORDED, PLAIN), fc.constantFrom(...LEVELS), (tune, level) => {
        const { json } = inTheBass(tune, level)
        for (const start of new Set(brushes(json).map((n) => n.start))) {
          const struck = json.notes.filter((n) => n.start === start)
          const strings = struck.map((n) => n.string).sort((a, b) => a - b)
          expect(strings.length).toBeGreaterThanOrEqual(2)
          expect(strings.at(-1)! - strings[0]! + 1).toBe(strings.length)
          const symbol = json.chords.findLast((c) => c.start <= start)!.sounding
          const reading = readChordSymbol(symbol)
          const tones = reading.kind === 'chord' ? chordPitchClasses(reading.chord) : []
          for (const n of struck) expect(tones, symbol).toContain(mod12(n.midi))
          const under = json.notes.find(
            (n) => n.role === 'melody' && n.start < start && n.start + n.duration > start,
          )
          if (!under) continue
          expect(strings.at(-1)!).toBeLessThan(under.string)
          for (const n of struck) expect([1, 11]).not.toContain(mod12(n.midi - under.midi))
        }
      }),
      { numRuns: 30 },
    )
  })

  it('plays more at each level: long notes, notes of two beats, of one, the arm coming back', () => {
    const counts = LEVELS.map((level) => startsOf(brushes(inTheBass(PLAIN, level).json)).length)
    for (let i = 1; i < 4; i++) expect(counts[i]!).toBeGreaterThan(counts[i - 1]!)
    const basses = (level: Level) =>
      inTheBass(PLAIN, level).json.notes.filter((n) => n.role === 'bass').length
    expect(basses(5)).toBeGreaterThan(basses(4))
  })

  it('ends on its last note with the chord above it, and nothing after', () => {
    const { json } = inTheBass(PLAIN, 3)
    const end = json.source.at(-1)!.start
    const struck = json.notes.filter((n) => n.start >= end)
    expect(new Set(struck.map((n) => n.start))).toEqual(new Set([end]))
    expect(struck.length).toBeGreaterThanOrEqual(4)
    expect(mod12(Math.min(...struck.map((n) => n.midi)))).toBe(0)
  })

  it('has the root below its last note, where that is another tone of the chord', () => {
    const third = tuneOf(
      'X:1\nT:Third\nM:4/4\nL:1/4\nQ:1/4=90\nK:C\n"C"C E G E|"F"F2 A2|"G7"G F D B,|"C"E4|]\n',
    )
    const { json, report } = inTheBass(third, 3)
    const struck = json.notes.filter((n) => n.start === json.source.at(-1)!.start)
    expect(mod12(Math.min(...struck.map((n) => n.midi)))).toBe(0)
    expect(struck.length).toBeGreaterThanOrEqual(4)
    expect(report.structural).toBe(0)
  })

  it('is hammered on from open strings of the key from level 4 on, where ornaments are not taken off', () => {
    const hammers = (level: Level, regions?: readonly Region[]) =>
      inTheBass(PLAIN, level, guitarSetup(), regions).json.notes.filter((n) => n.technique === 'hammer')
    expect(hammers(3)).toEqual([])
    expect(hammers(4).length).toBeGreaterThan(0)
    expect(hammers(5).length).toBeGreaterThan(hammers(4).length)
    for (const n of hammers(5)) {
      expect(n.role).toBe('melody')
      expect(n.graces).toMatchObject([{ string: n.string, fret: 0, leftFinger: 0, optional: true }])
      // C major: no B flat, and no F sharp.
      expect([0, 2, 4, 5, 7, 9, 11]).toContain(mod12(n.graces![0]!.midi))
    }
    expect(
      hammers(
        5,
        wholeTune(PLAIN, 'bass-tune', 5).map((r) => ({ ...r, ornament: 1 as const })),
      ),
    ).toEqual([])
  })

  it('leaves no room for a brush where the tune is too fast for an arm', () => {
    const fast = tuneOf(
      'X:1\nT:Fast\nM:4/4\nL:1/8\nQ:1/4=200\nK:C\n"C"CDEF GFED|"G7"DEFG AGFD|"C"CEGE CEGE|"C"C8|]\n',
    )
    const { json } = inTheBass(fast, 4)
    expect(startsOf(brushes(json)).filter((t) => t < 12)).toEqual([])
    // There the stronger notes have their chord instead, the more the higher the level.
    const struck = ([2, 3, 4, 5] as const).map(
      (level) =>
        startsOf(inTheBass(fast, level).json.notes.filter((n) => n.role === 'harmony')).filter((t) => t < 12)
          .length,
    )
    expect(struck[0]).toBe(0)
    expect(struck[1]).toBeGreaterThan(0)
    expect(struck[2]).toBeGreaterThan(struck[1]!)
    expect(struck[3]).toBeGreaterThan(struck[2]!)
  })

  it('where one beat alone is strong has the last one struck too: on one, on one and the last, on every beat', () => {
    const waltz = tuneOf(
      'X:1\nT:Fast Waltz\nM:3/4\nL:1/8\nQ:1/4=200\nK:C\n"C"CDEFGF|EDCDED|"G7"DEFGAG|"C"C6|]\n',
    )
    const struckIn = (level: Level) =>
      startsOf(inTheBass(waltz, level).json.notes.filter((n) => n.role === 'harmony')).filter(
        (t) => t >= 3 && t < 6,
      )
    expect([3, 4, 5].map((level) => struckIn(level as Level))).toEqual([[3], [3, 5], [3, 4, 5]])
  })

  it('is a section beside others, each in its own octave', () => {
    const tune = tuneOfMusic('P:A\n"C"cege|"C"c4||\nP:B\n"C"cege|"C"c4|]')
    const [a, b] = [tune.measures[0]!.id, tune.measures[2]!.id]
    const { json, report } = inTheBass(tune, 3, guitarSetup(), [
      { from: a, to: tune.measures[1]!.id, style: 'melody-bass', level: 3 },
      { from: b, to: tune.measures[3]!.id, style: 'bass-tune', level: 3 },
    ])
    expect(report.structural).toBe(0)
    expect(report.melodyKept).toBe(report.melodyNotes)
    const melody = json.notes.filter((n) => n.role === 'melody').map((n) => n.midi)
    expect(melody.slice(5).map((m, i) => melody[i]! - m)).toEqual(
      [24, 24, 24, 24, 24].map(() => melody[0]! - melody[5]!),
    )
    expect(melody[0]! - melody[5]!).toBeGreaterThanOrEqual(12)
  })

  it('is not for an instrument without bass strings', () => {
    expect(() => inTheBass(PLAIN, 3, setupOf('mandolin'))).toThrow()
  })
})
