import { Chord, Interval, Note } from 'tonal'
import { describe, expect, it } from 'vitest'
import { LANGUAGES } from '../../src/messages/index.ts'
import { ticksAt, timelineOf } from '../../src/document/index.ts'
import { pitchAt } from '../../src/instrument/index.ts'
import {
  lessonOf,
  replay,
  scriptText,
  USUAL_LESSON,
  wordsFor,
  type Alongside,
  type Speech,
} from '../../src/lesson/index.ts'
import { scoreOfPassage } from '../support/passage.ts'
import { arrangedScore } from '../support/score.ts'
import { scoreOfText } from '../support/tabText.ts'
import { CORPUS } from '../support/tunes.ts'
import { PASSAGES } from '../arrange/manual/passages.ts'

const lesson = (
  score: ReturnType<typeof scoreOfPassage>,
  alongside: Alongside,
  speech: Partial<Speech> = {},
) =>
  lessonOf(score.tune, score.arrangement, {
    ...USUAL_LESSON,
    alongside,
    speech: { ...USUAL_LESSON.speech, ...speech },
  })

describe('what is said with each step on request', () => {
  // A blue third hammered over G, then a sixth, then a chord.
  const score = scoreOfText(`
   G
     q      q    h
e|--------------------|
B|---0------1----3----|
G|---0------0----4----|
D|---0----------------|
A|-1h2----------------|
E|--------------------|
`)
  const said = (alongside: Alongside) => scriptText(lesson(score, alongside).script)

  it('nothing, unless it is wanted', () => {
    expect(said('none')).not.toContain('Over G')
    expect(said('none')).not.toContain('Beats')
    expect(lesson(score, 'none').steps.every((s) => !s.harmony && !s.lengths)).toBe(true)
  })

  it('harmony: degrees of the chord from the lowest string, short notes in order, the interval of two', () => {
    expect(said('harmony')).toContain('Over G: flat 3 to 3, 5, 1, 3.')
    expect(said('harmony')).toContain('Over G: 1, 4, a fourth.')
    expect(said('harmony')).toContain('Over G: 3, 5, a third.')
  })

  it('lengths: in beats, together where they are the same', () => {
    expect(said('lengths')).toContain('Beats: 2 (string 3, 2).')
    expect(said('lengths')).not.toContain('Over G')
    expect(said('both')).toContain('Over G: 3, 5, a third. Beats: 2 (string 3, 2).')
  })

  it('degrees and intervals are those of a general library', () => {
    // Against tonal 6 (notes of chords, distances), a general-purpose library.
    const { tune, arrangement } = arrangedScore(CORPUS[0]!, 'melody-bass', 3)
    const { steps } = lessonOf(tune, arrangement, { ...USUAL_LESSON, alongside: 'harmony' })
    const timeline = timelineOf(tune.measures)
    let [tones, pairs] = [0, 0]
    for (const { measure, tick, harmony } of steps) {
      if (!harmony) continue
      const at = timeline.starts[measure]! + tick
      const notes = arrangement.base.notes
        .filter((n) => ticksAt(timeline, n.pos) === at)
        .sort((a, b) => b.place.string - a.place.string)
      const midis = notes.map((n) => pitchAt(arrangement.setup, n.place))
      const chord = Chord.get(harmony.chord)
      midis.forEach((midi, i) => {
        const chroma = Note.chroma(Note.fromMidi(midi))
        const own = chord.notes.findIndex((n) => Note.chroma(n) === chroma)
        if (own < 0) return
        const number = Interval.get(chord.intervals[own]!).num
        expect(harmony.degrees[i]!.at(-1)!.replace(/[b#]/g, ''), `${harmony.chord} ${midi}`).toBe(
          String(number),
        )
        tones++
      })
      if (harmony.interval === undefined) continue
      const wide = (midis[1]! - midis[0]!) % 12
      const names = [1, 2, 2, 3, 3, 4, 4, 5, 6, 6, 7, 7]
      expect(harmony.interval).toBe(wide === 0 && midis[1] !== midis[0] ? 8 : names[wide])
      pairs++
    }
    expect(tones).toBeGreaterThan(40)
    expect(pairs).toBeGreaterThan(8)
  })

  const passages = PASSAGES.map((p) => [p.name, scoreOfPassage(p)] as const)

  it.each(LANGUAGES)('leaves the words to be followed as before, rows too: %s', (language) => {
    for (const [name, score] of passages)
      for (const length of ['full', 'short'] as const) {
        const own = lesson(score, 'both', { language, length })
        const followed = replay(scriptText(own.script), wordsFor({ language, length, fingers: 'names' }))
        expect(
          followed.map((s) => s.notes.map((n) => [n.string, n.fret])),
          name,
        ).toEqual(own.steps.map((s) => s.notes.map((n) => [n.string, n.fret])))
      }
  })
})
