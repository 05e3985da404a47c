import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { chordPitchClasses, mod12 } from '../../../src/music/index.ts'
import {
  guitarSetup,
  namedTunings,
  openPitch,
  pitchAt,
  placesOf,
  tuningById,
  type Setup,
  type TuningId,
} from '../../../src/instrument/index.ts'
import {
  LEVELS,
  splitRegion,
  withChoice,
  type Level,
  type Region,
  type TuneDoc,
} from '../../../src/document/index.ts'
import { arranging, wholeTune } from '../../../src/arrange/index.ts'
import { audit } from '../../../src/audit/index.ts'
import { finishedTabOf, tabJson } from '../../../src/output/index.ts'
import { finish } from '../../../src/turns.ts'
import { placePrice, slidePath, movePrice, type SlideNote } from '../../../src/arrange/slide/slidePath.ts'
import { straightAcross } from '../../../src/arrange/slide/straightAcross.ts'
import { scoreOf } from '../../../src/output/sound/index.ts'
import { readArrangementDoc } from '../../../src/schema/index.ts'
import { arrangementOf } from '../../../src/arrange/index.ts'
import { CORPUS, tuneOfMusic } from '../../support/tunes.ts'
import { refusalWords } from '../../support/words.ts'

const tuned = (id: TuningId, capo = 0): Setup => ({ ...guitarSetup(capo), tuning: tuningById('guitar', id) })

function slid(
  tune: TuneDoc,
  setup: Setup,
  level: Level,
  regions: readonly Region[] = wholeTune(tune, 'bottleneck', level),
) {
  const arranged = finish(arranging(tune, setup, regions))
  const json = tabJson(tune, setup, arranged.plan, arranged.layer, [], 0)
  return { ...arranged, json, report: audit(finishedTabOf(json)) }
}

describe('the chord straight across', () => {
  it('is there in the open tunings and in no other of the named ones', () => {
    const found = namedTunings('guitar').flatMap(({ id, tuning }) => {
      const open = straightAcross({ tuning, capo: tuning.map(() => 0) })
      return open ? [[id, open.root, open.minor]] : []
    })
    expect(found).toEqual([
      ['openD', 2, false],
      ['openG', 7, false],
      ['openC', 0, false],
    ])
    expect(straightAcross({ tuning: [62, 57, 53, 50, 45, 38], capo: [0, 0, 0, 0, 0, 0] })).toEqual({
      root: 2,
      minor: true,
    })
    expect(straightAcross({ tuning: tuningById('guitar', 'openD'), capo: [2, 2, 2, 2, 2, 2] })?.root).toBe(4)
  })

  it('gives I, IV and V at frets 0 or 12, 5 and 7 of open D and open G (common practice, no source)', () => {
    for (const [id, tonic] of [
      ['openD', 2],
      ['openG', 7],
    ] as const) {
      const setup = tuned(id)
      const at = (fret: number) =>
        new Set(setup.tuning.map((_, i) => mod12(pitchAt(setup, { string: i + 1, fret }))))
      for (const [fret, root] of [
        [0, tonic],
        [12, tonic],
        [5, tonic + 5],
        [7, tonic + 7],
      ] as const)
        expect([...at(fret)].sort()).toEqual([root, root + 4, root + 7].map(mod12).sort())
    }
  })
})

describe('the way of the bar', () => {
  it('is the cheapest of all: as plain enumeration of every place finds it', () => {
    const setup = tuned('openG')
    const note = fc.record({
      midi: fc.integer({ min: 55, max: 76 }),
      seconds: fc.constantFrom(0.2, 0.5, 1, 2),
      chordFret: fc.constantFrom(undefined, 0, 5, 7),
      rests: fc.boolean(),
    })
    const all = (notes: readonly SlideNote[]): number => {
      let best = Infinity
      const go = (t: number, cost: number, last: { string: number; fret: number } | undefined) => {
        if (t === notes.length) {
          best = Math.min(best, cost)
          return
        }
        const places = placesOf(setup, notes[t]!.midi).filter((p) => p.fret <= 17)
        for (const p of places)
          go(
            t + 1,
            cost + placePrice(p, notes[t]!) + (last ? movePrice(setup, last, p, notes[t - 1]!.seconds) : 0),
            p,
          )
      }
      go(0, 0, undefined)
      return best
    }
    fc.assert(
      fc.property(fc.array(note, { minLength: 1, maxLength: 5 }), (line) => {
        const notes = line.map((n) => ({ ...n, note: undefined as never }))
        const places = slidePath(setup, notes)
        let cost = 0
        places.forEach((p, t) => {
          expect(pitchAt(setup, p!)).toBe(notes[t]!.midi)
          cost +=
            placePrice(p!, notes[t]!) +
            (t > 0 ? movePrice(setup, places[t - 1]!, p!, notes[t - 1]!.seconds) : 0)
        })
        expect(cost).toBeCloseTo(all(notes), 9)
      }),
      { numRuns: 150 },
    )
  })
})

/** Traditional tunes, long out of copyright, from memory. */
describe('a tune with the bottleneck', () => {
  it.each(LEVELS)(
    'at level %i keeps every note, breaks nothing by the audit, and lies straight across',
    (level) => {
      CORPUS.forEach((tune, k) => {
        const setup = tuned((['openD', 'openG', 'openC'] as const)[k % 3]!, k % 2 === 0 ? 0 : 2)
        const { report, layer, plan } = slid(tune, setup, level)
        expect(report.structural, tune.title).toBe(0)
        expect(report.melodyKept, tune.title).toBe(report.melodyNotes)
        expect(report.melodyNotes).toBeGreaterThan(10)
        const byTime = new Map<string, typeof layer.notes>()
        for (const n of layer.notes) {
          const key = `${n.pos.measure} ${n.pos.tick}`
          byTime.set(key, [...(byTime.get(key) ?? []), n])
        }
        for (const notes of byTime.values())
          expect(
            new Set(notes.filter((n) => n.place.fret > 0).map((n) => n.place.fret)).size,
          ).toBeLessThanOrEqual(1)
        // Basses are open tones of the chord.
        for (const n of layer.notes.filter((x) => x.role === 'bass')) {
          expect(n.place.fret).toBe(0)
          const at = plan.timeline.starts[plan.timeline.indexOf.get(n.pos.measure)!]! + n.pos.tick
          const chord = plan.harmony.find((h) => h.start <= at && h.end > at)!.sounding!
          expect(chordPitchClasses(chord)).toContain(mod12(openPitch(setup, n.place.string)))
        }
      })
    },
  )

  it('comes to rest on its chord straight across, struck once, from level 2 on', () => {
    for (const tune of CORPUS.slice(0, 8)) {
      const { layer, plan } = slid(tune, tuned('openG'), 3)
      const at = (n: (typeof layer.notes)[number]) =>
        plan.timeline.starts[plan.timeline.indexOf.get(n.pos.measure)!]! + n.pos.tick
      const end = Math.max(...layer.notes.map(at))
      const last = layer.notes.filter((n) => at(n) === end)
      expect(
        last.some((n) => n.role === 'melody'),
        tune.title,
      ).toBe(true)
      expect(new Set(last.map((n) => n.place.fret)).size).toBe(1)
      const chord = plan.harmony.findLast((h) => h.start <= end)!.sounding!
      for (const n of last)
        expect(chordPitchClasses(chord)).toContain(mod12(pitchAt(tuned('openG'), n.place)))
      expect(last.length, tune.title).toBeGreaterThanOrEqual(2)
    }
  })

  it('plays a note that lies higher than a bar likes to go, and drops none', () => {
    const tune = tuneOfMusic('"G"C, d g e|"G"a4|"G"g e a G|]', 'M:4/4\nL:1/4\nQ:1/4=90\nK:G')
    for (const level of LEVELS) {
      const { report, layer } = slid(tune, tuned('openG'), level)
      expect([report.structural, report.melodyKept]).toEqual([0, 9])
      expect(Math.max(...layer.notes.map((n) => n.place.fret))).toBeGreaterThan(17)
    }
  })

  it('has no fewer notes at a higher level', () => {
    for (const tune of CORPUS.slice(0, 5)) {
      const counts = LEVELS.map((l) => slid(tune, tuned('openG'), l).layer.notes.length)
      expect(counts).toEqual([...counts].sort((a, b) => a - b))
    }
  })

  it('plays a held major third of its chord pure: 5:4, 386.3 cents, not 400', () => {
    const tune = tuneOfMusic('"G"b4|"G"d4|]', 'M:4/4\nL:1/4\nQ:1/4=60\nK:G')
    const setup = tuned('openG')
    const { layer, plan } = slid(tune, setup, 1)
    const [third, fifth] = layer.notes
    expect(third!.place.fret).toBeGreaterThan(0)
    expect(third!.place.offsetCents).toBe(Math.round(1200 * Math.log2(5 / 4) - 400))
    expect(fifth!.place.offsetCents).toBeUndefined()
    expect(third!.vibrato).toBe(true)
    const score = scoreOf(tune, setup, layer, plan.timeline, plan.unfolded)
    const root = 440 * 2 ** ((pitchAt(setup, third!.place) - 4 - 69) / 12)
    expect(Math.abs(1200 * Math.log2(score.notes[0]!.hertz / (root * 1.25)))).toBeLessThan(1)
  })

  it('says which tunings do where the strings make no chord', () => {
    const tune = CORPUS[0]!
    expect(refusalWords(() => slid(tune, guitarSetup(), 2))).toMatch(/choose open D, open G or open C/)
  })

  it('goes with other styles in one tune, and is what storage accepts', () => {
    const tune = tuneOfMusic('"G"GBdg|"C"edcA|"D"FAd2|"G"G4|]', 'M:4/4\nL:1/4\nK:G')
    const setup = tuned('openG')
    const cut = splitRegion(tune, wholeTune(tune, 'melody-bass', 2), tune.measures[2]!.id)
    const regions = withChoice(cut, 1, { style: 'bottleneck', level: 3 })
    const { report, layer, plan } = slid(tune, setup, 3, regions)
    expect(report.melodyKept).toBe(report.melodyNotes)
    expect(report.structural).toBe(0)
    const bottled = layer.notes.filter((n) => n.attack === 'bottle').map((n) => n.pos.measure)
    expect(bottled.length).toBeGreaterThan(0)
    expect(bottled.every((m) => m === tune.measures[2]!.id || m === tune.measures[3]!.id)).toBe(true)
    const doc = arrangementOf('a', 'A', tune, setup, regions, { layer, transposed: plan.transposed })
    expect(readArrangementDoc(JSON.parse(JSON.stringify(doc)))).toEqual(doc)
  })
})
