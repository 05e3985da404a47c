import './browserStubs.ts'
import fc from 'fast-check'
import { beforeEach, describe, expect, it } from 'vitest'
import { beginGuide, callGuide, endGuide, guideTook } from '../src/state/guide.ts'
import { currentPrefs, GUIDE_STEPS, restorePrefs, setPrefs, type GuideStep } from '../src/state/prefs.ts'

const at = () => currentPrefs().guide

beforeEach(() => setPrefs({ guide: 'unseen' }))

describe('the first steps', () => {
  it('begin where they were never seen, and never again by themselves', () => {
    beginGuide()
    expect(at()).toBe('bring')
    endGuide()
    beginGuide()
    expect(at()).toBe('ended')
    callGuide()
    expect(at()).toBe('bring')
  })

  it('go on step by step to the end', () => {
    beginGuide()
    for (const step of GUIDE_STEPS) {
      expect(at()).toBe(step)
      guideTook(step)
    }
    expect(at()).toBe('done')
  })

  it('never go back, whatever is done in whatever order, and say nothing to who has ended them', () => {
    const order = ['unseen', ...GUIDE_STEPS, 'done']
    fc.assert(
      fc.property(fc.array(fc.constantFrom<GuideStep>(...GUIDE_STEPS)), (taken) => {
        setPrefs({ guide: 'bring' })
        let before = order.indexOf(at())
        for (const step of taken) {
          guideTook(step)
          const now = order.indexOf(at())
          expect(now).toBeGreaterThanOrEqual(before)
          // What was just done is behind.
          expect(now).toBeGreaterThan(order.indexOf(step))
          before = now
        }
        setPrefs({ guide: 'ended' })
        taken.forEach(guideTook)
        expect(at()).toBe('ended')
      }),
    )
  })

  it('are kept with the preferences; what a file says wrongly of them is as at first', () => {
    restorePrefs({ guide: 'hear' })
    expect(at()).toBe('hear')
    for (const wrong of ['somewhere', 3, null]) {
      restorePrefs({ guide: wrong })
      expect(at()).toBe('unseen')
    }
  })
})
