import { timelineOf, melodyOf } from '../../document/form/timeline.ts'
import { durationOf } from '../../document/durationOf.ts'
import { EXPRESSIONS, type Expression } from '../../document/expression.ts'
import type { Id } from '../../document/ids.ts'
import { hasSlideRoom, type SlideMark } from '../../document/marks.ts'
import { handNoteId, melodyNoteId } from '../../document/noteIds.ts'
import type { School } from '../../document/school.ts'
import type { Score } from '../../document/score.ts'
import {
  BACKING_VOICE,
  LONGEST_REMARK,
  type Attack,
  type GraceNote,
  type TabNote,
} from '../../document/tab.ts'
import type { TuneDoc } from '../../document/tune.ts'
import type { LeftFinger, PickingSign, Player } from '../../instrument/hand.ts'
import { HARMONICS } from '../../instrument/harmonics.ts'
import { INSTRUMENTS, type InstrumentKind } from '../../instrument/instruments.ts'
import { highestCapo, setupOf } from '../../instrument/setupOf.ts'
import { lastFret, pitchAt, type Place, type Setup } from '../../instrument/setup.ts'
import { message } from '../../messages/message.ts'
import { midiOf, type Step, type Midi } from '../../music/pitch/pitch.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import type { Turns } from '../../turns.ts'
import { givenScore } from '../givenScore.ts'
import { notationsOf, type XmlMeasure, type XmlNote } from './readMeasure.ts'
import { placeIn, type XmlPart } from './readParts.ts'
import type { Report, ScoreTune } from './tuneOfScore.ts'
import { child, children, numberIn, textIn, type XmlElement } from './xmlTree.ts'

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
  const setup = setupFor(part, player)
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

const highestString = ({ measures }: XmlPart): number =>
  Math.max(0, ...measures.flatMap((m) => m.notes.map((n) => placeIn(n.element)?.string ?? 0)))

/** The instrument that a part is played on, by its strings and tuning. */
function setupFor(part: XmlPart, player: Player): Setup | undefined {
  const lines = numberIn(part.details, 'staff-lines')
  const tunings = [...children(part.details, 'staff-tuning')].sort(
    (a, b) => Number(b.attributes['line'] ?? 0) - Number(a.attributes['line'] ?? 0),
  )
  const stated = tunings.flatMap((t): Midi[] => {
    const step = textIn(t, 'tuning-step')
    const octave = numberIn(t, 'tuning-octave')
    if (!step || octave === undefined) return []
    return [midiOf({ step: step as Step, alter: numberIn(t, 'tuning-alter') ?? 0, octave })]
  })
  const highest = highestString(part)
  const strings = stated.length || lines || (highest <= 4 ? 4 : 6)
  const kinds = (Object.keys(INSTRUMENTS) as InstrumentKind[]).filter(
    (k) => INSTRUMENTS[k].instrument.strings === strings,
  )
  if (kinds.length === 0 || highest > strings) return undefined
  const away = (k: InstrumentKind) =>
    stated.reduce((sum, open, i) => sum + Math.abs(open - INSTRUMENTS[k].usual[i]!), 0)
  const kind = kinds.reduce((best, k) => (away(k) < away(best) ? k : best))
  const tuning = stated.length === strings ? stated : INSTRUMENTS[kind].usual
  const fret = Math.max(0, Math.min(Math.round(numberIn(part.details, 'capo') ?? 0), highestCapo(kind)))
  return setupOf(kind, tuning, { fret }, player)
}

/** A note of the tab with what the staff beside it says of it. */
interface Placed {
  readonly note: XmlNote
  readonly measure: number
  readonly place: Place
  /** The note itself, and the same note on the staff. */
  readonly elements: readonly XmlElement[]
  readonly event: Id | undefined
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
          ...this.handsOf(p, placed),
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

  /** What both hands do at a note, and the short notes before it. */
  private handsOf(
    { note, place, elements }: Placed,
    placed: readonly Placed[],
  ): Omit<TabNote, 'id' | 'role' | 'notationVoice' | 'dur' | 'pos' | 'place'> {
    const has = (group: string, name: string) => elements.some((e) => signs(e, group, name).length > 0)
    const other = (name: string) =>
      elements.some((e) => signs(e, 'technical', 'other-technical').some((t) => t.text === name))
    const graces = placed
      .filter((p) => p.note.isGrace && p.note.tick === note.tick && p.place.string === place.string)
      .map((p): GraceNote => ({
        place: p.place,
        left: fingerOf(p.elements, p.place),
        attack: joinTo(p.elements) ?? 'pluck',
        ...(isBracketed(p.elements) ? { optional: true as const } : {}),
      }))
    const bend = elements.flatMap((e) => signs(e, 'technical', 'bend'))[0]
    const bent = Math.min(4, Math.abs(numberIn(bend, 'bend-alter') ?? 0))
    const arrival = joinTo(elements)
    const bentTo = bend && bent > 0 && !child(bend, 'pre-bend') && !child(bend, 'release')
    const isJoined = elements.some((e) => ends(e, 'slur', 'stop'))
    const quickBend = bentTo && !isJoined && graces.length === 0
    const attack: Attack =
      arrival ??
      (bend && child(bend, 'release') && isJoined
        ? 'release'
        : bentTo
          ? 'bend'
          : elements.some((e) => textIn(e, 'notehead') === 'x')
            ? 'muted'
            : has('ornaments', 'tremolo')
              ? 'tremolo'
              : other('brush')
                ? 'brush'
                : other('bottleneck')
                  ? 'bottle'
                  : 'pluck')
    const slides: SlideMark[] = [
      ...(has('articulations', 'scoop') ? (['slideFromBelow'] as const) : []),
      ...(has('articulations', 'plop') ? (['slideFromAbove'] as const) : []),
      ...(has('articulations', 'doit') ? (['slideOffUp'] as const) : []),
      ...(has('articulations', 'falloff') ? (['slideOffDown'] as const) : []),
    ]
    const rolled =
      attack !== 'brush' && elements.some((e) => notationsOf(e).some((n) => child(n, 'arpeggiate')))
    const rings = elements.some((e) =>
      notationsOf(e).some(
        (n) =>
          children(n, 'other-notation').some((o) => o.text === 'let ring') ||
          children(n, 'tied').some((t) => t.attributes['type'] === 'let-ring'),
      ),
    )
    return {
      left: fingerOf(elements, place),
      right: pickingOf(elements),
      attack,
      optional: isBracketed(elements),
      ...(quickBend
        ? { graces: [{ place, left: fingerOf(elements, place), attack: 'pluck' as const }] }
        : graces.length > 0
          ? { graces }
          : {}),
      ...(bent > 0 && attack !== 'release' ? { bend: bent } : {}),
      ...(has('ornaments', 'wavy-line') ? { vibrato: true as const } : {}),
      ...(elements.some((e) => signs(e, 'articulations', 'other-articulation').some((o) => o.text === 'damp'))
        ? { damp: true as const }
        : {}),
      ...(has('articulations', 'accent') || has('articulations', 'strong-accent')
        ? { accent: true as const }
        : {}),
      ...(has('articulations', 'staccato') ? { staccato: true as const } : {}),
      ...(elements.some((e) => notationsOf(e).some((n) => child(n, 'fermata')))
        ? { fermata: true as const }
        : {}),
      ...(elements.some((e) => textIn(child(e, 'play'), 'mute') === 'palm')
        ? { palmMute: true as const }
        : {}),
      ...(rolled ? { rolled: true as const } : {}),
      ...(rings ? { letRing: true as const } : {}),
      ...Object.fromEntries(
        slides
          .filter((m) => hasSlideRoom(m, place, lastFret(this.setup, place.string)))
          .map((m) => [m, true]),
      ),
    }
  }
}

/** Signs of a note in a group of its notations. */
const signs = (note: XmlElement, group: string, name: string): XmlElement[] =>
  notationsOf(note).flatMap((n) => children(n, group).flatMap((g) => children(g, name)))

const isBracketed = (elements: readonly XmlElement[]): boolean =>
  elements.some((e) => child(e, 'notehead')?.attributes['parentheses'] === 'yes')

/** True where something that joins notes begins or ends at one. */
const ends = (note: XmlElement, name: string, type: 'start' | 'stop'): boolean =>
  notationsOf(note).some((n) => children(n, name).some((s) => s.attributes['type'] === type))

/** How the fretting hand sounds a note alone, where it does. */
function joinTo(elements: readonly XmlElement[]): 'hammer' | 'pull' | 'slide' | undefined {
  const stops = (name: string) =>
    elements.some((e) => signs(e, 'technical', name).some((s) => s.attributes['type'] === 'stop'))
  if (stops('hammer-on')) return 'hammer'
  if (stops('pull-off')) return 'pull'
  return elements.some((e) => ends(e, 'slide', 'stop') || ends(e, 'glissando', 'stop')) ? 'slide' : undefined
}

function fingerOf(elements: readonly XmlElement[], { fret }: Place): LeftFinger {
  const said = elements.flatMap((e) => signs(e, 'technical', 'fingering'))[0]?.text.toUpperCase()
  if (fret === 0 || said === undefined) return 0
  if (said === 'T') return 'T'
  const finger = Number(said)
  return finger === 1 || finger === 2 || finger === 3 || finger === 4 ? finger : 0
}

function pickingOf(elements: readonly XmlElement[]): PickingSign {
  const pluck = elements.flatMap((e) => signs(e, 'technical', 'pluck'))[0]?.text.toLowerCase()
  if (pluck === 'p' || pluck === 'i' || pluck === 'm' || pluck === 'a') return pluck
  if (elements.some((e) => signs(e, 'technical', 'down-bow').length > 0)) return 'down'
  return elements.some((e) => signs(e, 'technical', 'up-bow').length > 0) ? 'up' : 'none'
}

function placeOf(string: number, fret: number, elements: readonly XmlElement[], setup: Setup): Place {
  const harmonic = elements.flatMap((e) => signs(e, 'technical', 'harmonic'))[0]
  if (!harmonic) return { string, fret }
  if (child(harmonic, 'artificial'))
    return fret > 0 && fret + 12 <= lastFret(setup, string)
      ? { string, fret, artificial: true }
      : { string, fret }
  const node = HARMONICS.find((h) => h.fret === fret)
  return node ? { string, fret, harmonic: node.parts } : { string, fret }
}

/** What is said over or under a moment: loudness, touch, pace, words. */
function remarksOf(measure: XmlMeasure): Map<Ticks, Expression & { remark?: string }> {
  const at = new Map<Ticks, Expression & { remark?: string }>()
  const say = (tick: Ticks, what: Expression & { remark?: string }) =>
    at.set(tick, { ...at.get(tick), ...what })
  for (const { tick, element } of measure.marks) {
    if (element.name === 'dynamics') {
      const dynamic = EXPRESSIONS.dynamic.find((d) => child(element, d))
      if (dynamic) say(tick, { dynamic })
    }
    if (element.name !== 'words') continue
    const words = element.text.trim()
    if (/^rit(?:\.|ard|enuto)?|^rall/i.test(words)) say(tick, { pace: 'rit' })
    else if (/^a tempo\b/i.test(words)) say(tick, { pace: 'aTempo' })
    else if (/^sul ponticello\b/i.test(words)) say(tick, { pluckAt: 'bridge' })
    else if (/^sul tasto\b/i.test(words)) say(tick, { pluckAt: 'neck' })
    else if (/^ordinario\b/i.test(words)) say(tick, { pluckAt: 'hole' })
    else if ((EXPRESSIONS.touch as readonly string[]).includes(words))
      say(tick, { touch: words as NonNullable<Expression['touch']> })
    else if (words !== '' && words.length <= LONGEST_REMARK && !SWING_WORDS.test(words))
      say(tick, { remark: words })
  }
  return at
}

const SWING_WORDS = /^(?:light swing|shuffle|straight|swing)$/i
