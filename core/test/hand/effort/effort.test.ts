import { describe, expect, it } from 'vitest'
import { guitarSetup } from '../../../src/instrument/index.ts'
import type { Grip, Level } from '../../../src/document/index.ts'
import { effortOf, tuneEffort } from '../../../src/hand/index.ts'
import { heldShapesFor } from '../../../src/chords/index.ts'
import { chord } from '../../support/chords.ts'
import { arrangeTune, CORPUS, tuneOfMusic } from '../../support/tunes.ts'

function total(music: string | (typeof CORPUS)[number], level: Level, share = 1): number {
  const tune = typeof music === 'string' ? tuneOfMusic(music) : music
  const { layer, plan } = arrangeTune(tune, 'alternating-bass', level)
  return effortOf(tune, guitarSetup(), layer, plan.timeline, share).reduce((sum, m) => sum + m.effort, 0)
}

describe('effort', () => {
  it('rises with tempo on every second tune', () => {
    for (const t of CORPUS.filter((_, i) => i % 2 === 0)) {
      expect(total(t, 3, 1)).toBeGreaterThan(total(t, 3, 0.6))
      expect(total(t, 3, 1.4)).toBeGreaterThan(total(t, 3, 1))
    }
  })

  it('falls for the easier level on the others', () => {
    for (const t of CORPUS.filter((_, i) => i % 2 === 1)) expect(total(t, 1)).toBeLessThan(total(t, 3))
  })

  it('says its largest part first, each in its unit', () => {
    const tune = CORPUS[5]!
    const { layer, plan } = arrangeTune(tune, 'alternating-bass', 3)
    for (const m of effortOf(tune, guitarSetup(), layer, plan.timeline)) {
      const points = m.parts.map((p) => p.points)
      expect(points).toEqual([...points].sort((a, b) => b - a))
      expect(m.effort).toBeCloseTo(
        points.reduce((a, b) => a + b, 0),
        0,
      )
    }
  })

  it('puts the open chords of first lessons below F and Bm', () => {
    const easy = total('"C"c4|"G"B4|"Em"B4|"Am"c4|]', 3)
    const hard = total('"F"c4|"Bm"d4|"F"c4|"Bm"d4|]', 3)
    expect(hard).toBeGreaterThan(easy)
  })
})

describe('the tempo ceiling', () => {
  const measured = (music: string, setup = guitarSetup(), share = 1) => {
    const tune = tuneOfMusic(music)
    const { layer, plan } = arrangeTune(tune, 'alternating-bass', 3)
    return effortOf(tune, setup, layer, plan.timeline, share)
  }
  const lowest = (music: string) => tuneEffort(measured(music)).slowest!.ceiling!

  it('does not depend on the tempo at which it is asked', () => {
    const music = '"C"cegc|"G"BdgB|"Am"ceac|"F"fac2|"C"c4|]'
    const at = (share: number) => measured(music, guitarSetup(), share).map((m) => m.ceiling?.bpm)
    expect(at(0.5)).toEqual(at(1))
    expect(at(1.5)).toEqual(at(1))
  })

  it('falls where more moves fit into the same time, and names what gives out', () => {
    const slow = lowest('"C"c4|"G"B4|"Am"c4|"Em"B4|]')
    const fast = lowest('"C"c/e/g/c/"G"B/d/g/B/|"Am"c/e/a/e/"Em"B/e/g/B/|"C"c4|]')
    expect(fast.bpm).toBeLessThan(slow.bpm)
    expect(['changes', 'shift', 'barre', 'stretch', 'picking']).toContain(fast.reason)
  })

  it('a smaller hand finds the same tab harder and slower', () => {
    const tune = CORPUS[7]!
    const { layer, plan } = arrangeTune(tune, 'alternating-bass', 3)
    const setup = guitarSetup()
    const spans = Object.fromEntries(Object.entries(setup.player.spans).map(([k, mm]) => [k, mm * 0.8]))
    const small = { ...setup, player: { ...setup.player, spans: spans as typeof setup.player.spans } }
    const [a, b] = [setup, small].map((s) => effortOf(tune, s, layer, plan.timeline))
    expect(tuneEffort(b!).mean).toBeGreaterThan(tuneEffort(a!).mean)
    a!.forEach((m, i) => {
      expect(b![i]!.effort).toBeGreaterThanOrEqual(m.effort)
      expect(b![i]!.ceiling?.bpm ?? Infinity).toBeLessThanOrEqual(m.ceiling?.bpm ?? Infinity)
    })
  })

  it('first shapes of lessons stand below F and Bm, held whole, come to and left (common practice, no source)', () => {
    const setup = guitarSetup()
    const tune = tuneOfMusic('e4|e4|e4|e4|]')
    const { plan, layer } = arrangeTune(tune, 'flatpicked-lead', 1)
    const gripOf = (name: string, measure: number): Grip => ({
      id: `g${measure}`,
      pos: { measure: tune.measures[measure]!.id, tick: 0 },
      until: { measure: tune.measures[measure]!.id, tick: tune.measures[measure]!.length },
      pressed: heldShapesFor(chord(name), setup)
        .find((f) => f.frets.filter((x) => x !== null).length > 4 || f.textbook)!
        .pressed.map((p) => ({ ...p, finger: p.finger as 1 })),
      position: 1,
      costs: [],
    })
    const effort = (name: string) => {
      const grips = [0, 1, 2, 3].map((m) => gripOf(m % 2 ? name : 'Em', m))
      return tuneEffort(effortOf(tune, setup, { notes: layer.notes, grips }, plan.timeline))
    }
    const easy = ['Am', 'E', 'A', 'D', 'C', 'G', 'Dm'].map(effort)
    const hard = ['F', 'Bm'].map(effort)
    expect(Math.max(...easy.map((e) => e.mean))).toBeLessThan(Math.min(...hard.map((e) => e.mean)))
    const ceiling = (e: (typeof easy)[number]) => e.slowest!.ceiling!.bpm
    expect(Math.max(...hard.map(ceiling))).toBeLessThan(Math.min(...easy.map(ceiling)))
  })

  it('every part is in its unit, the largest first', () => {
    const units = { stretch: 'mm', shift: 'mm/s', barre: 'string·s', changes: 'fingers/s' }
    for (const m of measured('"F"fac2|"Bm"d^fbd|"F"fac2|"Bm"d^fbd|]'))
      for (const p of m.parts) if (p.part in units) expect(p.unit).toBe(units[p.part as keyof typeof units])
  })
})
