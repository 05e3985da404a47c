import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { guitarSetup, reach, STANDARD_TUNING } from '../../src/instrument/index.ts'
import type { PinnedShape } from '../../src/document/index.ts'
import { fingeringsOf } from '../../src/hand/index.ts'
import {
  bestPair,
  chordChange,
  findShapes,
  heldShapesFor,
  progressionPath,
  shownOrder,
  soundingPitches,
  type FingeredGrip,
} from '../../src/chords/index.ts'
import { arranging, wholeTune } from '../../src/arrange/index.ts'
import { finish } from '../../src/turns.ts'
import { readAbc } from '../../src/input/abc/readAbc.ts'
import { chord, frets, written } from '../support/chords.ts'

const setup = guitarSetup()
const grip = (shape: string, fingers: string): FingeredGrip => ({
  frets: frets(shape),
  fingers: frets(fingers) as FingeredGrip['fingers'],
})
const C = grip('x-3-2-0-1-0', '0-3-2-0-1-0')
const AM = grip('x-0-2-2-1-0', '0-0-2-3-1-0')
const kinds = (a: FingeredGrip, b: FingeredGrip) =>
  Object.fromEntries(chordChange(setup, a, b).moves.map((m) => [m.finger, m.kind]))

describe('a progression under one lying finger', () => {
  const path = (filters: Parameters<typeof progressionPath>[2]) =>
    progressionPath(setup, [chord('Dm'), chord('C'), chord('Bb')], filters).map(({ shape }) =>
      written(shape.frets),
    )

  it('Dm, C and Bb lie under the index at frets 5 and 3 (common practice, no source)', () => {
    expect(path({ indexBarre: true, zone: [3, 8] })).toEqual(['x-5-7-7-6-5', 'x-3-5-5-5-3', '6-5-3-3-3-6'])
  })

  it('keeps the index across sounding strings, and every finger within the zone', () => {
    const chords = fc.array(fc.constantFrom('C', 'F', 'G', 'Am', 'Dm', 'Bb', 'Em', 'D7'), {
      minLength: 1,
      maxLength: 5,
    })
    fc.assert(
      fc.property(chords, fc.integer({ min: 1, max: 7 }), (texts, low) => {
        const zone = [low, low + 5] as const
        for (const { shape } of progressionPath(setup, texts.map(chord), { indexBarre: true, zone })) {
          const under = shape.fingers.flatMap((f, i) => (f === 1 ? [i] : []))
          expect(under.length).toBeGreaterThan(1)
          expect(shape.frets.slice(under[0], under.at(-1)! + 1)).not.toContain(null)
          for (const fret of shape.frets) if (fret) expect(fret >= low && fret <= low + 5).toBe(true)
        }
      }),
      { numRuns: 30 },
    )
  })
})

describe('chord changes (common practice, no source)', () => {
  it('from C to Am fingers 1 and 2 stay and finger 3 moves', () => {
    expect(kinds(C, AM)).toEqual({ 1: 'stay', 2: 'stay', 3: 'move' })
  })

  it('from the D form at fret 2 to fret 5 fingers slide; from nothing they land, to nothing they lift', () => {
    const d = grip('x-x-4-2-3-2', '0-0-3-1-2-1')
    const up = grip('x-x-7-5-6-5', '0-0-3-1-2-1')
    expect(kinds(d, up)).toEqual({ 1: 'slide', 2: 'slide', 3: 'slide' })
    const open = grip('0-0-0-0-0-0', '0-0-0-0-0-0')
    expect(kinds(open, C)).toEqual({ 1: 'land', 2: 'land', 3: 'land' })
    expect(kinds(C, open)).toEqual({ 1: 'lift', 2: 'lift', 3: 'lift' })
  })

  it('the way of a finger is the reach between its places; staying costs nothing', () => {
    const { moves } = chordChange(setup, C, AM)
    expect(moves.find((m) => m.finger === 3)!.mm).toBeCloseTo(
      reach(setup.instrument, { string: 5, fret: 3 }, { string: 3, fret: 2 }),
    )
    expect(chordChange(setup, C, C)).toMatchObject({ cost: 0, mm: 0 })
  })

  it('ways are the same there and back', () => {
    const grips = shownOrder(findShapes(setup, chord('G'))).map((r) => r.head)
    fc.assert(
      fc.property(fc.constantFrom(...grips), fc.constantFrom(...grips), (a, b) => {
        expect(chordChange(setup, a, b).mm).toBeCloseTo(chordChange(setup, b, a).mm)
      }),
    )
  })

  it('the best pair is no dearer than any pair', () => {
    const list = (text: string) =>
      shownOrder(findShapes(setup, chord(text)))
        .slice(0, 6)
        .map((r) => r.head)
    const [a, b] = [list('F'), list('Bb')]
    const best = bestPair(setup, a, b)!
    for (const x of a)
      for (const y of b) expect(chordChange(setup, x, y).cost).toBeGreaterThanOrEqual(best.change.cost)
  })
})

describe('the way through a progression', () => {
  it('holds each chord, and says every change', () => {
    const names = ['C', 'Am', 'F', 'G7', 'C']
    const path = progressionPath(setup, names.map(chord))
    expect(path.map((s) => s.chord)).toEqual(names.map(chord))
    path.forEach((step, i) => {
      if (i > 0) expect(step.change).toEqual(chordChange(setup, path[i - 1]!.shape, step.shape))
      expect(fingeringsOf(setup, step.shape.frets, setup.player, 3).map((f) => f.fingers.join())).toContain(
        step.shape.fingers.join(),
      )
    })
  })

  it('leading the top note moves it no farther than not leading it', () => {
    const names = ['G', 'Em', 'C', 'D7', 'G', 'B7', 'Em'].map(chord)
    const way = (lead?: 'melody' | 'bass') => {
      const path = progressionPath(setup, names, lead ? { lead } : {})
      const ends = path.map((s) => {
        const p = soundingPitches(setup, s.shape.frets)
        return lead === 'bass' ? Math.min(...p) : Math.max(...p)
      })
      return ends.slice(1).reduce((sum, p, i) => sum + Math.abs(p - ends[i]!), 0)
    }
    expect(way('melody')).toBeLessThanOrEqual(way())
  })

  it('a chord that no filter allows leaves no way', () => {
    expect(progressionPath(setup, [chord('C'), chord('G')], { top: 30 })).toEqual([])
    expect(progressionPath(setup, [])).toEqual([])
  })
})

describe('pinned shapes', () => {
  const pin: PinnedShape = {
    id: 'p',
    chord: 'C',
    tuning: STANDARD_TUNING,
    frets: frets('x-3-5-5-5-3'),
    fingers: frets('0-1-2-3-4-1') as PinnedShape['fingers'],
  }

  it('come first for their chord in their tuning, and nowhere else', () => {
    expect(written(heldShapesFor(chord('C'), setup, [pin])[0]!.frets)).toBe('x-3-5-5-5-3')
    expect(heldShapesFor(chord('G'), setup, [pin])).toEqual(heldShapesFor(chord('G'), setup))
    const other = { ...pin, tuning: [62, 59, 55, 50, 45, 38] }
    expect(heldShapesFor(chord('C'), setup, [other])).toEqual(heldShapesFor(chord('C'), setup))
  })

  it('are what the arranger holds', () => {
    const tune = readAbc('X:1\nT:t\nM:4/4\nL:1/4\nQ:1/4=80\nK:C\n"C"G4|"C"G2E2|"F"F4|"C"G4|]', () => 't')[0]!
      .tune!
    const names = (pins: readonly PinnedShape[]) => {
      const pinned = { ...tune, pins }
      const { layer } = finish(arranging(pinned, setup, wholeTune(pinned, 'alternating-bass', 3)))
      return layer.grips.map((g) => g.shape)
    }
    expect(names([]).some((n) => n?.includes('pinned'))).toBe(false)
    expect(names([pin]).filter((n) => n?.includes('pinned')).length).toBeGreaterThan(0)
  })

  it('chords that no book shape serves in a tuning get found ones', () => {
    const dadgad = { ...setup, tuning: [62, 57, 55, 50, 45, 38] }
    const frames = heldShapesFor(chord('Bm'), dadgad)
    expect(frames.length).toBeGreaterThan(0)
    for (const f of frames) expect(soundingPitches(dadgad, f.frets).length).toBeGreaterThan(2)
  })
})
