import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { ADULT_SPANS, guitarSetup, pitchAt } from '../../../src/instrument/index.ts'
import type { Level } from '../../../src/document/index.ts'
import { handFault, type Pressed } from '../../../src/hand/index.ts'
import { makePlan } from '../../../src/arrange/plan/plan.ts'
import { keyFinger, keyFret, keyString } from '../../../src/arrange/search/candidate.ts'
import { generate } from '../../../src/arrange/search/generate.ts'
import { LEVEL_RULES } from '../../../src/arrange/search/weights.ts'
import { requirementOf } from '../../../src/arrange/search/requirement.ts'
import { newRequirementCache } from '../../../src/arrange/search/requirementCache.ts'
import { wholeTune } from '../../../src/arrange/whole/arrange.ts'
import { tuneOfMusic } from '../../support/tunes.ts'

const NOTES = ['C', 'D', 'E', 'F', 'G', 'A', 'B', 'c', 'd', 'e', '^f', 'g']
const CHORDS = ['C', 'F', 'G7', 'Am', 'Dm', 'E', 'Bm', 'D/F#']

/** The requirement of a tune's first note; its last one closes on a chord. */
function requirementFor(note: string, chord: string, level: Level, capo: number) {
  const tune = tuneOfMusic(`"${chord}"${note}4|${note}4|]`)
  const setup = guitarSetup(capo)
  const planned = makePlan(tune, setup, wholeTune(tune, 'melody-bass', level))
  if (!planned.ok) throw new Error('does not fit')
  return { setup, requirement: requirementOf(planned.plan, 0, setup, newRequirementCache(), undefined) }
}

describe('candidate generation is complete for what sounds', () => {
  it('holds every legal choice of place and finger for melody and root, found by plain enumeration', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...NOTES),
        fc.constantFrom(...CHORDS),
        fc.constantFrom<Level>(1, 2, 3),
        fc.integer({ min: 0, max: 7 }),
        (note, chord, level, capo) => {
          const { setup, requirement } = requirementFor(note, chord, level, capo)
          const offered = new Set(
            generate(setup, requirement).list.map((c) =>
              [
                keyString(c.melody),
                keyFret(c.melody),
                keyFinger(c.melody),
                keyString(c.bass),
                keyFret(c.bass),
                keyFinger(c.bass),
              ].join(),
            ),
          )
          const rules = LEVEL_RULES[level]
          const melody = requirement.melody!.midi
          const bassPc = requirement.bass!.options.map((o) => pitchAt(setup, o.place) % 12)[0]!
          for (let ms = 1; ms <= 6; ms++) {
            for (let mf = 0; mf <= Math.min(rules.lastFretOverBass, 20 - capo); mf++) {
              if (pitchAt(setup, { string: ms, fret: mf }) !== melody) continue
              for (let bs = 1; bs <= 6; bs++) {
                for (let bf = 0; bf <= rules.lastFretOverBass; bf++) {
                  const bass = pitchAt(setup, { string: bs, fret: bf })
                  if (bs === ms || bass >= melody || bass % 12 !== bassPc || bf > 20 - capo) continue
                  for (const m of mf ? [1, 2, 3, 4] : [0]) {
                    for (const b of bf ? [1, 2, 3, 4] : [0]) {
                      const pressed: Pressed[] = []
                      if (mf) pressed.push({ string: ms, fret: mf, finger: m })
                      if (bf) pressed.push({ string: bs, fret: bf, finger: b })
                      const open = [...(mf ? [] : [ms]), ...(bf ? [] : [bs])]
                      const barre = m > 0 && m === b && Math.abs(ms - bs) + 1 > rules.barreStrings
                      if (barre || handFault(setup, ADULT_SPANS, pressed, open)) continue
                      expect(offered).toContain([ms, mf, m, bs, bf, b].join())
                    }
                  }
                }
              }
            }
          }
        },
      ),
      { numRuns: 60, seed: 3 },
    )
  })

  it('offers nothing that a hand cannot hold', () => {
    for (const chord of CHORDS) {
      for (const level of [1, 2, 3] as const) {
        const { setup, requirement } = requirementFor('e', chord, level, 0)
        for (const c of generate(setup, requirement).list)
          expect(handFault(setup, ADULT_SPANS, c.pressed)).toBeUndefined()
      }
    }
  })

  it('gives no barre at level 1', () => {
    for (const chord of ['F', 'Bm', 'F#m']) {
      const { setup, requirement } = requirementFor('c', chord, 1, 0)
      for (const c of generate(setup, requirement).list) {
        const fingers = c.pressed.map((p) => p.finger)
        expect(new Set(fingers).size).toBe(fingers.length)
      }
    }
  })
})
