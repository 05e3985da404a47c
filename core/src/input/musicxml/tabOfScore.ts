import { timelineOf, melodyOf } from '../../document/form/timeline.ts'
import { durationOf } from '../../document/durationOf.ts'
import type { Id } from '../../document/ids.ts'
import { handNoteId, melodyNoteId } from '../../document/noteIds.ts'
import type { School } from '../../document/school.ts'
import type { Score } from '../../document/score.ts'
import { BACKING_VOICE, type TabNote } from '../../document/tab.ts'
import type { TuneDoc } from '../../document/tune.ts'
import type { Player } from '../../instrument/hand.ts'
import { lastFret, pitchAt, type Setup } from '../../instrument/setup.ts'
import { message } from '../../messages/message.ts'
import { midiOf, type Midi } from '../../music/pitch/pitch.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import type { Turns } from '../../turns.ts'
import { givenScore } from '../givenScore.ts'
import { handsOf, placeOf, type Placed } from './handsOf.ts'
import type { XmlMeasure, XmlNote } from './readMeasure.ts'
import { placeIn, type XmlPart } from './readParts.ts'
import { remarksOf } from './remarksOf.ts'
import { highestString, setupOfPart } from './setupOfPart.ts'
import type { Report, ScoreTune } from './tuneOfScore.ts'

/** True for a part that says where its notes lie. */
export const hasTab = ({ measures }: XmlPart): boolean =>
  measures.some((m) => m.notes.some((n) => placeIn(n.element) !== undefined))

/** How a tab of a score is read. */
export interface TabChoices {
  readonly player: Player
  readonly school?: School | undefined
  /** True where the part with the tab plays the melody too. */
  readonly isSolo: boolean
  readonly report: Report
}

/** The tab of a part over a tune of the same score; undefined, and said, where no instrument here has its strings. */
export function* tabOfScore(
  part: XmlPart,
  { tune, eventOf }: ScoreTune,
  { player, school, isSolo, report }: TabChoices,
): Turns<Required<Score> | undefined> {
  const setup = setupOfPart(part, player)
  if (!setup) {
    const strings = highestString(part)
    report('warning', 0, message('reading.otherStrings', { strings }))
    return undefined
  }
  yield
  const reader = new TabReading(part, tune, eventOf, setup, isSolo, report)
  const notes = reader.notes()
  yield
  if (notes.length === 0) return undefined
  return yield* givenScore({ tune, setup, notes, transposed: 0, school, isBacking: !isSolo })
}

class TabReading {
  private readonly ids: readonly Id[]

  constructor(
    private readonly part: XmlPart,
    private readonly tune: TuneDoc,
    private readonly eventOf: ReadonlyMap<XmlNote, Id>,
    private readonly setup: Setup,
    private readonly isSolo: boolean,
    private readonly report: Report,
  ) {
    this.ids = tune.measures.map((m) => m.id)
  }

  notes(): TabNote[] {
    const lasting = new Map(
      melodyOf(this.tune, timelineOf(this.tune.measures)).map((n) => [n.sourceId, n.duration]),
    )
    const shift = this.fretShift()
    const taken = new Set<string>()
    return this.ids.flatMap((id, i) => {
      const read = this.part.measures[i]
      if (!read) return []
      const placed = this.placedIn(read, i, shift)
      const remarks = remarksOf(read)
      return placed.flatMap((p): TabNote[] => {
        const { note, place } = p
        const at = `${id} ${note.tick} ${place.string}`
        if (note.isGrace || note.tiedFrom) return []
        if (taken.has(at)) {
          const values = { measure: i + 1, string: place.string }
          this.report('warning', note.element.line, message('reading.stringTwice', values))
          return []
        }
        taken.add(at)
        const event = this.tune.events.find((e) => e.id === p.event)
        const isTop = event?.voice === 0 && event.pitch && midiOf(event.pitch) === this.midiOf(p)
        const common = {
          ...handsOf(p, placed, this.setup),
          pos: { measure: id, tick: note.tick },
          place,
          ...remarks.get(note.tick),
        }
        remarks.delete(note.tick)
        if (isTop)
          return [
            {
              ...common,
              id: melodyNoteId(event.id),
              sourceId: event.id,
              role: 'melody',
              notationVoice: 1,
              dur: durationOf(lasting.get(event.id) ?? note.ticks),
            },
          ]
        return [
          {
            ...common,
            id: handNoteId(common.pos, place.string),
            origin: 'hand',
            role: this.isBass(p, placed) ? 'bass' : 'harmony',
            notationVoice: this.isSolo ? BACKING_VOICE - 1 : BACKING_VOICE,
            dur: durationOf(this.lengthOf(p, i)),
          },
        ]
      })
    })
  }

  /** What is written of a note together with all that is tied to it on its string. */
  private lengthOf({ note, place }: Placed, measure: number): Ticks {
    let [ticks, goesOn] = [note.ticks, note.tiedTo]
    for (let m = measure; goesOn && m < this.ids.length; m++) {
      const next = this.part.measures[m]!.notes.find(
        (n) =>
          n.tiedFrom &&
          placeIn(n.element)?.string === place.string &&
          (m > measure || n.tick >= note.tick + note.ticks),
      )
      if (!next) continue
      ticks += next.ticks
      goesOn = next.tiedTo
    }
    return ticks
  }

  private isBass({ note, place }: Placed, placed: readonly Placed[]): boolean {
    const { strings } = this.setup.instrument
    return (
      place.string > Math.ceil(strings / 2) &&
      !placed.some((o) => o.note.tick === note.tick && o.place.string > place.string)
    )
  }

  private midiOf({ note, place }: Placed): Midi {
    return note.pitch ? midiOf(note.pitch) : pitchAt(this.setup, place)
  }

  /** Frets that a file counts from the nut although there is a capo. */
  private fretShift(): number {
    const capo = this.setup.capo[0]!
    if (capo === 0) return 0
    let [fromCapo, fromNut] = [0, 0]
    for (const m of this.part.measures)
      for (const n of m.notes) {
        const place = placeIn(n.element)
        if (!place || !n.pitch || place.string > this.setup.tuning.length) continue
        const open = this.setup.tuning[place.string - 1]!
        const sounds = midiOf(n.pitch) + m.transpose
        if (sounds === open + place.fret) fromNut++
        if (sounds === open + capo + place.fret) fromCapo++
      }
    return fromNut > fromCapo ? -capo : 0
  }

  private placedIn(read: XmlMeasure, measure: number, shift: number): Placed[] {
    return read.notes.flatMap((note): Placed[] => {
      const said = placeIn(note.element)
      if (!said) return []
      const { string } = said
      const fret = said.fret + shift
      if (string > this.setup.instrument.strings || fret < 0 || fret > lastFret(this.setup, string)) {
        this.report(
          'warning',
          note.element.line,
          message('reading.placeOffNeck', { measure: measure + 1, string, fret: said.fret }),
        )
        return []
      }
      const beside = read.notes.filter(
        (o) =>
          o !== note &&
          o.tick === note.tick &&
          o.isGrace === note.isGrace &&
          o.staff !== note.staff &&
          o.pitch !== undefined &&
          (note.pitch === undefined || midiOf(o.pitch) === midiOf(note.pitch)),
      )
      const elements = [note.element, ...beside.slice(0, 1).map((o) => o.element)]
      const event = this.eventOf.get(note) ?? beside.flatMap((o) => this.eventOf.get(o) ?? [])[0]
      return [{ note, measure, place: placeOf(string, fret, elements, this.setup), elements, event }]
    })
  }
}
