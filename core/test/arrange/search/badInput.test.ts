import { describe, expect, it } from 'vitest'
import { guitarSetup, GUITAR, setupOf, type Setup } from '../../../src/instrument/index.ts'
import { LEVELS, SOLO_STYLES, type Style, type TuneDoc } from '../../../src/document/index.ts'
import { ArrangeError, arranging, refusalOf, wholeTune } from '../../../src/arrange/index.ts'
import { audit, STRUCTURAL } from '../../../src/audit/index.ts'
import { finishedTabOf, tabJson } from '../../../src/output/index.ts'
import { finish } from '../../../src/turns.ts'
import { readAbc } from '../../../src/input/abc/readAbc.ts'
import { tuneOf, tuneOfMusic } from '../../support/tunes.ts'
import { refusalWords } from '../../support/words.ts'

function faults(tune: TuneDoc, style: Style, level: (typeof LEVELS)[number], setup: Setup = guitarSetup()) {
  const { plan, layer } = finish(arranging(tune, setup, wholeTune(tune, style, level)))
  const json = tabJson(tune, setup, plan, layer, [], 0)
  const report = audit(finishedTabOf(json))
  expect(report.melodyKept).toBe(report.melodyNotes)
  return { json, report, structural: report.findings.filter((f) => STRUCTURAL.has(f.kind)) }
}

const everyStyle = [...SOLO_STYLES, 'bass-tune' as const].filter((s) => refusalOf(s, 3, GUITAR) === undefined)

describe('input that asks too much', () => {
  it('chords that contradict the melody are arranged all the same, every note kept', () => {
    const tune = tuneOfMusic('"C"^F^G^A^c|"Gb"cdef|"Bdim7"^c^d^f^g|"C"^F4|]')
    for (const style of everyStyle) expect(faults(tune, style, 3).structural).toEqual([])
  })

  it('forty notes a beat are written out whole, in every style', () => {
    const run = 'cdefgfedcdefgfedcdefgfedcdefgfedcdefgfed'.replaceAll(/[a-g]/g, (n) => `${n}/10`)
    const tune = tuneOf(`X:1\nT:Blur\nM:4/4\nL:1/16\nQ:1/4=60\nK:C\n"C"${run}${run}|"F"${run}${run}|]\n`)
    for (const style of everyStyle) {
      const { json, structural } = faults(tune, style, 2)
      expect(json.notes.filter((n) => n.role === 'melody').length).toBeGreaterThanOrEqual(160)
      expect(structural).toEqual([])
    }
  })

  it('a tune of one note, and one that is all rests but for it', () => {
    for (const music of ['"C"c4|]', 'z4|z4|"C"z2c2|z4|]', 'c4|]'])
      for (const style of everyStyle)
        for (const level of [2, 5] as const)
          expect(faults(tuneOfMusic(music), style, level).structural).toEqual([])
  })

  it('a melody wider than the instrument names the measure that sticks out', () => {
    const tune = tuneOfMusic("CDEF|C,,,C,C c'''|G4|]")
    for (const style of everyStyle)
      expect(refusalWords(() => finish(arranging(tune, guitarSetup(), wholeTune(tune, style, 3))))).toMatch(
        /^Measure 2: the melody leaves/,
      )
  })

  it('a hand of two fingers, or of none at the neck, gets what it can hold', () => {
    const tune = tuneOfMusic('"C"cdec|"F"f2e2|"Bm"d2^f2|"G7"BdgB|"C"c4|]')
    const setup = guitarSetup()
    const withFingers = (fingers: number): Setup => ({
      ...setup,
      player: { ...setup.player, techniques: { ...setup.player.techniques, fingers, barre: false } },
    })
    for (const style of everyStyle)
      for (const fingers of [2, 1]) {
        const { json, structural } = faults(tune, style, 3, withFingers(fingers))
        expect(structural).toEqual([])
        for (const n of json.notes) expect([0, 1, 2].slice(0, fingers + 1)).toContain(n.leftFinger)
      }
  })

  it('where no root lies under the melody the tab says so, and stays playable', () => {
    // The lowest open string and the highest fret pin the octave: nothing lies under the first note.
    const tune = tuneOfMusic('"F"E,,4|"C"c\'4|]')
    const { report, structural, json } = faults(tune, 'melody-bass', 2)
    expect(json.transposed).toBe(0)
    expect(structural).toEqual([])
    expect(report.findings.filter((f) => f.kind === 'noRoot').map((f) => f.start)).toEqual([0])
  })

  it('a thousand measures tell their progress all along and can be dropped at any of its steps', () => {
    const bars = Array.from({ length: 1000 }, (_, i) => (i % 2 ? '"G7"B2d2|' : '"C"c2e2|')).join('')
    const tune = tuneOf(`X:1\nT:Long\nM:4/4\nL:1/4\nQ:1/4=100\nK:C\n${bars}\n`)
    const shares: number[] = []
    const run = arranging(tune, guitarSetup(), wholeTune(tune, 'alternating-bass', 3))
    let step = run.next()
    while (!step.done) {
      shares.push(step.value)
      step = run.next()
    }
    expect(step.value.layer.notes.length).toBeGreaterThan(2000)
    expect(shares.length).toBeGreaterThan(75)
    for (const share of shares) expect(share >= 0 && share <= 1).toBe(true)
    const dropped = arranging(tune, guitarSetup(), wholeTune(tune, 'melody-bass', 1))
    for (let i = 0; i < 20; i++) dropped.next()
    expect(dropped.return(undefined as never).done).toBe(true)
  })

  it('every refusal says what and the way out', () => {
    const mandolin = setupOf('mandolin')
    const tune = readAbc('X:1\nT:t\nM:4/4\nL:1/4\nK:C\n"C"cdec|]', () => 't')[0]!.tune!
    for (const style of SOLO_STYLES)
      for (const level of LEVELS) {
        if (!refusalOf(style, level, mandolin.instrument)) {
          expect(faults(tune, style, level, mandolin).structural).toEqual([])
          continue
        }
        expect(() => finish(arranging(tune, mandolin, wholeTune(tune, style, level)))).toThrow(ArrangeError)
        expect(refusalWords(() => finish(arranging(tune, mandolin, wholeTune(tune, style, level))))).toMatch(
          /Choose chord melody, double stops, cross-string or flatpicked lead|starts at level 2/,
        )
      }
  })
})

describe('limits of a hand', () => {
  it('the best cost never falls as the limits tighten', () => {
    const tune = tuneOfMusic('"C"cdec|"F"f2e2|"Bm"d2^f2|"G7"BdgB|"C"c4|]')
    const setup = guitarSetup()
    const { player } = setup
    const scaled = (share: number) =>
      Object.fromEntries(
        Object.entries(player.spans).map(([k, mm]) => [k, mm * share]),
      ) as typeof player.spans
    const hands = [
      player,
      { ...player, spans: scaled(0.92) },
      { ...player, spans: scaled(0.84) },
      { ...player, spans: scaled(0.84), techniques: { ...player.techniques, barre: false } },
      {
        ...player,
        spans: scaled(0.84),
        techniques: { ...player.techniques, barre: false, littleFinger: false },
      },
    ]
    // Styles that hold no chord shapes: of a shape a hand holds as much as it can, so less of it is another choice.
    for (const [style, level] of [
      ['flatpicked-lead', 2],
      ['cross-string', 3],
      ['drone', 3],
    ] as const) {
      let before = 0
      for (const hand of hands) {
        const { solution } = finish(
          arranging(tune, { ...setup, player: hand }, wholeTune(tune, style, level)),
        )
        expect(solution.cost).toBeGreaterThanOrEqual(before - 1e-6)
        before = solution.cost
      }
    }
  })
})
