import { describe, expect, it } from 'vitest'
import { guitarSetup, kindSpans } from '../../src/instrument/index.ts'
import { handFault, pressedOf } from '../../src/hand/index.ts'
import { arrangementOf, arranging, wholeTune } from '../../src/arrange/index.ts'
import { applyEdit, findOnPage, type Found } from '../../src/edit/index.ts'
import { finish } from '../../src/turns.ts'
import { arrangedScore } from '../support/score.ts'
import { CORPUS, tuneOf } from '../support/tunes.ts'

const opened = (text: string, level: 3 | 5 = 3) => arrangedScore(tuneOf(text), 'melody-bass', level)

const SONG = opened(
  'X:1\nT:Song\nM:4/4\nL:1/4\nK:G\nP:Verse\n"G"GBdB|"Bm"d4|"C"e2c2|\nw:Riv-er run slow down to the sea\nP:Chorus\n"Bm"f2d2|"F"c4|"G"G4|]\n',
)
const places = (found: readonly Found[]) => found.map((f) => f.measure)

describe('finding on the page', () => {
  const { tune, arrangement } = SONG
  const find = (query: string) => findOnPage(tune, arrangement, query)

  it('finds chords, sections and words, however they are asked for', () => {
    expect(places(find('Bm'))).toEqual([1, 3])
    expect(places(find('chord bm'))).toEqual([1, 3])
    expect(places(find('chorus'))).toEqual([3])
    expect(places(find('run'))).toEqual([0])
    expect(find('')).toEqual([])
    expect(find('nowhere')).toEqual([])
  })

  it('finds every place of a fret and a string, and no other', () => {
    for (const fret of [0, 1, 2, 3]) {
      const own = arrangement.base.notes.filter((n) => n.place.fret === fret)
      const moments = new Set(own.map((n) => `${n.pos.measure}.${n.pos.tick}`))
      expect(find(`fret ${fret}`)).toHaveLength(moments.size)
    }
    expect(find('string 6').length).toBeGreaterThan(0)
  })

  it('finds grips by what the hand does, on the whole corpus', () => {
    for (const t of CORPUS.slice(0, 4)) {
      const setup = guitarSetup()
      const { layer, plan } = finish(arranging(t, setup, wholeTune(t, 'chord-melody', 5)))
      const doc = arrangementOf('a', 'A', t, setup, wholeTune(t, 'chord-melody', 5), {
        layer,
        transposed: plan.transposed,
      })
      const barred = layer.grips.filter(
        (g) => new Set(g.pressed.map((p) => p.finger)).size < g.pressed.length,
      )
      expect(findOnPage(t, doc, 'all measures with a barre')).toHaveLength(barred.length)
      const kind = kindSpans(setup.player.spans)
      const wide = layer.grips.filter((g) => handFault(setup, kind, pressedOf(g.pressed))?.kind === 'span')
      expect(findOnPage(t, doc, 'stretch')).toHaveLength(wide.length)
    }
  })

  it('finds measures by where they come from', () => {
    const edited = applyEdit(SONG, { do: 'provenance', from: 1, to: 2, provenance: 'heard' })
    if (!edited.ok) throw new Error(edited.refusal.reason)
    expect(places(findOnPage(edited.score.tune, edited.score.arrangement, 'heard'))).toEqual([1, 2])
    expect(find('guessed')).toEqual([])
  })

  it('finds what was written by hand, and signs in either number', () => {
    const note = arrangement.base.notes.find((n) => n.role === 'bass')!
    const edited = applyEdit(SONG, { do: 'mark', note: note.id, mark: 'optional', on: true })
    if (!edited.ok) throw new Error(edited.refusal.reason)
    const { tune: t, arrangement: a } = edited.score
    expect(findOnPage(t, a, 'typed')).toHaveLength(1)
    expect(findOnPage(t, a, 'optional')).toHaveLength(1)
    expect(findOnPage(t, a, 'all slides')).toEqual(findOnPage(t, a, 'slide'))
  })
})
