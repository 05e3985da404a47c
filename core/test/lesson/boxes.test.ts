import { describe, expect, it } from 'vitest'
import { chordText } from '../../src/music/index.ts'
import { chordShapes } from '../../src/lesson/index.ts'
import { arrangedScore } from '../support/score.ts'
import { scoreOfPassage } from '../support/passage.ts'
import { PASSAGES } from '../arrange/manual/passages.ts'
import { CORPUS } from '../support/tunes.ts'

/** A box from the lowest string: frets, x where a string is silent, and fingers. */
const drawn = (score: ReturnType<typeof arrangedScore>) =>
  chordShapes(score.tune, score.arrangement).map(({ chord, held }) => {
    const [frets, fingers] = [[...held.frets].reverse(), [...held.fingers].reverse()]
    return `${chordText(chord)} ${frets.map((f) => f ?? 'x').join('')}/${fingers.join('')}`
  })

const passage = (name: string) => scoreOfPassage(PASSAGES.find((p) => p.name === name)!)

describe('the boxes of a tab', () => {
  it('show one whole grip a name, as first method books print it (common practice, no source)', () => {
    // Greensleeves and The Irish Washerwoman, traditional, from memory.
    expect(drawn(arrangedScore(CORPUS[2]!, 'alternating-bass', 3))).toEqual([
      'Am x02210/002310',
      'G 320003/210003',
      'E 022100/023100',
      'C x32010/032010',
    ])
    const washerwoman = drawn(arrangedScore(CORPUS[4]!, 'arpeggio', 3))
    expect(washerwoman).toContain('G 320003/210003')
    const names = washerwoman.map((box) => box.split(' ')[0])
    expect(new Set(names).size).toBe(names.length)
  })

  it('show open and silent strings of the shape, not only what is plucked', () => {
    // Strings 1 and 6 are not played in it, and no name stands over it.
    expect(drawn(passage('pinches over C'))).toEqual(['C x32010/032010'])
    expect(drawn(passage('a melody finger over C'))).toEqual(['C x32010/032010'])
    expect(drawn(passage('barre Bm'))).toEqual(['Bm x24432/013421'])
    expect(drawn(passage('C to Am: two fingers stay'))).toEqual(['C x32010/032010', 'Am x02210/002310'])
  })
})
