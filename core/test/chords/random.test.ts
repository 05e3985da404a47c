import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { readChordSymbol } from '../../src/music/index.ts'
import {
  DEFAULT_PLAYER,
  INSTRUMENTS,
  lastFret,
  setupOf,
  type InstrumentKind,
  type Setup,
} from '../../src/instrument/index.ts'
import { fingeringReasons } from '../../src/hand/index.ts'
import {
  barresOf,
  chordChange,
  findShapes,
  heardIfAllRing,
  nameShape,
  openStringsAtRisk,
  shownOrder,
  silentStrings,
  soundingPitches,
  filtersToRelax,
  type ShapeFilters,
} from '../../src/chords/index.ts'

/** Any instrument in any tuning that its strings bear, behind a full or partial capo, in hands that may do less. */
const setups: fc.Arbitrary<Setup> = fc
  .record({
    kind: fc.constantFrom(...(Object.keys(INSTRUMENTS) as InstrumentKind[])),
    turns: fc.array(fc.integer({ min: -5, max: 3 }), { minLength: 6, maxLength: 6 }),
    capo: fc.integer({ min: 0, max: 8 }),
    under: fc.option(fc.subarray([1, 2, 3, 4, 5, 6], { minLength: 1 }), { nil: undefined }),
    techniques: fc.record({ barre: fc.boolean(), littleFinger: fc.boolean(), thumbOver: fc.boolean() }),
  })
  .map(({ kind, turns, capo, under, techniques }) => {
    const tuning = INSTRUMENTS[kind].usual.map((p, i) => p + turns[i]!)
    const strings = under?.filter((s) => s <= tuning.length)
    const choice = { fret: capo, ...(strings?.length ? { strings } : {}) }
    return setupOf(kind, tuning, choice, { ...DEFAULT_PLAYER, techniques })
  })

const symbols = fc
  .tuple(
    fc.constantFrom('C', 'Db', 'E', 'F#', 'G', 'Ab', 'Bb'),
    fc.constantFrom(
      '',
      'm',
      '7',
      'maj7',
      'm7b5',
      'dim7',
      'aug',
      'sus4',
      '9',
      '13',
      '7alt',
      '69',
      '5',
      '7no3',
    ),
    fc.constantFrom('', '', '/D', '/B'),
  )
  .map((parts) => parts.join(''))

const filters: fc.Arbitrary<ShapeFilters> = fc.record(
  {
    bass: fc.integer({ min: 0, max: 11 }),
    top: fc.integer({ min: 50, max: 80 }),
    maxStretch: fc.integer({ min: 10, max: 100 }),
    noBarre: fc.constant(true),
    freeFingers: fc.integer({ min: 1, max: 3 }),
  },
  { requiredKeys: [] },
)

describe('shapes on any neck', () => {
  it('lie on the neck in front of the capo, ask only what the hand may do, and can be explained', () => {
    fc.assert(
      fc.property(setups, symbols, filters, (setup, symbol, filter) => {
        const reading = readChordSymbol(symbol)
        if (reading.kind !== 'chord') throw new Error(symbol)
        const { chord } = reading
        const found = findShapes(setup, chord, filter)
        const shapes = shownOrder(found).flatMap((r) => [r.head, ...r.variants])
        const capo = Math.max(...setup.capo)
        const { techniques, spans } = setup.player
        for (const { frets, fingers, stretchMm } of shapes) {
          frets.forEach((fret, i) => {
            if (fret === null) return
            expect(fret).toBeLessThanOrEqual(lastFret(setup, i + 1))
            if (fret > 0) expect(fret + setup.capo[i]!).toBeGreaterThan(capo)
          })
          if (!techniques.barre) expect(barresOf(frets, fingers).filter((b) => b.finger !== 'T')).toEqual([])
          if (!techniques.littleFinger) expect(fingers).not.toContain(4)
          if (!techniques.thumbOver) expect(fingers).not.toContain('T')
          expect(stretchMm).toBeLessThanOrEqual(spans['14'])
        }
        const first = shapes[0]
        if (!first) {
          for (const name of filtersToRelax(setup, chord, filter)) expect(Object.keys(filter)).toContain(name)
          return
        }
        const { frets, fingers } = first
        const silent = silentStrings(setup, frets, fingers)
        expect(silent.map((s) => s.string)).toEqual(frets.flatMap((f, i) => (f === null ? [i + 1] : [])))
        // A silent string with a reason names a finger that stands beside it or lies over it.
        for (const s of silent) if (s.by) expect(fingers).toContain(s.by.finger)
        for (const r of openStringsAtRisk(frets, fingers)) expect(frets[r.string - 1]).toBe(0)
        const ringing = heardIfAllRing(setup, frets, fingers)
        const own = nameShape(setup, frets).map((n) => n.sounding)
        // Where nothing is silent, what would ring is what rings.
        if (silent.length === 0) expect(ringing).toEqual(own[0])
        expect(fingeringReasons(setup, frets, fingers).every((r) => Number.isFinite(r.cost))).toBe(true)
        expect(chordChange(setup, first, shapes.at(-1)!).cost).toBeGreaterThanOrEqual(0)
        expect(soundingPitches(setup, frets).length).toBeGreaterThan(1)
      }),
      { numRuns: 250 },
    )
  })
})
