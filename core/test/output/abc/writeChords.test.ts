import { describe, expect, it } from 'vitest'
import { chordText } from '../../../src/music/index.ts'
import { keepSuggestions } from '../../../src/document/index.ts'
import { harmonise } from '../../../src/arrange/index.ts'
import { writeChords } from '../../../src/output/index.ts'
import { readAbc } from '../../../src/input/abc/readAbc.ts'
import { CORPUS, CORPUS_TEXT, tuneOf } from '../../support/tunes.ts'

const HEAD = 'X:1\nT:Test\nM:4/4\nL:1/4\nK:G\n'

describe('writing chords into ABC', () => {
  it('a harmony that starts with notes reads back as it was, in every tune of the corpus', () => {
    const texts = CORPUS_TEXT.split(/\n(?=X:)/).filter((t) => t.includes('X:'))
    let chords = 0
    CORPUS.forEach((tune, i) => {
      const text = tune.abc!.text
      expect(texts[i]).toContain(`T:${tune.title}`)
      for (const candidate of harmonise(tune)) {
        const { text: written, left } = writeChords(
          text,
          { ...tune, chords: candidate.chords },
          tune.abc!.spans,
        )
        const again = readAbc(written, () => 't')[0]!.tune!
        const placed = candidate.chords.filter((c) => !left.includes(c))
        const key = (c: (typeof placed)[number]) => `${c.pos.measure}@${c.pos.tick} ${chordText(c.parsed!)}`
        expect(again.chords.map(key)).toEqual(placed.map(key))
        expect(again.events.map((e) => [e.pos, e.pitch])).toEqual(tune.events.map((e) => [e.pos, e.pitch]))
        chords += placed.length
      }
    })
    expect(chords).toBeGreaterThan(200)
  })

  it('takes out the symbols that stood there and leaves annotations', () => {
    const tune = tuneOf(`${HEAD}"Em"G"^slowly"A"C"B2|"D"d4|]\n`)
    const chords = [{ ...tune.chords[0]!, symbol: 'G' }]
    const { text, left } = writeChords(tune.abc!.text, { ...tune, chords }, tune.abc!.spans)
    expect(text).toContain('"G"G"^slowly"AB2|d4|]')
    expect(left).toEqual([])
  })

  it('says which chords fall between notes', () => {
    const tune = tuneOf(`${HEAD}G4|]\n`)
    const between = { ...tune.chords[0]!, pos: { measure: tune.measures[0]!.id, tick: 20_160 } }
    const { left } = writeChords(tune.abc!.text, { ...tune, chords: [between] }, tune.abc!.spans)
    expect(left).toEqual([between])
  })

  it('a chosen suggestion outlives an edit of the text, as far as its measures do; a given chord does not', () => {
    const tune = tuneOf(`${HEAD}GBdB|c2A2|G4|]\n`)
    const moving = harmonise(tune)[2]!.chords
    const shorter = { ...tune, measures: tune.measures.slice(0, 2) }
    const kept = keepSuggestions({ chords: moving }, shorter)
    expect(kept).toEqual(moving.filter((c) => c.pos.measure !== tune.measures[2]!.id))
    const written = tuneOf(`${HEAD}"Em"GBdB|c2A2|G4|]\n`)
    expect(keepSuggestions({ chords: moving }, written)).toBe(written.chords)
  })
})
