import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { chordPitchClasses, chordText, midiOf, mod12, pitchClass, toneNeeds } from '../../src/music/index.ts'
import { guitarSetup, INSTRUMENTS, readTuning, setupOf } from '../../src/instrument/index.ts'
import {
  barresOf,
  enumerateShapes,
  familyId,
  findShapes,
  foldShapes,
  freeFingersOf,
  heardIfAllRing,
  openStringsAtRisk,
  sameNotes,
  shapeQuery,
  shownOrder,
  silentStrings,
  soundingPitches,
  stretchOf,
  filtersToRelax,
  zoneOf,
  type Shape,
  type ShapeFilters,
} from '../../src/chords/index.ts'
import { chord, frets, written } from '../support/chords.ts'

const CHORDS = [
  'C',
  'Am',
  'F#m7b5',
  'G7',
  'Bbmaj7',
  'Dsus4',
  'E9',
  'Ab6',
  'Bdim7',
  'F5',
  'D/F#',
  'C#m',
] as const
const all = (found: ReturnType<typeof findShapes>): Shape[] =>
  shownOrder(found).flatMap((r) => [r.head, ...r.variants])

describe('the shapes of a chord', () => {
  it('sound the chord and nothing else, with its essential tones, held by this hand', () => {
    fc.assert(
      fc.property(fc.constantFrom(...CHORDS), fc.integer({ min: 0, max: 5 }), (text, capo) => {
        const setup = guitarSetup(capo)
        const wanted = chord(text)
        const allowed = chordPitchClasses(wanted)
        const root = pitchClass(wanted.root)
        for (const shape of all(findShapes(setup, wanted))) {
          const pitches = soundingPitches(setup, shape.frets)
          for (const p of pitches) expect(allowed).toContain(mod12(p))
          for (const group of toneNeeds(wanted).essential)
            expect(pitches.some((p) => group.some((i) => mod12(root + i) === mod12(p)))).toBe(true)
          if (wanted.bass) expect(mod12(pitches[0]!)).toBe(pitchClass(wanted.bass))
          shape.fingers.forEach((f, i) => expect(f !== 0).toBe((shape.frets[i] ?? 0) > 0))
          expect(shape.zone).toBe(zoneOf(shape.frets))
          expect(shape.stretchMm).toBeCloseTo(stretchOf(setup, shape.frets, shape.fingers))
        }
      }),
      { numRuns: 30 },
    )
  })

  it('every filter is granted, or nothing is offered', () => {
    const filters = fc.record(
      {
        bass: fc.integer({ min: 0, max: 11 }),
        top: fc.integer({ min: 55, max: 76 }),
        leave: fc.subarray([1, 5, 6], { minLength: 1, maxLength: 2 }),
        ring: fc.subarray([2, 3, 4], { minLength: 1, maxLength: 2 }),
        zone: fc.constantFrom<readonly [number, number]>([1, 4], [3, 7], [5, 12]),
        maxStretch: fc.integer({ min: 30, max: 90 }),
        noBarre: fc.constant(true),
        freeFingers: fc.integer({ min: 1, max: 2 }),
      },
      { requiredKeys: [] },
    )
    fc.assert(
      fc.property(fc.constantFrom(...CHORDS.slice(0, 9)), filters, (text, raw) => {
        const setup = guitarSetup()
        const filter = raw as ShapeFilters
        const shapes = all(findShapes(setup, chord(text), filter))
        for (const { frets: list, fingers } of shapes) {
          const pitches = soundingPitches(setup, list)
          if (filter.bass !== undefined) expect(mod12(pitches[0]!)).toBe(filter.bass)
          if (filter.top !== undefined) expect(Math.max(...pitches)).toBe(filter.top)
          for (const s of filter.leave ?? []) expect(list[s - 1]).toBeNull()
          for (const s of filter.ring ?? []) expect(list[s - 1]).not.toBeNull()
          const pressed = list.filter((f): f is number => f !== null && f > 0)
          for (const f of pressed) {
            expect(f).toBeGreaterThanOrEqual(filter.zone?.[0] ?? 1)
            expect(f).toBeLessThanOrEqual(filter.zone?.[1] ?? 15)
          }
          if (filter.maxStretch)
            expect(stretchOf(setup, list, fingers)).toBeLessThanOrEqual(filter.maxStretch)
          if (filter.noBarre) expect(barresOf(list, fingers)).toEqual([])
          if (filter.freeFingers) expect(freeFingersOf(fingers)).toBeGreaterThanOrEqual(filter.freeFingers)
        }
        if (shapes.length === 0) {
          for (const name of filtersToRelax(setup, chord(text), filter)) {
            const rest = Object.fromEntries(Object.entries(filter).filter(([key]) => key !== name))
            expect(findShapes(setup, chord(text), rest).zones.length).toBeGreaterThan(0)
          }
        }
      }),
      { numRuns: 60 },
    )
  })

  it('a place that is asked for is part of every shape', () => {
    const shapes = all(findShapes(guitarSetup(), chord('Am'), { through: { string: 1, fret: 5 } }))
    expect(shapes.length).toBeGreaterThan(0)
    for (const s of shapes) expect(s.frets[0]).toBe(5)
  })

  it('enumeration finds what trying every fret of every mandolin course finds', () => {
    const setup = setupOf('mandolin')
    const query = { ...shapeQuery(chord('Am'), {}), highestFret: 6 }
    const ours: string[] = []
    enumerateShapes(setup, query, setup.player, (list) => ours.push(written(list)))
    const theirs: string[] = []
    const choices = [null, 0, 1, 2, 3, 4, 5, 6]
    for (const a of choices)
      for (const b of choices)
        for (const c of choices)
          for (const d of choices) {
            const list = [a, b, c, d]
            const sounds = soundingPitches(setup, list)
            const pressed = list.filter((f): f is number => f !== null && f > 0)
            if (sounds.length < 3 || pressed.some((f) => f - Math.min(...pressed) > 4)) continue
            const pcs = new Set(sounds.map(mod12))
            if ([9, 0, 4].every((pc) => pcs.has(pc)) && pcs.size === 3) theirs.push(written(list))
          }
    expect(ours.sort()).toEqual(theirs.sort())
  })

  it('folding loses nothing and every variant differs from its head only by strings left out', () => {
    const found = findShapes(guitarSetup(), chord('G'), {}, true)
    for (const { rows } of found.zones) {
      const flat = rows.flatMap((r) => [r.head, ...r.variants])
      expect(new Set(flat.map((s) => written(s.frets))).size).toBe(flat.length)
      const again = foldShapes([...flat].sort((a, b) => a.cost - b.cost))
      expect(again.flatMap((r) => [r.head, ...r.variants]).length).toBe(flat.length)
      for (const { head, variants } of rows)
        for (const v of variants)
          v.frets.forEach((f, i) => {
            if (f !== null && head.frets[i] !== null) expect(f).toBe(head.frets[i])
          })
    }
  })
})

describe('shapes that teachers know (trade facts: common practice, no source)', () => {
  const shown = (text: string) =>
    all(findShapes(guitarSetup(), chord(text), {}, true)).map((s) => written(s.frets))

  it.each([
    ['C', 'x-3-2-0-1-0'],
    ['C7', 'x-3-2-3-1-0'],
    ['F', 'x-x-3-2-1-1'],
    ['B', '7-x-4-4-4-x'],
    ['Eb', '11-x-8-8-8-x'],
    ['A7', 'x-0-2-2-2-3'],
    ['Am6', 'x-0-2-2-1-2'],
    ['G7', '3-x-3-4-3-x'],
    ['Gdim7', '3-x-2-3-2-x'],
    ['D/F#', '2-0-0-2-3-2'],
  ])('%s offers %s', (text, shape) => {
    expect(shown(text)).toContain(shape)
  })

  it.each([
    ['Am', '2-2-3-x'],
    ['Am', '5-2-0-x'],
    ['E', '1-2-2-0'],
    ['C', '0-2-3-0'],
    ['G', '0-0-2-3'],
  ])('on the mandolin %s offers %s', (text, shape) => {
    const setup = setupOf('mandolin')
    expect(all(findShapes(setup, chord(text), {}, true)).map((s) => written(s.frets))).toContain(shape)
  })

  it('in 1-2-2-0 the fingers must stand so that course 1 rings; 1-2-2-x may be barred', () => {
    expect(openStringsAtRisk(frets('1-2-2-0'), [0, 3, 2, 1])).toEqual([{ string: 1, finger: 3 }])
    const setup = setupOf('mandolin')
    const barred = findShapes(setup, chord('E'), {}, true)
    expect(all(barred).some((s) => barresOf(s.frets, s.fingers).length > 0)).toBe(true)
  })

  it.each([
    ['E', '0-2-2-1-0-0', 'E-form'],
    ['F', '1-3-3-2-1-1', 'E-form'],
    ['F', 'x-x-3-2-1-1', 'E-form'],
    ['B', 'x-2-4-4-4-2', 'A-form'],
    ['D', 'x-5-4-2-3-2', 'C-form'],
    ['F', 'x-x-3-5-6-5', 'D-form'],
    ['C', '8-7-5-5-5-8', 'G-form'],
    ['B', '7-x-4-4-4-x', 'sixth-string'],
    ['Eb', '11-x-8-8-8-x', 'sixth-string'],
  ])('%s %s is the %s', (text, shape, family) => {
    const found = all(findShapes(guitarSetup(), chord(text), {}, true))
    expect(familyId(found.find((s) => written(s.frets) === shape)!.family)).toBe(family)
  })

  it('in open D the chord straight across is named so', () => {
    const read = readTuning('guitar', 'openD')
    if ('fault' in read) throw new Error()
    const found = all(findShapes(setupOf('guitar', read.tuning), chord('G')))
    expect(found.some((s) => familyId(s.family) === 'across' && s.frets.every((f) => f === 5))).toBe(true)
  })

  it('7-x-4-4-4-x: string 5 is stopped by the little finger’s side, string 1 is not played, all ringing is B6/9', () => {
    const list = frets('7-x-4-4-4-x')
    const fingers = [0, 1, 1, 1, 0, 4] as const
    const silent = silentStrings(guitarSetup(), list, fingers)
    expect(silent.map((s) => [s.string, s.kind, s.by])).toEqual([
      [1, 'notPlayed', { finger: 1, how: 'side' }],
      [5, 'muted', { finger: 4, how: 'side' }],
    ])
    expect(chordText(heardIfAllRing(guitarSetup(), list, fingers)!)).toBe('B69')
  })

  it('the top note of a shape is the melody that was asked for', () => {
    const e4 = midiOf({ step: 'E', alter: 0, octave: 4 })
    const shapes = all(findShapes(guitarSetup(), chord('C'), { top: e4 }))
    expect(shapes.map((s) => written(s.frets))).toContain('x-3-2-0-1-0')
  })
})

describe('same notes, easier hand', () => {
  it('7-x-4-4-4-x and x-2-4-4-4-x are found from one another', () => {
    const found = sameNotes(guitarSetup(), frets('x-2-4-4-4-x'))
    expect(found.exact.map((s) => written(s.frets))).toContain('7-x-4-4-4-x')
    expect(sameNotes(guitarSetup(), frets('7-x-4-4-4-x')).exact.map((s) => written(s.frets))).toContain(
      'x-2-4-4-4-x',
    )
  })

  it('are the same notes, by strain', () => {
    fc.assert(
      fc.property(fc.constantFrom('x-3-2-0-1-0', '1-3-3-2-1-1', 'x-x-0-2-3-2', '3-x-3-4-3-x'), (text) => {
        const setup = guitarSetup()
        const mine = soundingPitches(setup, frets(text))
        const { exact, alike } = sameNotes(setup, frets(text))
        const strains = exact.map((s) => s.strain)
        expect(strains).toEqual([...strains].sort((a, b) => a - b))
        for (const s of exact) expect(new Set(soundingPitches(setup, s.frets))).toEqual(new Set(mine))
        for (const s of alike) {
          const theirs = soundingPitches(setup, s.frets)
          expect(new Set(theirs.map(mod12))).toEqual(new Set(mine.map(mod12)))
          expect(mod12(theirs[0]!)).toBe(mod12(mine[0]!))
        }
      }),
    )
  })

  it('silence has no other grips', () => {
    expect(
      sameNotes(
        guitarSetup(),
        INSTRUMENTS.guitar.usual.map(() => null),
      ),
    ).toEqual({ exact: [], alike: [] })
  })
})
