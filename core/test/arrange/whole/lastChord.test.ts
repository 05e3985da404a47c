import { describe, expect, it } from 'vitest'
import { arranging, wholeTune } from '../../../src/arrange/index.ts'
import { audit } from '../../../src/audit/index.ts'
import { timelineOf, unfold, type LastChord, type Style, type TuneDoc } from '../../../src/document/index.ts'
import { guitarSetup, setupOf } from '../../../src/instrument/index.ts'
import { finishedTabOf, tabJson } from '../../../src/output/index.ts'
import { scoreOf } from '../../../src/output/sound/performance.ts'
import { finish } from '../../../src/turns.ts'
import { CORPUS, tuneOfMusic } from '../../support/tunes.ts'

function ended(tune: TuneDoc, lastChord: LastChord, style: Style = 'melody-bass', setup = guitarSetup()) {
  const [region] = wholeTune(tune, style, 4)
  const { layer, plan } = finish(arranging(tune, setup, [{ ...region!, lastChord }]))
  const json = tabJson(tune, setup, plan, layer, [], 0)
  const end = Math.max(...json.notes.map((n) => n.start))
  return { layer, json, last: json.notes.filter((n) => n.start === end), report: audit(finishedTabOf(json)) }
}

const plainly = (tune: TuneDoc) => {
  const setup = guitarSetup()
  const { layer, plan } = finish(arranging(tune, setup, wholeTune(tune, 'melody-bass', 4)))
  return audit(finishedTabOf(tabJson(tune, setup, plan, layer, [], 0)))
}

const TUNE = '"G"B4|"D7"A4|"G"G4|]'

describe('a last chord that is rolled', () => {
  it('has every string of the chord marked, and nothing before it', () => {
    const { layer } = ended(tuneOfMusic(TUNE, 'M:4/4\nL:1/4\nK:G'), 'rolled')
    const rolled = layer.notes.filter((n) => n.rolled)
    expect(rolled.length).toBeGreaterThanOrEqual(3)
    expect(new Set(rolled.map((n) => n.pos.measure)).size).toBe(1)
  })

  it('sounds its strings one after the other, the lowest first', () => {
    const tune = tuneOfMusic(TUNE, 'M:4/4\nL:1/4\nK:G')
    const { layer } = ended(tune, 'rolled')
    const { notes } = scoreOf(tune, guitarSetup(), layer, timelineOf(tune.measures), unfold(tune.measures))
    const end = notes.filter((n) => n.at >= 8 * 10_080).sort((a, b) => a.at - b.at)
    expect(new Set(end.map((n) => n.at)).size).toBe(end.length)
    expect(end.map((n) => n.string)).toEqual(end.map((n) => n.string).toSorted((a, b) => b - a))
  })
})

describe('harmonics after the last chord', () => {
  it('are tones of the chord an octave over open strings, touched by one finger beside one another', () => {
    const { last } = ended(tuneOfMusic(TUNE, 'M:4/4\nL:1/4\nK:G'), 'harmonics')
    expect(last.map((n) => [n.string, n.fret, n.harmonic])).toEqual([
      [2, 12, 2],
      [3, 12, 2],
      [4, 12, 2],
    ])
    expect(last.map((n) => n.midi).sort()).toEqual([62, 67, 71])
    expect(new Set(last.map((n) => n.leftFinger)).size).toBe(1)
  })

  it('stay away where no open string has a tone of the chord', () => {
    const tune = tuneOfMusic('"Ab"A4|"Db"A4|]', 'M:4/4\nL:1/4\nK:Ab')
    const { json } = ended(tune, 'harmonics')
    expect(json.notes.filter((n) => n.harmonic)).toEqual([])
  })

  it('bring no fault to any tune that has none without them', () => {
    for (const tune of CORPUS.slice(0, 8)) {
      const { report, last } = ended(tune, 'harmonics')
      expect(report.findings.length, tune.title).toBeLessThanOrEqual(plainly(tune).findings.length)
      expect(
        last.every((n) => n.harmonic === 2 || n.role === 'melody'),
        tune.title,
      ).toBe(true)
    }
  })

  it('are struck by a pick on a mandolin', () => {
    const mandolin = setupOf('mandolin', [76, 69, 62, 55], { fret: 0 })
    const { last } = ended(tuneOfMusic(TUNE, 'M:4/4\nL:1/4\nK:G'), 'harmonics', 'chord-melody', mandolin)
    expect(last.every((n) => n.rightFinger === 'down' && n.harmonic === 2)).toBe(true)
  })
})

describe('chords that breathe', () => {
  it('are rolled under long notes of a chord melody from level 4 on, and nowhere below', () => {
    const tune = tuneOfMusic('"G"B4|"D7"A2G2|"G"G4|]', 'M:4/4\nL:1/4\nK:G')
    for (const level of [3, 4, 5] as const) {
      const { layer } = finish(arranging(tune, guitarSetup(), wholeTune(tune, 'chord-melody', level)))
      const rolled = layer.notes.filter((n) => n.rolled)
      expect(rolled.length > 0, `level ${level}`).toBe(level > 3)
      for (const n of rolled) expect(n.dur.ticks >= 3 * 10_080 || n.role !== 'melody').toBe(true)
    }
  })
})
