import type { Id } from '../document/ids.ts'
import type { Score } from '../document/score.ts'
import { timelineOf } from '../document/form/timeline.ts'
import type { TabNote } from '../document/tab.ts'
import type { TuneDoc, TuneEvent } from '../document/tune.ts'
import { pitchAt } from '../instrument/setup.ts'
import { spellInKey, transposeKey } from '../music/pitch/key.ts'
import { midiOf } from '../music/pitch/pitch.ts'
import { chordText, transposeChord } from '../music/harmony/chordSymbol.ts'
import { stringsLine } from '../output/abc/stringsLine.ts'
import { writingAbc } from '../output/abc/writeAbc.ts'
import { plainValues } from '../output/notation/plainValues.ts'
import { tabVoice, type VoiceSign } from '../output/musicxml/voices.ts'
import type { Turns } from '../turns.ts'

/**
 * A tab as ABC: the tune and the voices under it as they sound, each note with its string, fret and finger as an annotation (`"^5.3:3"`), which
 * other readers print over the note. Instrument, tuning and capo stand in a line of their own, which others pass over. What the picking hand
 * does, and techniques, are not carried.
 */
export function* writingTabAsAbc({ tune, arrangement }: Required<Score>): Turns<string> {
  const { setup, transposed, base } = arrangement
  const timeline = timelineOf(tune.measures)
  // A harmonic is written as the fret that it is touched at.
  const plain = base.notes.map((n): TabNote => {
    const { bend: _, ...note } = n
    return { ...note, place: { string: n.place.string, fret: n.place.fret } }
  })
  const common = { tune, timeline, setup, transposed }
  const voices = [
    tabVoice({ ...common, notes: plain.filter((n) => n.role === 'melody') }, true),
    tabVoice({ ...common, notes: plain.filter((n) => n.role !== 'melody') }, false),
  ].filter((v, i) => i === 0 || v.some((m) => m.length > 0))
  yield
  const marks = new Map<Id, string>()
  const tuplets = new Map<string, { id: Id; actual: number; normal: number }>()
  const written = voices.flatMap((voice, v) => {
    const all: TuneEvent[] = []
    voice.forEach((signs, m) => {
      const measure = tune.measures[m]!
      const key = transposeKey(measure.key, transposed)
      let at = 0
      const event = (
        sign: Pick<VoiceSign, 'tick' | 'ticks' | 'base' | 'dots' | 'tuplet'>,
        notes: readonly TabNote[],
      ) => {
        const id = `e${v + 1}.${all.length + 1}`
        const pitches = notes
          .map((n) => spellInKey(pitchAt(setup, n.place), key))
          .sort((a, b) => midiOf(b) - midiOf(a))
        const { tick, ticks, base: value, dots, tuplet } = sign
        const name = tuplet && `${v} ${measure.id} ${tuplet.from}`
        if (tuplet && name !== undefined && !tuplets.has(name))
          tuplets.set(name, { id: `t${tuplets.size + 1}`, actual: tuplet.actual, normal: tuplet.normal })
        const tupletId = name === undefined ? undefined : tuplets.get(name)?.id
        all.push({
          id,
          voice: v,
          pos: { measure: measure.id, tick },
          dur: { ticks, base: value, dots, ...(tupletId === undefined ? {} : { tupletId }) },
          ...(pitches[0] ? { pitch: pitches[0] } : {}),
          chordTones: pitches.slice(1),
          graces: [],
          ornaments: [],
        })
        return id
      }
      const rest = (from: number, to: number) => {
        let tick = from
        for (const { ticks, base: value, dots } of to > from ? plainValues(to - from) : []) {
          event({ tick, ticks, base: value, dots }, [])
          tick += ticks
        }
      }
      for (const sign of signs) {
        rest(at, sign.tick)
        const notes = sign.sounded.flatMap(({ note }) => (note ? [note] : []))
        const before = all.at(-1)
        const id = event(sign, notes)
        if (sign.tiedFrom && before?.pitch) all[all.length - 2] = { ...before, tieTo: id }
        else if (notes.length > 0) marks.set(id, `"^${notes.map(placeText).join('+')}"`)
        const { lyric, moreLyrics } = sign.event ?? {}
        if (lyric !== undefined)
          all[all.length - 1] = { ...all.at(-1)!, lyric, ...(moreLyrics ? { moreLyrics } : {}) }
        at = sign.tick + sign.ticks
      }
      rest(at, measure.length)
    })
    return all
  })
  yield
  const sounding: TuneDoc = {
    ...tune,
    measures: tune.measures.map((m) => ({ ...m, key: transposeKey(m.key, transposed) })),
    events: written,
    tuplets: [...tuplets.values()],
    chords: tune.chords.map((c) => {
      if (!c.parsed) return c
      const parsed = transposeChord(
        c.parsed,
        transposed,
        transposeKey(tune.measures[0]!.key, transposed).fifths < 0,
      )
      return { ...c, parsed, symbol: chordText(parsed) }
    }),
  }
  return yield* writingAbc(sounding, '', { marks, head: [stringsLine(setup)] })
}

const placeText = ({ place: { string, fret }, left }: TabNote): string =>
  `${string}.${fret}${left === 0 || fret === 0 ? '' : `:${left}`}`
