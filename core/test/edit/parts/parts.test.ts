import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { arranging, refusalOf, wholeTune } from '../../../src/arrange/index.ts'
import { audit, STRUCTURAL } from '../../../src/audit/index.ts'
import { SOLO_STYLES, unfold, type Region, type TuneDoc } from '../../../src/document/index.ts'
import { addPart, buildUp, type AddedPart } from '../../../src/edit/index.ts'
import { readAbc } from '../../../src/input/abc/index.ts'
import { guitarSetup } from '../../../src/instrument/index.ts'
import { finishedTabOf, tabJson } from '../../../src/output/index.ts'
import { chordText } from '../../../src/music/index.ts'
import { finish } from '../../../src/turns.ts'
import { CORPUS, tuneOf, tuneOfMusic } from '../../support/tunes.ts'

const NAMES = { intro: 'Intro', turnaround: 'Turnaround', again: 'Once more', tag: 'Tag' }
const PARTS: readonly AddedPart[] = [
  { kind: 'intro', from: 'phrase' },
  { kind: 'intro', from: 'pedal' },
  { kind: 'intro', from: 'turnaround' },
  { kind: 'turnaround' },
  { kind: 'turnaround', before: 3 },
  { kind: 'tag' },
]

const added = (tune: TuneDoc, part: AddedPart, style: Region['style'] = 'melody-bass') => {
  const found = addPart({ tune, regions: wholeTune(tune, style, 3) }, part, NAMES, { strings: 6 })
  if (!found) throw new Error('no place')
  return found
}

const HEAD = 'M:4/4\nL:1/4\nK:G'
const TUNE = tuneOfMusic('"G"GABc|"C"edcB|"D7"AFDF|"G"G4|]', HEAD)
const symbols = ({ chords }: TuneDoc) => chords.map((c) => (c.parsed ? chordText(c.parsed) : c.symbol))

describe('a part that is added', () => {
  it('is a section with its name, in front, in the middle, or at the end', () => {
    const at = (part: AddedPart) => {
      const { tune } = added(TUNE, part)
      return tune.sections.map((s) => `${tune.measures.findIndex((m) => m.id === s.measure)} ${s.name}`)
    }
    expect(at({ kind: 'intro', from: 'phrase' })).toEqual(['0 Intro'])
    expect(at({ kind: 'turnaround', before: 2 })).toEqual(['2 Turnaround'])
    expect(at({ kind: 'turnaround' })).toEqual(['4 Turnaround', '6 Once more'])
    expect(at({ kind: 'tag' })).toEqual(['4 Tag'])
  })

  it('has the last phrase, a pedal, or the chords that lead back', () => {
    expect(symbols(added(TUNE, { kind: 'intro', from: 'pedal' }).tune).slice(0, 2)).toEqual(['G', 'G'])
    expect(symbols(added(TUNE, { kind: 'turnaround', before: 2 }).tune)).toEqual([
      ...['G', 'C'],
      ...['G', 'Em', 'Am', 'D7'],
      ...['D7', 'G'],
    ])
    const tag = added(TUNE, { kind: 'tag' }).tune
    expect(tag.measures).toHaveLength(5)
    expect(symbols(tag).at(-1)).toBe('G')
  })

  it('leads back in minor, in waltz time and in twelve bars by their own chords', () => {
    const walk = (music: string, head: string) =>
      symbols(added(tuneOfMusic(music, head), { kind: 'turnaround', before: 1 }).tune).slice(1, 5)
    expect(walk('"Am"A4|"E7"B4|"Am"A4|]', 'M:4/4\nL:1/4\nK:Am')).toEqual(['Am', 'F', 'Dm', 'E7'])
    expect(walk('"F"F3|"C7"G3|"F"F3|]', 'M:3/4\nL:1/4\nK:F')).toEqual(['F', 'Dm', 'Gm', 'C7'])
    expect(walk('"A7"A4|"E7"B4|"A7"A4|]', 'M:4/4\nL:1/4\nK:A')).toEqual(['A7', 'D7', 'A7', 'E7'])
  })

  it('leaves a pickup its room, and repeats go where they went', () => {
    const tune = tuneOf('X:1\nT:Test\nM:4/4\nL:1/4\nK:G\nD|"G"GABc|"C"edcB|"D7"AFDF|"G"G3:|\n')
    const { tune: grown } = added(tune, { kind: 'intro', from: 'turnaround' })
    expect(grown.measures[1]!.length + grown.measures[2]!.length).toBe(grown.measures[1]!.nominal)
    const order = unfold(grown.measures).order.map((o) => o.measure)
    expect(order).toEqual([0, 1, 2, 3, 4, 5, 6, 2, 3, 4, 5, 6])
  })

  it('is a section of the arrangement, and every measure lies in one, on every tune and at every place', () => {
    for (const tune of CORPUS)
      for (const part of PARTS) {
        const found = addPart({ tune, regions: wholeTune(tune, 'melody-bass', 3) }, part, NAMES, {
          strings: 6,
        })
        if (!found) continue
        const { regions, tune: grown } = found
        const index = (id: string) => grown.measures.findIndex((m) => m.id === id)
        expect(regions.flatMap((r) => [index(r.from), index(r.to)]).flat()).toEqual(
          regions.flatMap((r) => [index(r.from), index(r.to)]).toSorted((a, b) => a - b),
        )
        expect(index(regions[0]!.from)).toBe(0)
        expect(index(regions.at(-1)!.to)).toBe(grown.measures.length - 1)
        expect(regions.length).toBeGreaterThan(1)
        // What was there is there still.
        const own = new Set(grown.events.map((e) => e.id))
        expect(tune.events.filter((e) => e.pitch).every((e) => own.has(e.id))).toBe(true)
        expect(unfold(grown.measures).problems).toEqual(unfold(tune.measures).problems)
      }
  })

  it('reads back from its own ABC', () => {
    fc.assert(
      fc.property(fc.nat(CORPUS.length - 1), fc.constantFrom(...PARTS), (index, part) => {
        const tune = CORPUS[index]!
        const found = addPart({ tune, regions: wholeTune(tune, 'melody-bass', 3) }, part, NAMES, {
          strings: 6,
        })
        if (!found) return
        const back = readAbc(found.tune.abc!.text, () => 'tune')[0]!.tune!
        expect(back.measures.map((m) => m.length)).toEqual(found.tune.measures.map((m) => m.length))
        expect(symbols(back)).toEqual(symbols(found.tune))
        expect(back.sections.map((s) => s.name)).toEqual(found.tune.sections.map((s) => s.name))
      }),
      { numRuns: 40 },
    )
  })

  it('is arranged with the rest, without a fault', () => {
    const setup = guitarSetup()
    for (const part of PARTS.filter((p) => p.kind !== 'turnaround' || p.before !== undefined))
      for (const style of ['melody-bass', 'alternating-bass', 'chord-melody', 'picking'] as const) {
        const { tune, regions } = added(CORPUS[1]!, part, style)
        const { layer, plan } = finish(arranging(tune, setup, regions))
        const report = audit(finishedTabOf(tabJson(tune, setup, plan, layer, [], 0)))
        expect(report.findings.filter((f) => STRUCTURAL.has(f.kind))).toEqual([])
        const own = regions.find((r) => tune.sections.some((s) => s.measure === r.from))!
        expect(
          layer.notes.some((n) => n.pos.measure === own.from),
          `${part.kind} ${style}`,
        ).toBe(true)
      }
  })
})

it('a part without a tune is heard in every style and level', () => {
  const setup = guitarSetup()
  for (const style of SOLO_STYLES)
    for (const level of [1, 2, 3] as const) {
      if (refusalOf(style, level, setup.instrument)) continue
      const part: AddedPart = { kind: 'intro', from: 'pedal' }
      const found = addPart({ tune: TUNE, regions: wholeTune(TUNE, style, level) }, part, NAMES, {
        strings: 6,
      })!
      const { layer } = finish(arranging(found.tune, setup, found.regions))
      const [first] = found.tune.measures
      expect(
        layer.notes.some((n) => n.pos.measure === first!.id),
        `${style} ${level}`,
      ).toBe(true)
    }
})

describe('a tune that builds', () => {
  const tune = tuneOfMusic('"G"G4|"C"c4|"D7"A4|"G"G4|"G"B4|"G"G4|]', HEAD)
  const withSections = (names: readonly string[]): TuneDoc => ({
    ...tune,
    sections: names.map((name, i) => ({ id: `s${i}`, name, measure: tune.measures[i * 2]!.id })),
  })
  const levels = (names: readonly string[], level: 1 | 3 | 5, style: Region['style'] = 'melody-bass') =>
    buildUp(withSections(names), wholeTune(tune, style, level)).map((r) => r.level)

  it('has thin verses and a full chorus', () => {
    expect(levels(['Verse', 'Chorus', 'Verse'], 5)).toEqual([3, 5, 3])
    expect(levels(['Strophe 1', 'Refrain', 'Strophe 2'], 3)).toEqual([1, 3, 1])
  })

  it('without a chorus begins thin and ends full', () => {
    expect(levels(['A', 'B', 'C'], 5)).toEqual([3, 4, 5])
    expect(levels(['A', 'B', 'C'], 1)).toEqual([1, 1, 1])
  })

  it('never goes below the first chord melody', () => {
    expect(levels(['A', 'B', 'C'], 3, 'chord-melody')).toEqual([2, 2, 3])
  })
})
