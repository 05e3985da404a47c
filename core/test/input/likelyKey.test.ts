import { Key as Reference, Note } from 'tonal'
import { describe, expect, it } from 'vitest'
import { keyText, readChordSymbol } from '../../src/music/index.ts'
import { DEFAULT_PLAYER } from '../../src/instrument/index.ts'
import { readTextTab, scoreOfTab } from '../../src/input/index.ts'
import { likelyKey } from '../../src/input/likelyKey.ts'

const read = (symbols: readonly string[]) =>
  symbols.map((s) => {
    const reading = readChordSymbol(s)
    if (reading.kind !== 'chord') throw new Error(s)
    return reading.chord
  })

const KEYS = ['C', 'G', 'D', 'A', 'E', 'F', 'Bb', 'Eb', 'Ab']

describe('the likely key', () => {
  it.each(KEYS)('of tonic, fourth, fifth and tonic is the major key of %s (chords by tonal)', (tonic) => {
    const [one, , , four, five] = Reference.majorKey(tonic).triads
    const chords = read([one!, four!, five!, one!].map((c) => c.replace(/M$/, '')))
    expect(keyText(likelyKey({ chords }, undefined, 0))).toBe(`${tonic} major`)
  })

  it.each(KEYS.map((k) => Note.pitchClass(Note.transpose(k, '6M'))))(
    'of the same degrees in minor is the minor key of %s (chords by tonal)',
    (tonic) => {
      const { triads } = Reference.minorKey(tonic).natural
      const chords = read([triads[0]!, triads[3]!, triads[4]!, triads[0]!])
      expect(keyText(likelyKey({ chords }, undefined, 0))).toBe(`${tonic} minor`)
    },
  )

  it('of notes alone is that of their scale', () => {
    expect(keyText(likelyKey({ midis: [55, 57, 59, 60, 62, 64, 66, 67] }, undefined, 0))).toBe('G major')
  })

  it('behind a capo is read as shapes or as sound, whichever the chords lie in', () => {
    const stated = likelyKey({ chords: read(['G', 'C', 'D', 'G']) }, undefined, 0)
    expect(keyText(likelyKey({ chords: read(['A', 'D', 'E', 'A']) }, stated, 2))).toBe('A major')
    expect(keyText(likelyKey({ chords: read(['G', 'C', 'D', 'G']) }, stated, 2))).toBe('G major')
  })
})

/** Two measures of picking over C and Am: two open strings and a passing F sharp say E minor, the chords do not. */
const PICKED = `C               Am
E|-----0-------0-|-----0-------0-|
B|---1-------1---|---1-------1---|
G|-------0-------|-------2-------|
D|---------------|-------------4-|
A|-3-------3-----|-0-------0-----|
E|---------------|---------------|
`

describe('the key of a tab', () => {
  const keyOf = (text: string) =>
    keyText(scoreOfTab(readTextTab(text), 'tune', DEFAULT_PLAYER, 'New tune').tune.measures[0]!.key)

  it('is that of the chords over it', () => {
    expect(keyOf(PICKED)).toBe('C major')
  })

  it('is the one that its head states', () => {
    expect(keyOf(`Gate Latch\nKey: E minor\n\n${PICKED}`)).toBe('E minor')
  })
})
