import { Chord, Note } from 'tonal'
import { describe, expect, it } from 'vitest'
import { PASSAGES } from '../../arrange/manual/passages.ts'
import { scoreOfPassage } from '../../support/passage.ts'
import { scoreOfText, textOf } from '../../support/tabText.ts'

const spelled = (name: string) =>
  scoreOfPassage(PASSAGES.find((p) => p.name === name)!).tune.chords.map((c) => [c.symbol, c.origin])

describe('chords that nobody wrote over a tab', () => {
  it('are suggested where the notes spell them, and not over lines or two voices', () => {
    expect(spelled('C, not named')).toEqual([['C', 'suggested']])
    expect(spelled('Am, not named')).toEqual([['Am', 'suggested']])
    expect(spelled('pinches over C')).toEqual([['C', 'suggested']])
    for (const name of ['a lick at fret 7', 'C major, first position', 'thirds on strings 2 and 3'])
      expect(spelled(name), name).toEqual([])
    // A chord goes on until the next one.
    expect(spelled('E, not named')).toHaveLength(1)
  })

  it('are the chords that a general library finds in the same notes', () => {
    // Against tonal 6 (chord detection), a general-purpose library.
    let compared = 0
    for (const passage of PASSAGES.filter((p) => /not named|pinches/.test(p.name))) {
      const { tune, arrangement } = scoreOfPassage(passage)
      const tuning = [...arrangement.setup.tuning]
      const midis = passage.places
        .split(/[ +]/)
        .map((place) => place.split('.').map(Number))
        .map(([string, fret]) => tuning[string! - 1]! + fret!)
      const names = [
        ...new Set([...midis].sort((a, b) => a - b).map((m) => Note.pitchClass(Note.fromMidi(m)))),
      ]
      const detected = Chord.detect(names).map((name) => name.replace(/M$/, ''))
      expect(detected, passage.name).toContain(tune.chords[0]!.symbol)
      compared++
    }
    expect(compared).toBeGreaterThanOrEqual(4)
  })

  it('are marked as suggestions on paper too, and are still that when it is read back', () => {
    const named = (name: string) => textOf(scoreOfPassage(PASSAGES.find((p) => p.name === name)!))
    const text = named('C, not named')
    expect(text).toContain('Chord names are suggested by the notes')
    expect(scoreOfText(text).tune.chords).toMatchObject([{ symbol: 'C', origin: 'suggested' }])
    const given = named('C, thumb first')
    expect(given).not.toContain('suggested')
    expect(scoreOfText(given).tune.chords).toMatchObject([{ symbol: 'C', origin: 'given' }])
  })

  it('give way to what is given', () => {
    expect(spelled('C to Am: two fingers stay').every(([, origin]) => origin === 'given')).toBe(true)
  })
})
