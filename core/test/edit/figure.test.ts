import fc from 'fast-check'
import { Chord, Note } from 'tonal'
import { describe, expect, it } from 'vitest'
import { pitchAt } from '../../src/instrument/index.ts'
import type { Score } from '../../src/document/index.ts'
import { applyEdit } from '../../src/edit/index.ts'
import { handFault, pressedOf } from '../../src/hand/index.ts'
import { scoreOfText } from '../support/tabText.ts'
import { scoreFaults } from './scoreFaults.ts'

/** A broken C, thumb on 5 and 4, with a hammer-on into the third. */
const PICKED = scoreOfText(
  '  C               F\ne|-------0-------|-1-----|\nB|-----1-------1-|-------|\nG|---0-------0---|-------|\nD|-----0h2-----2-|-3-----|\nA|-3-------3-----|-------|\nE|---------------|-------|\n',
)

type Written = Required<Score>

function figure(score: Written, chords: string, from = 0, to = from): Written {
  const edited = applyEdit(score, { do: 'figure', from, to, chords })
  if (!edited.ok) throw new Error(edited.refusal.reason)
  return edited.score as Written
}

const placesIn = ({ tune, arrangement }: Written, measure: number) =>
  arrangement.base.notes
    .filter((n) => n.pos.measure === tune.measures[measure]!.id)
    .map((n) => `${n.pos.tick} ${n.place.string}.${n.place.fret} ${n.attack}`)
    .sort()

const refusal = (chords: string, score: Score = PICKED) => {
  const edited = applyEdit(score, { do: 'figure', from: 0, to: 0, chords })
  return edited.ok ? undefined : edited.refusal.reason
}

describe('the same figure', () => {
  it('on its own chord is a copy', () => {
    const score = figure(PICKED, 'C')
    expect(placesIn(score, 1)).toEqual(placesIn(score, 0))
    expect(scoreFaults(score)).toEqual([])
  })

  it('on G has its thumb on the root and takes each string as G has it', () => {
    const score = figure(PICKED, 'G')
    const places = placesIn(score, 1).map((p) => p.split(' ').slice(0, 2).join(' '))
    const bass = places.filter((p) => p.endsWith(' 6.3'))
    expect(bass).toHaveLength(2)
    expect(score.tune.chords.map((c) => c.symbol)).toEqual(['C', 'G', 'F'])
  })

  it('is fingered as a player takes the new chord', () => {
    const { tune, arrangement } = figure(PICKED, 'G')
    const left = (string: number) =>
      arrangement.base.notes.find(
        (n) => n.pos.measure === tune.measures[1]!.id && n.place.string === string && n.place.fret > 0,
      )?.left
    // The book's G: 2 and 1 in the bass, 3 above.
    expect([left(6), left(5), left(1)]).toEqual([2, 1, 3])
  })

  it('goes on through several chords, two in a measure, and repeats', () => {
    const score = figure(PICKED, 'G | Am F | %')
    expect(score.tune.measures).toHaveLength(5)
    expect(score.tune.chords.map((c) => c.symbol)).toEqual(['C', 'G', 'Am', 'F', 'Am', 'F', 'F'])
    expect(placesIn(score, 3)).toEqual(placesIn(score, 2))
  })

  it('leaves what stood behind it under its chord', () => {
    const plain = scoreOfText(
      '  C\ne|-0---0-|-0---0-|\nB|---1---|---1---|\nG|-------|-------|\nD|-------|-------|\nA|-3-----|-3-----|\nE|-------|-------|\n',
    )
    const score = figure(plain, 'G7')
    expect(score.tune.chords.map((c) => [c.pos.measure === score.tune.measures[2]!.id, c.symbol])).toEqual([
      [false, 'C'],
      [false, 'G7'],
      [true, 'C'],
    ])
    expect(placesIn(score, 2)).toEqual(placesIn(plain, 1))
  })

  it('is refused with the way out', () => {
    expect(refusal('H')).toBe('notChord')
    expect(refusal('  ')).toBe('noChords')
    expect(refusal('G', { tune: PICKED.tune })).toBe('noTab')
  })

  const CHORDS = [
    'C',
    'G',
    'Am',
    'F',
    'Dm',
    'Em',
    'D',
    'A',
    'E',
    'E7',
    'A7',
    'D7',
    'G7',
    'B7',
    'Bm',
    'F#m',
    'Bb',
    'Cm',
  ]
  it('sounds the notes of its chord, bass first, under a hand that can be (chord tones by tonal)', () => {
    fc.assert(
      fc.property(fc.constantFrom(...CHORDS), fc.constantFrom(...CHORDS), (first, then) => {
        const score = figure(figure(PICKED, first), then)
        const { setup, base } = score.arrangement
        // A single open string of the hammer-on lies beside the chord.
        for (const [measure, chord] of [
          [1, then],
          [2, first],
        ] as const) {
          const own = base.notes.filter((n) => n.pos.measure === score.tune.measures[measure]!.id)
          const tones = Chord.get(chord).notes.map((n) => Note.chroma(n))
          const bass = own.filter((n) => n.pos.tick === 0).map((n) => pitchAt(setup, n.place))
          expect(Math.min(...bass) % 12, chord).toBe(tones[0])
          const outside = own.filter((n) => !tones.includes(pitchAt(setup, n.place) % 12))
          expect(outside.length, chord).toBeLessThanOrEqual(1)
          const moments = own.map((n) => `${n.pos.tick} ${n.place.string}`)
          expect(new Set(moments).size).toBe(moments.length)
        }
        for (const grip of base.grips)
          expect(handFault(setup, setup.player.spans, pressedOf(grip.pressed))).toBeUndefined()
        expect(scoreFaults(score, false)).toEqual([])
      }),
      { numRuns: 60 },
    )
  })
})
