import { describe, expect, it } from 'vitest'
import { guitarSetup } from '../../../src/instrument/index.ts'
import { makePlan, wholeTune } from '../../../src/arrange/index.ts'
import { USUAL_SCHOOL, type Level, type Style } from '../../../src/document/index.ts'
import { pitchClass } from '../../../src/music/index.ts'
import { arrangeTune, CORPUS, tuneOfMusic } from '../../support/tunes.ts'

const NAMES = ['C', 'C#', 'D', 'D#', 'E', 'F', 'F#', 'G', 'G#', 'A', 'A#', 'B']

/** Passing basses as `beat:note`. */
function passing(
  music: string,
  level: Level = 4,
  head?: string,
  style: Style = 'alternating-bass',
): string[] {
  const tune = tuneOfMusic(music, head)
  const planned = makePlan(tune, guitarSetup(), wholeTune(tune, style, level))
  if (!planned.ok) throw new Error('does not fit')
  return planned.plan.bass.flatMap((b) =>
    b.passing === undefined ? [] : [`${b.start / 10_080}:${NAMES[b.passing]}`],
  )
}

describe('a bass on its way', () => {
  it('steps into the next root from the side that it comes from: below going up a fourth, above going up a fifth', () => {
    expect(passing('"G"G4|"C"c4|"G"G4|]')).toEqual(['3:B', '7:A'])
  })

  it('not below level 4, not where the roots are neighbours, not in haste', () => {
    expect(passing('"G"G4|"C"c4|"G"G4|]', 3)).toEqual([])
    expect(passing('"C"G4|"D"A4|"C"G4|]')).toEqual([])
    expect(passing('"G"G4|"C"c4|"G"G4|]', 4, 'M:4/4\nL:1/4\nQ:1/4=240\nK:C')).toEqual([])
  })

  it('is a note of the key', () => {
    expect(passing('"D"d4|"G"B4|"D"A4|]', 4, 'M:4/4\nL:1/4\nQ:1/4=100\nK:D')).toEqual(['3:F#', '7:E'])
  })

  it('has the thirds and sevenths of its chord, not the other ones of the key: E, G sharp, A', () => {
    const slow = 'M:4/4\nL:1/4\nQ:1/4=100\nK:Am'
    expect(passing('"Am"A4|"E"e4|"Am"A4|]', 4, slow)).toContain('7:G#')
    expect(passing('"C"c4|"D7"A4|"G"G4|]', 4, 'M:4/4\nL:1/4\nQ:1/4=100\nK:C')).toContain('7:F#')
    for (const tune of CORPUS) {
      const planned = makePlan(tune, guitarSetup(), wholeTune(tune, 'alternating-bass', 5))
      if (!planned.ok) continue
      for (const b of planned.plan.bass) {
        const chord = planned.plan.harmony[b.segment]?.sounding
        if (b.passing === undefined || !chord || b.change) continue
        const over = (b.passing - pitchClass(chord.root) + 12) % 12
        const other = { 3: 4, 4: 3, 10: 11, 11: 10 }[over]
        const rubs = other !== undefined && chord.intervals.includes(other) && !chord.intervals.includes(over)
        expect([tune.title, b.start, rubs]).toEqual([tune.title, b.start, false])
      }
    }
  })

  it('comes later than the first beat where it stays, unless the chord has it', () => {
    // A minor for two measures, then C: a B under the second would be heard as the chord's own bass.
    expect(passing('"Am"A3|A3|"C"c3|]', 4, 'M:3/4\nL:1/4\nQ:1/4=100\nK:C', 'melody-bass')).toEqual([])
    // Where measures go by like beats it passes there too.
    expect(passing('"Am"A3|A3|"C"c3|]', 4, 'M:3/4\nL:1/4\nQ:1/4=200\nK:C', 'melody-bass')).toEqual(['3:B'])
    // The third of G is G's: it may lead to C from there.
    expect(passing('"G"G3|G3|"C"c3|]', 4, 'M:3/4\nL:1/4\nQ:1/4=100\nK:C', 'melody-bass')).toEqual(['3:B'])
  })

  it('equal measures step alike, or not at all where they lead elsewhere', () => {
    expect(passing('"G"G4|"C"c4|"G"G4|"D"A4|"G"G4|]')).not.toContain('3:B')
    expect(passing('"G"G4|"C"c4|"G"G4|"C"c4|"F"A4|]').slice(0, 1)).toEqual(['3:B'])
  })

  it('is played, with the next root a step away, on the whole corpus', () => {
    let steps = 0
    for (const tune of CORPUS.slice(0, 6)) {
      const { json, plan } = arrangeTune(tune, 'alternating-bass', 4)
      for (const [i, b] of plan.bass.entries()) {
        if (b.passing === undefined) continue
        const played = json.notes.find((n) => n.role === 'bass' && n.start === b.start)
        if (!played) continue
        steps++
        expect(played.midi % 12).toBe(b.passing)
        const next = json.notes.find((n) => n.role === 'bass' && n.start === plan.bass[i + 1]?.start)
        if (next && !plan.inner.some((w) => w.rests && w.start <= next.start && w.start > b.start))
          expect([1, 2, 10, 11]).toContain((((next.midi - played.midi) % 12) + 12) % 12)
      }
    }
    expect(steps).toBeGreaterThan(5)
  })
})

describe('a chord that is turned over for a line that steps', () => {
  const inverted = (music: string, root: 'always' | 'sometimes', head = 'M:4/4\nL:1/4\nQ:1/4=100\nK:G') => {
    const tune = tuneOfMusic(music, head)
    const planned = makePlan(
      tune,
      guitarSetup(),
      wholeTune(tune, 'alternating-bass', 4, { ...USUAL_SCHOOL, root }),
    )
    if (!planned.ok) throw new Error('does not fit')
    return planned.plan.bass.flatMap((b) =>
      b.change && b.passing !== undefined ? [`${b.start / 10_080}:${NAMES[b.passing]}`] : [],
    )
  }

  it('is D over F# from G to Em, and G over B from C to Am', () => {
    expect(inverted('"G"G4|"D"A4|"Em"B4|"C"c4|"G"B4|"Am"A4|"D7"A4|"G"G4|]', 'sometimes')).toEqual([
      '4:F#',
      '16:B',
    ])
  })

  it('not where the school asks for roots, where the root steps itself, or the sheet names the bass', () => {
    expect(inverted('"G"G4|"D"A4|"Em"B4|"G"G4|]', 'always')).toEqual([])
    expect(inverted('"C"G4|"D"A4|"Em"B4|"G"G4|]', 'sometimes')).toEqual([])
    expect(inverted('"G"G4|"D/A"A4|"Em"B4|"G"G4|]', 'sometimes')).toEqual([])
  })
})
