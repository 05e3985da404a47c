import { describe, expect, it } from 'vitest'
import { LANGUAGES } from '../../src/messages/index.ts'
import { lessonOf, replay, scriptText, USUAL_LESSON, wordsFor, type Speech } from '../../src/lesson/index.ts'
import { scoreOfPassage } from '../support/passage.ts'
import { PASSAGES } from '../arrange/manual/passages.ts'

const passage = (name: string) => scoreOfPassage(PASSAGES.find((p) => p.name === name)!)

function lesson(name: string, speech: Partial<Speech> = {}) {
  const { tune, arrangement } = passage(name)
  const said = { ...USUAL_LESSON, speech: { ...USUAL_LESSON.speech, ...speech } }
  return lessonOf(tune, arrangement, said)
}

describe('shapes in the words of a lesson', () => {
  it('a shape with a name is taken by it, held by it, and gone over to by the finger that moves', () => {
    const text = scriptText(lesson('C to Am: two fingers stay').script)
    expect(text).toContain(
      'Take C (3-2-1): ring finger on string 5, fret 3; middle finger on string 4, fret 2; index finger on string 2, fret 1. Pluck string 5 at fret 3 (thumb).',
    )
    expect(text).toContain('Hold C. Pluck string 4 at fret 2 (thumb).')
    expect(text).toContain(
      'Keep down: index finger, middle finger. Go over to Am: ring finger on string 3, fret 2.',
    )
    expect(text).toContain('Hold Am.')
    expect(text).not.toContain('Hold the shape')
  })

  it('fingers that move alone are told one by one; a figure that spells a chord is called by it', () => {
    const thirds = scriptText(lesson('thirds on strings 2 and 3').script)
    expect(thirds).toMatch(/(Put|Slide) the \w+ finger/)
    expect(thirds).not.toContain('Take ')
    // Nobody wrote a chord over it: it is called by what its notes spell.
    expect(scriptText(lesson('C, not named').script)).toContain('Hold C.')
  })

  it.each(LANGUAGES)(
    'can be followed back to the tab from the words alone, in every language and length: %s',
    (language) => {
      for (const { name } of PASSAGES)
        for (const length of ['full', 'short'] as const) {
          const { steps, script } = lesson(name, { language, length })
          const words = wordsFor({ language, length, fingers: 'names' })
          const followed = replay(scriptText(script), words)
          expect(
            followed.map((s) => s.notes.map((n) => [n.string, n.fret])),
            name,
          ).toEqual(steps.map((s) => s.notes.map((n) => [n.string, n.fret])))
          const taken = steps.filter((s) => s.shape?.taken)
          for (const step of taken) expect(step.hand.lands.length).toBeGreaterThan(0)
        }
    },
  )
})
