import { knownIn } from '../../invariant.ts'
import { durationOf } from '../../document/durationOf.ts'
import type { Id } from '../../document/ids.ts'
import { handNoteId, melodyNoteId } from '../../document/noteIds.ts'
import { BACKING_VOICE, type Role, type TabNote } from '../../document/tab.ts'
import type { Measure, TuneDoc, TuneEvent } from '../../document/tune.ts'
import { pitchAt, type Setup } from '../../instrument/setup.ts'
import { spellInKey, type Key } from '../../music/pitch/key.ts'
import type { Pitch } from '../../music/pitch/pitch.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import type { Turns } from '../../turns.ts'

/** A sign as a note that has no id and no role yet. */
export type UnnamedNote = Omit<TabNote, 'id' | 'role' | 'notationVoice' | 'dur'>

/** The tune that the melody of a tab is, and the notes of the tab with their voices. */
export interface TabVoices {
  readonly events: readonly TuneEvent[]
  readonly notes: readonly TabNote[]
}

/**
 * Parts the notes of a tab into a melody and other voices: the highest note of each onset on the upper strings is the melody.
 * @param notes the notes of each measure
 * @param held strings that sound on over the bar line into each measure
 */
export function* voicesOfTab(
  tune: TuneDoc,
  notes: readonly (readonly UnnamedNote[])[],
  held: readonly (readonly number[])[],
  setup: Setup,
  key: Key,
): Turns<TabVoices> {
  const writer = new VoiceWriter(setup, key)
  for (const [i, m] of tune.measures.entries()) {
    if (i % 24 === 23) yield
    writer.measure(m, notes[i]!, held[i]!)
  }
  yield
  const indexOf = new Map(tune.measures.map((m, i) => [m.id, i]))
  const inTime = writer.notes.sort(
    (a, b) =>
      knownIn(indexOf, a.pos.measure) - knownIn(indexOf, b.pos.measure) ||
      a.pos.tick - b.pos.tick ||
      b.place.string - a.place.string,
  )
  return { events: writer.events, notes: inTime }
}

class VoiceWriter {
  readonly events: TuneEvent[] = []
  readonly notes: TabNote[] = []
  /** Where in `notes` the last note of each string stands, and the last one of the melody. */
  private readonly lastOn = new Map<number, number>()
  private lastTop: number | undefined

  constructor(
    private readonly setup: Setup,
    private readonly key: Key,
  ) {}

  measure(measure: Measure, own: readonly UnnamedNote[], held: readonly number[]): void {
    const tops = this.topsOf(own)
    const firstTop = tops[0]?.pos.tick ?? measure.length
    const sings = held.map((string) => this.holdOn(string, measure, own, firstTop)).includes(true)
    if (!sings && firstTop > 0) this.event(measure.id, 0, firstTop)
    tops.forEach((n, k) => this.melody(n, (tops[k + 1]?.pos.tick ?? measure.length) - n.pos.tick))
    for (const n of own) if (!tops.includes(n)) this.other(n, own, tops, measure.length)
  }

  /** The highest note of each onset, where it lies on the upper strings. */
  private topsOf(own: readonly UnnamedNote[]): UnnamedNote[] {
    const { strings } = this.setup.instrument
    const ticks = [...new Set(own.map((n) => n.pos.tick))].sort((a, b) => a - b)
    return ticks.flatMap((tick) => {
      const here = own.filter((n) => n.pos.tick === tick && n.attack !== 'muted')
      const top = [...here].sort((a, b) => this.midiOf(b) - this.midiOf(a))[0]
      return top && (top.place.string <= upperStrings(strings) || strings === 4) ? [top] : []
    })
  }

  private midiOf(n: UnnamedNote): number {
    return pitchAt(this.setup, n.place) + (n.bend ?? 0)
  }

  /** A string sounds on over the bar line: its note lasts longer. True where that is the melody's, which is tied. */
  private holdOn(string: number, measure: Measure, own: readonly UnnamedNote[], firstTop: Ticks): boolean {
    const at = this.lastOn.get(string)
    const restruck = Math.min(
      measure.length,
      ...own.filter((n) => n.place.string === string).map((n) => n.pos.tick),
    )
    if (at === undefined || restruck === 0) return false
    const note = this.notes[at]!
    const lasting = (ticks: Ticks) => (this.notes[at] = { ...note, dur: durationOf(note.dur.ticks + ticks) })
    if (note.role !== 'melody') {
      lasting(restruck)
      return false
    }
    const sung = this.events.at(-1)
    if (at !== this.lastTop || !sung?.pitch || firstTop === 0) {
      // The melody went on meanwhile: the string merely rings.
      this.notes[at] = { ...note, letRing: true }
      return false
    }
    const tieTo = this.event(measure.id, 0, firstTop, sung.pitch)
    this.events[this.events.length - 2] = { ...sung, tieTo }
    lasting(firstTop)
    return true
  }

  /** An event of the tune; a rest without a pitch. */
  private event(measure: Id, tick: Ticks, ticks: Ticks, pitch?: Pitch): Id {
    const id = `e${this.events.length + 1}`
    this.events.push({
      id,
      voice: 0,
      pos: { measure, tick },
      dur: durationOf(ticks),
      chordTones: [],
      graces: [],
      ornaments: [],
      ...(pitch ? { pitch } : {}),
    })
    return id
  }

  private melody(n: UnnamedNote, ticks: Ticks): void {
    const id = this.event(n.pos.measure, n.pos.tick, ticks, spellInKey(this.midiOf(n), this.key))
    this.lastTop = this.add({
      ...n,
      id: melodyNoteId(id),
      sourceId: id,
      role: 'melody',
      notationVoice: 1,
      dur: durationOf(ticks),
    })
  }

  private other(
    n: UnnamedNote,
    own: readonly UnnamedNote[],
    tops: readonly UnnamedNote[],
    length: Ticks,
  ): void {
    const next = own.find((o) => o.place.string === n.place.string && o.pos.tick > n.pos.tick)
    const lowest = !own.some((o) => o.pos.tick === n.pos.tick && o.place.string > n.place.string)
    const role: Role =
      n.place.string > upperStrings(this.setup.instrument.strings) && lowest
        ? 'bass'
        : tops.some((t) => t.pos.tick === n.pos.tick)
          ? 'harmony'
          : 'fill'
    this.add({
      ...n,
      id: handNoteId(n.pos, n.place.string),
      origin: 'hand',
      role,
      notationVoice: BACKING_VOICE - 1,
      dur: durationOf((next?.pos.tick ?? length) - n.pos.tick),
    })
  }

  private add(note: TabNote): number {
    const at = this.notes.push(note) - 1
    const before = this.lastOn.get(note.place.string)
    const isLater =
      before === undefined ||
      this.notes[before]!.pos.measure !== note.pos.measure ||
      this.notes[before]!.pos.tick < note.pos.tick
    if (isLater) this.lastOn.set(note.place.string, at)
    return at
  }
}

/** Strings on which a melody lies. */
const upperStrings = (strings: number): number => Math.ceil(strings / 2)
