import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  DEFAULT_PLAYER,
  guitarSetup,
  reach,
  setupOf,
  spanOf,
  type LeftFinger,
  type Player,
} from '../../src/instrument/index.ts'
import { eachFingering, fingeringReasons, fingeringsOf } from '../../src/hand/index.ts'
import { frets, written } from '../support/chords.ts'

const shapes = fc.array(fc.option(fc.integer({ min: 0, max: 5 }), { nil: null, freq: 4 }), {
  minLength: 6,
  maxLength: 6,
})

/** The hard rules said once more, over finished fingers alone. */
function allowed(list: readonly (number | null)[], fingers: readonly number[], player: Player): boolean {
  const { instrument } = guitarSetup()
  const at = new Map<number, { fret: number; strings: number[] }>()
  for (const [i, fret] of list.entries()) {
    if (!fret) continue
    const finger = fingers[i]!
    const known = at.get(finger)
    if (known && known.fret !== fret) return false
    at.set(finger, { fret, strings: [...(known?.strings ?? []), i + 1] })
  }
  for (const [finger, { fret, strings }] of at) {
    if (strings.length > 1 && !player.techniques.barre) return false
    if (finger === 4 && !player.techniques.littleFinger) return false
    for (let s = strings[0]!; s <= strings.at(-1)!; s++) {
      const inside = list[s - 1]
      if (inside !== null && inside! < fret) return false
      // The same fret inside a barre belongs to the barre.
      if (inside === fret && !strings.includes(s)) return false
    }
    for (const [other, place] of at) {
      if (other <= finger) continue
      if (place.fret < fret) return false
      let nearest = Infinity
      for (let a = strings[0]!; a <= strings.at(-1)!; a++)
        for (let b = place.strings[0]!; b <= place.strings.at(-1)!; b++)
          nearest = Math.min(nearest, reach(instrument, { string: a, fret }, { string: b, fret: place.fret }))
      if (nearest > spanOf(player.spans, finger, other)) return false
    }
  }
  return true
}

/** Every way to give each fretted note one of four fingers. */
function* everyAssignment(list: readonly (number | null)[]): Generator<number[]> {
  const pressed = list.flatMap((f, i) => (f ? [i] : []))
  for (let code = 0; code < 4 ** pressed.length; code++) {
    const fingers = list.map(() => 0)
    pressed.forEach((i, n) => (fingers[i] = 1 + (Math.floor(code / 4 ** n) % 4)))
    yield fingers
  }
}

describe('fingerings', () => {
  it('are exactly those of 4ⁿ assignments that break no hard rule', () => {
    fc.assert(
      fc.property(shapes, fc.boolean(), fc.boolean(), (list, barre, littleFinger) => {
        const player = { ...DEFAULT_PLAYER, techniques: { barre, littleFinger, thumbOver: false } }
        const ours = new Set<string>()
        eachFingering(guitarSetup(), list, player, (hand) => {
          const fingers = list.map((fret, i) =>
            fret ? hand.findIndex((p) => p.fret === fret && p.top <= i + 1 && p.low >= i + 1) : 0,
          )
          expect(ours.has(fingers.join())).toBe(false)
          ours.add(fingers.join())
        })
        const theirs = [...everyAssignment(list)].filter((f) => allowed(list, f, player)).map((f) => f.join())
        expect([...ours].sort()).toEqual(theirs.sort())
      }),
      { numRuns: 150 },
    )
  })

  it.each([
    ['x-3-2-0-1-0', '0-3-2-0-1-0'],
    ['0-2-2-1-0-0', '0-2-3-1-0-0'],
    ['x-0-2-2-1-0', '0-0-2-3-1-0'],
    ['1-3-3-2-1-1', '1-3-4-2-1-1'],
    ['x-x-0-2-3-2', '0-0-0-1-3-2'],
    ['3-2-0-0-0-3', '2-1-0-0-0-3'],
    ['7-x-4-4-4-x', '4-0-1-1-1-0'],
  ])('%s is held %s (common practice, no source)', (shape, fingers) => {
    expect(written(fingeringsOf(guitarSetup(), frets(shape))[0]!.fingers)).toBe(fingers)
  })

  it('the reasons add up to the cost, at any capo', () => {
    fc.assert(
      fc.property(shapes, fc.integer({ min: 0, max: 7 }), (list, capo) => {
        const setup = guitarSetup(capo)
        for (const { fingers, cost } of fingeringsOf(setup, list)) {
          const sum = fingeringReasons(setup, list, fingers).reduce((s, r) => s + r.cost, 0)
          expect(sum).toBeCloseTo(cost, 6)
        }
      }),
    )
  })

  it('the thumb comes over the neck only where it may, and only on the lowest strings', () => {
    const shape = frets('2-0-0-2-3-2')
    const player = { ...DEFAULT_PLAYER, techniques: { ...DEFAULT_PLAYER.techniques, thumbOver: true } }
    const all = (p: Player) => fingeringsOf(setupOf('guitar', undefined, undefined, p), shape, p, 50)
    expect(all(DEFAULT_PLAYER).some((f) => f.fingers.includes('T'))).toBe(false)
    const thumbs = all(player).filter((f) => f.fingers.includes('T'))
    expect(thumbs.length).toBeGreaterThan(0)
    for (const { fingers } of thumbs) fingers.forEach((f: LeftFinger, i) => f === 'T' && expect(i).toBe(5))
  })

  it('a smaller hand holds fewer shapes, never more; a capo makes a stretch smaller', () => {
    const small = Object.fromEntries(
      Object.entries(DEFAULT_PLAYER.spans).map(([k, mm]) => [k, mm * 0.8]),
    ) as unknown as Player['spans']
    fc.assert(
      fc.property(shapes, (list) => {
        const adult = fingeringsOf(guitarSetup(), list, DEFAULT_PLAYER, 200)
        const child = fingeringsOf(guitarSetup(), list, { ...DEFAULT_PLAYER, spans: small }, 200)
        const names = adult.map((f) => f.fingers.join())
        for (const f of child) expect(names).toContain(f.fingers.join())
        expect(fingeringsOf(guitarSetup(5), list, DEFAULT_PLAYER, 200).length).toBeGreaterThanOrEqual(
          adult.length,
        )
      }),
    )
  })
})
