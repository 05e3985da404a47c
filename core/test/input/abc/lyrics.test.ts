import { describe, expect, it } from 'vitest'
import { readTuneDoc } from '../../../src/schema/index.ts'
import { tuneOfMusic } from '../../support/tunes.ts'

/** `w:` lines of the ABC standard 2.1, section 5.1: hyphens join syllables, `*` skips a note, `_` holds one. */
describe('words under the notes', () => {
  const tune = tuneOfMusic('C D E F|G4|]\nw: wa-ter climbs * stair', 'M:4/4\nL:1/4\nK:C')
  const words = (t = tune) => t.events.map((e) => e.lyric ?? '')

  it('stand at their notes, with a hyphen where the word goes on', () => {
    expect(words()).toEqual(['wa-', 'ter', 'climbs', '', 'stair'])
  })

  it('of further verses stand beside the first', () => {
    const two = tuneOfMusic(
      'C D E F|G4|]\nw: one two three four five\nw: six se-ven eight nine',
      'M:4/4\nL:1/4\nK:C',
    )
    expect(words(two)).toEqual(['one', 'two', 'three', 'four', 'five'])
    expect(two.events.map((e) => e.moreLyrics?.[0] ?? '')).toEqual(['six', 'se-', 'ven', 'eight', 'nine'])
  })

  it('are kept by what storage accepts', () => {
    expect(readTuneDoc(JSON.parse(JSON.stringify(tune)))).toEqual(tune)
  })
})
