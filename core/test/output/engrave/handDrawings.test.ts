import type { PlacedFinger } from '../../../src/hand/index.ts'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { guitarSetup, setupOf, type LeftFinger, type Setup } from '../../../src/instrument/index.ts'
import { neckSvg } from '../../../src/output/handout/index.ts'
import { boxSvg } from '../../../src/output/engrave/boxPaper.ts'
import { svgMarks, type SvgMark } from '../../support/svgMarks.ts'

/** A shape within the reach of a box: four frets from somewhere, the first string first. */
const shapes = fc.integer({ min: 1, max: 11 }).chain((low) =>
  fc
    .array(fc.constantFrom(null, 0, low, low + 1, low + 2, low + 3), { minLength: 6, maxLength: 6 })
    .map((frets) => ({
      frets,
      // One finger a fret: what lies on one fret is a barre.
      fingers: frets.map((f): LeftFinger => (f === null || f === 0 ? 0 : ((f - low + 1) as 1))),
    })),
)

const vertical = (m: SvgMark) => /^M([\d.]+) [\d.]+v[\d.]+$/.exec(m.path)
const across = (m: SvgMark) => /^M([\d.]+) ([\d.]+)H([\d.]+)$/.exec(m.path)

/** Frets and fingers by string, as somebody reads them off the picture. */
function readBox(svg: string, left: boolean) {
  const marks = svgMarks(svg)
  const strings = marks
    .flatMap((m) => vertical(m)?.[1] ?? [])
    .map(Number)
    .sort((a, b) => (left ? a - b : b - a))
  const lines = [...new Set(marks.filter((m) => m.kind !== 'ba').flatMap((m) => across(m)?.[2] ?? []))]
    .map(Number)
    .sort((a, b) => a - b)
  // The number beside the first space; a box without one begins at the nut.
  const first = Number(marks.find((m) => m.kind === 'num')?.text ?? 1)
  return strings.map((x) => {
    const on = marks.filter((m) => Math.abs(m.x - x) < 0.02)
    if (on.some((m) => m.text === '×')) return [null, 0]
    if (on.some((m) => m.kind === 'op')) return [0, 0]
    const dot = on.find((m) => m.kind === 'dt')!
    const space = lines.findIndex((y, i) => y < dot.y && dot.y < (lines[i + 1] ?? Infinity))
    return [first + space, Number(on.find((m) => m.kind === 'dl')!.text)]
  })
}

describe('a chord box read back from its picture', () => {
  it.each([
    ['right', false],
    ['left', true],
  ])('%s-handed: every string has the fret and the finger of the shape', (_, left) => {
    fc.assert(
      fc.property(shapes, ({ frets, fingers }) => {
        expect(readBox(boxSvg({ frets, fingers }, left, 'x'), left)).toEqual(
          frets.map((f, i) => [f, fingers[i]]),
        )
      }),
    )
  })

  it('a heavy line is the nut, and there is none where the box begins higher up', () => {
    fc.assert(
      fc.property(shapes, ({ frets, fingers }) => {
        const marks = svgMarks(boxSvg({ frets, fingers }, false, 'x'))
        const higher = marks.some((m) => m.kind === 'num')
        expect(marks.filter((m) => m.kind === 'hl')).toHaveLength(higher ? 0 : 1)
      }),
    )
  })

  it('a finger on several strings lies across them all', () => {
    fc.assert(
      fc.property(shapes, ({ frets, fingers }) => {
        const bars = svgMarks(boxSvg({ frets, fingers }, false, 'x')).filter((m) => m.kind === 'ba')
        const several = [1, 2, 3, 4].filter((f) => fingers.filter((x) => x === f).length > 1)
        expect(bars).toHaveLength(several.length)
      }),
    )
  })
})

/** Up to four fingers, each once, barres among them, within five frets. */
const hands = (strings: number) =>
  fc.integer({ min: 1, max: 10 }).chain((low) =>
    fc.subarray([1, 2, 3, 4] as const, { minLength: 1 }).chain((fingers) =>
      fc.tuple(
        ...fingers.map((finger) =>
          fc
            .tuple(fc.nat(3), fc.integer({ min: 1, max: strings }), fc.integer({ min: 1, max: strings }))
            .map(([up, a, b]): PlacedFinger => ({
              finger,
              fret: low + up,
              from: Math.min(a, b),
              to: finger === 1 ? Math.max(a, b) : Math.min(a, b),
            })),
        ),
      ),
    ),
  )

function readNeck(svg: string, setup: Setup): PlacedFinger[] {
  const marks = svgMarks(svg)
  const left = setup.player.handedness === 'left'
  // String numbers stand over the strings.
  const xs = new Map(
    marks.filter((m) => m.kind === 'bo').map((m) => [Math.round(m.x * 100) / 100, Number(m.text)]),
  )
  expect([...xs.values()]).toHaveLength(setup.instrument.strings)
  const stringAt = (x: number) => [...xs].find(([at]) => Math.abs(at - x) < 0.02)![1]
  const lines = marks
    .filter((m) => m.kind === 'hl' || m.kind === 'tl')
    .flatMap((m) => across(m)?.[2] ?? [])
    .map(Number)
    .sort((a, b) => a - b)
  const numbers = marks.filter((m) => m.kind === 'num').map((m) => Number(m.text))
  expect(numbers).toEqual([...numbers].sort((a, b) => a - b))
  return marks
    .filter((m) => m.name === 'circle' && /^nf /.test(m.kind))
    .map((circle) => {
      const label = marks.find(
        (m) =>
          /^nl /.test(m.kind) && m.x === circle.x && m.text !== '' && Math.abs(m.y - circle.y - 4.5) < 0.02,
      )!
      const space = lines.findIndex((y, i) => y < circle.y && circle.y < (lines[i + 1] ?? Infinity))
      const bar = marks.find(
        (m) =>
          /^nb /.test(m.kind) &&
          Math.abs(Number(across(m)![2]) - circle.y) < 0.02 &&
          Math.abs(Number(across(m)![1]) - circle.x) < 0.02,
      )
      const end = bar ? stringAt(Number(across(bar)![3])) : stringAt(circle.x)
      expect(left ? end >= stringAt(circle.x) : true).toBe(true)
      return {
        finger: Number(label.text) as 1,
        fret: numbers[space]!,
        from: stringAt(circle.x),
        to: end,
      }
    })
}

describe('the neck read back from its picture', () => {
  const room = { width: 210, height: 320 }
  const left = { ...guitarSetup(), player: { ...guitarSetup().player, handedness: 'left' as const } }
  it.each([
    ['guitar', guitarSetup()],
    ['guitar behind a capo', guitarSetup(3)],
    ['guitar, left-handed', left],
    ['mandolin', setupOf('mandolin')],
  ])('%s: every finger on its string and in its fret, barres across theirs', (_, setup) => {
    fc.assert(
      fc.property(hands(setup.instrument.strings), (fingers) => {
        // Two fingers on one place hide one another: hands do not do that.
        const places = fingers.map((f) => `${f.from} ${f.fret}`)
        fc.pre(new Set(places).size === places.length)
        const svg = neckSvg(
          setup,
          fingers.map((f) => ({ ...f, state: 'stays' as const })),
          [],
          room,
        )
        const byFinger = (list: readonly PlacedFinger[]) => [...list].sort((a, b) => +a.finger - +b.finger)
        expect(byFinger(readNeck(svg, setup))).toEqual(byFinger(fingers))
      }),
    )
  })

  it('struck strings are heavy, the others are not', () => {
    fc.assert(
      fc.property(fc.subarray([1, 2, 3, 4, 5, 6]), (struck) => {
        const marks = svgMarks(neckSvg(guitarSetup(), [], struck, room))
        expect(marks.filter((m) => m.kind === 'ns')).toHaveLength(struck.length)
      }),
    )
  })
})
