import { expect, it } from 'vitest'
import { lessonOf, teaching, USUAL_LESSON } from '../../src/lesson/index.ts'
import { composing, handoutPieces, usualHandout } from '../../src/output/handout/index.ts'
import type { Turns } from '../../src/turns.ts'
import { arrangedScore } from '../support/score.ts'
import { CORPUS, tuneOfMusic } from '../support/tunes.ts'

const { tune, arrangement } = arrangedScore(CORPUS[0]!, 'alternating-bass', 3)

const FOUR_MEASURES = '"C"ceGc dcBA|"F"fedc "G7"BAGF|"Am"ABce aged|"C"c2e2 c4|\n'

/** A tab of so many times four measures. */
const longScore = (times: number) =>
  arrangedScore(tuneOfMusic(FOUR_MEASURES.repeat(times), 'M:4/4\nL:1/8\nK:C'), 'melody-bass', 2)

/** How often work gives its turn back, and what it comes to. */
function turnsOf<T>(run: Turns<T>): { turns: number; value: T } {
  for (let turns = 0; ; turns++) {
    const { done, value } = run.next()
    if (done) return { turns, value }
  }
}

it('a lesson is made in more turns the longer its tune is, none of them longer', () => {
  const [short, long] = [4, 32].map((times) => {
    const { tune, arrangement: doc } = longScore(times)
    return {
      ...turnsOf(teaching(tune, doc, USUAL_LESSON)),
      steps: lessonOf(tune, doc, USUAL_LESSON).steps.length,
    }
  })
  expect(long!.steps).toBeGreaterThan(7 * short!.steps)
  expect(long!.value.steps).toHaveLength(long!.steps)
  // Moments that are worked on between two turns.
  expect((long!.steps - short!.steps) / (long!.turns - short!.turns)).toBeLessThan(150)
})

it('pages are composed with a turn given back at every piece', () => {
  const handout = usualHandout('h')
  const lesson = lessonOf(tune, arrangement, handout.settings)
  const { turns, value } = turnsOf(composing(handout, lesson))
  expect(value).toEqual(handoutPieces(handout, lesson))
  expect(turns).toBe(value.length)
})
