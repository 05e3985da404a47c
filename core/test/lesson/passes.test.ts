import { describe, expect, it } from 'vitest'
import { LANGUAGES } from '../../src/messages/index.ts'
import { withVariant, type ArrangementDoc } from '../../src/document/index.ts'
import { keptAsOssia } from '../../src/edit/index.ts'
import {
  layerOf,
  lessonOf,
  lessonSteps,
  passVersions,
  readBack,
  replay,
  scriptText,
  TEACH_LAYERS,
  USUAL_LESSON,
  wordsFor,
  type Speech,
} from '../../src/lesson/index.ts'
import { handoutPieces, usualHandout } from '../../src/output/handout/index.ts'
import { arrangedScore } from '../support/score.ts'
import { CORPUS } from '../support/tunes.ts'

// The tune at level 3; on its second pass two measures are played as at level 1.
const { tune, arrangement } = arrangedScore(CORPUS[0]!, 'melody-bass', 3)
const plain = arrangedScore(CORPUS[0]!, 'melody-bass', 1).arrangement
const ids = tune.measures.slice(1, 3).map((m) => m.id)
const [kept] = keptAsOssia(plain, ids, 'plainly', 'o').variants
const doc: ArrangementDoc = { ...arrangement, variants: [{ ...kept!, when: { pass: 2 } }] }

const lesson = (speech: Partial<Speech> = {}, of = doc) =>
  lessonOf(tune, of, { ...USUAL_LESSON, speech: { ...USUAL_LESSON.speech, ...speech } })

describe('measures that are played otherwise on one pass', () => {
  it('are taught right behind the usual ones, going on from the measure before', () => {
    const { steps, script } = lesson()
    expect(steps.filter((s) => s.pass === undefined)).toEqual(lessonSteps(tune, arrangement))
    const own = steps.filter((s) => s.pass === 2)
    const alone = lessonSteps(tune, { ...doc, base: withVariant(doc.base, doc.variants[0]!) })
    expect(own.map(({ pass: _, ...s }) => s)).toEqual(alone.filter((s) => s.measure === 1 || s.measure === 2))
    expect(script.map((m) => [m.measure, m.pass])).toEqual(
      expect.arrayContaining([
        [1, undefined],
        [2, undefined],
        [1, 2],
        [2, 2],
      ]),
    )
    const titles = script.map((m) => m.title)
    expect(titles.slice(1, 5)).toEqual([
      titles[1],
      titles[2],
      `${titles[1]}, the second time`,
      `${titles[2]}, the second time`,
    ])
  })

  it.each(LANGUAGES)(
    'can be followed from the words alone, and what comes after them too: %s',
    (language) => {
      for (const length of ['full', 'short'] as const) {
        const { script, steps } = lesson({ language, length })
        const words = wordsFor({ language, length, fingers: 'names' })
        const followed = replay(scriptText(script), words)
        expect(followed.map((s) => s.notes.map((n) => [n.string, n.fret, n.finger ?? 0]))).toEqual(
          steps.map((s) => s.notes.map((n) => [n.string, n.fret, n.finger ?? 0])),
        )
        const second = followed.filter((s) => readBack(words.measureOnPass, s.measure))
        expect(second).toHaveLength(steps.filter((s) => s.pass === 2).length)
      }
    },
  )

  it('are taken apart in layers as the others are', () => {
    for (const layer of TEACH_LAYERS) {
      const apart = layerOf(tune, doc, layer)
      const whole = layerOf(tune, { ...doc, base: withVariant(doc.base, doc.variants[0]!) }, layer)
      const inside = (d: ArrangementDoc) =>
        d.base.notes.filter((n) => ids.includes(n.pos.measure)).map((n) => n.place)
      const own = withVariant(apart.base, apart.variants[0]!)
      expect(inside({ ...apart, base: own })).toEqual(inside(whole))
    }
  })

  it('stand on paper under their title, where the handout has these measures', () => {
    const html = (of: ArrangementDoc, from?: number, to?: number) => {
      const handout = usualHandout('h')
      const blocks = [{ id: 'b', kind: 'tab' as const, ...(from === undefined ? {} : { from, to: to! }) }]
      return handoutPieces({ ...handout, blocks }, lesson({}, of))
        .map((p) => p.html)
        .join('')
    }
    expect(html(doc)).toMatch(/, the second time: plainly/)
    expect(html(arrangement)).not.toContain('the second time')
    expect(html(doc, 4, 5)).not.toContain('the second time')
  })

  it('of which a measure is gone are left out; those for a student or a level are none of a pass', () => {
    const variants = [
      { ...kept!, id: 'a', measures: ['gone', ids[0]!], when: { pass: 2 } },
      { ...kept!, id: 'b', when: { level: 3 } },
    ]
    expect(passVersions(tune, { variants })).toEqual([])
  })
})
