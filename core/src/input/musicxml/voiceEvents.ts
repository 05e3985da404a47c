import { durationOf } from '../../document/durationOf.ts'
import { cutTo, LIMITS } from '../../document/limits.ts'
import type { Id } from '../../document/ids.ts'
import type { Duration, Tuplet, TuneEvent } from '../../document/tune.ts'
import { midiOf, type Pitch } from '../../music/pitch/pitch.ts'
import { spellInKey, transposeKey } from '../../music/pitch/key.ts'
import { WHOLE, type Ticks } from '../../music/time/ticks.ts'
import { ORNAMENT_ELEMENTS } from '../../output/musicxml/noteXml.ts'
import { plainValues } from '../../output/notation/plainValues.ts'
import { notationsOf, type XmlMeasure, type XmlNote } from './readMeasure.ts'
import { children, textIn } from './xmlTree.ts'
import type { ScoreVoice } from './voices.ts'

/** The shortest value on which a tuplet may end. */
const GRID: Ticks = WHOLE / 128

/** A voice as events of a tune, and which of its notes each event is. */
export interface VoiceEvents {
  readonly events: readonly TuneEvent[]
  readonly tuplets: readonly Tuplet[]
  readonly eventOf: ReadonlyMap<XmlNote, Id>
}

/**
 * Writes a voice as events of a tune: gaps are rests, what sounds together is one event with its highest note on top.
 * @param measures ids and lengths of the tune's measures
 */
export function voiceEvents(
  { part, measures: own }: ScoreVoice,
  voice: number,
  measures: readonly { readonly id: Id; readonly length: Ticks }[],
  newId: (prefix: string) => Id,
): VoiceEvents {
  const writer = new EventWriter(voice, newId)
  measures.forEach((measure, i) => {
    const read = part.measures[i]
    if (read) writer.measure(measure, read, own[i] ?? [])
    else writer.rest(measure.id, 0, measure.length)
  })
  return { events: writer.tied(), tuplets: writer.tuplets, eventOf: writer.eventOf }
}

class EventWriter {
  readonly tuplets: Tuplet[] = []
  readonly eventOf = new Map<XmlNote, Id>()
  private readonly events: TuneEvent[] = []
  private readonly tiedTo = new Set<Id>()
  private slurs = 0
  private open: { readonly id: Id; readonly ratio: string; filled: Ticks } | undefined

  constructor(
    private readonly voice: number,
    private readonly newId: (prefix: string) => Id,
  ) {}

  measure(
    measure: { readonly id: Id; readonly length: Ticks },
    read: XmlMeasure,
    notes: readonly XmlNote[],
  ): void {
    let at = 0
    let graces: Pitch[] = []
    this.open = undefined
    const key = transposeKey(read.key, read.transpose)
    const sounding = (pitch: Pitch): Pitch =>
      read.transpose % 12 === 0
        ? { ...pitch, octave: pitch.octave + read.transpose / 12 }
        : spellInKey(midiOf(pitch) + read.transpose, key)
    for (const [i, note] of notes.entries()) {
      if (note.isChord) continue
      if (note.isGrace) {
        if (note.pitch) graces.push(sounding(note.pitch))
        continue
      }
      if (note.tick >= measure.length || note.ticks === 0) continue
      this.rest(measure.id, at, note.tick)
      const struck = [note, ...notesWith(notes, i)].filter((n) => n.pitch)
      const pitches = struck
        .flatMap((n) => (n.pitch ? [sounding(n.pitch)] : []))
        .sort((a, b) => midiOf(b) - midiOf(a))
      const ticks = Math.min(note.ticks, measure.length - note.tick)
      const id = this.newId('e')
      const slurred = pitches.length > 0 && this.slurs > 0
      this.slurs = Math.max(0, this.slurs + slursOf(struck))
      this.events.push({
        id,
        voice: this.voice,
        pos: { measure: measure.id, tick: note.tick },
        dur: this.writtenAs(note, ticks),
        ...(pitches[0] ? { pitch: pitches[0] } : {}),
        chordTones: pitches.slice(1),
        graces: pitches[0] ? graces : [],
        ornaments: ornamentsOf(struck),
        ...(slurred ? { slurred: true as const } : {}),
        ...lyricsOf(struck),
      })
      graces = []
      for (const n of [note, ...notesWith(notes, i)]) this.eventOf.set(n, id)
      if (struck.some((n) => n.tiedTo)) this.tiedTo.add(id)
      at = note.tick + ticks
    }
    this.rest(measure.id, at, measure.length)
  }

  rest(measure: Id, from: Ticks, to: Ticks): void {
    let at = from
    if (to > from) this.open = undefined
    for (const { ticks, base, dots } of to > from ? plainValues(to - from) : []) {
      this.events.push({
        id: this.newId('e'),
        voice: this.voice,
        pos: { measure, tick: at },
        dur: { ticks, base, dots },
        chordTones: [],
        graces: [],
        ornaments: [],
      })
      at += ticks
    }
  }

  /** Ties lead to the next note of the voice where it has the same pitch and follows at once. */
  tied(): TuneEvent[] {
    return this.events.map((e, i) => {
      const next = this.events[i + 1]
      const joins = this.tiedTo.has(e.id) && e.pitch && next?.pitch && midiOf(e.pitch) === midiOf(next.pitch)
      return joins ? { ...e, tieTo: next.id } : e
    })
  }

  private writtenAs({ base, dots, tuplet }: XmlNote, ticks: Ticks): Duration {
    const plain = base === undefined ? undefined : (WHOLE / base) * (2 - 2 ** -dots)
    if (!tuplet) {
      this.open = undefined
      return plain === ticks && base !== undefined ? { ticks, base, dots } : durationOf(ticks)
    }
    const { actual, normal, begins } = tuplet
    if (base === undefined || plain === undefined || Math.abs((plain * normal) / actual - ticks) > 1)
      return durationOf(ticks)
    const ratio = `${actual}:${normal}`
    if (begins || this.open?.ratio !== ratio || (this.open.filled > 0 && this.open.filled % GRID === 0)) {
      this.open = { id: this.newId('t'), ratio, filled: 0 }
      this.tuplets.push({ id: this.open.id, actual, normal })
    }
    this.open.filled += ticks
    return { ticks, base, dots, tupletId: this.open.id }
  }
}

/** The notes that are struck with one. */
function notesWith(notes: readonly XmlNote[], at: number): XmlNote[] {
  const together: XmlNote[] = []
  for (let i = at + 1; notes[i]?.isChord; i++) together.push(notes[i]!)
  return together
}

/** How many slurs begin on notes, less those that end. */
const slursOf = (notes: readonly XmlNote[]): number =>
  notes
    .flatMap((n) => notationsOf(n.element).flatMap((x) => children(x, 'slur')))
    .reduce(
      (sum, s) => sum + (s.attributes['type'] === 'start' ? 1 : s.attributes['type'] === 'stop' ? -1 : 0),
      0,
    )

/** Names of ornaments in ABC by those of MusicXML. */
const ORNAMENTS: Readonly<Record<string, string>> = {
  ...Object.fromEntries(Object.entries(ORNAMENT_ELEMENTS).map(([name, element]) => [element, name])),
  'inverted-turn': 'turn',
}

const ornamentsOf = (notes: readonly XmlNote[]): string[] => [
  ...new Set(
    notes.flatMap((n) =>
      notationsOf(n.element).flatMap((x) => [
        ...children(x, 'ornaments').flatMap((o) =>
          o.children.flatMap((c) =>
            c.name === 'other-ornament' && c.text !== ''
              ? [cutTo(c.text, LIMITS.ornament).text]
              : (ORNAMENTS[c.name] ?? []),
          ),
        ),
        ...(children(x, 'fermata').length > 0 ? ['fermata'] : []),
      ]),
    ),
  ),
]

/** Syllables by verse: a hyphen at the end where the word goes on. */
function lyricsOf(notes: readonly XmlNote[]): Pick<TuneEvent, 'lyric' | 'moreLyrics'> {
  const verses: string[] = []
  for (const note of notes)
    for (const lyric of children(note.element, 'lyric')) {
      const number = Number(lyric.attributes['number'] ?? 1)
      const verse = Number.isInteger(number) && number >= 1 ? number : verses.length + 1
      if (verse > LIMITS.verses) continue
      const sung = children(lyric, 'text')
        .map((t) => t.text)
        .join('')
      const syllabic = textIn(lyric, 'syllabic')
      const goesOn = syllabic === 'begin' || syllabic === 'middle'
      verses[verse - 1] ??= cutTo(
        goesOn && sung !== '' ? `${sung.replace(/-$/, '')}-` : sung,
        LIMITS.lyric,
      ).text
    }
  if (verses.every((v) => (v ?? '') === '')) return {}
  const [lyric = '', ...moreLyrics] = Array.from(verses, (v) => v ?? '')
  return { lyric, ...(moreLyrics.some((m) => m !== '') ? { moreLyrics } : {}) }
}
