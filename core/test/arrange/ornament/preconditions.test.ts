import { describe, expect, it } from 'vitest'
import { guitarSetup, setupOf } from '../../../src/instrument/index.ts'
import { isArrival, LEVELS, SOLO_STYLES, type Ornament } from '../../../src/document/index.ts'
import { refusalOf } from '../../../src/arrange/index.ts'
import { audit } from '../../../src/audit/index.ts'
import { finishedTabOf } from '../../../src/output/index.ts'
import { ornamented } from '../../support/ornamented.ts'
import { CORPUS, tuneOfMusic } from '../../support/tunes.ts'
import { say } from '../../support/words.ts'

const PRECONDITIONS = new Set(['arrivalFrom', 'fingerNotDown', 'bendRoom'])

/** Traditional tunes, long out of copyright, from memory. */
describe('preconditions over the corpus', () => {
  it.each(SOLO_STYLES.flatMap((s) => [2, 3].map((o) => [s, o as Ornament] as const)))(
    '%s at density %i: never broken by the audit of the finished tab, and nothing else either',
    (style, ornament) => {
      let arrivals = 0
      CORPUS.forEach((tune, k) => {
        // Each density has half of the tunes.
        if (k % 2 !== ornament % 2) return
        const level = LEVELS[Math.floor(k / 2) % 5]!
        const setup = k % 4 === 3 ? setupOf('mandolin') : guitarSetup(k % 3)
        if (refusalOf(style, level, setup.instrument)) return
        const { report, layer } = ornamented(tune, style, level, ornament, { setup })
        expect(
          report.findings.filter((f) => PRECONDITIONS.has(f.kind)),
          tune.title,
        ).toEqual([])
        expect(report.structural, tune.title).toBe(0)
        expect(report.melodyKept, tune.title).toBe(report.melodyNotes)
        arrivals += layer.notes.filter((n) => isArrival(n.attack)).length
      })
      // Consecutive notes of the cross-string style lie on different strings by design.
      expect(arrivals).toBeGreaterThan(style === 'cross-string' ? 0 : 5)
    },
  )

  it('the audit does find what breaks them', () => {
    const tune = tuneOfMusic('"D"(de)(fg)|(gf)(ed)|]', 'M:4/4\nL:1/4\nK:D')
    const { json, layer } = ornamented(tune, 'melody-bass', 2, 1)
    expect(layer.spans.length).toBeGreaterThan(1)
    const broken = (change: (n: (typeof json.notes)[number]) => object) => {
      const notes = json.notes.map((n) => (isArrival(n.technique) ? { ...n, ...change(n) } : n))
      return audit(finishedTabOf({ ...json, notes })).findings.map((f) => f.kind)
    }
    expect(broken((n) => ({ technique: n.technique === 'hammer' ? 'pull' : 'hammer' }))).toContain(
      'arrivalFrom',
    )
    expect(broken(() => ({ technique: 'slide' }))).toContain('arrivalFrom')
    const lifted = { ...json, grips: json.grips!.map((g) => ({ ...g, pressed: [] })) }
    expect(audit(finishedTabOf(lifted)).findings.map((f) => f.kind)).toContain('fingerNotDown')
    const bent = json.notes.map((n) => ({ ...n, bend: 1 }))
    expect(audit(finishedTabOf({ ...json, notes: bent })).findings.map((f) => f.kind)).toContain('bendRoom')
  })

  it('a finger that holds another string does not hammer: neither written nor let pass', () => {
    const tune = tuneOfMusic(
      '"D"d2d2 f2ed|"A"c2e2 "F#m"c2A2|"Bm"B2cd "E"c2B2|"A"A8|]',
      'M:4/4\nL:1/8\nQ:1/4=92\nK:A',
    )
    const { json, layer } = ornamented(tune, 'melody-bass', 3, 3)
    // On the third beat of the second measure lies a barre.
    const graced = layer.notes.filter((n) => n.graces)
    expect(graced.length).toBeGreaterThan(0)
    for (const n of graced) {
      const grip = layer.grips.find((g) => g.pos.measure === n.pos.measure && g.pos.tick === n.pos.tick)!
      const others = grip.pressed.filter((p) => p.finger === n.left && p.string !== n.place.string)
      if (n.attack === 'hammer') expect(others).toEqual([])
    }
    // The bass put under the hammering finger, as a barre would have it.
    const main = json.notes.find((n) => n.graces && n.technique === 'hammer')!
    const under = (at: number) => at === main.start
    const tied = {
      ...json,
      notes: json.notes.map((n) =>
        under(n.start) && n !== main ? { ...n, fret: main.fret, leftFinger: main.leftFinger } : n,
      ),
      grips: json.grips!.map((g) =>
        under(g.start)
          ? {
              ...g,
              pressed: [1, 2, 3, 4, 5, 6].map((string) => ({
                string,
                fret: main.fret,
                finger: main.leftFinger as 1,
              })),
            }
          : g,
      ),
    }
    const found = audit(finishedTabOf(tied)).findings.filter((f) => f.kind === 'fingerNotDown')
    expect(found.map((f) => say(f.says)).join()).toMatch(
      /cannot hammer on string \d while it holds string \d/,
    )
    expect(audit(finishedTabOf(json)).structural).toBe(0)
  })
})
