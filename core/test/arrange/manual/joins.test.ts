import { describe, expect, it } from 'vitest'
import { ticksAt, timelineOf } from '../../../src/document/index.ts'
import { lessonOf, scriptText, USUAL_LESSON } from '../../../src/lesson/index.ts'
import { scoreOfPassage } from '../../support/passage.ts'
import { structuralFaults } from '../../support/score.ts'
import { PASSAGES, type Passage } from './passages.ts'

const passage = (places: string): Passage => ({ name: places, places, fingers: [] })
const lesson = (score: ReturnType<typeof scoreOfPassage>) =>
  scriptText(lessonOf(score.tune, score.arrangement, USUAL_LESSON).script)

describe('what the fretting hand sounds in a given tab', () => {
  it('a finger waits under a pull-off while another string sounds, and that string rings on', () => {
    const score = scoreOfPassage(PASSAGES.find((p) => p.name === 'pulled off after the string over it')!)
    expect(structuralFaults(score)).toEqual([])
    const { base } = score.arrangement
    const timeline = timelineOf(score.tune.measures)
    const [held] = base.notes
    const between = base.grips.find(
      (g) => ticksAt(timeline, g.pos) === ticksAt(timeline, base.notes[1]!.pos),
    )!
    const down = [...between.pressed, ...(between.ready ?? [])]
    expect(down.map((p) => [p.string, p.fret]).sort()).toEqual([
      [2, 1],
      [2, 3],
    ])
    expect(down.find((p) => p.fret === 3)!.finger).toBe(held!.left)
    expect(lesson(score)).toMatch(/Pluck string 1 open \(\w+\)\. Let ring on: string 2\./)
  })

  it('two strings are hammered and pulled at once, each by a finger that is free for it', () => {
    for (const name of ['C, hammered on two strings', 'two strings hammered and pulled at fret 5']) {
      const score = scoreOfPassage(PASSAGES.find((p) => p.name === name)!)
      expect(structuralFaults(score), name).toEqual([])
      expect(lesson(score), name).toMatch(
        /Hammer on to string 4 at fret \d by the [a-z ]+; string 2 at fret \d by the/,
      )
    }
  })

  it('what stays under a hammer-on lies across where its finger is wanted on another string', () => {
    const score = scoreOfPassage(passage('5.0+3.2+2.3 h3.4+h2.5+1.2 2.5 - 5.0+3.2+2.3 h3.4+h2.5+1.2 2.5 -'))
    expect(structuralFaults(score).filter((f) => f.kind === 'fingerNotDown')).toEqual([])
  })

  it('one finger touches neighbouring strings for harmonics over one fret', () => {
    const score = scoreOfPassage(passage('1.0 2.0'))
    const { notes } = score.arrangement.base
    expect(notes.map((n) => n.left)).toEqual([0, 0])
  })
})
