import { describe, expect, it } from 'vitest'
import { STEPS, type Pitch } from '../../../src/music/index.ts'
import { staffOf, headWidth, staffReach } from '../../../src/output/index.ts'
import { xAt } from '../../../src/output/layout/index.ts'
import {
  tabSystems,
  USUAL_PAPER_LAYERS,
  type DrawStaff,
  type StaffPlace,
} from '../../../src/output/handout/index.ts'
import { arrangedScore } from '../../support/score.ts'
import { svgMarks } from '../../support/svgMarks.ts'
import { CORPUS } from '../../support/tunes.ts'

const LAYERS = { ...USUAL_PAPER_LAYERS, staff: true }

/** Lines of the staff below its top line that a pitch stands at; 0 is the top line F, halves are spaces. */
const linesBelow = ({ step, octave }: Pitch): number => (5 * 7 + 3 - (octave * 7 + STEPS.indexOf(step))) / 2

/** A tab with a staff over it, and the places that were asked for. */
function withStaff(index: number, width = 688) {
  const { tune, arrangement } = arrangedScore(CORPUS[index]!, 'melody-bass', 3)
  const places: StaffPlace[] = []
  const drawStaff: DrawStaff = (_tune, _staff, place) => {
    places.push(place)
    return `<g data-staff="${places.length - 1}"/>`
  }
  const options = { width, layers: LAYERS, naming: 'letters', drawStaff } as const
  return { tune, arrangement, places, systems: tabSystems(tune, arrangement, options) }
}

describe('the staff over a printed tab', () => {
  it('is drawn once a line, at the x of the frets under it, and nothing of it reaches into the tab', () => {
    for (let k = 0; k < 6; k++) {
      const { tune, arrangement, places, systems } = withStaff(k)
      const staff = staffOf(tune, arrangement.transposed, arrangement.setup, arrangement.base.notes)
      expect(places).toHaveLength(systems.length)
      systems.forEach((system, s) => {
        const place = places[s]!
        expect(system.svg).toContain(`data-staff="${s}"`)
        expect(place.system.measures.map((m) => m.index)).toEqual(system.measures.map((m) => m.index))
        expect(place.system.measures).toEqual(system.measures)
        const gap = 10 * place.scale
        for (const placed of system.measures) {
          const { length } = tune.measures[placed.index]!
          for (const sign of [...staff[placed.index]!.upper, ...staff[placed.index]!.lower]) {
            if (sign.kind !== 'note') continue
            for (const { pitch } of sign.heads) {
              const y = place.top + linesBelow(pitch) * gap
              expect(y).toBeGreaterThan(0)
              expect(y).toBeLessThan(system.top - 8)
            }
            expect(xAt(placed, sign.tick, length)).toBeGreaterThan(placed.x)
          }
        }
      })
    }
  })

  it('takes the metre and the number of the measure with it; bars and dots go through both', () => {
    const { tune, arrangement, systems, places } = withStaff(0)
    const bare = tabSystems(tune, arrangement, {
      width: 688,
      layers: USUAL_PAPER_LAYERS,
      naming: 'letters',
    })
    const marks = (svg: string) => svgMarks(svg)
    expect(marks(bare[0]!.svg).filter((m) => m.kind === 'me')).toHaveLength(2)
    expect(marks(systems[0]!.svg).filter((m) => m.kind === 'me')).toHaveLength(0)
    const bars = [...systems[0]!.svg.matchAll(/class="bl" d="M[\d.]+ ([\d.]+)V([\d.]+)"/g)]
    expect(bars.length).toBeGreaterThan(1)
    for (const [, from, to] of bars) {
      expect(Number(from)).toBe(places[0]!.top)
      expect(Number(to)).toBe(systems[0]!.bottom)
    }
    const dots = (svg: string) => [...svg.matchAll(/class="do"/g)].length
    const all = (of: readonly { svg: string }[]) => of.reduce((sum, s) => sum + dots(s.svg), 0)
    expect(all(systems)).toBe(2 * all(bare))
    const number = marks(systems[0]!.svg).find((m) => m.kind === 'num')!
    expect(number.y).toBeLessThan(places[0]!.top)
  })

  it('is left out where nobody draws it, and the page is as it was', () => {
    const { tune, arrangement } = arrangedScore(CORPUS[0]!, 'melody-bass', 3)
    const of = (layers: typeof LAYERS | typeof USUAL_PAPER_LAYERS) =>
      tabSystems(tune, arrangement, { width: 688, layers, naming: 'letters' })
    expect(of(LAYERS)).toEqual(of(USUAL_PAPER_LAYERS))
  })

  it('needs as much room at its head as its clef and key', () => {
    // By common practice an accidental is about as wide as the lines are apart.
    for (const gap of [6.6, 8]) {
      expect(headWidth(0, gap)).toBeGreaterThan(4 * gap)
      for (let f = 1; f <= 7; f++) {
        expect(headWidth(f, gap) - headWidth(f - 1, gap)).toBeGreaterThan(gap)
        expect(headWidth(-f, gap)).toBe(headWidth(f, gap))
      }
    }
  })

  it('reaches as far as its highest and lowest note', () => {
    for (const tune of CORPUS.slice(0, 8)) {
      const staff = staffOf(tune, 0)
      const at = staff.flatMap((m) => m.upper.flatMap((s) => s.heads.map((h) => linesBelow(h.pitch))))
      const { above, below, twoVoices } = staffReach(staff)
      expect(above).toBe(Math.max(0, -Math.min(...at)))
      expect(below).toBe(Math.max(0, Math.max(...at) - 4))
      expect(twoVoices).toBe(false)
    }
  })
})
